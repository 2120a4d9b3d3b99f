package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.rules.Rule;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

/** Rules on square cells, whose relations can be counted by hand. */
class ClassifyByRulesTest {

  private static final int CELLS = 8;
  private static final int CELL = 10;

  /** Cells of ten pixels a side that lie nowhere, with one feature. */
  private static ObjectSet cells(double[] light) {
    int side = CELLS * CELL;
    Grid grid = new Grid(side, side, Affine.IDENTITY, CrsName.NONE);
    float[][] planes = new float[1][side * side];
    Arrays.fill(planes[0], 1);
    MemoryRaster scene = new MemoryRaster(
        grid, List.of(Band.of(BandRole.RED, SampleType.FLOAT32)), Attachments.NONE, planes);
    Object cut = StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("method", "grid", "cell", String.valueOf(CELL)))
        .run(Job.QUIET);
    ObjectSet set = (ObjectSet) ResultKinds.as(cut, ObjectSet.class);
    return set.withTable(set.table().with(List.of(new Table.Column("light", "Light", "", light))));
  }

  private static double[] light(double... first) {
    double[] all = new double[CELLS * CELLS];
    Arrays.setAll(all, i -> i < first.length ? first[i] : 0);
    return all;
  }

  private static ObjectSet told(ObjectSet cells, String rules, int rounds) {
    return new ClassifyByRules(
            cells, Optional.empty(), Optional.of(rules), rounds, ClassifyByRules.Others.NONE)
        .run(Job.QUIET);
  }

  private static List<String> classes(ObjectSet set) {
    List<String> classes = new ArrayList<>();
    for (int row = 0; row < set.count(); row++) {
      Table.Column column = set.table().column("class");
      classes.add(column.isText() ? column.text(row) : "");
    }
    return classes;
  }

  @Test
  void theFirstRuleThatHoldsCountsAndTellsHowClearly() {
    double[] light = new double[CELLS * CELLS];
    Arrays.setAll(light, i -> i);

    ObjectSet set = told(
        cells(light), "dark: light < 10; edge: light = 20 OR light = 21; bright: light >= 20.5", 5);

    List<String> classes = classes(set);
    assertThat(classes.subList(0, 10)).containsOnly("dark");
    assertThat(classes.subList(10, 20)).containsOnly("");
    assertThat(classes.subList(20, 22)).containsOnly("edge");
    assertThat(classes.subList(22, 64)).containsOnly("bright");
    assertThat(set.table().column("rule").text(0)).isEqualTo("1: dark: light < 10");
    double[] degree = set.table().values("degree");
    double[] doubt = set.table().values("doubt");
    // a tenth of the middle 90 %: of 64 whole numbers 56 or 57
    assertThat(degree[9]).isCloseTo(0.5 + 0.5 / 5.65, within(0.01));
    assertThat(degree[0]).isEqualTo(1);
    assertThat(degree[63]).isEqualTo(1);
    assertThat(doubt[0]).isZero();
    assertThat(doubt[9]).isCloseTo(1 - 1 / 5.65, within(0.02));
    assertThat(doubt[63]).isZero();
  }

  @Test
  void relationsAreThoseCountedByHand() {
    // one cell in the corner, one beside it, of 8 by 8
    ObjectSet seen = told(
        cells(light(9, 0, 5)),
        "seed: light = 9; touching: border('seed') > 0.33; tall: light = 5",
        5);
    List<String> classes = classes(seen);
    assertThat(classes.get(0)).isEqualTo("seed");
    // the cell beside has three neighbours, the one below as many
    assertThat(classes.get(1)).isEqualTo("touching");
    assertThat(classes.get(CELLS)).isEqualTo("touching");
    assertThat(classes.get(CELLS + 1)).isEmpty();
    assertThat(classes.get(2)).isEqualTo("tall");

    ObjectSet far =
        told(cells(light(9)), "seed: light = 9; near: distance('seed') <= 21; far: light >= 0", 5);
    List<String> rings = classes(far);
    assertThat(rings.get(2)).isEqualTo("near");
    assertThat(rings.get(3)).as("two cells between: 20 pixels").isEqualTo("near");
    assertThat(rings.get(4)).isEqualTo("far");
    assertThat(rings.get(2 * CELLS + 3)).as("aslant hypot(11, 21) - 1 = 22.7").isEqualTo("far");

    ObjectSet counted = told(
        cells(light(9, 0, 9)),
        "seed: light = 9; between: neighbours('seed') = 2; beside: class_share('seed') > 0.3",
        5);
    assertThat(classes(counted).get(1)).isEqualTo("between");
    assertThat(classes(counted).get(CELLS)).isEqualTo("beside");
  }

  @Test
  void whatTouchesGrowsRoundByRoundUntilNothingChanges() {
    double[] light = new double[CELLS * CELLS];
    Arrays.fill(light, 1);
    light[0] = 9;
    for (int row = 0; row < CELLS; row++) {
      light[row * CELLS + 4] = 0;
    }

    ObjectSet flood =
        told(cells(light), "water: light = 9; water: light = 1 AND neighbours('water') > 0", 100);

    List<String> classes = classes(flood);
    for (int i = 0; i < classes.size(); i++) {
      assertThat(classes.get(i)).isEqualTo(i % CELLS < 4 ? "water" : "");
    }
  }

  @Test
  void rulesThatUndoEachOtherAreSaid() {
    List<String> warnings = new ArrayList<>();
    Job job = new Job() {
      @Override
      public int threads() {
        return 1;
      }

      @Override
      public void warn(String message) {
        warnings.add(message);
      }
    };

    new ClassifyByRules(
            cells(light()),
            Optional.empty(),
            Optional.of("a: class = 'b'; b: class = 'a'; a: class IS NULL"),
            7,
            ClassifyByRules.Others.NONE)
        .run(job);

    assertThat(warnings).singleElement().asString().contains("After 7 rounds");
  }

  @Test
  void objectsSeeTheClassOfTheCoarserOneTheyLieIn() {
    ObjectSet fine = cells(light());
    Grid grid = fine.labels().grid();
    Object halves = StepCatalogue.get("segment")
        .make(
            Map.of(
                "scene",
                new MemoryRaster(
                    grid,
                    List.of(Band.of(BandRole.RED, SampleType.FLOAT32)),
                    Attachments.NONE,
                    new float[1][grid.width() * grid.height()])),
            Map.of("method", "grid", "cell", "40"))
        .run(Job.QUIET);
    ObjectSet coarse = (ObjectSet) ResultKinds.as(halves, ObjectSet.class);
    coarse = coarse.withTable(coarse
        .table()
        .with(List.of(
            Table.Column.ofTexts("class", "Class", List.of("town", "sea", "town", "town")))));

    ObjectSet set = new ClassifyByRules(
            fine,
            Optional.of(coarse),
            Optional.of("boat: coarser_class = 'sea'"),
            3,
            ClassifyByRules.Others.NONE)
        .run(Job.QUIET);

    List<String> classes = classes(set);
    for (int i = 0; i < classes.size(); i++) {
      boolean sea = i % CELLS >= 4 && i / CELLS < 4;
      assertThat(classes.get(i)).isEqualTo(sea ? "boat" : "");
    }
  }

  @Test
  void rulesReadBackAsTheyAreWritten() {
    String text =
        "tall grass: ndvi > 0.3 AND border('a; b') < 0.5; \"x\": light IN (1, 2)\nc: NOT (light = 1)";
    List<Rule> rules = Rule.parse(text);

    assertThat(rules).extracting(Rule::ofClass).containsExactly("tall grass", "\"x\"", "c");
    assertThat(Rule.parse(Rule.toText(rules))).isEqualTo(rules);
  }

  @Test
  void whatCannotBeReadIsSaidWithItsRule() {
    assertThatThrownBy(() -> told(cells(light()), "a: light > 1; b light", 3))
        .hasMessageContaining("Rule 2")
        .hasMessageContaining("a colon");
    assertThatThrownBy(() -> told(cells(light()), "a: light + 1", 3))
        .hasMessageContaining("Rule 1")
        .hasMessageContaining("not a test");
    assertThatThrownBy(() -> told(cells(light()), "a: area_of('b') > 1", 3))
        .hasMessageContaining("no function 'area_of'")
        .hasMessageContaining("border");
    assertThatThrownBy(() -> told(cells(light()), "a: border(light) > 1", 3))
        .hasMessageContaining("class in quotation marks");
    assertThatThrownBy(() -> told(cells(light()), "a: lite > 1", 3))
        .hasMessageContaining("no feature 'lite'");
    assertThatThrownBy(() -> told(cells(light()), "", 3)).hasMessageContaining("no rules");
  }

  @Test
  void itDoesNotMatterInWhichOrderObjectsCome() {
    SplittableRandom random = new SplittableRandom(4);
    double[] light = new double[CELLS * CELLS];
    Arrays.setAll(light, i -> random.nextDouble());
    String rules =
        "a: light > 0.8; b: border('a') > 0.2 AND light > 0.3; c: distance('b') < 5; d: light >= 0";
    ObjectSet cells = cells(light);
    int[] turned = new int[cells.count()];
    Arrays.setAll(turned, i -> turned.length - 1 - i);

    List<String> straight = classes(told(cells, rules, 20));
    List<String> backward = classes(told(cells.select(turned), rules, 20));

    assertThat(backward.reversed()).isEqualTo(straight);
  }
}
