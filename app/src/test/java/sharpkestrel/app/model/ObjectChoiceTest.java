package sharpkestrel.app.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.objects.Selection;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.ScratchLabels;

class ObjectChoiceTest {

  private static final int COUNT = 100;

  private final Workspace workspace = new Workspace();
  private ObjectChoice choice;

  /** Areas of 0 to 99, and heights of their last digit. */
  private static Result result(String name) {
    double[] area = new double[COUNT];
    double[] height = new double[COUNT];
    int[] rowOf = new int[COUNT + 1];
    Arrays.setAll(area, i -> i);
    Arrays.setAll(height, i -> i % 10);
    Arrays.setAll(rowOf, i -> i - 1);
    Table table = new Table(
        COUNT,
        List.of(
            new Table.Column("area", "Area", "m²", area),
            new Table.Column("height", "Height", "m", height)));
    ObjectSet set = new ObjectSet(
        new ScratchLabels(Grid.ofPixels(4, 4)), rowOf, new int[COUNT], table, new GroundSize(1, 1));
    return new Result(
        name,
        name,
        StepCatalogue.get("measure"),
        Map.of(),
        Map.of(),
        Map.of(),
        set,
        new Origin.Fingerprint(name, name));
  }

  @BeforeEach
  void showObjects() {
    choice = new ObjectChoice(workspace);
    workspace.display().paneAProperty().set(result("one"));
  }

  private int chosen() {
    return Selection.count(choice.chosen());
  }

  @Test
  void filterRangesAndTheDrawnAreaHoldTogether() {
    assertThat(choice.isAll()).isTrue();
    assertThat(chosen()).isEqualTo(COUNT);

    choice.filter("area >= 50");
    assertThat(chosen()).isEqualTo(50);
    choice.range(new RangeTest("height", 5, Double.POSITIVE_INFINITY));
    assertThat(chosen()).isEqualTo(25);
    assertThat(Selection.count(choice.passing())).isEqualTo(50);
    assertThat(choice.test()).contains("(area >= 50) AND height >= 5");
    choice.area("area", "height", new double[] {60, 80, 80, 60}, new double[] {-1, -1, 7.5, 7.5});
    // 65, 66, 67 and 75, 76, 77
    assertThat(chosen()).isEqualTo(6);
    // what is written passes just the same objects
    boolean[] again =
        Selection.of(choice.objects().orElseThrow().table(), choice.test().orElseThrow());
    assertThat(again).isEqualTo(choice.chosen());

    choice.range(new RangeTest("height", Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY));
    assertThat(choice.ranges()).isEmpty();
    choice.clear();
    assertThat(choice.isAll()).isTrue();
    assertThat(chosen()).isEqualTo(COUNT);
  }

  @Test
  void aFilterThatCannotBeReadChangesNothing() {
    choice.filter("area < 10");

    assertThatThrownBy(() -> choice.filter("aera < 5"))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("area");
    assertThatThrownBy(() -> choice.filter("area <")).isInstanceOf(ExpressionException.class);

    assertThat(choice.filter()).isEqualTo("area < 10");
    assertThat(chosen()).isEqualTo(10);
  }

  @Test
  void theSecondSelectionIsTheOthersUntilOneIsKept() {
    choice.filter("area < 10");
    choice.keep(0);
    assertThat(Selection.count(choice.selection(1).orElseThrow())).isEqualTo(90);

    choice.filter("area >= 95");
    choice.keep(1);
    assertThat(Selection.count(choice.selection(0).orElseThrow())).isEqualTo(10);
    assertThat(Selection.count(choice.selection(1).orElseThrow())).isEqualTo(5);

    choice.dropSelections();
    assertThat(choice.selection(0)).isEmpty();
    assertThat(choice.selection(1)).isEmpty();
  }

  @Test
  void otherObjectsAreChosenAnew() {
    choice.filter("area < 10");

    workspace.display().paneAProperty().set(result("two"));

    assertThat(choice.isAll()).isTrue();
    assertThat(chosen()).isEqualTo(COUNT);

    workspace.display().paneAProperty().set(null);
    assertThat(choice.objects()).isEmpty();
    assertThat(choice.chosen()).isEmpty();
  }
}
