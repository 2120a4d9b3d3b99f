package sharpkestrel.place.mosaic;

import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Tracer;
import sharpkestrel.raster.Window;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Outlines what a raster really shows. */
@StepInfo(
    id = "footprint",
    stage = Stage.PLACE,
    title = "Footprint",
    does =
        "Outlines the pixels that have data in every band: without no-data, holes and black collars. What a scene covers,"
            + " rather than its frame.")
public record FindFootprint(
    @In(does = "A raster whose valid pixels are to be outlined.")
    Raster scene,

    @Setting(
        label = "Simplify",
        does = "How far the outline may be from the pixels' sides, in pixels.",
        unit = "px",
        min = 0,
        max = 1000,
        initial = "1")
    double simplify)
    implements Step<OutlineSet> {

  /** Pixels whose sides are followed; larger rasters are followed at a reduced level, where any valid pixel counts. */
  private static final int MOST_PIXELS = 64_000_000;

  private static final int STRIP = 256;

  @Override
  public OutlineSet run(Job job) {
    Raster bare = Collar.without(scene, job);
    int level = 0;
    while (bare.grid().atLevel(level).pixels() > MOST_PIXELS) {
      level++;
    }
    Grid grid = bare.grid().atLevel(level);
    boolean[] valid = new boolean[(int) grid.pixels()];
    int at = level;
    Parallel.run(Math.ceilDiv(grid.height(), STRIP), job, s -> {
      Window strip = new Window(0, s * STRIP, grid.width(), STRIP).intersect(grid.window());
      float[][] planes = bare.read(at, strip, job.request());
      for (int i = 0; i < strip.area(); i++) {
        boolean known = true;
        for (float[] plane : planes) {
          known &= !Float.isNaN(plane[i]);
        }
        valid[strip.y() * grid.width() + i] = known;
      }
      job.progress("looking for data", strip.bottom(), grid.height());
    });
    Geometry outline = Tracer.trace(valid, grid.width(), grid.height(), 0, 0);
    if (outline.isEmpty()) {
      throw new RasterException("No pixel of this raster has data in every band.");
    }
    Geometry simple = TopologyPreservingSimplifier.simplify(outline, simplify / (1 << level));
    Affine a = grid.affine();
    Geometry placed =
        new AffineTransformation(a.a(), a.b(), a.c(), a.d(), a.e(), a.f()).transform(simple);
    double pixel = GroundSize.of(bare.grid()).mean();
    long count = 0;
    for (boolean v : valid) {
      count += v ? 1 : 0;
    }
    Table table = new Table(1, List.of(new Table.Column("area", "Area", "m²", new double[] {
      count * pixel * pixel * (1L << 2 * level)
    })));
    return new OutlineSet(bare.grid().crs(), List.of(placed), table);
  }
}
