package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.cluster.ClusterSettings;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectColumns;
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

/** Clusters of a made-up shore, named, cleaned, clustered again inside one class, and overlaid with another pass. */
class ClassMapStepsTest {

  private static final int SIDE = 120;
  private static final double PIXEL = 0.5;
  private static final Grid GRID =
      new Grid(SIDE, SIDE, Affine.northUp(512_000, 6_702_000, PIXEL), CrsName.epsg(32630));

  @TempDir
  Path folder;

  /** Water in the west, sand in the middle, grass in the east, of which the south is darker. */
  private static int kind(int x, int y) {
    return x < 40 ? 0 : x < 70 ? 1 : y < 60 ? 2 : 3;
  }

  /** A shore with single pixels that look like something else. */
  private static MemoryRaster shore() {
    float[][] means = {{30, 20}, {300, 320}, {80, 500}, {60, 400}};
    float[][] planes = new float[2][SIDE * SIDE];
    SplittableRandom random = new SplittableRandom(3);
    for (int i = 0; i < SIDE * SIDE; i++) {
      int of = kind(i % SIDE, i / SIDE);
      int shown = random.nextDouble() < 0.02 ? random.nextInt(4) : of;
      for (int b = 0; b < 2; b++) {
        planes[b][i] = (float) (means[shown][b] + 10 * (2 * random.nextDouble() - 1));
      }
    }
    planes[0][5] = Float.NaN;
    return new MemoryRaster(
        GRID,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
  }

  private static Cluster cluster(MemoryRaster scene, int k) {
    return new Cluster(
        new PixelScene(scene, Optional.empty()),
        Optional.empty(),
        Optional.empty(),
        List.of(),
        List.of(),
        ClusterSettings.kMeans(k, 1));
  }

  private static int[] rowsOf(ObjectSet set) {
    int[] labels = new int[SIDE * SIDE];
    set.labels().read(GRID.window(), labels);
    return Arrays.stream(labels).map(label -> set.rowOf()[label]).toArray();
  }

  private static String classAt(ObjectSet set, int[] rows, int x, int y) {
    int row = rows[y * SIDE + x];
    return row < 0 ? "" : set.table().column("class").text(row);
  }

  private static double areaOf(ObjectSet set, String ofClass) {
    double sum = 0;
    for (int row = 0; row < set.count(); row++) {
      sum += set.table().column("class").text(row).equals(ofClass)
          ? set.table().values("area")[row]
          : 0;
    }
    return sum;
  }

  /** Clusters called by what they are. */
  private static ObjectSet named(ObjectSet clusters) {
    int[] rows = rowsOf(clusters);
    Map<String, String> names = new LinkedHashMap<>();
    names.put(classAt(clusters, rows, 20, 60), "water");
    names.put(classAt(clusters, rows, 55, 61), "sand");
    names.put(classAt(clusters, rows, 100, 20), "grass");
    names.put(classAt(clusters, rows, 100, 100), "grass");
    return new NameClasses(
            clusters,
            names.entrySet().stream().map(e -> e.getKey() + "=" + e.getValue()).toList(),
            List.of("water=#0072B2"))
        .run(Job.QUIET);
  }

  @Test
  void clustersAreObjectsWithTheirNumbersAndNamedOnesJoin() {
    ObjectSet clusters = cluster(shore(), 4).run(Job.QUIET);

    assertThat(clusters.count()).isEqualTo(4);
    Table table = clusters.table();
    double square = clusters.ground().area();
    assertThat(Arrays.stream(table.values("area")).sum())
        .isCloseTo((SIDE * SIDE - 1) * square, within(1e-6));
    assertThat(Arrays.stream(table.values("share")).sum()).isCloseTo(100, within(1e-9));
    int water = rowsOf(clusters)[60 * SIDE + 20];
    assertThat(table.values("red_mean")[water]).isCloseTo(30, within(2.0));
    assertThat(table.values("near_infrared_spread")[water])
        .isCloseTo(10 / Math.sqrt(3), within(1.0));
    assertThat(table.values("silhouette")[water]).isGreaterThan(0.7);

    ObjectSet classes = named(clusters);

    assertThat(classes.count()).isEqualTo(3);
    assertThat(ClassMap.isMap(classes)).isTrue();
    int[] rows = rowsOf(classes);
    assertThat(rows[5]).as("what had no data").isEqualTo(-1);
    assertThat(classAt(classes, rows, 100, 20)).isEqualTo(classAt(classes, rows, 100, 100));
    int row = rows[60 * SIDE + 20];
    assertThat(classes.table().column("colour").text(row)).isEqualTo("#0072B2");
    assertThat(areaOf(classes, "grass"))
        .isCloseTo(50.2 * SIDE * square, within(0.5 * SIDE * square));
  }

  @Test
  void smallPatchesAreSwallowedAndWhatIsLeftAreObjects() {
    ObjectSet classes = named(cluster(shore(), 4).run(Job.QUIET));

    ObjectSet clean = new Absorb(
            classes, Optional.empty(), 3, List.of(), Absorb.Into.LONGEST_BORDER, 0)
        .run(Job.QUIET);

    int[] rows = rowsOf(clean);
    int wrong = 0;
    for (int i = 0; i < rows.length; i++) {
      String truth = List.of("water", "sand", "grass", "grass").get(kind(i % SIDE, i / SIDE));
      wrong += i == 5 || classAt(clean, rows, i % SIDE, i / SIDE).equals(truth) ? 0 : 1;
    }
    assertThat(wrong).isLessThan(30);
    ObjectSet objects = new ClassObjects(clean, List.of("sand", "grass"), 1).run(Job.QUIET);
    assertThat(objects.count()).isEqualTo(2);
    assertThat(areaOf(objects, "sand")).isCloseTo(areaOf(clean, "sand"), within(1e-9));
    OutlineSet outlines = (OutlineSet) ResultKinds.as(objects, OutlineSet.class);
    assertThat(outlines.outlines()).allMatch(shape -> shape.getNumGeometries() == 1);
    // what touches is joined, but not over classes
    OutlineSet joined = (OutlineSet) StepCatalogue.get("outline")
        .make(Map.of("objects", objects), Map.of("join-touching", "true"))
        .run(Job.QUIET);
    assertThat(joined.count()).isEqualTo(2);
  }

  @Test
  void likenessPutsAPatchWithTheNeighbourItLooksLike() {
    ObjectSet classes = named(cluster(shore(), 4).run(Job.QUIET));

    ObjectSet alike = new Absorb(
            classes,
            Optional.of(shore()),
            1e9,
            List.of("water=0", "sand=0"),
            Absorb.Into.MOST_ALIKE,
            0)
        .run(Job.QUIET);

    // grass is far from both, and nearer to sand
    assertThat(areaOf(alike, "grass")).isZero();
    assertThat(areaOf(alike, "sand"))
        .isGreaterThan(areaOf(classes, "sand") + 0.9 * areaOf(classes, "grass"));
  }

  @Test
  void oneClassFallsIntoClustersAndTheOthersStay() {
    ObjectSet classes = new Absorb(
            named(cluster(shore(), 4).run(Job.QUIET)),
            Optional.empty(),
            3,
            List.of(),
            Absorb.Into.LONGEST_BORDER,
            0)
        .run(Job.QUIET);

    ObjectSet nested = new Cluster(
            new PixelScene(shore(), Optional.empty()),
            Optional.empty(),
            Optional.of(classes),
            List.of("grass"),
            List.of("near infrared"),
            ClusterSettings.kMeans(2, 1))
        .run(Job.QUIET);

    assertThat(nested.table().column("class").categories())
        .containsExactly("grass 1", "grass 2", "sand", "water");
    assertThat(areaOf(nested, "water")).isEqualTo(areaOf(classes, "water"));
    int[] rows = rowsOf(nested);
    assertThat(classAt(nested, rows, 100, 20)).isEqualTo("grass 2");
    assertThat(classAt(nested, rows, 100, 100)).isEqualTo("grass 1");
    assertThat(nested.table().column("colour").text(rows[60 * SIDE + 20])).isEqualTo("#0072B2");
  }

  @Test
  void insideAnAreaAloneClustersForm() {
    Envelope east = new Envelope(512_000 + 40 * PIXEL, 512_060, 6_702_000 - 60, 6_702_000);
    OutlineSet area = new OutlineSet(
        GRID.crs(), List.of(new GeometryFactory().toGeometry(east)), new Table(1, List.of()));

    ObjectSet clusters = new Cluster(
            new PixelScene(shore(), Optional.empty()),
            Optional.of(area),
            Optional.empty(),
            List.of(),
            List.of(),
            ClusterSettings.kMeans(3, 1))
        .run(Job.QUIET);

    int[] rows = rowsOf(clusters);
    for (int i = 0; i < rows.length; i++) {
      assertThat(rows[i] >= 0).isEqualTo(i % SIDE >= 40);
    }
  }

  @Test
  void passesLieOverEachOtherByOrderOrSureness() {
    ObjectSet first = cells("roof", 0.6, 0, 60);
    ObjectSet second = cells("water", 0.9, 40, 120);

    ObjectSet byOrder = new OverlayClasses(
            List.of(first, second), OverlayClasses.By.ORDER, List.of(), OverlayClasses.Show.CLASSES)
        .run(Job.QUIET);
    ObjectSet bySure = new OverlayClasses(
            List.of(first, second),
            OverlayClasses.By.PROBABILITY,
            List.of(),
            OverlayClasses.Show.CLASSES)
        .run(Job.QUIET);
    ObjectSet conflicts = new OverlayClasses(
            List.of(first, second),
            OverlayClasses.By.ORDER,
            List.of(),
            OverlayClasses.Show.CONFLICTS)
        .run(Job.QUIET);

    // one pixel has no data
    double column = SIDE * byOrder.ground().area();
    assertThat(areaOf(byOrder, "roof")).isCloseTo(60 * column, within(0.3));
    assertThat(areaOf(byOrder, "water")).isCloseTo(60 * column, within(1e-6));
    assertThat(areaOf(bySure, "roof")).isCloseTo(40 * column, within(0.3));
    assertThat(Arrays.stream(byOrder.table().values("contested")).sum())
        .isCloseTo(20 * column, within(1e-6));
    assertThat(areaOf(conflicts, "roof or water")).isCloseTo(20 * column, within(1e-6));
  }

  /** Cells of 20 pixels between two columns, all of one class. */
  private static ObjectSet cells(String name, double probability, int from, int to) {
    Object cut = StepCatalogue.get("segment")
        .make(Map.of("scene", shore()), Map.of("method", "grid", "cell", "10"))
        .run(Job.QUIET);
    ObjectSet cells = (ObjectSet) ResultKinds.as(cut, ObjectSet.class);
    int[] rows = rowsOf(cells);
    int[] wanted = java.util.stream.IntStream.range(0, rows.length)
        .filter(i -> i % SIDE >= from && i % SIDE < to)
        .map(i -> rows[i])
        .filter(row -> row >= 0)
        .distinct()
        .sorted()
        .toArray();
    ObjectSet some = cells.select(wanted);
    double[] sure = new double[some.count()];
    Arrays.fill(sure, probability);
    return some.withTable(some.table()
        .with(List.of(
            Table.Column.ofTexts(
                "class", "Class", java.util.Collections.nCopies(some.count(), name)),
            new Table.Column("probability", "Probability", "", sure))));
  }

  @Test
  void objectsFallIntoClustersByTheirFeatures() {
    Object cut = StepCatalogue.get("segment")
        .make(Map.of("scene", shore()), Map.of("method", "grid", "cell", "5"))
        .run(Job.QUIET);
    ObjectSet cells = (ObjectSet) StepCatalogue.get("measure")
        .make(
            Map.of("objects", ResultKinds.as(cut, ObjectSet.class), "scene", shore()),
            Map.of("features", "spectral"))
        .run(Job.QUIET);

    ObjectSet clustered = new ClusterObjects(
            cells, List.of(), Optional.empty(), ClusterSettings.kMeans(4, 2))
        .run(Job.QUIET);

    int[] rows = rowsOf(clustered);
    List<String> four = List.of(
        classAt(clustered, rows, 20, 60),
        classAt(clustered, rows, 55, 61),
        classAt(clustered, rows, 100, 20),
        classAt(clustered, rows, 100, 100));
    assertThat(four).doesNotHaveDuplicates();
    assertThat(ClassMap.isMap(clustered)).isFalse();
    ObjectSet joined = new ClassObjects(clustered, List.of(), 0).run(Job.QUIET);
    assertThat(joined.count()).isBetween(4, 12);
  }

  @Test
  void aClassMapSurvivesItsFiles() {
    ObjectSet clusters = cluster(shore(), 4).run(Job.QUIET);
    Path file = folder.resolve("clusters.arrow");
    ObjectColumns.write(clusters, file, Job.QUIET);

    ObjectSet read = ObjectColumns.read(file, Job.QUIET);

    assertThat(ResultKinds.digest(read, Job.QUIET))
        .isEqualTo(ResultKinds.digest(clusters, Job.QUIET));
    assertThat(ClassMap.isMap(read)).isTrue();
  }

  @Test
  void whatCannotBeDoneIsSaidInWords() {
    ObjectSet clusters = cluster(shore(), 4).run(Job.QUIET);

    assertThatThrownBy(
            () -> new NameClasses(clusters, List.of("cluster 9=water"), List.of()).run(Job.QUIET))
        .hasMessageContaining("no class 'cluster 9'")
        .hasMessageContaining("cluster 1");
    assertThatThrownBy(() -> new NameClasses(clusters, List.of("water"), List.of()).run(Job.QUIET))
        .hasMessageContaining("is no pair");
    assertThatThrownBy(() ->
            new NameClasses(clusters, List.of("cluster 1=a"), List.of("a=blue")).run(Job.QUIET))
        .hasMessageContaining("#RRGGBB");
    assertThatThrownBy(() -> new Absorb(
                clusters, Optional.empty(), 1, List.of("roof=3"), Absorb.Into.LONGEST_BORDER, 0)
            .run(Job.QUIET))
        .hasMessageContaining("no class 'roof'");
    assertThatThrownBy(() ->
            new Absorb(clusters, Optional.empty(), 1, List.of(), Absorb.Into.LONGEST_BORDER, 4))
        .hasMessageContaining("3 or 5");
    assertThatThrownBy(() -> new Cluster(
            new PixelScene(shore(), Optional.empty()),
            Optional.empty(),
            Optional.of(clusters),
            List.of(),
            List.of(),
            ClusterSettings.kMeans(2, 1)))
        .hasMessageContaining("Say which classes");
    ObjectSet plain = clusters.withTable(new Table(4, List.of(clusters.table().column("area"))));
    assertThatThrownBy(() -> new ClassObjects(plain, List.of(), 0).run(Job.QUIET))
        .hasMessageContaining("have no classes");
  }

  @Test
  void pointsAreSamplesButNoAreas() {
    OutlineSet points = new OutlineSet(
        GRID.crs(),
        List.of(new GeometryFactory()
            .createPoint(new org.locationtech.jts.geom.Coordinate(512_010, 6_701_990))),
        new Table(1, List.of(Table.Column.ofTexts("class", "Class", List.of("water")))));

    assertThatThrownBy(() ->
            StepCatalogue.get("cluster").make(Map.of("scene", shore(), "within", points), Map.of()))
        .hasMessageContaining("'within'")
        .hasMessageContaining("feature 1 is a Point");
    assertThat(StepCatalogue.get("classify-pixels")
            .make(Map.of("scene", shore(), "samples", points), Map.of()))
        .isInstanceOf(ClassifyPixels.class);
  }
}
