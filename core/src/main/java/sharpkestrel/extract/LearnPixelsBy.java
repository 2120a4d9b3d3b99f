package sharpkestrel.extract;

import java.util.List;
import java.util.Locale;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.extract.pixels.PixelFeatures;
import sharpkestrel.extract.pixels.PixelSamples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;

/** How classes of pixels are learned from samples. */
public record LearnPixelsBy(
    @Setting(
        label = "Method",
        does =
            "How it is learned: gradient boosting, a random forest, extremely randomised trees, maximum likelihood (quick), nearest"
                + " neighbours, or support vectors.",
        initial = "boosting")
    Learner method,

    @Setting(
        label = "Bands",
        does = "Bands to tell by, by role or name, separated by commas; auto takes all.",
        initial = "auto")
    List<String> bands,

    @Setting(
        label = "Differences",
        does = "Whether the normalised difference of each two bands is looked at too.",
        initial = "true")
    boolean differences,

    @Setting(
        label = "Windows",
        does =
            "Sides of windows about a pixel, of which the mean and the spread of each band are looked at too: odd numbers of pixels, or"
                + " metres with an m behind, separated by commas; auto is 5,15; none looks at the pixel alone.",
        initial = "auto")
    List<String> windows,

    @Setting(
        label = "Most pixels",
        does =
            "Pixels of each class to learn from, at the most; where samples have more, some that lie evenly over them.",
        min = 10,
        max = 1e6,
        initial = "4000")
    int most,

    @Group SampleUse use) {

  private static final List<String> USUAL_WINDOWS = List.of("5", "15");
  private static final String NONE = "none";

  /** All bands, their differences and usual windows. */
  public static LearnPixelsBy of(Learner method) {
    return new LearnPixelsBy(method, List.of(), true, List.of(), 4000, SampleUse.USUAL);
  }

  /** What is looked at of a scene's pixels. */
  PixelFeatures features(Raster scene) {
    boolean none = windows.size() == 1 && windows.getFirst().strip().equalsIgnoreCase(NONE);
    return PixelFeatures.of(
        scene, bands, differences, none ? List.of() : windows.isEmpty() ? USUAL_WINDOWS : windows);
  }

  /**
   * @throws sharpkestrel.raster.RasterException where there is nothing to learn
   */
  Classifier learn(Raster scene, OutlineSet outlines, Job job) {
    Examples examples = examples(scene, outlines, job);
    String about = String.format(
        Locale.ROOT,
        "from %d pixels in %d samples of one scene",
        examples.count(),
        outlines.count());
    return use.learn(examples, method, about, true, 1, job);
  }

  /** Pixels within samples, with what they are told by. */
  Examples examples(Raster scene, OutlineSet outlines, Job job) {
    DrawnRegions.requireSystemOf(scene.grid(), outlines);
    Samples samples = Samples.of(outlines, use.column());
    Examples examples = PixelSamples.of(features(scene), samples, most, use.seed(), job);
    return use.weighted(examples);
  }
}
