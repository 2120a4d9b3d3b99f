package sharpkestrel.place;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.ImageInverse;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Measures how far a scene is off at points whose places are known. */
@StepInfo(
    id = "offsets",
    stage = Stage.PLACE,
    title = "Offsets",
    does =
        "How far a placed scene, or one with a sensor model, is off at points whose true places are known: a line from each"
            + " true place to where the scene puts it. Check points only, where there are any; points that are off are"
            + " left out.")
public record FindOffsets(
    @In(does = "A placed scene, or a raw one with its RPC, as it lies.")
    Raster scene,

    @In(does = "Points of the scene, such as those found in it and in a reference.")
    TiePoints points)
    implements Step<OutlineSet> {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  @Override
  public OutlineSet run(Job job) {
    TiePoints own = points.scaledTo(scene.grid().width(), scene.grid().height());
    ImageModel model = Bases.of(scene, own.crs())
        .orElseThrow(
            () -> new RasterException(
                "This scene does not say where it lies, so there is nothing to check. Place it first."));
    List<TiePoint> checked = own.of(TiePoint.Use.CHECK);
    List<TiePoint> used = checked.isEmpty() ? own.of(TiePoint.Use.CONTROL) : checked;
    double step = GroundSize.of(scene).mean();
    List<Geometry> lines = new ArrayList<>();
    List<double[]> rows = new ArrayList<>();
    for (TiePoint point : used) {
      if (model.usesHeights() && Double.isNaN(point.height())) {
        job.warn("Point " + point.id()
            + " has no height and is not measured: a sensor model needs one.");
        continue;
      }
      double[] place = {point.x(), point.y()};
      ImageInverse.toGround(model, (x, y) -> point.height(), point.col(), point.row(), step, place);
      if (Double.isNaN(place[0])) {
        job.warn("Point " + point.id()
            + " is not on the ground by the scene's model and is not measured.");
        continue;
      }
      double dx = place[0] - point.x();
      double dy = place[1] - point.y();
      lines.add(GEOMETRY.createLineString(
          new Coordinate[] {new Coordinate(point.x(), point.y()), new Coordinate(place[0], place[1])
          }));
      rows.add(new double[] {point.id(), dx, dy, Math.hypot(dx, dy)});
    }
    if (rows.isEmpty()) {
      throw new RasterException("None of the points can be measured: "
          + (used.isEmpty() ? "all are off. Switch some on." : "find them over a height model."));
    }
    return new OutlineSet(
        own.crs(),
        lines,
        new Table(
            rows.size(),
            List.of(
                column(rows, 0, "point", "Point", ""),
                column(rows, 1, "off_east", "Off east", "m"),
                column(rows, 2, "off_north", "Off north", "m"),
                column(rows, 3, OFF, "Off", "m"))));
  }

  /** Column with the length of each offset. */
  public static final String OFF = "off";

  private static Table.Column column(
      List<double[]> rows, int k, String name, String title, String unit) {
    return new Table.Column(
        name, title, unit, rows.stream().mapToDouble(row -> row[k]).toArray());
  }
}
