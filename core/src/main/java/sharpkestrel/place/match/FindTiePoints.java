package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.Bases;
import sharpkestrel.place.Heights;
import sharpkestrel.place.Relief;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Finds tie points between a scene and a placed reference. */
@StepInfo(
    id = "tiepoints",
    stage = Stage.PLACE,
    title = "Tie points",
    next = "No place and no sensor model.",
    nextFor = Suits.UNPLACED,
    makes = "Points of {}",
    does =
        "Finds places of a placed reference in a scene: by features where nothing is known of the scene's place, then by"
            + " correlation of gradients, coarse to fine, keeping what agrees. Points are spread over both.")
public record FindTiePoints(
    @In(does = "The scene whose place is sought or to be mended.")
    Raster scene,

    @In(
        does =
            "A placed raster that shows the same ground; of one without a coordinate system the pixels are the ground.")
    Raster reference,

    @Group Relief relief,

    @Setting(
        label = "Scene's band",
        does = "Role of the scene's band that is looked at; auto takes pan, green or the first.",
        initial = "auto")
    Optional<BandRole> sceneBand,

    @Setting(
        label = "Reference's band",
        does =
            "Role of the reference's band that is looked at; auto takes pan, green or the first.",
        initial = "auto")
    Optional<BandRole> referenceBand,

    @Setting(
        label = "Points",
        does = "How many points are wanted at most.",
        min = 6,
        max = 2000,
        initial = "200")
    int most,

    @Setting(
        label = "Search",
        does = "How far the scene may lie from where it claims.",
        unit = "reference pixels",
        min = 2,
        max = 400,
        initial = "40")
    double search,

    @Setting(
        label = "Check points",
        does = "Share of the points that models are checked against and not fitted to.",
        min = 0,
        max = 0.5,
        initial = "0")
    double check)
    implements Step<TiePoints> {

  @Override
  public TiePoints run(Job job) {
    Optional<Heights> ground = relief.read(job);
    if (!reference.grid().crs().isKnown()) {
      if (ground.isPresent()) {
        throw new RasterException(
            "The reference has no coordinate system, so no heights are known on it. Choose a placed raster, tell where this one"
                + " lies (step describe), or leave the heights out: then its own pixels are the ground.");
      }
      job.warn(
          "The reference has no coordinate system: its own pixels are taken as the ground, and what is warped by these points"
              + " lies on them.");
    }
    Raster ours = band(scene, sceneBand, "scene");
    Raster theirs = band(reference, referenceBand, "reference");
    Optional<ImageModel> known = Bases.of(scene, reference.grid().crs());
    if (known.isPresent() && known.get().usesHeights() && ground.isEmpty()) {
      throw new RasterException(
          "The scene is raw: its sensor model needs heights to say where it lies. Give a height model.");
    }
    TieFinder finder = new TieFinder(ours, theirs, ground, job);
    TiePoints found;
    if (known.isPresent()) {
      // an RPC is off by a shift above all; more would let roofs on one side pass for a tilt
      ModelKind kind = known.get().usesHeights() ? ModelKind.SHIFT : ModelKind.AFFINE;
      found = finder.find(known.get(), kind, search, most);
    } else {
      ModelKind kind = ground.isPresent() ? ModelKind.CAMERA : ModelKind.POLYNOMIAL_2;
      FeatureStart start = FeatureStart.of(ours, theirs, ground, kind, job);
      found = byFeatures(finder, start, job);
    }
    return withChecks(found);
  }

  /** By correlation from where features begin; where patches do not agree, as between views from the side, by features alone. */
  private TiePoints byFeatures(TieFinder finder, FeatureStart start, Job job) {
    try {
      return finder.find(start.model(), start.kind(), Math.max(search, start.uncertainty()), most);
    } catch (TieFinder.TooFew few) {
      job.warn("Patches of the two do not match well enough to be measured, so the "
          + start.points().points().size()
          + " points are those of features alone, some tenths of a pixel to a pixel off. "
          + few.getMessage());
      return start.points();
    }
  }

  static Raster band(Raster raster, Optional<BandRole> role, String which) {
    if (role.isPresent()) {
      int band = raster
          .bandOf(role.get())
          .orElseThrow(() -> new RasterException("The " + which + " has no band '"
              + role.get().label()
              + "'. It has: "
              + raster.bands().stream().map(b -> b.role().label()).toList()
              + "."));
      return new BandsOf(raster, band);
    }
    int band = raster
        .bandOf(BandRole.PAN)
        .orElseGet(() -> raster.bandOf(BandRole.GREEN).orElse(0));
    return raster.bands().size() == 1 ? raster : new BandsOf(raster, band);
  }

  /** Every so many-th point is kept for checking; points come in an order that is spread over the scene. */
  private TiePoints withChecks(TiePoints found) {
    if (check == 0) {
      return found;
    }
    List<TiePoint> points = new ArrayList<>();
    double owed = 0;
    for (TiePoint point : found.points()) {
      owed += check;
      boolean held = owed >= 1;
      owed -= held ? 1 : 0;
      points.add(point.as(held ? TiePoint.Use.CHECK : TiePoint.Use.CONTROL));
    }
    return found.with(points);
  }
}
