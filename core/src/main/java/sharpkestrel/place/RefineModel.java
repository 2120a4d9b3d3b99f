package sharpkestrel.place;

import java.util.Arrays;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.InSystem;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.PlaneFits;
import sharpkestrel.place.fit.PlaneMap;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Reattached;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/**
 * Mends a raw scene's RPC by points: a shift or an affine map in the image, which is what attitude and orbit errors come
 * down to (Grodecki and Dial 2003, PE&RS 69(1), 59-68).
 */
@StepInfo(
    id = "refine",
    stage = Stage.PLACE,
    title = "Refine RPC",
    makes = "{}, refined",
    does =
        "Mends a raw scene's RPC by tie points or ground control: a shift or an affine map in the image. The scene keeps"
            + " its pixels and gets the better model.")
public record RefineModel(
    @In(does = "A raw scene with its RPC.", suits = Suits.RAW)
    Raster scene,

    @In(does = "Points of the scene, with heights.") TiePoints points,

    @Setting(
        label = "Correction",
        does = "What is done in the image: shift (one point is enough) or affine (three and more).",
        initial = "shift")
    Correction correction)
    implements Step<Raster> {

  /** A correction in the image. */
  public enum Correction {
    SHIFT(ModelKind.SHIFT),
    AFFINE(ModelKind.AFFINE);

    private final ModelKind kind;

    Correction(ModelKind kind) {
      this.kind = kind;
    }
  }

  /** An affine correction is folded into a new RPC; it must be that near to it. */
  private static final double FOLDED = 0.05;

  @Override
  public Raster run(Job job) {
    Rpc rpc = Bases.requireRpc(scene, job);
    TiePoints own = points.scaledTo(scene.grid().width(), scene.grid().height());
    for (TiePoint point : own.of(TiePoint.Use.CONTROL)) {
      if (Double.isNaN(point.height())) {
        throw new RasterException(
            "Point " + point.id()
                + " has no height, which a sensor model needs. Find the points over a height model, or switch it off.");
      }
    }
    Fit fit = new Fitter(own, InSystem.of(rpc, own.crs())).fit(correction.kind);
    Rpc better = better(rpc, own, job);
    Placement placement = new Placement(
        correction.kind.label() + " in the image of the RPC",
        own.of(TiePoint.Use.CONTROL).size(),
        fit.rms(),
        fit.leftOut(),
        own.of(TiePoint.Use.CHECK).size(),
        fit.rms(TiePoint.Use.CHECK),
        GroundSize.of(scene).mean());
    return new Reattached(
        scene, scene.attachments().with(Rpc.class, better).with(Placement.class, placement));
  }

  private Rpc better(Rpc rpc, TiePoints own, Job job) {
    double[][] said = new double[own.of(TiePoint.Use.CONTROL).size()][2];
    double[][] seen = new double[said.length][];
    double[] heights = new double[said.length];
    var model = InSystem.of(rpc, own.crs());
    int at = 0;
    for (TiePoint point : own.of(TiePoint.Use.CONTROL)) {
      model.toImage(point.x(), point.y(), point.height(), said[at]);
      seen[at] = new double[] {point.col(), point.row()};
      heights[at++] = point.height();
    }
    if (correction == Correction.SHIFT) {
      double[] there = new double[2];
      PlaneFits.fit(ModelKind.SHIFT, said, seen).apply(0, 0, there);
      return rpc.shifted(-there[0], -there[1]);
    }
    // back from where things are seen to where the RPC puts them
    PlaneMap back = PlaneFits.fit(ModelKind.AFFINE, seen, said);
    double[] where = new double[2];
    double low = Math.min(
        rpc.heightOffset() - rpc.heightScale(), Arrays.stream(heights).min().orElseThrow());
    double high = Math.max(
        rpc.heightOffset() + rpc.heightScale(), Arrays.stream(heights).max().orElseThrow());
    RpcFit folded = RpcFit.of(
        (col, row, h, degrees) -> {
          back.apply(col, row, where);
          rpc.toGround(where[0], where[1], h, degrees);
        },
        scene.grid().width(),
        scene.grid().height(),
        low,
        high);
    if (!(folded.worst() < FOLDED)) {
      throw new RasterException("The corrected model is no RPC any more: the nearest is off by "
          + folded.worst()
          + " pixels. The points demand a correction that no sensor needs; look at the largest residuals, or"
          + " correct by a shift.");
    }
    job.progress("Folding the correction into the RPC", 1, 1);
    return folded.rpc();
  }
}
