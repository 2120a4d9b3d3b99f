package sharpkestrel.extract;

import java.util.Optional;
import sharpkestrel.step.Setting;

/** What is taken of samples, whatever is learned from them. */
public record SampleUse(
    @Setting(
        label = "Class column",
        does =
            "Column of the samples that holds the class; auto is 'class', or the only column of texts.",
        initial = "auto")
    Optional<String> classColumn,

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

  /** The column that is usual, every class counting the same. */
  static final SampleUse USUAL = new SampleUse(Optional.empty(), true, 1);

  /** The column's name; empty for the usual one. */
  String column() {
    return classColumn.orElse("");
  }
}
