package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.IntBinaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Tracer;

class ObjectAtTest {

  private static final int SIZE = 700;

  /** Of the rows below, label 3 belongs to none. */
  private static ObjectSet set(IntBinaryOperator label) {
    Grid grid = new Grid(SIZE, SIZE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    ScratchLabels labels = new ScratchLabels(grid);
    int[] values = new int[SIZE * SIZE];
    for (int i = 0; i < values.length; i++) {
      values[i] = label.applyAsInt(i % SIZE, i / SIZE);
    }
    labels.write(grid.window(), values);
    labels.setMaxLabel(3);
    Table table =
        new Table(2, List.of(new Table.Column("area", "Area", "m²", new double[] {1, 1})));
    return new ObjectSet(
        labels, new int[] {-1, 0, 1, -1}, new int[] {7, 8}, table, new GroundSize(0.5, 0.5));
  }

  private static Optional<Geometry> at(ObjectSet set, int col, int row) {
    return ObjectAt.outline(set.labels(), set.rowOf(), col, row);
  }

  /** A ring far wider than the part of the scene that is looked at first, with ground of no object around it. */
  private static int ring(int x, int y) {
    double from = Math.hypot(x - 340, y - 350);
    return from < 200 ? 2 : from < 300 ? 1 : 3;
  }

  @Test
  void itsBorderIsThatOfTheWholeObjectHoweverLarge() {
    ObjectSet set = set(ObjectAtTest::ring);
    ObjectGeometry whole = ObjectGeometry.of(set);

    assertThat(at(set, 340, 100).orElseThrow().equalsTopo(whole.outline(0))).isTrue();
    assertThat(at(set, 340, 350).orElseThrow().equalsTopo(whole.outline(1))).isTrue();
  }

  @Test
  void whereThereIsNoObjectThereIsNone() {
    ObjectSet set = set(ObjectAtTest::ring);

    assertThat(at(set, 3, 3)).isEmpty();
    assertThat(at(set, -1, 40)).isEmpty();
    assertThat(at(set, 40, SIZE)).isEmpty();
  }

  @Test
  void anObjectReachesTheEdgesOfTheScene() {
    ObjectSet set = set((x, y) -> 1);

    assertThat(at(set, 20, 20).orElseThrow().getArea()).isEqualTo(SIZE * SIZE * 0.25);
  }

  @Test
  void ofOneThatFallsApartThePartUnderThePlaceIsTaken() {
    ObjectSet set = set((x, y) -> x < 40 || x >= 60 && x < 90 ? 1 : 2);

    assertThat(at(set, 70, 9).orElseThrow().getEnvelopeInternal().getWidth()).isEqualTo(15);
  }

  /** Winding caves of every width, flooded pixel by pixel. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void itIsWhatHangsTogetherPixelByPixel(long seed) {
    Random random = new Random(seed);
    double share = 0.55 + 0.1 * seed;
    int[] values = IntStream.generate(() -> random.nextDouble() < share ? 1 : 2)
        .limit((long) SIZE * SIZE)
        .toArray();
    ObjectSet set = set((x, y) -> values[y * SIZE + x]);

    Geometry found = at(set, 350, 350).orElseThrow();

    boolean[] mask = new boolean[values.length];
    Deque<Integer> waiting = new ArrayDeque<>(List.of(350 * SIZE + 350));
    while (!waiting.isEmpty()) {
      int i = waiting.pop();
      if (mask[i]) {
        continue;
      }
      mask[i] = true;
      int x = i % SIZE;
      for (int next : new int[] {x > 0 ? i - 1 : i, x < SIZE - 1 ? i + 1 : i, i - SIZE, i + SIZE}) {
        if (next >= 0 && next < mask.length && values[next] == values[350 * SIZE + 350]) {
          waiting.push(next);
        }
      }
    }
    Geometry expected = ObjectGeometry.toGround(set.labels().grid().affine())
        .transform(Tracer.trace(mask, SIZE, SIZE, 0, 0));
    assertThat(found.equalsExact(expected)).isTrue();
  }
}
