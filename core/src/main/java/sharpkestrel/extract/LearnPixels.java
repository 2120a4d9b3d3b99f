package sharpkestrel.extract;

import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Learns classes of pixels from samples. */
@StepInfo(
    id = "learn-pixels",
    stage = Stage.EXTRACT,
    family = "Pixels",
    title = "Learn pixels",
    makes = "Pixel classifier",
    does =
        "Learns from samples to tell classes of pixels apart by their bands and what lies about them, and says what that is worth on blocks"
            + " of ground that were kept back. The model is a file that other scenes can be classified with.")
public record LearnPixels(
    @Group PixelScene in,

    @In(
        does = "Samples: outlines or points with a class.",
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    OutlineSet samples,

    @Group LearnPixelsBy by)
    implements Step<Classifier> {

  @Override
  public Classifier run(Job job) {
    return by.learn(in.raster(), samples, job);
  }
}
