package sharpkestrel.extract;

import java.util.List;
import java.util.Optional;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.step.Setting;

/** How classes are learned from samples. */
public record LearnBy(
    @Setting(
        label = "Class column",
        does =
            "Column of the samples that holds the class; auto is 'class', or the only column of texts.",
        initial = "auto")
    Optional<String> classColumn,

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
        label = "Balance",
        does = "Whether every class counts the same, however many samples it has.",
        initial = "true")
    boolean balance,

    @Setting(
        label = "Seed",
        does = "Start of what is drawn by chance; the same gives the same classes.",
        min = 0,
        max = 1e9,
        initial = "1")
    int seed) {

  /** All columns that say what an object is, every class counting the same. */
  public static LearnBy of(Learner method) {
    return new LearnBy(Optional.empty(), method, List.of(), true, 1);
  }
}
