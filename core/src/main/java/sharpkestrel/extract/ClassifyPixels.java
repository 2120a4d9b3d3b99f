package sharpkestrel.extract;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.extract.pixels.PixelFeatures;
import sharpkestrel.extract.pixels.PixelProbabilities;
import sharpkestrel.extract.pixels.PixelSamples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Probabilities of classes at each pixel, by samples or by a model. */
@StepInfo(
    id = "classify-pixels",
    stage = Stage.EXTRACT,
    family = "Pixels",
    title = "Classify pixels",
    makes = "Probabilities",
    does =
        "Gives every pixel the probability of each class, one band for each, by samples in the scene or by a model that was learned before."
            + " Where it is looked at it is worked out, so that settings are tried at once. 'class-map' takes the likeliest; 'segment' makes"
            + " objects of a probability.")
public record ClassifyPixels(
    @Group PixelScene in,

    @In(
        does = "Samples to learn from: outlines or points with a class.",
        optional = true,
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    Optional<OutlineSet> samples,

    @In(does = "A model to classify by, in place of samples.", optional = true, byHand = true)
    Optional<Classifier> model,

    @Group LearnPixelsBy by)
    implements Step<Raster> {

  /** Pixels whose features are held against what a model has seen. */
  private static final double LOOKED_AT = 20_000;

  @Override
  public Raster run(Job job) {
    Raster scene = in.raster();
    if (samples.isPresent() == model.isPresent()) {
      throw new RasterException(
          "Classes come from samples or from a model: give one of the two (--samples or --model).");
    }
    Classifier classifier = model.orElseGet(() -> by.learn(scene, samples.orElseThrow(), job));
    Raster probabilities = PixelProbabilities.of(scene, classifier);
    if (model.isPresent()) {
      warnOfUnseen(scene, classifier, job);
    } else {
      classifier.kept().ifPresent(kept -> job.progress(said(kept), 1, 1));
    }
    return CachedRaster.of(probabilities);
  }

  private static String said(Confusion kept) {
    return String.format(Locale.ROOT, "On kept-back blocks %.1f %% right", 100 * kept.accuracy());
  }

  private void warnOfUnseen(Raster scene, Classifier classifier, Job job) {
    PixelFeatures features = PixelFeatures.named(scene, classifier.features());
    double share = LOOKED_AT / scene.grid().pixels();
    List<String> outside = classifier.outside(PixelSamples.some(features, null, share, 1, job));
    if (!outside.isEmpty()) {
      job.warn("This scene lies beyond what the model has seen (" + classifier.about() + "): "
          + Classifier.shortList(outside)
          + ". What it says is a guess: label some pixels here and learn again.");
    }
  }
}
