package sharpkestrel.segment;

import java.util.Optional;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;

/** Which neighbours merge first. */
public record MergeOrder(
    @Setting(
        label = "Criterion",
        does =
            "likeness: what is alike and without a sharp border merges first; learned: as a merging model says, which tells the"
                + " lit and the shaded side of one roof from a roof and its shadow. It says where a scene lies outside of what"
                + " was learned from.",
        initial = "likeness")
    MergingBy criterion,

    @In(
        does =
            "What was learned by 'learn-merging' (criterion learned); without it that which ships: roofs of half-metre"
                + " imagery.",
        optional = true,
        without = "roofs, shipped",
        byHand = true,
        when = "criterion=learned")
    Optional<MergingModel> model) {

  static final MergeOrder BY_LIKENESS = new MergeOrder(MergingBy.LIKENESS, Optional.empty());

  /** The model that says, where one is to. */
  Optional<MergingModel> learned() {
    return criterion == MergingBy.LEARNED
        ? Optional.of(model.orElseGet(MergingModelFile::ofRoofs))
        : Optional.empty();
  }
}
