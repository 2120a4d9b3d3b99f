package sharpkestrel.extract;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.objects.Selection;
import sharpkestrel.raster.Job;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Keeps the objects that pass all tests, with a score of how clearly they do. */
@StepInfo(
    id = "winnow",
    stage = Stage.EXTRACT,
    family = "Tests",
    title = "Winnow",
    next = "Measured: what tells the wanted ones apart?",
    nextFor = Suits.MEASURED,
    makes = "Winnowed",
    does =
        "Keeps the objects that pass every test, and gives each a score of how clearly it passes. A test is a feature"
            + " and a range; together they are CQL2 text.")
public record Winnow(
    @In(does = "Measured objects.") ObjectSet objects,

    @Setting(
        label = "Tests",
        does = "CQL2 text, e.g. area BETWEEN 25 AND 900 AND ndvi < 0.2; empty keeps all.",
        initial = "auto")
    Optional<String> tests)
    implements Step<ObjectSet> {

  public Winnow {
    RangeTest.parse(tests.orElse(""));
  }

  @Override
  public ObjectSet run(Job job) {
    Table table = objects.table();
    List<RangeTest> stack = RangeTest.parse(tests.orElse(""));
    double[] scores = WinnowScores.of(table, stack);
    boolean[] passing = Selection.of(table, tests.orElse(""));
    int[] rows = IntStream.range(0, table.rows()).filter(i -> passing[i]).toArray();
    Table scored = table.with(List.of(new Table.Column("score", "Score", "", scores)));
    return objects.withTable(scored).select(rows);
  }
}
