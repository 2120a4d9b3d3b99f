package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.SplittableRandom;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.ClassifierFile;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.flow.StepCatalogue;
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
import sharpkestrel.raster.SampleType;

/** Fields of four kinds in a chequered country, cut into cells and told by samples. */
class ClassifyObjectsTest {

  private static final int SIDE = 240;
  private static final int FIELD = 20;
  private static final GeometryFactory SHAPES = new GeometryFactory();
  private static final String[] KINDS = {"bare", "corn", "grass", "water"};

  private static ObjectSet objects;

  @TempDir
  Path folder;

  private static int kind(int field) {
    return new SplittableRandom(field).nextInt(KINDS.length);
  }

  @BeforeAll
  static void measure() {
    Random random = new Random(2);
    double[][] means = {{400, 300}, {200, 500}, {150, 700}, {90, 40}};
    float[][] planes = new float[2][SIDE * SIDE];
    for (int i = 0; i < SIDE * SIDE; i++) {
      int field = i % SIDE / FIELD + SIDE / FIELD * (i / SIDE / FIELD);
      for (int b = 0; b < 2; b++) {
        double mean = means[kind(field)][b] * (1 + 0.1 * new Random(field).nextGaussian());
        planes[b][i] = (float) Math.max(1, mean + 25 * random.nextGaussian());
      }
    }
    Grid grid = new Grid(SIDE, SIDE, Affine.northUp(512_000, 6_702_000, 1), CrsName.epsg(32630));
    MemoryRaster scene = new MemoryRaster(
        grid,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
    Object cells = StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("method", "grid", "cell", String.valueOf(FIELD)))
        .run(Job.QUIET);
    objects = (ObjectSet) StepCatalogue.get("measure")
        .make(
            Map.of(
                "objects",
                sharpkestrel.kinds.ResultKinds.as(cells, ObjectSet.class),
                "scene",
                scene),
            Map.of("features", "spectral"))
        .run(Job.QUIET);
  }

  /** The middle of every {@code step}th field, as a point or as a small square. */
  private static OutlineSet samples(int step, boolean points, String column) {
    List<Geometry> shapes = new ArrayList<>();
    List<String> classes = new ArrayList<>();
    int across = SIDE / FIELD;
    for (int field = 0; field < across * across; field += step) {
      double x = 512_000 + FIELD * (field % across + 0.5);
      double y = 6_702_000 - FIELD * (Math.floorDiv(field, across) + 0.5);
      Envelope box = new Envelope(x - 3, x + 3, y - 3, y + 3);
      shapes.add(points ? SHAPES.createPoint(new Coordinate(x, y)) : SHAPES.toGeometry(box));
      classes.add(KINDS[kind(field)]);
    }
    return new OutlineSet(
        objects.labels().grid().crs(),
        shapes,
        new Table(shapes.size(), List.of(Table.Column.ofTexts(column, "Class", classes))));
  }

  private static ObjectSet classified(OutlineSet samples, Learner method) {
    return new ClassifyObjects(
            objects, Optional.of(samples), Optional.empty(), LearnBy.of(method), 0)
        .run(Job.QUIET);
  }

  private static double right(ObjectSet told) {
    Table.Column classes = told.table().column("class");
    int right = 0;
    for (int row = 0; row < told.count(); row++) {
      right += classes.text(row).equals(KINDS[kind(row)]) ? 1 : 0;
    }
    return (double) right / told.count();
  }

  @ParameterizedTest
  @EnumSource(Learner.class)
  void aFifthOfTheFieldsTellsTheOthersByEveryMethod(Learner method) {
    assertThat(right(classified(samples(5, false, "class"), method))).isGreaterThan(0.9);
  }

  @Test
  void pointsServeAndProbabilitiesAddUpAndDoubtIsTheSecondOverTheFirst() {
    ObjectSet told = classified(samples(5, true, "kind"), Learner.FOREST);

    assertThat(right(told)).isGreaterThan(0.9);
    for (int row = 0; row < told.count(); row++) {
      double sum = 0;
      double first = 0;
      double second = 0;
      for (String kind : KINDS) {
        double p = told.table().values("p_" + kind)[row];
        sum += p;
        second = Math.max(second, Math.min(p, first));
        first = Math.max(first, p);
      }
      assertThat(sum).isCloseTo(1, within(1e-5));
      assertThat(told.table().values("probability")[row]).isCloseTo(first, within(1e-9));
      assertThat(told.table().values("doubt")[row]).isCloseTo(second / first, within(1e-6));
    }
  }

  @Test
  void aModelFromItsFileTellsTheSameAsTheSamplesAndSaysWhatItIsWorth() {
    OutlineSet samples = samples(3, false, "class");
    Classifier learned =
        new LearnClasses(objects, samples, LearnBy.of(Learner.BOOSTING)).run(Job.QUIET);
    Path file = folder.resolve("fields.json");

    ClassifierFile.write(learned, file);
    ObjectSet told = new ClassifyObjects(
            objects,
            Optional.empty(),
            Optional.of(ClassifierFile.read(file)),
            LearnBy.of(Learner.FOREST),
            0)
        .run(Job.QUIET);

    assertThat(right(told)).isGreaterThan(0.9);
    assertThat(learned.kept().orElseThrow().accuracy()).isGreaterThan(0.8);
    assertThat(learned.toText()).contains("kept-back blocks").contains("Gradient boosting");
    assertThat(told.table().values("probability"))
        .isEqualTo(classified(samples, Learner.BOOSTING).table().values("probability"));
  }

  @Test
  void whatCannotBeToldIsSaidInWords() {
    OutlineSet none = new OutlineSet(
        objects.labels().grid().crs(),
        samples(5, false, "class").outlines(),
        new Table(samples(5, false, "class").count(), List.of()));
    assertThatThrownBy(() -> classified(none, Learner.FOREST)).hasMessageContaining("no class");
    List<Geometry> elsewhere = List.of(
        SHAPES.toGeometry(new Envelope(600_000, 600_010, 6_702_000, 6_702_010)),
        SHAPES.toGeometry(new Envelope(600_020, 600_030, 6_702_000, 6_702_010)));
    OutlineSet off = new OutlineSet(
        objects.labels().grid().crs(),
        elsewhere,
        new Table(2, List.of(Table.Column.ofTexts("class", "Class", List.of("a", "b")))));
    assertThatThrownBy(() -> classified(off, Learner.FOREST)).hasMessageContaining("elsewhere");
    Classifier learned = new LearnClasses(
            objects, samples(5, false, "class"), LearnBy.of(Learner.NEAREST))
        .run(Job.QUIET);
    ObjectSet bare =
        objects.withTable(new Table(objects.count(), List.of(objects.table().column("area"))));
    assertThatThrownBy(() -> new ClassifyObjects(
                bare, Optional.empty(), Optional.of(learned), LearnBy.of(Learner.FOREST), 0)
            .run(Job.QUIET))
        .hasMessageContaining("do not have");
    assertThatThrownBy(() -> new ClassifyObjects(
                objects, Optional.empty(), Optional.empty(), LearnBy.of(Learner.FOREST), 0)
            .run(Job.QUIET))
        .hasMessageContaining("one of the two");
  }
}
