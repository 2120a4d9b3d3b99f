package sharpkestrel.place.mosaic;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MinCutTest {

  /** A small graph with costs of both sides and of links that are cut. */
  private record Graph(long[][] sides, int[][] links) {

    static Graph random(long seed, int nodes, int links) {
      Random random = new Random(seed);
      long[][] sides = new long[nodes][2];
      for (long[] side : sides) {
        side[0] = random.nextInt(20);
        side[1] = random.nextInt(20);
      }
      int[][] all = new int[links][];
      for (int i = 0; i < links; i++) {
        int from = random.nextInt(nodes);
        int to = (from + 1 + random.nextInt(nodes - 1)) % nodes;
        all[i] = new int[] {from, to, random.nextInt(12), random.nextInt(12)};
      }
      return new Graph(sides, all);
    }

    MinCut cut() {
      MinCut cut = new MinCut(sides.length);
      for (int i = 0; i < sides.length; i++) {
        cut.add(i, sides[i][0], sides[i][1]);
      }
      for (int[] link : links) {
        cut.link(link[0], link[1], link[2], link[3]);
      }
      return cut;
    }

    long cost(int onSource) {
      long sum = 0;
      for (int i = 0; i < sides.length; i++) {
        sum += (onSource >> i & 1) == 1 ? sides[i][1] : sides[i][0];
      }
      for (int[] link : links) {
        int from = onSource >> link[0] & 1;
        int to = onSource >> link[1] & 1;
        sum += from == 1 && to == 0 ? link[2] : from == 0 && to == 1 ? link[3] : 0;
      }
      return sum;
    }

    long cheapest() {
      long least = Long.MAX_VALUE;
      for (int sides = 0; sides < 1 << this.sides.length; sides++) {
        least = Math.min(least, cost(sides));
      }
      return least;
    }
  }

  @ParameterizedTest
  @ValueSource(ints = {2, 5, 9, 12})
  void costsWhatTheCheapestOfAllCutsCosts(int nodes) {
    for (long seed = 0; seed < 60; seed++) {
      Graph graph = Graph.random(seed, nodes, 3 * nodes);
      MinCut cut = graph.cut();
      long cost = cut.solve();
      int onSource = 0;
      for (int i = 0; i < nodes; i++) {
        onSource |= cut.onSource(i) ? 1 << i : 0;
      }
      assertThat(cost).as("seed " + seed).isEqualTo(graph.cheapest());
      assertThat(graph.cost(onSource)).as("cut of seed " + seed).isEqualTo(cost);
    }
  }

  @Test
  void takesTheChannelThroughAWall() {
    int side = 60;
    MinCut cut = new MinCut(side * side);
    for (int i = 0; i < side * side; i++) {
      int x = i % side;
      int y = i / side;
      cut.add(i, x == 0 ? 1_000_000 : 0, x == side - 1 ? 1_000_000 : 0);
      // cheap only along column 40, except where it is row 30 and column 20
      int price = x == (y == 30 ? 20 : 40) ? 1 : 500;
      if (x + 1 < side) {
        cut.link(i, i + 1, price, price);
      }
      if (y + 1 < side) {
        cut.link(i, i + side, 2, 2);
      }
    }
    // 60 cheap steps, and twice the 20 columns between the channels
    assertThat(cut.solve()).isEqualTo(60 + 2 * 2 * 20);
    assertThat(cut.onSource(10 * side + 40)).isTrue();
    assertThat(cut.onSource(10 * side + 41)).isFalse();
    assertThat(cut.onSource(30 * side + 21)).isFalse();
  }
}
