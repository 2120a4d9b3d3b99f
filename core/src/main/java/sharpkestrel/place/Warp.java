package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.place.fit.Advice;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fitter;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Lays a scene onto the ground by its tie points. */
@StepInfo(
    id = "warp",
    stage = Stage.PLACE,
    title = "Warp",
    makes = "{}, placed",
    does =
        "Lays a scene onto the ground by its tie points, with a map of the plane or a camera over heights. What the scene"
            + " does not show is left without data.")
public record Warp(
    @In(does = "A scene of which points are known.") Raster scene,

    @In(does = "Points of the scene.") TiePoints points,

    @Group Relief relief,

    @In(
        does =
            "A raster whose pixels those of the result are to coincide with; needed where the points lie on a picture without a"
                + " coordinate system.",
        optional = true)
    Optional<Raster> reference,

    @Setting(
        label = "Model",
        does =
            "What is fitted to the points; auto takes the one that errs least at points left out.",
        initial = "auto")
    Optional<ModelKind> model,

    @Group ResultGrid result)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    TiePoints own = points.scaledTo(scene.grid().width(), scene.grid().height());
    Optional<Heights> ground = relief.read(job);
    Fit fit = fit(own, ground);
    if (fit.model().usesHeights() && ground.isEmpty()) {
      throw new RasterException(fit.kind().label()
          + " needs heights on the way from the ground to the image. Give a height model.");
    }
    CrsName target = result.crs().isKnown()
        ? result.crs()
        : reference.map(r -> r.grid().crs()).orElse(own.crs());
    Grid grid = target.isKnown() ? grid(fit.model(), own, Crs.of(target), ground) : pictureGrid();
    Placement placement = new Placement(
        fit.kind().label(),
        own.of(TiePoint.Use.CONTROL).size(),
        fit.rms(),
        fit.leftOut(),
        own.of(TiePoint.Use.CHECK).size(),
        fit.rms(TiePoint.Use.CHECK),
        GroundSize.of(grid).mean());
    Attachments attachments =
        scene.attachments().without(Rpc.class).with(Placement.class, placement);
    return new RectifiedRaster(scene, fit.model(), ground, grid, attachments, result.resampling());
  }

  /** The reference's own pixels, where they are the ground. */
  private Grid pictureGrid() {
    return reference
        .map(Raster::grid)
        .orElseThrow(() -> new RasterException(
            "These points lie on the pixels of a picture without a coordinate system. Give that picture as reference"
                + " (--reference), so that the result has its pixels."));
  }

  private Fit fit(TiePoints own, Optional<Heights> ground) {
    ImageModel base = Bases.of(scene, own.crs()).orElseGet(() -> plain(own));
    Fitter fitter = new Fitter(own, base);
    if (model.isPresent()) {
      return fitter.fit(model.get());
    }
    return Advice.of(fitter, ground.isPresent()).fit();
  }

  /** Pixels of the reference, or of a metre, where nothing is known of the scene's own place. */
  private ImageModel plain(TiePoints own) {
    if (reference.isPresent() && reference.get().grid().crs().equals(own.crs())) {
      return GridModel.of(reference.get().grid());
    }
    TiePoint first = own.points().isEmpty()
        ? new TiePoint(0, 0, 0, 0, 0, 0, TiePoint.Use.OFF, 0)
        : own.points().getFirst();
    return new GridModel(own.crs(), Affine.northUp(first.x(), first.y(), 1).inverse());
  }

  private Grid grid(ImageModel fitted, TiePoints own, Crs system, Optional<Heights> ground) {
    Extent area =
        result.extent().isPresent() ? result.extent().get() : covered(fitted, own, system, ground);
    double size = result.pixelSize();
    if (reference.isPresent()
        && reference.get().grid().crs().equals(system.name())
        && reference.get().grid().affine().isNorthUp()) {
      Grid like = reference.get().grid();
      if (Double.isNaN(size)) {
        size = like.affine().pixelWidth();
      }
      return onLattice(area, size, like.affine().c(), like.affine().f(), system);
    }
    if (Double.isNaN(size)) {
      size = TargetGrid.twoDigits(sizeOfOne(fitted, area, system));
    }
    return onLattice(area, size, 0, 0, system);
  }

  private static Grid onLattice(Extent area, double size, double west, double north, Crs system) {
    double left = west + Math.floor((area.west() - west) / size) * size;
    double right = west + Math.ceil((area.east() - west) / size) * size;
    double top = north + Math.ceil((area.north() - north) / size) * size;
    double bottom = north + Math.floor((area.south() - north) / size) * size;
    return TargetGrid.covering(new Extent(left, bottom, right, top), size, system);
  }

  /** Units of the system in a pixel of the scene, in the middle of an area. */
  private static double sizeOfOne(ImageModel fitted, Extent area, Crs system) {
    var toModel = system.to(Crs.of(fitted.crs()));
    double x = (area.west() + area.east()) / 2;
    double y = (area.south() + area.north()) / 2;
    double step = area.width() / 1000;
    double[] places = {x, y, x + step, y, x, y + step};
    toModel.apply(places, 3);
    double[][] image = new double[3][2];
    for (int k = 0; k < 3; k++) {
      fitted.toImage(places[2 * k], places[2 * k + 1], 0, image[k]);
    }
    double area2 = Math.abs((image[1][0] - image[0][0]) * (image[2][1] - image[0][1])
        - (image[1][1] - image[0][1]) * (image[2][0] - image[0][0]));
    return step / Math.sqrt(area2);
  }

  private Extent covered(ImageModel fitted, TiePoints own, Crs system, Optional<Heights> ground) {
    double[] levels = ground.isPresent() && fitted.usesHeights()
        ? new double[] {ground.get().lowest(), ground.get().highest()}
        : new double[] {0};
    var toSystem = Crs.of(own.crs()).to(system);
    Extent near = null;
    for (TiePoint point : own.of(TiePoint.Use.CONTROL)) {
      double[] at = {point.x(), point.y()};
      toSystem.apply(at, 1);
      Extent here = new Extent(at[0], at[1], at[0], at[1]);
      near = near == null ? here : near.union(here);
    }
    double margin = Math.max(near.width(), near.height());
    Coverage coverage = new Coverage(
        fitted,
        system.to(Crs.of(fitted.crs())),
        levels,
        scene.grid().width(),
        scene.grid().height());
    Extent all = coverage.around(near.grown(margin > 0 ? margin / 2 : 1e-3));
    return ground.isPresent() && fitted.usesHeights()
        ? all.intersect(TargetGrid.extentOf(ground.get(), system))
        : all;
  }
}
