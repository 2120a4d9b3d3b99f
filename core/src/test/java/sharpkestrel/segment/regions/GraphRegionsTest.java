package sharpkestrel.segment.regions;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;

class GraphRegionsTest {

  /** The plain algorithm on a list of edges. */
  @Test
  void graphRegionsAreThoseOfThePlainAlgorithm() {
    MemoryRaster scene = RegionsTest.board(33, 27, 0.15);
    FeatureSpace space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    int d = space.bands();
    int n = 33 * 27;
    double[] f = smoothed(
        smoothed(space.readValues(scene.grid().window(), Job.QUIET.request()), d, 1), d, 33);
    TreeMap<Integer, List<int[]>> edges = new TreeMap<>();
    for (int i = 0; i < n; i++) {
      int x = i % 33;
      for (int j :
          new int[] {x < 32 ? i + 1 : n, i + 33, x < 32 ? i + 34 : n, x > 0 ? i + 32 : n}) {
        double square = 0;
        for (int k = 0; k < d && j < n; k++) {
          square += Math.pow(f[i * d + k] - f[j * d + k], 2);
        }
        boolean valid = i % 33 + i / 33 >= 6 && j % 33 + j / 33 >= 6;
        if (j < n && valid) {
          edges
              .computeIfAbsent((int) (Math.sqrt(square) * 256), any -> new ArrayList<>())
              .add(new int[] {i, j});
        }
      }
    }
    int[] of = new int[n];
    double[] within = new double[n];
    Arrays.setAll(of, i -> i);
    edges.forEach((strength, list) -> list.forEach(edge -> {
      int a = of[edge[0]];
      int b = of[edge[1]];
      long na = Arrays.stream(of).filter(o -> o == a).count();
      long nb = Arrays.stream(of).filter(o -> o == b).count();
      double w = strength / 256.0;
      if (a != b && w <= within[a] + 60.0 / na && w <= within[b] + 60.0 / nb) {
        within[a] = w;
        for (int i = 0; i < n; i++) {
          of[i] = of[i] == b ? a : of[i];
        }
      }
    }));

    int[] labels = RegionsTest.labels(RegionsTest.by(Method.GRAPH, 0), scene, Optional.empty());

    for (int i = 1; i < n; i++) {
      if (i % 33 > 0 && labels[i] > 0 && labels[i - 1] > 0) {
        assertThat(labels[i] == labels[i - 1]).isEqualTo(of[i] == of[i - 1]);
      }
    }
  }

  /** Numbers of a board of 33 x 27 under a Gaussian of 0.8 pixels, the corner without data left out. */
  private static double[] smoothed(float[] numbers, int each, int step) {
    double[] doubles = new double[numbers.length];
    Arrays.setAll(doubles, i -> numbers[i]);
    return smoothed(doubles, each, step);
  }

  private static double[] smoothed(double[] numbers, int each, int step) {
    double[] out = new double[numbers.length];
    for (int i = 0; i < out.length / each; i++) {
      double total = 0;
      for (int k = -3; k <= 3; k++) {
        int x = i % 33 + (step == 1 ? k : 0);
        int y = i / 33 + (step == 1 ? 0 : k);
        boolean there = x >= 0 && x < 33 && y >= 0 && y < 27;
        if (there && !Double.isNaN(numbers[(y * 33 + x) * each])) {
          double weight = Math.exp(-k * k / (2 * 0.64));
          total += weight;
          for (int c = 0; c < each; c++) {
            out[i * each + c] += weight * numbers[(y * 33 + x) * each + c];
          }
        }
      }
      for (int c = 0; c < each; c++) {
        out[i * each + c] /= total;
      }
    }
    return out;
  }

  /** A texture of its own kind on each half, under haze that thickens: more scale never makes more regions. */
  @Test
  void graphRegionsBecomeFewerAsTheScaleGrows() {
    Random random = new Random(4);
    MemoryRaster scene = Made.placed(
        150,
        120,
        0.5,
        (b, col, row) -> (col < 75 ? 40 : 70) * Math.exp(0.15 * random.nextGaussian()) + row * 0.5,
        BandRole.RED,
        BandRole.GREEN,
        BandRole.BLUE);

    long before = Long.MAX_VALUE;
    for (double scale : new double[] {10, 30, 100, 300, 1000}) {
      Regions regions = new Regions(
          Optional.empty(),
          Method.GRAPH,
          25,
          0.1,
          3,
          20,
          5,
          1,
          scale,
          0.8,
          List.of(),
          10,
          Double.NaN);
      int[] labels = RegionsTest.labels(regions, scene, Optional.empty());
      long count = Arrays.stream(labels).distinct().count();
      assertThat(count).isLessThanOrEqualTo(before);
      if (scale == 100) {
        assertThat(labels[60 * 150 + 20]).isNotEqualTo(labels[60 * 150 + 130]);
        assertThat(count).isLessThan(40);
      }
      before = count;
    }
  }
}
