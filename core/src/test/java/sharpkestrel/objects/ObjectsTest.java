package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiPredicate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.check.Compare;
import sharpkestrel.check.Scores;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

class ObjectsTest {

  private static final int SIZE = 240;

  @TempDir
  Path folder;

  private static ObjectSet single(BiPredicate<Double, Double> inside) {
    Grid grid = new Grid(SIZE, SIZE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    ScratchLabels labels = new ScratchLabels(grid);
    int[] values = new int[SIZE * SIZE];
    int count = 0;
    for (int i = 0; i < values.length; i++) {
      values[i] = inside.test(i % SIZE + 0.5 - SIZE / 2, i / SIZE + 0.5 - SIZE / 2) ? 1 : 2;
      count += values[i] == 1 ? 1 : 0;
    }
    labels.write(grid.window(), values);
    labels.setMaxLabel(2);
    Table table = new Table(2, List.of(new Table.Column("area", "Area", "m²", new double[] {
      count / 4.0, (values.length - count) / 4.0
    })));
    return new ObjectSet(
        labels, new int[] {-1, 0, 1}, new int[] {7, 8}, table, new GroundSize(0.5, 0.5));
  }

  @Test
  void withinAWindowAreTheObjectsThatReachIntoItWithTheirNumbersAndValues() {
    ObjectSet drawn = Drawn.of("aabbb..", "aacccd.", "eeccfd.", "eeggfh.");

    ObjectSet some = drawn.within(new Window(2, 1, 3, 2));

    assertThat(Drawn.letters(some)).containsExactly("aaa", "aab");
    assertThat(some.ids()).containsExactly(102, 104 + 1);
    // of the whole objects
    assertThat(some.table().values("area")).containsExactly(5, 2);
    assertThat(some.labels().grid()).isEqualTo(drawn.labels().grid().part(new Window(2, 1, 3, 2)));
  }

  private static MemoryRaster scene() {
    float[][] planes = new float[2][SIZE * SIZE];
    for (int i = 0; i < planes[0].length; i++) {
      planes[0][i] = 100 + i % SIZE;
      planes[1][i] = 300;
    }
    return new MemoryRaster(
        new Grid(SIZE, SIZE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)),
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
  }

  @ParameterizedTest
  @CsvSource({"0", "15", "30", "45", "80"})
  void aTurnedRectangleMeasuresAsOne(double degrees) {
    double a = Math.toRadians(degrees);
    ObjectSet set = single((x, y) -> {
      double u = x * Math.cos(a) + y * Math.sin(a);
      double v = -x * Math.sin(a) + y * Math.cos(a);
      return Math.abs(u) < 60 && Math.abs(v) < 20;
    });

    Table t = Measures.of(set, scene(), 32).run(Job.QUIET).table();

    assertThat(t.values("area")[0]).isCloseTo(60 * 20, within(20.0));
    assertThat(t.values("length")[0]).isCloseTo(60, within(1.2));
    assertThat(t.values("width")[0]).isCloseTo(20, within(1.2));
    assertThat(t.values("elongation")[0]).isCloseTo(3, within(0.15));
    assertThat(t.values("rectangularity")[0]).isGreaterThan(0.92);
    assertThat(t.values("perimeter")[0]).isCloseTo(160, within(160 * 0.06));
    double turned = t.values("orientation")[0] - (90 + degrees);
    assertThat(Math.abs(Math.IEEEremainder(turned, 180))).isLessThan(1.5);
  }

  @ParameterizedTest
  @CsvSource({"0", "20", "45", "70"})
  void aTurnedEllipseHasItsEccentricityAndFillsItsHull(double degrees) {
    double a = Math.toRadians(degrees);
    ObjectSet set = single((x, y) -> {
      double u = x * Math.cos(a) + y * Math.sin(a);
      double v = -x * Math.sin(a) + y * Math.cos(a);
      return u * u / (80 * 80) + v * v / (30 * 30) < 1;
    });

    Table t = Measures.of(set, scene(), 32).run(Job.QUIET).table();

    double exact = Math.sqrt(1 - 30.0 * 30 / (80 * 80));
    assertThat(t.values("eccentricity")[0]).isCloseTo(exact, within(0.002));
    // pixels are squares, whose outer corners lie up to half a pixel beyond 183 m of border
    double area = Math.PI * 40 * 15;
    assertThat(t.values("hull_area")[0]).isBetween(area, area + 183 * 0.25);
    assertThat(t.values("solidity")[0]).isBetween(0.97, 1.0);
    assertThat(t.values("holes")[0]).isZero();
  }

  @Test
  void aRectangleHasTheEccentricityOfItsSides() {
    ObjectSet set = single((x, y) -> Math.abs(x) < 45 && Math.abs(y) < 15);

    Table t = Measures.of(set, scene(), 32).run(Job.QUIET).table();

    // second moments are as the squares of the sides, 90 and 30 pixels
    assertThat(t.values("eccentricity")[0]).isCloseTo(Math.sqrt(1 - 1.0 / 9), within(1e-9));
    assertThat(t.values("solidity")[0]).isEqualTo(1);
    assertThat(t.values("hull_area")[0]).isEqualTo(90 * 30 / 4.0);
  }

  @Test
  void anLHasSixCornersAndNoSymmetryOfAHalfTurn() {
    ObjectSet block = single((x, y) -> Math.abs(x) < 40 && Math.abs(y) < 20);
    ObjectSet angle =
        single((x, y) -> Math.abs(x) < 40 && Math.abs(y) < 40 && !(x > -10 && y > -10));

    Table straight = Measures.of(block, scene(), 32).run(Job.QUIET).table();
    Table bent = Measures.of(angle, scene(), 32).run(Job.QUIET).table();

    assertThat(straight.values("corners")[0]).isEqualTo(4);
    assertThat(straight.values("symmetry")[0]).isEqualTo(1);
    assertThat(straight.values("straight_share")[0]).isEqualTo(1);
    assertThat(bent.values("corners")[0]).isEqualTo(6);
    assertThat(bent.values("symmetry")[0]).isLessThan(0.8);
  }

  @Test
  void aRingHasAHoleAndTheGroundAroundItOneToo() {
    ObjectSet ring = single((x, y) -> Math.hypot(x, y) < 60 && Math.hypot(x, y) > 40);

    Table t = Measures.of(ring, scene(), 32).run(Job.QUIET).table();

    assertThat(t.values("holes")[0]).isEqualTo(1);
    assertThat(t.values("eccentricity")[0]).isCloseTo(0, within(1e-6));
    assertThat(t.values("solidity")[0]).isCloseTo(1 - 1600.0 / 3600, within(0.01));
  }

  @Test
  void everyHoleCountsAndCornersThatTouchDoNotHangTogether() {
    // a comb of seven holes, two of which touch by a corner: the object does not pass between them
    ObjectSet set = single((x, y) -> {
      boolean block = Math.abs(x) < 50 && Math.abs(y) < 20;
      boolean hole =
          Math.abs(y) < 5 && Math.floorMod((int) Math.floor(x), 14) < 6 && Math.abs(x) < 42;
      boolean cornered =
          x > -40 && x < -36 && y > 5 && y < 9 || x > -36 && x < -32 && y > 9 && y < 13;
      return block && !hole && !cornered;
    });

    Table t = Measures.of(set, scene(), 32).run(Job.QUIET).table();

    assertThat(t.values("holes")[0]).isEqualTo(holes(set));
    assertThat(t.values("holes")[0]).isGreaterThan(5);
  }

  /** Pieces of what is not the object, touching by corners too, less the one that reaches the edge. */
  private static int holes(ObjectSet set) {
    int[] labels = new int[SIZE * SIZE];
    set.labels().read(new Window(0, 0, SIZE, SIZE), labels);
    int pieces = 0;
    for (int start = 0; start < labels.length; start++) {
      if (labels[start] != 2) {
        continue;
      }
      pieces++;
      java.util.ArrayDeque<Integer> waiting = new java.util.ArrayDeque<>(List.of(start));
      labels[start] = 0;
      while (!waiting.isEmpty()) {
        int at = waiting.pop();
        for (int dy = -1; dy <= 1; dy++) {
          for (int dx = -1; dx <= 1; dx++) {
            int x = at % SIZE + dx;
            int y = at / SIZE + dy;
            if (x >= 0 && y >= 0 && x < SIZE && y < SIZE && labels[y * SIZE + x] == 2) {
              labels[y * SIZE + x] = 0;
              waiting.push(y * SIZE + x);
            }
          }
        }
      }
    }
    return pieces - 1;
  }

  @Test
  void aDiscIsCompactAndAsBrightAsItsMean() {
    ObjectSet set = single((x, y) -> x * x + y * y < 50 * 50);

    Table t = Measures.of(set, scene(), 32).run(Job.QUIET).table();

    assertThat(t.values("compactness")[0]).isCloseTo(1, within(0.04));
    assertThat(t.values("perimeter")[0]).isCloseTo(2 * Math.PI * 25, within(3.0));
    assertThat(t.values("red_mean")[0]).isCloseTo(100 + SIZE / 2.0 - 0.5, within(0.5));
    // The spread of a disc's x is half of its radius.
    assertThat(t.values("red_spread")[0]).isCloseTo(25, within(0.3));
    assertThat(t.values("ndvi")[0]).isCloseTo((300 - 219.5) / (300 + 219.5), within(0.002));
  }

  @Test
  void coOccurrenceContrastIsThatOfEveryPairCounted() {
    ObjectSet set = single((x, y) -> x * x + 2 * y * y < 30 * 30);
    MemoryRaster scene = scene();
    int[] labels = new int[SIZE * SIZE];
    set.labels().read(new Window(0, 0, SIZE, SIZE), labels);
    float[][] planes = scene.read(0, scene.grid().window(), sharpkestrel.raster.Request.BACKGROUND);
    var red = sharpkestrel.raster.Statistics.of(planes[0]).histogram();
    var infrared = sharpkestrel.raster.Statistics.of(planes[1]).histogram();
    double low = red.quantile(0.01) / 2 + infrared.quantile(0.01) / 2;
    double high = red.quantile(0.99) / 2 + infrared.quantile(0.99) / 2;
    double sum = 0;
    int pairs = 0;
    int[][] steps = {{1, 0}, {0, 1}, {1, 1}, {-1, 1}};
    for (int y = 0; y < SIZE - 1; y++) {
      for (int x = 1; x < SIZE - 1; x++) {
        for (int[] step : steps) {
          int i = y * SIZE + x;
          int j = (y + step[1]) * SIZE + x + step[0];
          if (labels[i] == 1 && labels[j] == 1) {
            double d = grey(planes, i, low, high) - grey(planes, j, low, high);
            sum += d * d;
            pairs++;
          }
        }
      }
    }

    Table t = Measures.of(set, scene, 32).run(Job.QUIET).table();

    assertThat(t.values("texture_contrast")[0]).isCloseTo(sum / pairs, within(1e-3));
  }

  private static int grey(float[][] planes, int i, double low, double high) {
    double mean = (planes[0][i] + planes[1][i]) / 2;
    return (int) Math.max(0, Math.min(31, (mean - low) / (high - low) * 32));
  }

  @Test
  void anObjectSetReadsBackFromItsFileToTheLastPixel() {
    ObjectSet set = Measures.of(
            single((x, y) -> Math.abs(x) + Math.abs(y) < 40 && x * y < 300), scene(), 16)
        .run(Job.QUIET);
    Path file = folder.resolve("objects.gpkg");

    ObjectFile.write(set, file);
    ObjectSet back = ObjectFile.read(file);

    int[] before = new int[SIZE * SIZE];
    int[] after = new int[SIZE * SIZE];
    set.labels().read(new Window(0, 0, SIZE, SIZE), before);
    back.labels().read(new Window(0, 0, SIZE, SIZE), after);
    for (int i = 0; i < before.length; i++) {
      assertThat(back.rowOf()[after[i]]).isEqualTo(set.rowOf()[before[i]]);
    }
    assertThat(back.ids()).isEqualTo(set.ids());
    for (Table.Column column : set.table().columns()) {
      assertThat(back.table().values(column.name())).isEqualTo(column.values());
    }
  }

  @Test
  void scoresCountEachOutlineOnce() {
    var factory = new org.locationtech.jts.geom.GeometryFactory();
    List<org.locationtech.jts.geom.Geometry> truth = new ArrayList<>();
    List<org.locationtech.jts.geom.Geometry> found = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      truth.add(
          factory.toGeometry(new org.locationtech.jts.geom.Envelope(20 * i, 20 * i + 10, 0, 10)));
    }
    found.add(factory.toGeometry(new org.locationtech.jts.geom.Envelope(0, 10, 0, 10)));
    found.add(factory.toGeometry(new org.locationtech.jts.geom.Envelope(22, 32, 0, 10)));
    found.add(factory.toGeometry(new org.locationtech.jts.geom.Envelope(47, 57, 0, 10)));
    found.add(factory.toGeometry(new org.locationtech.jts.geom.Envelope(61, 69, 1, 9)));
    Table kinds =
        new Table(4, List.of(Table.Column.ofTexts("kind", "", List.of("a", "a", "a", "b"))));
    Table none = new Table(4, List.of());

    Scores scores = new Compare(
            new OutlineSet(CrsName.NONE, found, none),
            new OutlineSet(CrsName.NONE, truth, kinds),
            "kind = 'a'",
            "kind = 'b'",
            0.5)
        .run(Job.QUIET);

    // The second overlaps by 8/12, the third by 3/17 only; the fourth lies on a forgiven one.
    assertThat(scores.matched()).isEqualTo(2);
    assertThat(scores.found()).isEqualTo(3);
    assertThat(scores.truth()).isEqualTo(3);
    assertThat(scores.meanIou()).isCloseTo((1 + 8.0 / 12) / 2, within(1e-9));
  }
}
