package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.regions.FeatureSpace;
import sharpkestrel.segment.regions.Superpixels;

class RimsTest {

  private static final double AZIMUTH = 200;

  private final Raster scene;
  private final FeatureSpace space;
  private final ScratchLabels labels;
  private final int count;

  RimsTest() {
    Random random = new Random(8);
    scene = Made.placed(
        90,
        80,
        0.5,
        (b, col, row) -> col + row > 150
            ? Double.NaN
            : 100 + 50 * ((col / 9 + row / 7 * b) % 3) + random.nextGaussian(),
        BandRole.BLUE,
        BandRole.RED,
        BandRole.NEAR_INFRARED);
    space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    labels = new ScratchLabels(scene.grid());
    count = Superpixels.make(space, 5, 0.1, labels, Job.QUIET);
  }

  private Rims rims(RegionGraph graph, LabelRaster of) {
    return Rims.of(graph, space, of, AZIMUTH, Job.QUIET);
  }

  @Test
  void theRimOfAllRegionsTogetherIsThatOfTheData() {
    RegionGraph graph = RegionGraph.of(space, labels, count, Job.QUIET);
    Rims rims = rims(graph, labels);

    double outer = 0;
    for (int i = 0; i < count; i++) {
      outer += rims.rims[i * Rims.RIM + Rims.LENGTH];
    }
    for (int e = 0; e < graph.edges; e++) {
      outer -= 2 * graph.borders[e * (1 + graph.parts.size())];
    }

    // two whole sides of the scene, what the corner without data leaves of the others, and its
    // stairs
    int[] rowEnds = IntStream.range(0, 80).map(row -> Math.min(90, 151 - row)).toArray();
    int right = 80;
    int stairs =
        IntStream.range(1, 80).map(row -> rowEnds[row - 1] - rowEnds[row]).sum();
    assertThat(outer).isEqualTo(90 + 80 + right + stairs + rowEnds[79]);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void joinedRimsAndBordersAreThoseOfTheJoinedPixels(long seed) {
    RegionGraph graph = RegionGraph.of(space, labels, count, Job.QUIET);
    Rims rims = rims(graph, labels);
    int[] first = graph.firstEdges();
    int edge = new Random(seed).nextInt(graph.edges);
    int a = graph.halves[4 * edge];
    int b = graph.halves[4 * edge + 2];

    float[] both = new float[Rims.RIM];
    rims.ofBoth(edge, a, b, both);
    rims.join(a, b, edge);
    int stride = 1 + graph.parts.size();
    for (int e = 0; e < graph.edges; e++) {
      int c = otherEnd(graph, e, b);
      if (c >= 0 && c != a) {
        int same = graph.edge(a, c, first);
        if (otherEnd(graph, same, a) == c) {
          rims.joinBorders(same, e, (graph.halves[4 * same] == a) != (graph.halves[4 * e] == b));
          for (int k = 0; k < stride; k++) {
            graph.borders[same * stride + k] += graph.borders[e * stride + k];
          }
        }
      }
    }

    ScratchLabels joined = relabelled(b + 1, a + 1);
    RegionGraph expectedGraph = RegionGraph.of(space, joined, count, Job.QUIET);
    Rims expected = rims(expectedGraph, joined);
    float[] rim = Arrays.copyOfRange(rims.rims, a * Rims.RIM, (a + 1) * Rims.RIM);
    float[] expectedRim = Arrays.copyOfRange(expected.rims, a * Rims.RIM, (a + 1) * Rims.RIM);
    close(rim, expectedRim, 1e-4);
    close(both, expectedRim, 1e-4);
    int[] expectedFirst = expectedGraph.firstEdges();
    int compared = 0;
    for (int e = 0; e < graph.edges; e++) {
      int c = otherEnd(graph, e, a);
      if (c >= 0 && c != b) {
        int as = expectedGraph.edge(a, c, expectedFirst);
        assertThat(otherEnd(expectedGraph, as, a)).isEqualTo(c);
        close(
            Arrays.copyOfRange(rims.sides, e * Rims.SIDE, (e + 1) * Rims.SIDE),
            Arrays.copyOfRange(expected.sides, as * Rims.SIDE, (as + 1) * Rims.SIDE),
            1e-3);
        compared++;
      }
    }
    assertThat(compared).isPositive();
  }

  private static int otherEnd(RegionGraph graph, int edge, int region) {
    int one = graph.halves[4 * edge];
    int two = graph.halves[4 * edge + 2];
    return one == region ? two : two == region ? one : -1;
  }

  private static void close(float[] numbers, float[] expected, double error) {
    for (int k = 0; k < numbers.length; k++) {
      assertThat((double) numbers[k])
          .describedAs("number %d", k)
          .isCloseTo(expected[k], within(error * (1 + Math.abs(expected[k]))));
    }
  }

  private ScratchLabels relabelled(int was, int is) {
    int[] values = new int[scene.grid().window().area()];
    labels.read(scene.grid().window(), values);
    ScratchLabels changed = new ScratchLabels(scene.grid());
    changed.write(
        scene.grid().window(), Arrays.stream(values).map(l -> l == was ? is : l).toArray());
    changed.setMaxLabel(count);
    return changed;
  }

  @Test
  void evidenceOfAPairIsNamedAndTellsBrighterFromDarker() {
    RegionGraph graph = RegionGraph.of(space, labels, count, Job.QUIET);
    PairEvidence evidence = new PairEvidence(graph, rims(graph, labels), space, 0.5);
    float[] pair = new float[PairEvidence.NAMES.size()];
    Arrays.fill(pair, Float.NaN);

    for (int e = 0; e < graph.edges; e++) {
      int a = graph.halves[4 * e];
      int b = graph.halves[4 * e + 2];
      evidence.of(e, a, b, graph.counts, 1, pair);

      assertThat(pair).doesNotContain(Float.NaN);
      float light = graph.numbers[a * graph.stride] - graph.numbers[b * graph.stride];
      int brighter = light >= 0 ? a : b;
      assertThat((double) pair[PairEvidence.NAMES.indexOf("area of the brighter")])
          .isCloseTo(Math.log(graph.counts[brighter] * 0.25), within(1e-5));
      assertThat((double) pair[PairEvidence.NAMES.indexOf("light apart")])
          .isCloseTo(Math.sqrt(Math.abs(light)), within(1e-5));
    }
  }

  @Test
  void whatIsLearnedDoesNotDependOnThreads() {
    RegionGraph graph = RegionGraph.of(space, labels, count, Job.QUIET);
    Rims one = rims(graph, labels);
    Rims two = Rims.of(graph, space, labels, AZIMUTH, Job.of(3, 64));

    assertThat(two.rims).isEqualTo(one.rims);
    assertThat(two.sides).isEqualTo(one.sides);
    assertThat(Optional.of(one.sunY)).hasValueSatisfying(y -> assertThat(y).isPositive());
  }
}
