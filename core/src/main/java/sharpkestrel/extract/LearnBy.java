package sharpkestrel.extract;

import java.util.List;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;

/** How classes are learned from samples. */
public record LearnBy(
    @Setting(
        label = "Method",
        does =
            "How it is learned: a random forest, extremely randomised trees (smoother with few samples), gradient boosting (best with"
                + " many), maximum likelihood, nearest neighbours, or support vectors.",
        initial = "forest")
    Learner method,

    @Setting(
        label = "Features",
        does = "Columns to tell by, separated by commas; auto takes all numbers but directions.",
        initial = "auto")
    List<String> features,

    @Setting(
        label = "Thin",
        does =
            "Of two features whose ranks go together more strongly than this over the samples, only the one that tells the classes"
                + " apart better is looked at; 1 keeps all.",
        min = 0.1,
        max = 1,
        initial = "1")
    double thin,

    @Group SampleUse use) {

  /** All columns that say what an object is, every class counting the same. */
  public static LearnBy of(Learner method) {
    return new LearnBy(method, List.of(), 1, SampleUse.USUAL);
  }
}
