package sharpkestrel.app.tools.winnow;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.ScratchLabels;

class WinnowModelTest {

  private static ObjectSet objects(int count, long seed) {
    Random random = new Random(seed);
    double[] area = random.doubles(count, 0, 100).toArray();
    double[] ndvi = random.doubles(count, -1, 1).toArray();
    ndvi[0] = Double.NaN;
    ScratchLabels labels = new ScratchLabels(Grid.ofPixels(4, 4));
    int[] rowOf = new int[count + 1];
    Arrays.setAll(rowOf, i -> i - 1);
    Table table = new Table(
        count,
        List.of(
            new Table.Column("area", "Area", "m²", area),
            new Table.Column("ndvi", "Vegetation index", "", ndvi)));
    return new ObjectSet(labels, rowOf, new int[count], table, new GroundSize(1, 1));
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void objectsFallThroughTheTestsInOrder(long seed) {
    ObjectSet set = objects(500, seed);
    WinnowModel model = new WinnowModel();
    model.objectsProperty().set(set);

    model.tests().setAll(RangeTest.parse("area >= 40 AND ndvi BETWEEN -0.5 AND 0.5"));

    double[] area = set.table().values("area");
    double[] ndvi = set.table().values("ndvi");
    int afterFirst = 0;
    int afterBoth = 0;
    for (int i = 0; i < 500; i++) {
      boolean first = area[i] >= 40;
      boolean both = first && ndvi[i] >= -0.5 && ndvi[i] <= 0.5;
      afterFirst += first ? 1 : 0;
      afterBoth += both ? 1 : 0;
      assertThat(model.passes(i)).isEqualTo(both);
      assertThat(model.failedAt()[i]).isEqualTo(!first ? 0 : !both ? 1 : 2);
    }
    assertThat(model.leftAfter(0)).isEqualTo(afterFirst);
    assertThat(model.survivors()).isEqualTo(afterBoth);
  }

  @Test
  void withoutTestsEveryObjectPasses() {
    WinnowModel model = new WinnowModel();
    model.objectsProperty().set(objects(20, 4));

    assertThat(model.survivors()).isEqualTo(20);
    assertThat(model.text()).isEmpty();
  }

  @Test
  void aTestOfAFeatureTheseObjectsLackIsPassedOver() {
    WinnowModel model = new WinnowModel();
    model.tests().setAll(RangeTest.parse("brightness > 3"));

    model.objectsProperty().set(objects(20, 5));

    assertThat(model.survivors()).isEqualTo(20);
  }

  @Test
  void everyChangeIsTold() {
    WinnowModel model = new WinnowModel();
    List<Integer> told = new ArrayList<>();
    model.onChange(() -> told.add(model.survivors()));
    model.objectsProperty().set(objects(50, 6));

    model.tests().add(new RangeTest("area", 50, Double.POSITIVE_INFINITY));
    model.tests().clear();

    assertThat(told).hasSize(3);
    assertThat(told.get(0)).isEqualTo(50);
    assertThat(told.get(1)).isBetween(10, 40);
    assertThat(told.get(2)).isEqualTo(50);
  }
}
