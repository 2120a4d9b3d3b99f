package sharpkestrel.segment;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.place.HeightAboveGround;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Heap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.learn.Card;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.regions.FeatureSpace;
import sharpkestrel.segment.regions.Method;
import sharpkestrel.segment.regions.Regions;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Builds the merge tree of a scene and cuts it at a grain. */
@StepInfo(
    id = "segment",
    stage = Stage.SEGMENT,
    title = "Segment",
    next = "Not divided into objects yet.",
    makes = "Objects",
    version = 4,
    does =
        "Grows superpixels and merges them, the cheapest pair first, into one tree for the scene: pairs that are alike in"
            + " colour, light and height, with no sharp border between them, that make a rectangle. The grain chooses a"
            + " cut. Objects of a finer grain nest in those of a coarser one.")
public record Segment(
    @In(does = "The scene to segment, all its bands.") Raster scene,

    @Group HeightModels models,

    @In(
        does = "A further raster whose bands count too, such as an index or texture.",
        optional = true,
        byHand = true)
    Optional<Raster> layer,

    @Setting(
        label = "Grain",
        does =
            "Typical area of an object; auto is 60 m² for the merge tree, 150 m² where its criterion is learned, and 60 pixels where those are under 12;"
                + " the regions as they were made for other methods. In pixels where the scene has no place.",
        unit = "m²",
        min = 0.01,
        max = 1e9,
        initial = "auto")
    double grain,

    @Group MergeOrder order,

    @Group Regions regions,

    @Setting(
        label = "Weights",
        does =
            "What counts how much, against 1 as it is: bands by role, light, colour, height, layer, edges (contrast across a"
                + " border), form (rectangles first), e.g. near_infrared=2,light=0.5,form=0. texture=1 takes what shows within off the"
                + " contrast across a border: for land, water and haze rather than roofs; auto is 1 where there is no place or pixels"
                + " are over 1.5 m, else 0.",
        initial = "auto")
    List<String> weights,

    @Setting(
        label = "Height",
        does =
            "Height of the cut in the tree, to repeat a cut exactly; auto finds it from the grain.",
        min = 0,
        initial = "auto")
    double height)
    implements Step<Cut> {

  private static final double STANDARD_GRAIN = 60;
  private static final double LEARNED_GRAIN = 150;

  /** An object of the standard grain has at least so many; where pixels are larger, it has the usual number of them. */
  private static final double LEAST_PIXELS = 12;

  private static final double USUAL_PIXELS = 60;

  /** Metres. */
  private static final double LARGE_PIXEL = 1.5;

  /** Bytes of a tree in the making for each superpixel, and of what the learned criterion looks at. */
  private static final long TREE_BYTES = 250;

  private static final long LEARNED_BYTES = 4 * (Rims.RIM + 3 * Rims.SIDE);

  public Segment {
    Weights.parse(weights, 0);
  }

  @Override
  public Cut run(Job job) {
    GroundSize ground = GroundSize.of(scene);
    double sceneArea = scene.grid().pixels() * ground.area();
    if (grain > sceneArea) {
      throw new RasterException("A grain of " + grain + " " + ground.areaUnit()
          + " is larger than the scene (" + Math.round(sceneArea) + " " + ground.areaUnit()
          + "). Choose less.");
    }
    Weights wanted = Weights.parse(weights, usualTexture(ground));
    FeatureSpace space =
        FeatureSpace.of(scene, wanted.bands(), models.aboveGround(scene.grid()), layers(), job);
    order.learned().ifPresent(model -> warnOutside(model, space, ground, job));
    ScratchLabels labels = new ScratchLabels(scene.grid());
    int count = regions.make(scene, onGrid(Resampling.NEAREST), space, labels, job);
    checkRoom(count);
    RegionGraph graph = RegionGraph.of(space, labels, count, job);
    Optional<LearnedCosts> learned =
        order.learned().map(model -> learned(model, graph, space, labels, job));
    return cut(labels, new TreeBuilder(graph, wanted.criterion(), learned).build(job));
  }

  /** Things of the size of a roof are told where a pixel is small; else, and in a photo, it is land that is. */
  private double usualTexture(GroundSize ground) {
    boolean land = !ground.inMetres() || ground.mean() > LARGE_PIXEL;
    return land && order.criterion() == MergingBy.LIKENESS ? 1 : 0;
  }

  private void checkRoom(int count) {
    long each = TREE_BYTES + (order.criterion() == MergingBy.LEARNED ? LEARNED_BYTES : 0);
    Heap.check(
        each * count,
        String.format(Locale.ROOT, "The tree of %,d superpixels or regions", count),
        "Take larger ones (the setting Superpixel, or the method's own), clip a smaller area");
  }

  private static void warnOutside(
      MergingModel model, FeatureSpace space, GroundSize ground, Job job) {
    List<String> differs = model.card().outside(Card.of(ground, space.roles(), space.contrast()));
    if (!differs.isEmpty()) {
      job.warn("This scene lies outside of what the merging model has seen (" + model.about()
          + "): " + String.join("; ", differs)
          + ". What it makes may be worse than the criterion 'likeness': compare the two, or learn from outlines in"
          + " this scene with 'learn-merging'.");
    }
  }

  private LearnedCosts learned(
      MergingModel model, RegionGraph graph, FeatureSpace space, LabelRaster labels, Job job) {
    double sunAzimuth = MergingSchool.sunAzimuth(scene);
    if (Double.isNaN(sunAzimuth)) {
      job.warn(
          "The scene does not say where the sun stood, which the learned criterion looks at: it tells less well what"
              + " lies in shade.");
    }
    Rims rims = Rims.of(graph, space, labels, sunAzimuth, job);
    PairEvidence evidence =
        new PairEvidence(graph, rims, space, model.card().pixelOf(GroundSize.of(scene)));
    return new LearnedCosts(evidence, rims, Optional.of(model));
  }

  /** What is cut, or holds numbers, is no layer of the space. */
  private List<Raster> layers() {
    boolean divides = regions.method() == Method.CUT_VALUES || regions.method() == Method.NUMBERS;
    return divides ? List.of() : onGrid(Resampling.BILINEAR).stream().toList();
  }

  private Optional<Raster> onGrid(Resampling resampling) {
    return layer.map(
        raster -> HeightAboveGround.onGrid(scene.grid(), raster, "further raster", resampling));
  }

  /** Cuts a tree that this scene has already, at the grain or the height that is set. */
  public Cut cut(LabelRaster superpixels, MergeTree tree) {
    GroundSize ground = GroundSize.of(scene);
    if (!Double.isNaN(height)) {
      return Cut.atHeight(superpixels, tree, ground, grainOrStandard(ground), height);
    }
    return Double.isNaN(grain) && regions.method() != Method.MERGE_TREE
        ? Cut.asMade(superpixels, tree, ground)
        : Cut.at(superpixels, tree, ground, grainOrStandard(ground));
  }

  private double grainOrStandard(GroundSize ground) {
    double standard = order.criterion() == MergingBy.LEARNED ? LEARNED_GRAIN : STANDARD_GRAIN;
    return Double.isNaN(grain) ? ground.areaOf(standard, LEAST_PIXELS, USUAL_PIXELS) : grain;
  }
}
