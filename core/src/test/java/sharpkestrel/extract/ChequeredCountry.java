package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.SplittableRandom;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
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

/** Fields of four kinds, each a square, cut into cells and measured. */
final class ChequeredCountry {

  static final int SIDE = 240;
  static final int FIELD = 20;
  static final GeometryFactory SHAPES = new GeometryFactory();
  static final String[] KINDS = {"bare", "corn", "grass", "water"};
  static final MemoryRaster SCENE = scene();
  static final ObjectSet OBJECTS = measure();

  private ChequeredCountry() {}

  static int kind(int field) {
    return new SplittableRandom(field).nextInt(KINDS.length);
  }

  private static MemoryRaster scene() {
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
    return new MemoryRaster(
        grid,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
  }

  private static ObjectSet measure() {
    Object cells = StepCatalogue.get("segment")
        .make(Map.of("scene", SCENE), Map.of("method", "grid", "cell", String.valueOf(FIELD)))
        .run(Job.QUIET);
    return (ObjectSet) StepCatalogue.get("measure")
        .make(
            Map.of("objects", ResultKinds.as(cells, ObjectSet.class), "scene", SCENE),
            Map.of("features", "spectral"))
        .run(Job.QUIET);
  }

  /** The middle of every {@code step}th field, as a point or as a small square. */
  static OutlineSet samples(int step, boolean points, String column) {
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
        OBJECTS.labels().grid().crs(),
        shapes,
        new Table(shapes.size(), List.of(Table.Column.ofTexts(column, "Class", classes))));
  }
}
