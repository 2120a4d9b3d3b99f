package sharpkestrel.extract.everysize;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.MergeTree;
import sharpkestrel.segment.regions.FeatureSpace;

/** Nodes of a real tree of a small scene, against plain counts over their pixels. */
class EverySizeTest {

  private static final int WIDTH = 210;
  private static final int HEIGHT = 170;
  private static final int[] RINGS = {4, 9};

  private static Cut cut;
  private static MergeTree tree;
  private static FeatureSpace space;
  private static int[] labels;
  private static float[] values;
  private static NodeSums sums;

  @BeforeAll
  static void segment() {
    Random random = new Random(6);
    float[][] planes = new float[3][WIDTH * HEIGHT];
    for (int i = 0; i < WIDTH * HEIGHT; i++) {
      int patch = i % WIDTH / 17 + 3 * (i / WIDTH / 23);
      for (int b = 0; b < 3; b++) {
        planes[b][i] = (float) (200 + 60 * ((patch * (b + 2)) % 7) + 12 * random.nextGaussian());
      }
      if (i % WIDTH > 120 && i % WIDTH < 126 && i / WIDTH < 90) {
        planes[0][i] = Float.NaN;
      }
    }
    Grid grid =
        new Grid(WIDTH, HEIGHT, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    MemoryRaster scene = new MemoryRaster(
        grid,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.GREEN, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
    cut = (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(Job.QUIET);
    tree = cut.tree();
    space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    labels = new int[WIDTH * HEIGHT];
    cut.superpixels().read(grid.window(), labels);
    values = space.readSpectral(grid.window(), Request.BACKGROUND);
    sums = NodeSums.of(tree, cut.superpixels(), space, RINGS, 130, Job.QUIET);
  }

  private static boolean[] pixelsOf(int node) {
    boolean[] leaves = new boolean[tree.leaves()];
    for (int leaf = 0; leaf < leaves.length; leaf++) {
      int up = leaf;
      while (up >= 0 && up != node) {
        up = tree.parent(up);
      }
      leaves[leaf] = up == node;
    }
    boolean[] in = new boolean[labels.length];
    for (int i = 0; i < in.length; i++) {
      in[i] = labels[i] > 0 && leaves[labels[i] - 1];
    }
    return in;
  }

  private static int[] someNodes(long seed) {
    return new Random(seed).ints(25, 0, tree.nodes()).distinct().toArray();
  }

  @Test
  void theLowestCommonNodeIsTheOneThatClimbingFinds() {
    CommonAncestors ancestors = new CommonAncestors(tree);
    Random random = new Random(3);
    for (int i = 0; i < 5000; i++) {
      int a = random.nextInt(tree.leaves());
      int b = random.nextInt(tree.leaves());
      if (a == b) {
        continue;
      }
      Set<Integer> above = new HashSet<>();
      for (int up = a; up >= 0; up = tree.parent(up)) {
        above.add(up);
      }
      int up = b;
      while (up >= 0 && !above.contains(up)) {
        up = tree.parent(up);
      }
      assertThat(ancestors.of(a, b)).isEqualTo(up < 0 ? CommonAncestors.NONE : up);
    }
  }

  @Test
  void sumsOfPixelsAreThoseOfTheNodesOwn() {
    int d = sums.dimensions;
    for (int node : someNodes(1)) {
      boolean[] in = pixelsOf(node);
      double count = 0;
      double light = 0;
      double squares = 0;
      double products = 0;
      double far = Double.NEGATIVE_INFINITY;
      double angle = 2 * Math.PI * 5 / NodeSums.DIRECTIONS;
      for (int i = 0; i < in.length; i++) {
        if (in[i]) {
          count++;
          light += values[i * d];
          squares += (double) values[i * d + 1] * values[i * d + 1];
          products += (double) (i % WIDTH) * (i / WIDTH);
          for (int corner = 0; corner < 4; corner++) {
            far = Math.max(
                far,
                Math.cos(angle) * (i % WIDTH + corner % 2)
                    + Math.sin(angle) * (i / WIDTH + corner / 2));
          }
        }
      }
      float[] numbers =
          Arrays.copyOfRange(sums.numbers, node * sums.stride, (node + 1) * sums.stride);
      assertThat(sums.form[node * NodeSums.FORM]).isEqualTo(count);
      assertThat(sums.form[node * NodeSums.FORM + 4]).isCloseTo(products, within(1e-3));
      assertThat((double) numbers[0]).isCloseTo(light, within(1e-3 * (count + Math.abs(light))));
      assertThat((double) numbers[3]).isCloseTo(squares, within(1e-3 * (count + squares)));
      double all = 0;
      for (int b = 0; b < NodeSums.BINS; b++) {
        all += numbers[sums.histogram + b];
      }
      assertThat(all).isEqualTo(count);
      assertThat((double) sums.reach[node * NodeSums.DIRECTIONS + 5]).isCloseTo(far, within(1e-3));
    }
  }

  @Test
  void bordersAreCountedAsIfTheNodeWereDrawnAlone() {
    int d = sums.dimensions;
    double sunX = Math.sin(Math.toRadians(130));
    double sunY = -Math.cos(Math.toRadians(130));
    for (int node : someNodes(2)) {
      boolean[] in = pixelsOf(node);
      double sides = 0;
      double edge = 0;
      double step = 0;
      double within = 0;
      double outside = 0;
      double away = 0;
      double diagonals = 0;
      int[][] steps = {{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
      for (int i = 0; i < in.length; i++) {
        if (!in[i]) {
          continue;
        }
        int x = i % WIDTH;
        int y = i / WIDTH;
        for (int[] s : steps) {
          int nx = x + s[0];
          int ny = y + s[1];
          boolean there = nx >= 0 && ny >= 0 && nx < WIDTH && ny < HEIGHT;
          int j = ny * WIDTH + nx;
          if (!there || labels[j] == 0) {
            sides++;
            edge++;
          } else if (!in[j]) {
            sides++;
            step += Math.abs(values[i * d] - values[j * d]);
            outside += values[j * d + 1];
            away += Math.max(0, -(s[0] * sunX + s[1] * sunY));
          } else if (s[0] + s[1] > 0) {
            within += Math.abs(values[i * d] - values[j * d]);
          }
        }
        for (int k = 0; k < 4; k++) {
          int nx = x + (k % 2 == 0 ? 1 : -1);
          int ny = y + (k / 2 == 0 ? 1 : -1);
          boolean there = nx >= 0 && ny >= 0 && nx < WIDTH && ny < HEIGHT;
          diagonals += there && !in[ny * WIDTH + nx] ? 1 : 0;
        }
      }
      int at = node * sums.stride;
      int b = at + sums.border;
      assertThat((double) sums.numbers[b + NodeSums.SIDES]).isEqualTo(sides);
      assertThat((double) sums.numbers[b + NodeSums.EDGE]).isEqualTo(edge);
      assertThat((double) sums.numbers[b + NodeSums.DIAGONALS]).isEqualTo(diagonals);
      assertThat((double) sums.numbers[b + NodeSums.LIGHT_STEP])
          .isCloseTo(step, within(1e-3 * (10 + step)));
      assertThat((double) sums.numbers[at + sums.within])
          .isCloseTo(within, within(1e-3 * (10 + within)));
      assertThat((double) sums.numbers[at + sums.outside + 1])
          .isCloseTo(outside, within(1e-3 * (10 + Math.abs(outside) + sides)));
      assertThat((double) sums.numbers[b + NodeSums.AWAY])
          .isCloseTo(away, within(1e-3 * (10 + away)));
    }
  }

  @Test
  void surroundingsAreThePixelsAtADistanceThatLieOutside() {
    int d = sums.dimensions;
    for (int node : someNodes(3)) {
      boolean[] in = pixelsOf(node);
      for (int ring = 0; ring < RINGS.length; ring++) {
        double count = 0;
        double light = 0;
        for (int i = 0; i < in.length; i++) {
          int x = i % WIDTH;
          int y = i / WIDTH;
          if (x % 2 != 0 || y % 2 != 0 || labels[i] == 0) {
            continue;
          }
          for (int way = 0; way < 2; way++) {
            int nx = x + (way == 0 ? RINGS[ring] : 0);
            int ny = y + (way == 1 ? RINGS[ring] : 0);
            int j = ny * WIDTH + nx;
            if (nx < WIDTH && ny < HEIGHT && labels[j] != 0 && in[i] != in[j]) {
              count++;
              light += values[(in[i] ? j : i) * d];
            }
          }
        }
        int at = node * sums.stride + sums.rings + ring * (1 + d);
        assertThat((double) sums.numbers[at]).isEqualTo(count);
        assertThat((double) sums.numbers[at + 1])
            .isCloseTo(light, within(1e-3 * (10 + count + Math.abs(light))));
      }
    }
  }

  @Test
  void featuresOfARectangleAreThoseOfARectangle() {
    NodeFeatures features = NodeFeatures.of(
        tree,
        cut.superpixels(),
        space,
        GroundSize.of(
            new Grid(WIDTH, HEIGHT, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630))),
        0.5,
        Double.NaN,
        24,
        5000,
        Job.QUIET);

    List<String> names = features.names();
    for (int i = 0; i < features.count(); i++) {
      double area = Math.exp(features.columns()[names.indexOf("log_area")][i]);
      assertThat(features.areas()[i]).isCloseTo(area, within(1e-3 * area));
      assertThat(features.columns()[names.indexOf("rectangularity")][i]).isBetween(0f, 1.02f);
      assertThat(features.columns()[names.indexOf("solidity")][i]).isBetween(0f, 1.001f);
      // of a whole patch of 17 x 23 pixels
      int node = features.nodes()[i];
      boolean patch = sums.form[node * NodeSums.FORM] == 17 * 23
          && features.columns()[names.indexOf("rectangularity")][i] > 0.99;
      if (patch) {
        assertThat(features.columns()[names.indexOf("elongation")][i])
            .isCloseTo(23f / 17, within(0.02f));
        assertThat(features.columns()[names.indexOf("log_length")][i])
            .isCloseTo((float) Math.log(11.5), within(0.02f));
      }
    }
    assertThat(features.columns()[names.indexOf("away_from_sun")]).containsOnly(Float.NaN);
  }

  @Test
  void theBestSetIsTheBestOfAllDisjointOnes() {
    Random random = new Random(9);
    int[] nodes =
        IntStream.range(0, tree.nodes()).filter(n -> random.nextInt(3) > 0).toArray();
    double[] scores = random.doubles(nodes.length, -1, 1).toArray();

    int[] chosen = BestSet.choose(tree, nodes, scores);

    double sum = Arrays.stream(chosen).mapToDouble(i -> scores[i]).sum();
    double[] own = new double[tree.nodes()];
    for (int i = 0; i < nodes.length; i++) {
      own[nodes[i]] = scores[i];
    }
    double best = IntStream.range(0, tree.nodes())
        .filter(n -> tree.parent(n) < 0)
        .mapToDouble(root -> bestWithin(root, own))
        .sum();
    assertThat(sum).isCloseTo(best, within(1e-9));
    Set<Integer> taken = new HashSet<>();
    Arrays.stream(chosen).forEach(i -> taken.add(nodes[i]));
    for (int i : chosen) {
      for (int up = tree.parent(nodes[i]); up >= 0; up = tree.parent(up)) {
        assertThat(taken).doesNotContain(up);
      }
    }
  }

  private static double bestWithin(int node, double[] own) {
    double children = 0;
    for (int child = 0; child < node; child++) {
      if (tree.parent(child) == node) {
        children += bestWithin(child, own);
      }
    }
    return Math.max(Math.max(0, own[node]), children);
  }

  @Test
  void overlapIsThatOfThePixels() {
    GeometryFactory shapes = new GeometryFactory();
    List<Geometry> outlines = List.of(
        shapes.toGeometry(new Envelope(512_004, 512_017, 6_701_980, 6_701_994)),
        shapes.toGeometry(new Envelope(512_030, 512_055, 6_701_950, 6_701_971)));

    NodeOverlap overlap = NodeOverlap.of(tree, cut.superpixels(), outlines, Job.QUIET);

    for (int node : someNodes(4)) {
      boolean[] in = pixelsOf(node);
      double best = 0;
      for (Geometry outline : outlines) {
        Envelope box = outline.getEnvelopeInternal();
        double common = 0;
        double area = 0;
        double own = 0;
        for (int i = 0; i < in.length; i++) {
          double x = 512_000 + 0.5 * (i % WIDTH + 0.5);
          double y = 6_702_000 - 0.5 * (i / WIDTH + 0.5);
          boolean inside = box.contains(x, y) && labels[i] > 0;
          area += inside ? 1 : 0;
          own += in[i] ? 1 : 0;
          common += inside && in[i] ? 1 : 0;
        }
        best = Math.max(best, common / (own + area - common));
      }
      if (best > 0.03) {
        assertThat((double) overlap.best()[node]).isCloseTo(best, within(1e-6));
      }
    }
  }
}
