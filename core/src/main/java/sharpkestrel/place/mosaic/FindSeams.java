package sharpkestrel.place.mosaic;

import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Group;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Finds the seams along which scenes are laid together. */
@StepInfo(
    id = "seams",
    stage = Stage.PLACE,
    title = "Seams",
    does =
        "Finds where scenes that overlap differ least once their tones agree, and cuts around what is to be kept whole: the"
            + " area that each scene shows, by minimum cuts. The areas can be edited and given to the mosaic.")
public record FindSeams(@Group Block block, @Group Seamlines lines) implements Step<OutlineSet> {

  @Override
  public OutlineSet run(Job job) {
    return BalancedBlock.of(block, job).seams(lines, job);
  }
}
