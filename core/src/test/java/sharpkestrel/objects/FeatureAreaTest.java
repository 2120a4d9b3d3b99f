package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;

class FeatureAreaTest {

  private static Table points(double[] xs, double[] ys) {
    return new Table(
        xs.length,
        List.of(
            new Table.Column("area", "Area", "m²", xs), new Table.Column("ndvi", "NDVI", "", ys)));
  }

  /** Crossings of a ray, as a plain definition of what lies within a line that does not cross itself. */
  private static boolean within(double[] xs, double[] ys, double x, double y) {
    int crossings = 0;
    for (int i = 0; i < xs.length; i++) {
      int j = (i + 1) % xs.length;
      if (ys[i] > y != ys[j] > y) {
        double at = xs[i] + (y - ys[i]) / (ys[j] - ys[i]) * (xs[j] - xs[i]);
        crossings += at > x ? 1 : 0;
      }
    }
    return crossings % 2 == 1;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void whatLiesWithinAStarDrawnOverFeaturesOfDifferentScalePasses(long seed) {
    Random random = new Random(seed);
    int corners = 11;
    double[] xs = new double[corners];
    double[] ys = new double[corners];
    for (int i = 0; i < corners; i++) {
      double angle = 2 * Math.PI * i / corners;
      double r = i % 2 == 0 ? 1 : 0.3 + 0.3 * random.nextDouble();
      xs[i] = 5_000 + 2_000 * r * Math.cos(angle);
      ys[i] = -0.05 + 0.2 * r * Math.sin(angle);
    }
    double[] px = new double[4_000];
    double[] py = new double[4_000];
    for (int i = 0; i < px.length; i++) {
      px[i] = 3_000 + 4_000 * random.nextDouble();
      py[i] = -0.25 + 0.4 * random.nextDouble();
    }

    boolean[] passes = Selection.of(points(px, py), FeatureArea.test("area", "ndvi", xs, ys));

    int wrong = 0;
    int inside = 0;
    for (int i = 0; i < px.length; i++) {
      boolean expected = within(xs, ys, px[i], py[i]);
      inside += expected ? 1 : 0;
      wrong += passes[i] != expected ? 1 : 0;
    }
    assertThat(inside).isGreaterThan(500);
    // no more than lies beside a line that was simplified
    assertThat(wrong).isLessThan(20);
  }

  @Test
  void alongUprightSidesTheEndsAreWithin() {
    String test = FeatureArea.test(
        "area", "ndvi", new double[] {10, 20, 20, 10}, new double[] {0.1, 0.1, 0.4, 0.4});

    assertThat(Selection.of(
            points(
                new double[] {10, 20, 9.99, 20.01, 15, 15, 15},
                new double[] {0.2, 0.3, 0.2, 0.2, 0.1, 0.4, 0.41}),
            test))
        .containsExactly(true, true, false, false, true, true, false);
  }

  @Test
  void aLineThatEnclosesNothingIsPassedByNothing() {
    Table table = points(new double[] {1, 2}, new double[] {1, 2});

    assertThat(Selection.of(
            table,
            FeatureArea.test("area", "ndvi", new double[] {1, 2, 1.5}, new double[] {1, 1, 1})))
        .containsOnly(false);
    assertThat(Selection.of(
            table, FeatureArea.test("area", "ndvi", new double[] {1, 2}, new double[] {1, 2})))
        .containsOnly(false);
  }

  @Test
  void objectsAreChosenByATestThatNoWinnowCouldHold() {
    Table table = points(new double[] {1, 2, 3, 4}, new double[] {0.4, 0.1, 0.4, 0.9});
    ObjectSet set = new ObjectSet(
        new ScratchLabels(Grid.ofPixels(2, 2)),
        new int[] {-1, 0, 1, 2, 3},
        new int[4],
        table,
        new GroundSize(1, 1));

    ObjectSet chosen = (ObjectSet) StepCatalogue.get("choose-objects")
        .make(Map.of("objects", set), Map.of("test", "ndvi > 0.2 * area OR area = 2"))
        .run(Job.QUIET);

    assertThat(chosen.table().values("area")).containsExactly(1, 2, 4);
    assertThatThrownBy(() -> new ChooseObjects(set, "aera > 2").run(Job.QUIET))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("area");
  }
}
