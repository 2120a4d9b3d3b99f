package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Orthorectifies a scene with its RPC over a height model, or over one height. */
@StepInfo(
    id = "ortho",
    stage = Stage.PLACE,
    title = "Orthorectify",
    next = "A raw scene with a sensor model.",
    nextFor = Suits.RAW,
    makes = "{} ortho",
    does =
        "Puts every pixel of a raw scene where it lies on the ground, with the scene's RPC and a height model. Areas"
            + " without heights are left without data. With a surface model it makes a true ortho.")
public record Ortho(
    @In(does = "A raw scene with its RPC.", suits = Suits.RAW)
    Raster scene,

    @Group Relief relief,

    @In(
        does =
            "Surface model, one band in metres: heights of what stands on the ground. With it roofs lie where they stand, and"
                + " what they hide is left without data.",
        optional = true,
        ofPlace = true,
        byHand = true,
        suits = {Suits.PLACED, Suits.ONE_BAND})
    Optional<Raster> surface,

    @Setting(
        label = "Height",
        does =
            "One height above the ellipsoid for the whole scene, where there is no height model.",
        unit = "m",
        min = -500,
        max = 9000,
        initial = "auto")
    double height,

    @Group ResultGrid result)
    implements Step<Raster> {

  /** Share of a scene's frame without heights that is told. */
  private static final double WORTH_SAYING = 0.02;

  @Override
  public Raster run(Job job) {
    Rpc rpc = Bases.requireRpc(scene, job);
    Heights ground = ground(rpc, job);
    CrsName target =
        result.crs().isKnown() ? result.crs() : ground.model().grid().crs();
    Crs system = Crs.of(target);
    Grid grid = grid(rpc, system, ground, job);
    Attachments attachments = scene.attachments().without(Rpc.class);
    RectifiedRaster rectified = new RectifiedRaster(
        scene, rpc, Optional.of(ground), grid, attachments, result.resampling());
    return surface.isPresent()
        ? new TrueOrthoRaster(rectified, new HiddenGround(rpc, ground, system, grid))
        : rectified;
  }

  private Heights ground(Rpc rpc, Job job) {
    Optional<Heights> model =
        surface.isPresent() ? Optional.of(relief.lifted(surface.get(), job)) : relief.read(job);
    if (model.isPresent()) {
      if (!Double.isNaN(height)) {
        throw new RasterException("Give a height model or one height, not both.");
      }
      return model.get();
    }
    if (Double.isNaN(height)) {
      throw new RasterException(
          "Heights are needed: give a height model, or one height in metres above the ellipsoid (--height).");
    }
    return constant(rpc);
  }

  /** A flat model that reaches far beyond the scene. */
  private Heights constant(Rpc rpc) {
    double reach = 4 * Math.max(rpc.longitudeScale(), rpc.latitudeScale());
    Grid grid = new Grid(
        3,
        3,
        Affine.northUp(rpc.longitudeOffset() - reach, rpc.latitudeOffset() + reach, 2 * reach / 3),
        Crs.WGS84);
    float[] plane = new float[9];
    java.util.Arrays.fill(plane, (float) height);
    Band band = new Band("height", BandRole.HEIGHT, "m", SampleType.FLOAT32, Double.NaN);
    Raster flat =
        new MemoryRaster(grid, java.util.List.of(band), Attachments.NONE, new float[][] {plane});
    return new Heights(flat, 0, height - 1, height + 1);
  }

  private Grid grid(Rpc rpc, Crs system, Heights ground, Job job) {
    double size = result.pixelSize();
    if (Double.isNaN(size)) {
      double metres = GroundSize.of(scene).mean();
      size =
          TargetGrid.twoDigits(metres) / (system.isGeographic() ? 111_320 : system.metresPerUnit());
    }
    Extent area = result.extent().isPresent()
        ? result.extent().get()
        : covered(rpc, system, ground, size, job);
    return TargetGrid.covering(area, size, system);
  }

  /** The ground under the scene's border at the lowest and highest heights, out to whole pixels. */
  private Extent covered(Rpc rpc, Crs system, Heights ground, double size, Job job) {
    CoordinateMap map = Crs.of(Crs.WGS84).to(system);
    Extent all = null;
    int steps = 16;
    double[] point = new double[2];
    for (double h : new double[] {ground.lowest(), ground.highest()}) {
      for (int i = 0; i <= steps; i++) {
        for (int j = 0; j <= steps; j++) {
          if (i % steps != 0 && j % steps != 0) {
            continue;
          }
          rpc.toGround(
              (double) i / steps * scene.grid().width(),
              (double) j / steps * scene.grid().height(),
              h,
              point);
          map.apply(point, 1);
          if (Double.isNaN(point[0])) {
            throw new RasterException(
                "The sensor model does not lead from the image to the ground at "
                    + h
                    + " m. The RPC may belong to another scene.");
          }
          Extent at = new Extent(point[0], point[1], point[0], point[1]);
          all = all == null ? at : all.union(at);
        }
      }
    }
    Extent model = TargetGrid.extentOf(ground, system);
    Extent area = all.intersect(model);
    if (area.isEmpty()) {
      throw new RasterException("The height model does not reach the scene: the scene covers "
          + all
          + " and the heights "
          + model
          + " in "
          + system.name()
          + ". Choose the height model of this area, or check that the RPC belongs to this scene.");
    }
    double beyond = 1 - area.width() * area.height() / (all.width() * all.height());
    if (beyond > WORTH_SAYING) {
      job.warn(
          Math.round(100 * beyond)
              + " % of the frame that the scene may cover lies beyond the edge of the height model and is left out.");
    }
    return new Extent(
        Math.floor(area.west() / size) * size,
        Math.floor(area.south() / size) * size,
        Math.ceil(area.east() / size) * size,
        Math.ceil(area.north() / size) * size);
  }
}
