package sharpkestrel.objects;

import java.util.stream.IntStream;
import sharpkestrel.expr.Cql2;
import sharpkestrel.raster.Job;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Keeps the objects that pass a test of any form. */
@StepInfo(
    id = "choose-objects",
    stage = Stage.SEGMENT,
    title = "Choose objects",
    makes = "Chosen",
    does =
        "Keeps the objects that pass a test: any CQL2 of their features, such as an area drawn in a plot. To test feature by"
            + " feature, with a score of how clearly objects pass, use 'winnow'.")
public record ChooseObjects(
    @In(does = "Measured objects.") ObjectSet objects,

    @Setting(
        label = "Test",
        does = "CQL2 text, e.g. ndvi >= 0.002 * area - 0.1 OR height_mean > 20.")
    String test)
    implements Step<ObjectSet> {

  public ChooseObjects {
    Cql2.parseTest(test);
  }

  @Override
  public ObjectSet run(Job job) {
    boolean[] chosen = Selection.of(objects.table(), test);
    return objects.select(
        IntStream.range(0, chosen.length).filter(i -> chosen[i]).toArray());
  }
}
