package sharpkestrel.objects;

import java.util.Optional;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Which features tell two selections of objects apart. */
@StepInfo(
    id = "tell-apart",
    stage = Stage.SEGMENT,
    title = "Tell apart",
    does =
        "Ranks the features of objects by how well each tells two selections apart, each with the value that parts them"
            + " best.")
public record TellApart(
    @In(does = "Measured objects.") ObjectSet objects,

    @Setting(label = "First", does = "Test that the objects of the first selection pass, in CQL2.")
    String first,

    @Setting(
        label = "Second",
        does = "Test that those of the second pass; auto takes all that are not in the first.",
        initial = "auto")
    Optional<String> second)
    implements Step<FeatureRanking> {

  public TellApart {
    Cql2.parseTest(first);
    second.ifPresent(Cql2::parseTest);
  }

  @Override
  public FeatureRanking run(Job job) {
    Table table = objects.table();
    boolean[] one = Selection.of(table, first);
    boolean[] other =
        second.map(test -> Selection.of(table, test)).orElseGet(() -> Selection.not(one));
    if (Selection.count(one) == 0 || Selection.count(other) == 0) {
      throw new ExpressionException("Of " + table.rows() + " objects the first selection has "
          + Selection.count(one) + " and the second " + Selection.count(other)
          + ". Give tests that objects pass.");
    }
    return FeatureRanking.of(table, one, other, job);
  }
}
