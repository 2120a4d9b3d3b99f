package sharpkestrel.demo.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.function.DoubleBinaryOperator;
import org.junit.jupiter.api.Test;

class RouteTest {

  private static final double STEP = 14;
  private static final double[] FROM = {5000, 7000};

  private static double length(double[] way) {
    double sum = 0;
    for (int i = 2; i < way.length; i += 2) {
      sum += Math.hypot(way[i] - way[i - 2], way[i + 1] - way[i - 1]);
    }
    return sum;
  }

  /** The way with its ends, which lie where they were wanted, moved to the nodes they stand for. */
  private static double[] onLattice(double[] way, double[] to) {
    double west = Math.min(FROM[0], to[0]) - 380;
    double south = Math.min(FROM[1], to[1]) - 380;
    double[] moved = way.clone();
    for (int i : new int[] {0, way.length - 2}) {
      moved[i] = west + Math.round((way[i] - west) / STEP) * STEP;
      moved[i + 1] = south + Math.round((way[i + 1] - south) / STEP) * STEP;
    }
    return moved;
  }

  @Test
  void onLevelOpenLandTheWayHasTheOctileLength() {
    double[] to = {FROM[0] + 60 * STEP, FROM[1] + 25 * STEP};
    double[] way = Route.between(FROM, to, (e, n) -> 0, (e, n) -> 1);

    // 25 diagonal steps and 35 straight ones
    assertThat(length(onLattice(way, to))).isCloseTo(STEP * (25 * Math.sqrt(2) + 35), within(1e-6));
    assertThat(Arrays.copyOf(way, 2)).containsExactly(FROM);
    assertThat(Arrays.copyOfRange(way, way.length - 2, way.length)).containsExactly(to);
  }

  @Test
  void aWallIsPassedAtItsGap() {
    double[] to = {FROM[0] + 40 * STEP, FROM[1]};
    double wall = FROM[0] + 20 * STEP;
    double gap = FROM[1] + 12 * STEP;
    DoubleBinaryOperator price =
        (e, n) -> Math.abs(e - wall) < 10 && Math.abs(n - gap) > 10 ? Double.POSITIVE_INFINITY : 1;
    double[] way = Route.between(FROM, to, (e, n) -> 0, price);

    assertThat(way).isNotEmpty();
    for (int i = 0; i < way.length; i += 2) {
      if (Math.abs(way[i] - wall) < 10) {
        assertThat(way[i + 1]).isCloseTo(gap, within(10.0));
      }
    }
  }

  @Test
  void whereNoWayLeadsThereIsNone() {
    double[] to = {FROM[0] + 300, FROM[1]};
    double[] way = Route.between(
        FROM, to, (e, n) -> 0, (e, n) -> Math.abs(e - 5150) < 20 ? Double.POSITIVE_INFINITY : 1);

    assertThat(way).isEmpty();
  }

  @Test
  void theWayIsAsCheapAsTheBestOfAnExhaustiveSearch() {
    DoubleBinaryOperator heights = (e, n) -> 40 * Math.sin(e / 90) * Math.cos(n / 70);
    DoubleBinaryOperator price = (e, n) -> 1 + 0.6 * Math.sin(e / 40 + n / 55);
    double[] to = {FROM[0] + 22 * STEP, FROM[1] + 9 * STEP};

    double[] way = onLattice(Route.between(FROM, to, heights, price), to);

    double cost = 0;
    for (int i = 2; i < way.length; i += 2) {
      cost += step(way[i - 2], way[i - 1], way[i], way[i + 1], heights, price);
    }
    assertThat(cost).isCloseTo(cheapest(to, heights, price), within(cost * 1e-3));
  }

  /** Relaxes all edges of the lattice about both places until nothing gets cheaper (Bellman-Ford). */
  private static double cheapest(
      double[] to, DoubleBinaryOperator heights, DoubleBinaryOperator price) {
    int margin = 27;
    int columns = (int) Math.round((to[0] - FROM[0]) / STEP) + 2 * margin + 1;
    int rows = (int) Math.round((to[1] - FROM[1]) / STEP) + 2 * margin + 1;
    double west = Math.min(FROM[0], to[0]) - 380;
    double south = Math.min(FROM[1], to[1]) - 380;
    double[] cost = new double[columns * rows];
    Arrays.fill(cost, Double.POSITIVE_INFINITY);
    int start = index(FROM, west, south, columns);
    cost[start] = 0;
    boolean better = true;
    while (better) {
      better = false;
      for (int i = 0; i < cost.length; i++) {
        double e = west + i % columns * STEP;
        double n = south + i / columns * STEP;
        for (int k = 0; k < 9; k++) {
          int x = i % columns + k % 3 - 1;
          int y = i / columns + k / 3 - 1;
          if (k == 4 || x < 0 || y < 0 || x >= columns || y >= rows) {
            continue;
          }
          double total = cost[i] + step(e, n, west + x * STEP, south + y * STEP, heights, price);
          if (total < cost[y * columns + x] - 1e-9) {
            cost[y * columns + x] = total;
            better = true;
          }
        }
      }
    }
    return cost[index(to, west, south, columns)];
  }

  private static int index(double[] place, double west, double south, int columns) {
    return (int) Math.round((place[1] - south) / STEP) * columns
        + (int) Math.round((place[0] - west) / STEP);
  }

  private static double step(
      double e0,
      double n0,
      double e1,
      double n1,
      DoubleBinaryOperator heights,
      DoubleBinaryOperator price) {
    double length = Math.hypot(e1 - e0, n1 - n0);
    double slope = (heights.applyAsDouble(e1, n1) - heights.applyAsDouble(e0, n0)) / length;
    return length * price.applyAsDouble(e1, n1) * (1 + 60 * slope * slope);
  }

  @Test
  void aSteepHillIsGoneRound() {
    double[] to = {FROM[0] + 700, FROM[1]};
    DoubleBinaryOperator hill =
        (e, n) -> 90 * Math.exp(-(Math.pow(e - 5350, 2) + Math.pow(n - 7000, 2)) / (2 * 8100));
    double[] way = Route.between(FROM, to, hill, (e, n) -> 1);
    double top = 0;
    for (int i = 0; i < way.length; i += 2) {
      top = Math.max(top, hill.applyAsDouble(way[i], way[i + 1]));
    }

    assertThat(top).isLessThan(30);
  }

  @Test
  void roundingKeepsTheEndsAndCutsTheCorner() {
    double[] rounded = Route.rounded(new double[] {0, 0, 8, 0, 8, 8});

    assertThat(rounded).containsExactly(0, 0, 2, 0, 6, 0, 8, 2, 8, 6, 8, 8);
  }

  @Test
  void easingStaysNearTheWay() {
    double[] to = {FROM[0] + 60 * STEP, FROM[1] + 25 * STEP};
    double[] way = Route.between(FROM, to, (e, n) -> 0, (e, n) -> 1 + 0.8 * Math.sin(n / 60));
    double[] eased = Route.eased(way);

    assertThat(Arrays.copyOf(eased, 2)).containsExactly(FROM);
    assertThat(Arrays.copyOfRange(eased, eased.length - 2, eased.length)).containsExactly(to);
    Roads roads = new Roads();
    roads.add(new Road(Road.Kind.TRACK, way));
    for (int i = 0; i < eased.length; i += 2) {
      assertThat(roads.beyondEdge(eased[i], eased[i + 1])).isLessThan(9.5);
    }
  }
}
