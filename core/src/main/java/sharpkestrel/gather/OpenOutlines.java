package sharpkestrel.gather;

import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Outlines, points and lines of a file, laid over a scene. */
@StepInfo(
    id = "open-outlines",
    stage = Stage.GATHER,
    title = "Open outlines",
    does =
        "Opens outlines, points or lines of a GeoPackage or GeoJSON file, or takes those of a result, and puts them into the"
            + " coordinate system of a scene, over which they are seen.")
public record OpenOutlines(
    @In(does = "Outlines, points or lines.", suits = Suits.POINTS)
    OutlineSet outlines,

    @In(
        does = "The scene over which they are seen, and whose coordinates they get.",
        optional = true,
        without = "as they are")
    Optional<Raster> scene)
    implements Step<OutlineSet> {

  @Override
  public OutlineSet run(Job job) {
    return scene.map(under -> over(under.grid(), job)).orElse(outlines);
  }

  private OutlineSet over(Grid grid, Job job) {
    CrsName system = grid.crs();
    boolean same = outlines.crs().equals(system);
    if (!same && !(outlines.crs().isKnown() && system.isKnown())) {
      throw new RasterException(
          "The outlines are in " + outlines.crs().text() + ", the scene in "
              + system.text()
              + ": what lies in pixels cannot be laid over what is placed, nor the other way round. Place the scene first.");
    }
    CoordinateMap map = Crs.between(outlines.crs(), system);
    List<Geometry> moved =
        same ? outlines.outlines() : outlines.outlines().stream().map(map::of).toList();
    Extent extent = grid.extent();
    Envelope ground = new Envelope(extent.west(), extent.east(), extent.south(), extent.north());
    long beside = moved.stream()
        .filter(shape -> !ground.intersects(shape.getEnvelopeInternal()))
        .count();
    if (beside > 0) {
      job.warn(beside + " of " + moved.size() + " outlines lie beside the scene, which covers "
          + extent + ".");
    }
    return new OutlineSet(system, moved, outlines.table());
  }
}
