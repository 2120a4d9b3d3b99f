package sharpkestrel.extract;

import java.util.Optional;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Suits;

/** What a few picked things are, and which of them are wanted. */
public record AlikeBy(
    @In(
        does =
            "Outlines or points of the picked things, and of rejected ones where they have a class.",
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    OutlineSet picks,

    @Setting(
        label = "Class column",
        does =
            "Column that holds the class; auto is 'class', or the only column of texts; where there is none all are wanted.",
        initial = "auto")
    Optional<String> classColumn,

    @Setting(
        label = "Wanted",
        does = "The class whose like is looked for; all others are rejected. auto: all are wanted.",
        initial = "auto")
    Optional<String> wanted,

    @Setting(
        label = "Least likeness",
        does =
            "What is less alike is left out; the picked things themselves are 1, the distance at which a thing is half as alike is 0.5.",
        min = 0,
        max = 1,
        initial = "0.5")
    double least) {

  private static final String WANTED = "wanted";

  /** The picked with a class each. */
  Samples samples() {
    boolean named =
        classColumn.isPresent() || picks.table().columns().stream().anyMatch(Table.Column::isText);
    Samples samples = named
        ? Samples.of(picks, classColumn.orElse(""))
        : new Samples(picks.outlines(), java.util.List.of(WANTED), new int[picks.count()]);
    if (wanted.isPresent() && !samples.classes().contains(wanted.get())) {
      throw new RasterException("None of the picked things is '" + wanted.get() + "'; they are "
          + String.join(", ", samples.classes()) + ".");
    }
    return samples;
  }

  boolean isWanted(String ofClass) {
    return wanted.isEmpty() || wanted.get().equals(ofClass);
  }
}
