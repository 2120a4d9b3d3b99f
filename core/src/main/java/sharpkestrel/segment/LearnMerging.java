package sharpkestrel.segment;

import java.util.List;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Learns from outlines which neighbouring regions belong to one thing. */
@StepInfo(
    id = "learn-merging",
    stage = Stage.SEGMENT,
    title = "Learn merging",
    makes = "Learned merging",
    does =
        "Learns from outlines of things which neighbouring regions belong together, for the learned criterion of 'segment'. In"
            + " each round regions merge by what was learned so far, and the pairs that come up are added to the lessons.")
public record LearnMerging(
    @In(does = "The scene that the outlines lie in; the more bands have roles, the better.")
    Raster scene,

    @In(
        does =
            "Outlines of whole things, such as roofs, ten or more, better a hundred; objects that were picked will do too.",
        byHand = true,
        suits = Suits.OBJECTS)
    OutlineSet outlines,

    @Setting(
        label = "Rounds",
        does =
            "How often regions are merged and learned from; each goes on from what the last one learned.",
        min = 1,
        max = 10,
        initial = "3")
    int rounds)
    implements Step<MergingModel> {

  private static final int LEAST_OUTLINES = 10;

  @Override
  public MergingModel run(Job job) {
    MergingSchool school = MergingSchool.of(scene, outlines, job);
    if (school.outlines() < LEAST_OUTLINES) {
      throw new RasterException(
          "Of " + outlines.count() + " outlines " + school.outlines()
              + " hold most of a region of the scene; to learn from, at least " + LEAST_OUTLINES
              + " are needed, better some hundreds. Pick or draw more, or check that they lie in this scene.");
    }
    String about = school.outlines() + " outlines in one scene, " + rounds + " rounds";
    return MergingSchool.learn(List.of(school), rounds, about, job);
  }
}
