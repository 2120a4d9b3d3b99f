package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.ClassifierFile;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.pixels.PixelFeatures;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** A bright square with texture, a pond and ground between them, told pixel by pixel from drawn areas. */
class ClassifyPixelsTest {

  private static final int SIDE = 160;
  private static final GeometryFactory SHAPES = new GeometryFactory();
  private static final List<String> KINDS = List.of("ground", "pond", "roof");

  @TempDir
  Path folder;

  private static int kind(int x, int y) {
    boolean roof = x % 80 >= 20 && x % 80 < 50 && y % 80 >= 10 && y % 80 < 40;
    return roof ? 2 : y % 80 > 55 ? 1 : 0;
  }

  /** Roofs are as bright as ground and differ in how rough they are alone; the pond is dark in one band. */
  private static MemoryRaster scene(double pixel, Grid grid) {
    float[][] planes = new float[2][SIDE * SIDE];
    SplittableRandom random = new SplittableRandom(5);
    for (int i = 0; i < SIDE * SIDE; i++) {
      int of = kind(i % SIDE, i / SIDE);
      double rough = of == 2 ? 60 : 12;
      planes[0][i] = (float) (400 + rough * (2 * random.nextDouble() - 1));
      planes[1][i] = (float) ((of == 1 ? 60 : 500) + 15 * (2 * random.nextDouble() - 1));
    }
    for (int hole = 0; hole < 30; hole++) {
      planes[0][hole * 401] = Float.NaN;
    }
    return new MemoryRaster(
        grid,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
  }

  private static Grid placed() {
    return new Grid(SIDE, SIDE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
  }

  private static OutlineSet samples(Grid grid) {
    int[][] boxes = {
      {24, 14, 34, 24, 2}, {104, 14, 114, 24, 2}, {26, 94, 40, 104, 2},
      {2, 2, 14, 30, 0}, {60, 45, 75, 54, 0}, {90, 82, 97, 100, 0},
      {10, 60, 40, 75, 1}, {90, 140, 120, 155, 1}, {130, 58, 150, 70, 1}
    };
    List<Geometry> shapes = new ArrayList<>();
    List<String> classes = new ArrayList<>();
    Affine on = grid.affine();
    for (int[] box : boxes) {
      shapes.add(SHAPES.toGeometry(new Envelope(
          on.x(box[0], box[1]), on.x(box[2], box[3]), on.y(box[0], box[1]), on.y(box[2], box[3]))));
      classes.add(KINDS.get(box[4]));
    }
    return new OutlineSet(
        grid.crs(),
        shapes,
        new Table(shapes.size(), List.of(Table.Column.ofTexts("class", "Class", classes))));
  }

  private static Raster probabilities(MemoryRaster scene, Learner method) {
    return new ClassifyPixels(
            new PixelScene(scene, Optional.empty()),
            Optional.of(samples(scene.grid())),
            Optional.empty(),
            LearnPixelsBy.of(method))
        .run(Job.QUIET);
  }

  /** Share of the pixels that are told right, but for those within a window of a border. */
  private static double right(ObjectSet map) {
    int[] labels = new int[SIDE * SIDE];
    map.labels().read(map.labels().grid().window(), labels);
    int right = 0;
    int all = 0;
    for (int i = 0; i < labels.length; i++) {
      int x = i % SIDE;
      int y = i / SIDE;
      int of = kind(x, y);
      boolean inner = x > 7 && y > 7 && x < SIDE - 7 && y < SIDE - 7;
      for (int[] d : new int[][] {{-7, 0}, {7, 0}, {0, -7}, {0, 7}}) {
        inner &= kind(x + d[0], y + d[1]) == of;
      }
      int row = map.rowOf()[labels[i]];
      if (inner && row >= 0) {
        all++;
        right += map.table().column("class").text(row).equals(KINDS.get(of)) ? 1 : 0;
      }
    }
    assertThat(all).isGreaterThan(5000);
    return (double) right / all;
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void drawnAreasTellAllOtherPixelsByEveryMethod(Learner method) {
    Raster told = probabilities(scene(0.5, placed()), method);

    assertThat(told.bands()).extracting(Band::name).isEqualTo(KINDS);
    assertThat(right(new MapClasses(told, Optional.empty(), 0).run(Job.QUIET))).isGreaterThan(0.93);
  }

  @Test
  void probabilitiesAddUpHolesStayAndPartsAreAsTheWhole() {
    Raster told = probabilities(scene(0.5, placed()), Learner.BOOSTING);
    float[][] whole = told.read(0, told.grid().window(), Request.BACKGROUND);
    for (int i = 0; i < SIDE * SIDE; i++) {
      double sum = (double) whole[0][i] + whole[1][i] + whole[2][i];
      if (i % 401 == 0 && i / 401 < 30) {
        assertThat(sum).isNaN();
      } else {
        assertThat(sum).isCloseTo(1, within(1e-5));
      }
    }
    Window part = new Window(37, 81, 40, 23);
    float[][] seen = told.read(0, part, Request.BACKGROUND);
    for (int i = 0; i < part.area(); i++) {
      int at = (part.y() + i / part.width()) * SIDE + part.x() + i % part.width();
      assertThat(seen[2][i]).isEqualTo(whole[2][at]);
    }
  }

  @Test
  void aModelLearnedOnOtherPixelsIsAppliedByItsFileAndRefusesWhatItCannotSee() {
    MemoryRaster scene = scene(0.5, placed());
    Classifier learned = new LearnPixels(
            new PixelScene(scene, Optional.empty()),
            samples(scene.grid()),
            LearnPixelsBy.of(Learner.FOREST))
        .run(Job.QUIET);
    Path file = folder.resolve("pixels.json");
    ClassifierFile.write(learned, file);

    assertThat(learned.features()).contains("red", "red/near_infrared", "red spread 2.5 m");
    assertThat(learned.kept().orElseThrow().accuracy()).isGreaterThan(0.8);
    Raster told = new ClassifyPixels(
            new PixelScene(scene, Optional.empty()),
            Optional.empty(),
            Optional.of(ClassifierFile.read(file)),
            LearnPixelsBy.of(Learner.FOREST))
        .run(Job.QUIET);
    assertThat(told.read(0, told.grid().window(), Request.BACKGROUND)[1])
        .isEqualTo(probabilities(scene, Learner.FOREST)
            .read(0, told.grid().window(), Request.BACKGROUND)[1]);

    MemoryRaster blue = new MemoryRaster(
        scene.grid(),
        List.of(Band.of(BandRole.BLUE, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[1][SIDE * SIDE]);
    assertThatThrownBy(() -> new ClassifyPixels(
                new PixelScene(blue, Optional.empty()),
                Optional.empty(),
                Optional.of(learned),
                LearnPixelsBy.of(Learner.FOREST))
            .run(Job.QUIET))
        .hasMessageContaining("no band red, near_infrared")
        .hasMessageContaining("it has blue");
  }

  @Test
  void aPhotoWithoutAPlaceIsToldByWindowsInPixels() {
    Grid nowhere = new Grid(SIDE, SIDE, Affine.IDENTITY, CrsName.NONE);
    MemoryRaster photo = scene(1, nowhere);

    PixelFeatures features = PixelFeatures.of(photo, List.of("red"), true, List.of("5"));

    assertThat(features.names()).containsExactly("red", "red mean 5", "red spread 5");
    assertThat(right(new MapClasses(probabilities(photo, Learner.BOOSTING), Optional.empty(), 0)
            .run(Job.QUIET)))
        .isGreaterThan(0.93);
  }

  @Test
  void aFurtherLayerCountsAsBandsOfTheScene() {
    MemoryRaster scene = scene(0.5, placed());
    float[] marks = new float[SIDE * SIDE];
    for (int i = 0; i < marks.length; i++) {
      marks[i] = kind(i % SIDE, i / SIDE) == 2 ? 9 : 3;
    }
    MemoryRaster layer = new MemoryRaster(
        scene.grid(),
        List.of(new Band("Mark", BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN)),
        Attachments.NONE,
        new float[][] {marks});
    Raster told = new ClassifyPixels(
            new PixelScene(scene, Optional.of(layer)),
            Optional.of(samples(scene.grid())),
            Optional.empty(),
            new LearnPixelsBy(
                Learner.FOREST,
                List.of("Mark", "near infrared"),
                false,
                List.of("none"),
                4000,
                SampleUse.USUAL))
        .run(Job.QUIET);

    assertThat(right(new MapClasses(told, Optional.empty(), 0).run(Job.QUIET)))
        .isGreaterThan(0.999);
  }

  @Test
  void whatCannotBeToldIsSaidInWords() {
    MemoryRaster scene = scene(0.5, placed());
    OutlineSet all = samples(scene.grid());
    PixelScene in = new PixelScene(scene, Optional.empty());
    LearnPixelsBy by = LearnPixelsBy.of(Learner.FOREST);
    OutlineSet one = new OutlineSet(
        all.crs(), all.outlines().subList(0, 3), all.table().select(new int[] {0, 1, 2}));
    OutlineSet away = new OutlineSet(
        all.crs(),
        all.outlines().stream()
            .map(shape -> org.locationtech.jts.geom.util.AffineTransformation.translationInstance(
                    1e5, 0)
                .transform(shape))
            .toList(),
        all.table());

    assertThatThrownBy(() -> new LearnPixels(in, one, by).run(Job.QUIET))
        .hasMessageContaining("two or more");
    assertThatThrownBy(() -> new LearnPixels(in, away, by).run(Job.QUIET))
        .hasMessageContaining("lie elsewhere");
    assertThatThrownBy(
            () -> new ClassifyPixels(in, Optional.empty(), Optional.empty(), by).run(Job.QUIET))
        .hasMessageContaining("give one of the two");
    assertThatThrownBy(() -> PixelFeatures.of(scene, List.of("violet"), true, List.of()))
        .hasMessageContaining("no band violet");
  }

  @Test
  void meansAndSpreadsOfWindowsAreThoseOfTheirPixels() {
    MemoryRaster scene = scene(0.5, placed());
    float[] red = scene.read(0, scene.grid().window(), Request.BACKGROUND)[0];
    PixelFeatures features = PixelFeatures.of(scene, List.of("red"), false, List.of("7"));
    float[][] whole = features.read(0, scene.grid().window(), Request.BACKGROUND);
    for (int[] at : new int[][] {{0, 0}, {3, 2}, {80, 80}, {159, 159}, {41, 12}, {158, 1}}) {
      double sum = 0;
      double square = 0;
      int n = 0;
      for (int y = Math.max(0, at[1] - 3); y <= Math.min(SIDE - 1, at[1] + 3); y++) {
        for (int x = Math.max(0, at[0] - 3); x <= Math.min(SIDE - 1, at[0] + 3); x++) {
          double v = red[y * SIDE + x];
          if (!Double.isNaN(v)) {
            sum += v;
            square += v * v;
            n++;
          }
        }
      }
      int i = at[1] * SIDE + at[0];
      if (Float.isNaN(red[i])) {
        assertThat(whole[1][i]).isNaN();
      } else {
        assertThat((double) whole[1][i]).isCloseTo(sum / n, within(1e-3));
        double variance = square / n - sum / n * (sum / n);
        assertThat((double) whole[2][i]).isCloseTo(Math.sqrt(variance), within(1e-2));
      }
    }
    assertThat(Map.of("red", 1)).containsKey(features.names().getFirst());
  }
}
