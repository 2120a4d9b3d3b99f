package sharpkestrel.demo;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import sharpkestrel.demo.ground.Parishes;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.SensorView;
import sharpkestrel.demo.survey.HeightFiles;
import sharpkestrel.demo.survey.OrthoFile;
import sharpkestrel.demo.survey.PhotoFile;
import sharpkestrel.demo.survey.RegisterFiles;
import sharpkestrel.demo.survey.SceneFiles;
import sharpkestrel.demo.survey.TruthRasters;
import sharpkestrel.demo.things.Things;
import sharpkestrel.demo.truth.ChangeTruth;
import sharpkestrel.demo.truth.SceneTruth;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.io.Json;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/** Writes a survey to disk: two scenes, an air photo, height models, the council's files, and the truth. */
public final class SurveyMaker {

  private static final int SKETCH = 8;

  private final World world;
  private final Survey survey;
  private final Survey.Order order;

  private SurveyMaker(World world, Survey survey, Survey.Order order) {
    this.world = world;
    this.survey = survey;
    this.order = order;
  }

  /** Makes what of a survey is not there yet, and says where it is. */
  public static Survey make(Path parent, Survey.Order order, Job job) {
    return make(parent, order, Optional.empty(), job);
  }

  /** A survey of which what is ordered is there already. */
  public static Optional<Survey> find(Path parent, Survey.Order order) {
    return Optional.of(Survey.in(parent, order)).filter(survey -> survey.has(order.holds()));
  }

  /**
   * @param quickLook given a coarse picture of the raw scene at once, before the survey is made; not called where it is
   *     there already
   */
  public static Survey make(Path parent, Survey.Order order, Consumer<Raster> quickLook, Job job) {
    return make(parent, order, Optional.of(quickLook), job);
  }

  private static Survey make(
      Path parent, Survey.Order order, Optional<Consumer<Raster>> quickLook, Job job) {
    Survey survey = Survey.in(parent, order);
    if (!survey.has(order.holds())) {
      job.progress("Surveying " + order.scheme().region().site().title(), 0, 1);
      World world = new World(order.seed(), order.size(), order.scenario(), order.scheme());
      new SurveyMaker(world, survey, order).write(quickLook, job);
    }
    return survey;
  }

  private void write(Optional<Consumer<Raster>> quickLook, Job job) {
    Parishes parishes = new Parishes(world.ground(), world.extent());
    for (Survey.Holds part : Survey.Holds.values()) {
      if (part.compareTo(order.holds()) <= 0 && !survey.has(part)) {
        switch (part) {
          case FIRST_SCENE -> firstScene(parishes, quickLook, job);
          case ALL_FILES -> otherFiles(parishes, job);
          case TRUTH_RASTERS -> {
            rasters(world.one(), world.things(), job);
            rasters(world.two(), world.thingsOfDayTwo(), job);
          }
        }
        mark(part);
      }
    }
  }

  private void firstScene(Parishes parishes, Optional<Consumer<Raster>> quickLook, Job job) {
    scene(world.one(), world.things(), parishes, quickLook, job);
    job.progress("Measuring the ground", 0, 1);
    heights().terrain(survey.heights(), job);
  }

  private void otherFiles(Parishes parishes, Job job) {
    job.progress("Measuring heights", 0, 2);
    heights().surface(world.one(), world.lasting(), survey.surface(), job);
    job.progress("Measuring heights", 1, 2);
    heights().coarse(survey.coarseHeights(), job);
    RegisterFiles.parishes(parishes, world.crs(), survey.parishes());
    RegisterFiles.buildings(
        world.lasting().buildings(), world.extent(), world.seed(), world.crs(), survey.register());
    scene(world.two(), world.thingsOfDayTwo(), parishes, Optional.empty(), job);
    if (world.scheme().years() > 0) {
      new ChangeTruth(world.changes(), world.crs(), world.extent())
          .write(
              survey.folder().resolve("truth"),
              world.one(),
              world.two(),
              world.ground(),
              world.undulation());
    }
    photo(job);
  }

  private Region.Site site() {
    return world.scheme().region().site();
  }

  private HeightFiles heights() {
    return new HeightFiles(world.ground(), world.extent(), world.crs());
  }

  private void mark(Survey.Holds part) {
    ObjectNode about = Json.object()
        .put("survey", site().title())
        .put("seed", world.seed())
        .put("size", world.size())
        .put("scenario", world.scenario().label());
    Scheme scheme = world.scheme();
    if (!scheme.equals(Scheme.PLAIN)) {
      about
          .put("region", scheme.region().label())
          .put("season", scheme.season().label())
          .put("sensor", scheme.instrument().label())
          .put("sky", scheme.sky().label())
          .put("years", scheme.years());
    }
    Json.write(
        about
            .put("holds", part.name())
            .put("undulation", world.undulation())
            .put("buildings", world.things().buildings().size())
            .put("vessels", world.things().vessels().size())
            .put("vehicles", world.things().vehicles().size()),
        survey.marker());
  }

  private void scene(
      Scene scene,
      Things things,
      Parishes parishes,
      Optional<Consumer<Raster>> quickLook,
      Job job) {
    Exposure exposure = new Exposure(scene, world.ground(), things, world.undulation());
    RpcFit fit = SensorView.rpc(
        scene.sensor(),
        world.crs(),
        world.undulation() + site().low(),
        world.undulation() + site().high());
    quickLook.ifPresent(look -> look.accept(quickLook(exposure, fit, job)));
    double[] bias = bias(scene);
    Optional<OrthoFile> ortho = scene.instrument().isAirborne()
        ? Optional.of(new OrthoFile(
            scene, world.ground(), things, world.crs(), world.middleOf(scene), world.undulation()))
        : Optional.empty();
    new SceneTruth(
            scene,
            world.ground(),
            things,
            parishes,
            world.crs(),
            world.undulation(),
            scene.instrument().gsd(),
            ortho.map(OrthoFile::extent).orElse(null))
        .write(survey.truth(scene.name(), ""), fit, bias);
    String progress = "Photographing " + site().title() + ", " + scene.name().replace('-', ' ');
    if (ortho.isPresent()) {
      ortho.get().write(survey.ortho(scene.name()), progress, job);
      return;
    }
    new SceneFiles(exposure, site().slug(), survey.item(scene.name()).getParent())
        .write(fit, bias, progress, job);
  }

  /** A shift in a direction of its own for each scene. */
  private double[] bias(Scene scene) {
    double course = Chance.of(world.seed(), 5, scene.name().hashCode()).between(0, 2 * Math.PI);
    return new double[] {order.bias() * Math.cos(course), order.bias() * Math.sin(course)};
  }

  private static Raster quickLook(Exposure exposure, RpcFit fit, Job job) {
    int side = exposure.scene().sensor().width() / SKETCH;
    List<Band> bands = exposure.scene().bands(SampleType.FLOAT32);
    Attachments attachments = Attachments.NONE.with(Rpc.class, fit.rpc().scaled(SKETCH));
    return new MemoryRaster(
        Grid.ofPixels(side, side), bands, attachments, exposure.sketch(SKETCH, job));
  }

  private void photo(Job job) {
    job.progress("Developing the air photo", 0, 1);
    Scene then =
        new Scene("photo", world.photo(), world.photoDay(), 1, new double[Material.BANDS][2]);
    Exposure exposure = new Exposure(then, world.ground(), world.photoThings(), world.undulation());
    new PhotoFile(exposure, world.seed()).write(survey.photo(), job);
  }

  private Set<Material> materials() {
    return world.scheme().region() == Region.ISLES && world.scheme().season() != Season.SNOW
        ? Material.OF_THE_ISLES
        : EnumSet.allOf(Material.class);
  }

  private void rasters(Scene scene, Things things, Job job) {
    job.progress("Writing the truth of " + scene.name().replace('-', ' '), 0, 2);
    TruthRasters truth = new TruthRasters(
        scene, world.ground(), things, world.crs(), scene.instrument().gsd(), world.undulation());
    TruthRasters.legend(materials(), survey.folder().resolve("truth/cover-legend.json"));
    truth.radiometry(survey.truth(scene.name(), "radiometry.tif"), job);
    job.progress("Writing the truth of " + scene.name().replace('-', ' '), 1, 2);
    truth.cover(survey.truth(scene.name(), "cover.tif"), job);
    if (!world.scheme().equals(Scheme.PLAIN)) {
      truth.landCover(survey.truth(scene.name(), "land-cover.tif"), job);
      TruthRasters.landCoverLegend(survey.folder().resolve("truth/land-cover-legend.json"));
    }
  }
}
