package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.cluster.ClusterSettings;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.LearnersCompared;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
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

/** One small place seen by other sensors on other ground: what is learned, clustered, ruled and found holds in each of them. */
class OtherGroundTest {

  private static final int SIDE = 160;
  private static final int CELL = 40;
  private static final GeometryFactory SHAPES = new GeometryFactory();

  /** How the place is seen. */
  enum Sensor {
    /** A photo of three bands and 8 bits that lies nowhere. */
    PHOTO(Affine.IDENTITY, CrsName.NONE, SampleType.UINT8, 200, 3, false),
    /** 11 bits and four bands, in metres in the south. */
    SOUTH(
        Affine.northUp(312_000, 5_702_000, 0.3),
        CrsName.epsg(32733),
        SampleType.UINT16,
        1900,
        4,
        false),
    /** Reflectance, in degrees. */
    DEGREES(
        Affine.northUp(11.2, 47.3, 6e-6), CrsName.epsg(4326), SampleType.FLOAT32, 0.5, 4, false),
    /** Pixels of ten metres, with holes. */
    COARSE(
        Affine.northUp(512_000, 6_702_000, 10),
        CrsName.epsg(32630),
        SampleType.UINT16,
        9000,
        4,
        true),
    /** One band, under zero in part as a standardised one is. */
    ONE_BAND(
        Affine.northUp(512_000, 6_702_000, 0.5),
        CrsName.epsg(32630),
        SampleType.FLOAT32,
        -1,
        1,
        false);

    private final Affine affine;
    private final CrsName crs;
    private final SampleType type;
    private final double bright;
    private final int bands;
    private final boolean holes;

    Sensor(Affine affine, CrsName crs, SampleType type, double bright, int bands, boolean holes) {
      this.affine = affine;
      this.crs = crs;
      this.type = type;
      this.bright = bright;
      this.bands = bands;
      this.holes = holes;
    }

    Grid grid() {
      return new Grid(SIDE, SIDE, affine, crs);
    }

    /** A number between dark, 0, and bright, 1, as this sensor tells it. */
    float told(double light) {
      double value = bright < 0 ? 2 * light - 1 : bright * light;
      return (float) (type.isWhole() ? Math.max(1, Math.round(value)) : value);
    }
  }

  /** Roofs of some sizes on grass, a river along the south. */
  private static int kind(int x, int y) {
    if (y >= 3 * CELL) {
      return 2;
    }
    int cell = x / CELL + 4 * (y / CELL);
    int half = 6 + cell % 4 * 3;
    boolean roof = Math.abs(x % CELL - CELL / 2) < half && Math.abs(y % CELL - CELL / 2) < half;
    return roof ? 1 : 0;
  }

  private static final double[][] LIGHT = {
    {0.3, 0.38, 0.3, 0.8}, {0.85, 0.8, 0.78, 0.75}, {0.12, 0.1, 0.08, 0.04}
  };

  private static MemoryRaster scene(Sensor sensor) {
    BandRole[] roles = {
      sensor.bands == 1 ? BandRole.PAN : BandRole.RED,
      BandRole.GREEN,
      BandRole.BLUE,
      BandRole.NEAR_INFRARED
    };
    List<Band> bands = new ArrayList<>();
    float[][] planes = new float[sensor.bands][SIDE * SIDE];
    SplittableRandom random = new SplittableRandom(7);
    for (int b = 0; b < sensor.bands; b++) {
      bands.add(Band.of(roles[b], sensor.type));
      for (int i = 0; i < SIDE * SIDE; i++) {
        double grain = 0.04 * (random.nextDouble() - 0.5);
        planes[b][i] = sensor.told(LIGHT[kind(i % SIDE, i / SIDE)][b] + grain);
      }
    }
    for (int i = 0; sensor.holes && i < SIDE * SIDE; i++) {
      // a corner, and a hole in the middle
      boolean hole = i % SIDE + i / SIDE < 20 || Math.hypot(i % SIDE - 80, i / SIDE - 100) < 6;
      for (float[] plane : planes) {
        plane[i] = hole ? Float.NaN : plane[i];
      }
    }
    return new MemoryRaster(sensor.grid(), bands, Attachments.NONE, planes);
  }

  private static OutlineSet samples(Sensor sensor) {
    int[][] boxes = {
      {17, 57, 24, 64, 1}, {54, 54, 66, 66, 1}, {130, 52, 148, 68, 1}, {98, 14, 104, 25, 1},
      {42, 42, 46, 78, 0}, {2, 82, 6, 118, 0}, {121, 82, 124, 118, 0}, {82, 42, 85, 75, 0},
      {20, 130, 60, 150, 2}, {90, 125, 140, 140, 2}
    };
    List<Geometry> shapes = new ArrayList<>();
    List<String> classes = new ArrayList<>();
    for (int[] box : boxes) {
      shapes.add(box(sensor, box[0], box[1], box[2], box[3]));
      classes.add(List.of("grass", "roof", "river").get(box[4]));
    }
    return new OutlineSet(
        sensor.crs,
        shapes,
        new Table(shapes.size(), List.of(Table.Column.ofTexts("class", "Class", classes))));
  }

  /** Points all over the place, but for holes, each with what lies there. */
  private static OutlineSet points(Sensor sensor) {
    List<Geometry> shapes = new ArrayList<>();
    List<String> classes = new ArrayList<>();
    for (int i = 0; i < 256; i++) {
      int x = i % 16 * 10 + 4;
      int y = i / 16 * 10 + 4;
      boolean hole = sensor.holes && (x + y < 30 || Math.hypot(x - 80, y - 100) < 12);
      if (!hole) {
        shapes.add(SHAPES.createPoint(
            new Coordinate(sensor.affine.x(x + 0.5, y + 0.5), sensor.affine.y(x + 0.5, y + 0.5))));
        classes.add(List.of("grass", "roof", "river").get(kind(x, y)));
      }
    }
    return new OutlineSet(
        sensor.crs,
        shapes,
        new Table(shapes.size(), List.of(Table.Column.ofTexts("class", "Class", classes))));
  }

  private static Geometry box(Sensor sensor, int left, int top, int right, int bottom) {
    Affine on = sensor.affine;
    return SHAPES.toGeometry(
        new Envelope(on.x(left, top), on.x(right, bottom), on.y(left, top), on.y(right, bottom)));
  }

  private static String classAt(ObjectSet set, int x, int y) {
    int row = set.rowAt(x, y);
    return row < 0 ? "" : set.table().column("class").text(row);
  }

  private static double right(ObjectSet set) {
    int right = 0;
    int all = 0;
    for (int i = 0; i < SIDE * SIDE; i++) {
      String said = classAt(set, i % SIDE, i / SIDE);
      boolean counts = !said.isEmpty();
      all += counts ? 1 : 0;
      right +=
          counts && said.equals(List.of("grass", "roof", "river").get(kind(i % SIDE, i / SIDE)))
              ? 1
              : 0;
    }
    assertThat(all).isGreaterThan(SIDE * SIDE * 9 / 10);
    return (double) right / all;
  }

  private static ObjectSet measured(MemoryRaster scene) {
    Object cut = StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("method", "merge_tree", "criterion", "likeness"))
        .run(Job.QUIET);
    return (ObjectSet) StepCatalogue.get("measure")
        .make(Map.of("objects", cut, "scene", scene), Map.of())
        .run(Job.QUIET);
  }

  @ParameterizedTest
  @EnumSource(Sensor.class)
  void pixelsAreToldAndCleanAreasAreOutlined(Sensor sensor) {
    MemoryRaster scene = scene(sensor);
    Raster told = new ClassifyPixels(
            new PixelScene(scene, Optional.empty()),
            Optional.of(samples(sensor)),
            Optional.empty(),
            LearnPixelsBy.of(Learner.FOREST))
        .run(Job.QUIET);
    ObjectSet map = new MapClasses(told, Optional.empty(), 0).run(Job.QUIET);
    double pixel = map.ground().area();

    ObjectSet clean = new Absorb(
            map, Optional.empty(), 12 * pixel, List.of(), Absorb.Into.LONGEST_BORDER, 3)
        .run(Job.QUIET);

    // windows about a pixel reach over edges: a fringe of a pixel or two may be told wrong
    assertThat(right(clean)).isGreaterThan(0.9);
    ObjectSet roofs = new ClassObjects(clean, List.of("roof"), 20 * pixel).run(Job.QUIET);
    assertThat(roofs.count()).isEqualTo(12);
    OutlineSet outlines = (OutlineSet) StepCatalogue.get("outline")
        .make(Map.of("objects", roofs), Map.of("form", "squared"))
        .run(Job.QUIET);
    assertThat(outlines.count()).isEqualTo(12);
    assertThat(map.table().column("area").unit()).isEqualTo(sensor == Sensor.PHOTO ? "px" : "m²");
    if (sensor.holes) {
      float[] hole = told.read(0, new Window(80, 100, 1, 1), Request.BACKGROUND)[0];
      assertThat(hole[0]).isNaN();
      assertThat(classAt(clean, 80, 100)).isEmpty();
    }
  }

  @ParameterizedTest
  @EnumSource(Sensor.class)
  void clustersPartTheThreeKinds(Sensor sensor) {
    for (ClusterSettings.Method method : ClusterSettings.Method.values()) {
      ObjectSet clusters = new Cluster(
              new PixelScene(scene(sensor), Optional.empty()),
              Optional.empty(),
              Optional.empty(),
              List.of(),
              List.of(),
              new ClusterSettings(method, 3, 3, 0.5, 0.5, 0.25, 30, true, 1))
          .run(Job.QUIET);

      ObjectSet named = new NameClasses(
              clusters,
              List.of(
                  classAt(clusters, 60, 60) + "=roof",
                  classAt(clusters, 44, 60) + "=grass",
                  classAt(clusters, 60, 140) + "=river"),
              List.of())
          .run(Job.QUIET);

      assertThat(right(named)).as(method.name()).isGreaterThan(0.98);
    }
  }

  @ParameterizedTest
  @EnumSource(Sensor.class)
  void rulesAndLikenessSeeTheSameThings(Sensor sensor) {
    MemoryRaster scene = scene(sensor);
    ObjectSet objects = measured(scene);
    String light = sensor.bands == 1 ? "pan_mean" : "red_mean";
    String roofs = light + " > " + sensor.told(0.6);
    String rules = "roof: " + roofs + "; river: " + light + " < " + sensor.told(0.2)
        + "; bank: distance('river') < 0.001; grass: area > 0";
    ObjectSet told = new ClassifyByRules(
            objects, Optional.empty(), Optional.of(rules), 10, ClassifyByRules.Others.NONE)
        .run(Job.QUIET);

    assertThat(classAt(told, 60, 60)).isEqualTo("roof");
    assertThat(classAt(told, 60, 140)).isEqualTo("river");
    assertThat(classAt(told, 60, 118)).as("what touches the river").isEqualTo("bank");

    OutlineSet pick =
        new OutlineSet(sensor.crs, List.of(box(sensor, 52, 52, 68, 68)), new Table(1, List.of()));
    ObjectSet alike = new RankAlike(
            objects, new AlikeBy(pick, Optional.empty(), Optional.empty(), 0))
        .run(Job.QUIET);
    // the first of a ranking is the picked one, the next ones are roofs too
    for (int row = 0; row < 4; row++) {
      double bright = alike.table().values(light)[row];
      assertThat(bright).isGreaterThan(sensor.told(0.6));
    }
  }

  @ParameterizedTest
  @EnumSource(Sensor.class)
  void samplesAreWeighedAndLearnersCompared(Sensor sensor) {
    MemoryRaster scene = scene(sensor);
    Object pieces = StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("method", "slic", "superpixel", "100"))
        .run(Job.QUIET);
    ObjectSet objects = (ObjectSet) StepCatalogue.get("measure")
        .make(Map.of("objects", pieces, "scene", scene), Map.of("features", "spectral"))
        .run(Job.QUIET);
    OutlineSet some = points(sensor);
    LearnBy by = LearnBy.of(Learner.EXTREME_TREES);

    OutlineSet weighed = new WeighSamples(objects, some, by).run(Job.QUIET);

    Table.Column remarks = weighed.table().column("remark");
    int fine = 0;
    for (int i = 0; i < weighed.count(); i++) {
      assertThat(remarks.text(i)).as("sample %d", i).doesNotContain("same place");
      fine += remarks.text(i).isEmpty() ? 1 : 0;
    }
    assertThat(fine).as("of good samples").isGreaterThan(weighed.count() * 3 / 4);

    LearnersCompared compared = new CompareLearners(
            objects, some, Optional.of(scene), by, List.of("extreme_trees", "nearest"))
        .run(Job.QUIET);
    assertThat(compared.entries()).hasSize(4);
    for (LearnersCompared.Entry entry : compared.entries()) {
      assertThat(entry.kept().accuracy())
          .as("%s by %s", entry.unit(), entry.method())
          .isGreaterThan(0.7);
    }
  }

  @ParameterizedTest
  @EnumSource(Sensor.class)
  void aFewClicksFindTheOtherRoofs(Sensor sensor) {
    MemoryRaster scene = scene(sensor);
    var tree = (sharpkestrel.segment.Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(Job.QUIET);
    OutlineSet some = samples(sensor);
    List<Geometry> shapes = new ArrayList<>(some.outlines().subList(4, 10));
    List<String> classes = new ArrayList<>(List.of("x", "x", "x", "x", "x", "x"));
    // whole roofs of three sizes
    int[][] roofs = {{51, 51, 69, 69}, {88, 48, 112, 72}, {14, 54, 26, 66}};
    for (int[] roof : roofs) {
      shapes.add(box(sensor, roof[0], roof[1], roof[2], roof[3]));
      classes.add("roof");
    }
    var finder = new LearnObjects(
            tree,
            scene,
            HeightModels.NONE,
            new OutlineSet(
                sensor.crs,
                shapes,
                new Table(shapes.size(), List.of(Table.Column.ofTexts("class", "Class", classes)))),
            Optional.empty(),
            Optional.of("class = 'roof'"),
            LearnObjects.Labelled.SOME,
            Optional.empty(),
            1)
        .run(Job.QUIET);
    ObjectSet found = new FindObjects(
            tree,
            scene,
            HeightModels.NONE,
            Optional.of(finder),
            List.of(),
            Double.NaN,
            Double.NaN,
            0)
        .run(Job.QUIET);

    int hit = 0;
    for (int cell = 0; cell < 12; cell++) {
      hit += found.rowAt(cell % 4 * CELL + CELL / 2, cell / 4 * CELL + CELL / 2) >= 0 ? 1 : 0;
    }
    assertThat(hit).as("roofs of twelve").isGreaterThanOrEqualTo(8);
    assertThat(found.rowAt(60, 145)).as("the river").isEqualTo(-1);

    // the finder that ships looks at bands that these scenes do not have
    assertThatThrownBy(() -> new FindObjects(
                tree,
                scene,
                HeightModels.NONE,
                Optional.empty(),
                List.of(),
                Double.NaN,
                Double.NaN,
                0)
            .run(Job.QUIET))
        .hasMessageContaining("Give roles with 'describe'");
  }
}
