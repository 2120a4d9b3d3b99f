package sharpkestrel.extract.everysize;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.segment.MergeTree;
import sharpkestrel.segment.learn.Card;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * Features of the nodes of a merge tree: form, light and colour, how they vary, the border and what lies beyond it towards and away from
 * the sun, the surroundings at two distances, and how steadily a node stays itself in the tree. Lengths are in metres, or in pixels
 * where nothing is known of the ground; light and colours are those of the {@link FeatureSpace}, which count from what is usual in
 * the scene. Where heights above the ground are known they are measured like a colour.
 *
 * @param names of the features
 * @param nodes that were measured, ascending: those with enough pixels and not too many
 * @param columns for each feature the values of those nodes
 * @param areas of those in m², or in pixels
 * @param blocks for each of those the block of ground that its middle lies in
 * @param card of the scene alone, to hold against what a model has seen
 */
public record NodeFeatures(
    List<String> names, int[] nodes, float[][] columns, double[] areas, int[] blocks, Card card) {

  /** Blocks of ground across a scene's longer side. */
  private static final int BLOCKS = 8;

  /** Distances of the rings in metres, or in pixels where there are none. */
  private static final double[] RINGS = {2, 6};

  private static final int FARTHEST_RING = 24;

  /** Below all costs of merges, so that they have logarithms. */
  private static final double LEAST_HEIGHT = 1e-6;

  private static final double MOST_STABILITY = 6;

  /**
   * @param side of a pixel, as which lengths are told; see {@link Card#pixelOf}
   * @param sunAzimuth degrees clockwise from up the image; NaN where it is not known
   * @param leastPixels that a node has; smaller ones are not measured
   * @param mostArea in m² of a node, or in pixels where there are none
   */
  public static NodeFeatures of(
      MergeTree tree,
      LabelRaster labels,
      FeatureSpace space,
      GroundSize ground,
      double side,
      double sunAzimuth,
      int leastPixels,
      double mostArea,
      Job job) {
    int[] rings = Arrays.stream(RINGS)
        .mapToInt(metres -> (int) Math.clamp(Math.round(metres / side), 2, FARTHEST_RING))
        .toArray();
    NodeSums sums = NodeSums.of(tree, labels, space, rings, sunAzimuth, job);
    int[] nodes = IntStream.range(0, tree.nodes())
        .filter(node -> {
          double pixels = sums.form[node * NodeSums.FORM];
          return pixels >= leastPixels && pixels * ground.area() <= mostArea;
        })
        .toArray();
    int block = Math.ceilDiv(Math.max(labels.grid().width(), labels.grid().height()), BLOCKS);
    return new Writer(tree, sums, space, ground, side, !Double.isNaN(sunAzimuth))
        .write(nodes, block, job);
  }

  public int count() {
    return nodes.length;
  }

  /** Fills in features node by node; names are given by the first. */
  private static final class Writer {
    private static final int CHUNK = 4096;

    private final MergeTree tree;
    private final NodeSums sums;
    private final List<String> dimensions;
    private final GroundSize ground;
    private final Card card;
    private final double side;
    private final boolean sun;
    private final int[] sibling;
    private final int[] child;

    Writer(
        MergeTree tree,
        NodeSums sums,
        FeatureSpace space,
        GroundSize ground,
        double side,
        boolean sun) {
      this.tree = tree;
      this.sums = sums;
      this.sun = sun;
      dimensions = space.names();
      this.ground = ground;
      this.side = side;
      card = Card.of(ground, space.roles(), space.contrast());
      child = children(tree);
      sibling = siblings(tree, child);
    }

    /** The child with the lower number of each node, -1 for leaves. */
    private static int[] children(MergeTree tree) {
      int[] first = new int[tree.nodes()];
      Arrays.fill(first, -1);
      for (int node = tree.nodes() - 1; node >= 0; node--) {
        if (tree.parent(node) >= 0) {
          first[tree.parent(node)] = node;
        }
      }
      return first;
    }

    /** The other child of each node's parent, -1 for roots. */
    private static int[] siblings(MergeTree tree, int[] first) {
      int[] sibling = new int[tree.nodes()];
      Arrays.fill(sibling, -1);
      for (int node = 0; node < tree.nodes(); node++) {
        int parent = tree.parent(node);
        if (parent >= 0 && first[parent] != node) {
          sibling[node] = first[parent];
          sibling[first[parent]] = node;
        }
      }
      return sibling;
    }

    NodeFeatures write(int[] nodes, int blockSide, Job job) {
      Row naming = new Row(true, 0);
      if (nodes.length > 0) {
        measure(nodes[0], naming);
      }
      int width = naming.names.size();
      float[][] columns = new float[width][nodes.length];
      double[] areas = new double[nodes.length];
      int[] blocks = new int[nodes.length];
      Parallel.run(Math.ceilDiv(nodes.length, CHUNK), job, chunk -> {
        Row row = new Row(false, width);
        for (int i = chunk * CHUNK; i < Math.min(nodes.length, (chunk + 1) * CHUNK); i++) {
          row.at = 0;
          measure(nodes[i], row);
          for (int f = 0; f < width; f++) {
            columns[f][i] = (float) row.values[f];
          }
          int form = nodes[i] * NodeSums.FORM;
          double pixels = sums.form[form];
          areas[i] = pixels * ground.area();
          int across = (int) (sums.form[form + 1] / pixels / blockSide);
          int down = (int) (sums.form[form + 2] / pixels / blockSide);
          blocks[i] = down * BLOCKS + across;
        }
      });
      return new NodeFeatures(List.copyOf(naming.names), nodes, columns, areas, blocks, card);
    }

    private static final class Row {
      final boolean naming;
      final List<String> names = new ArrayList<>();
      final double[] values;
      int at;

      Row(boolean naming, int width) {
        this.naming = naming;
        values = new double[width];
      }

      void put(String name, double value) {
        if (naming) {
          names.add(name);
        } else {
          values[at++] = value;
        }
      }
    }

    private double height(int node) {
      return node < tree.leaves()
          ? LEAST_HEIGHT
          : Math.max(LEAST_HEIGHT, tree.heightOfMerge(node - tree.leaves()));
    }

    private double stability(int node) {
      int parent = tree.parent(node);
      return parent < 0 ? 0 : Math.min(MOST_STABILITY, Math.log(height(parent) / height(node)));
    }

    private void measure(int node, Row row) {
      double n = sums.form[node * NodeSums.FORM];
      form(node, n, row);
      light(node, n, row);
      border(node, n, row);
      surroundings(node, n, row);
      place(node, n, row);
    }

    private void form(int node, double n, Row row) {
      int f = node * NodeSums.FORM;
      double x = sums.form[f + 1] / n;
      double y = sums.form[f + 2] / n;
      double xx = sums.form[f + 3] / n - x * x + 1.0 / 12;
      double xy = sums.form[f + 4] / n - x * y;
      double yy = sums.form[f + 5] / n - y * y + 1.0 / 12;
      double middle = (xx + yy) / 2;
      double off = Math.hypot((xx - yy) / 2, xy);
      double major = Math.sqrt(middle + off);
      double minor = Math.sqrt(Math.max(1.0 / 12, middle - off));
      double area = n * side * side;
      double perimeter = perimeter(node) * side;
      row.put("log_area", Math.log(area));
      row.put("log_length", Math.log(major * Math.sqrt(12) * side));
      row.put("log_width", Math.log(minor * Math.sqrt(12) * side));
      row.put("elongation", major / minor);
      row.put("compactness", 4 * Math.PI * area / (perimeter * perimeter));
      // a rectangle has 12 times the product of its moments' roots as its area
      row.put("moments_filled", n / (12 * major * minor));
      double[] box = rectangle(node);
      row.put("rectangularity", n / (box[0] * box[1]));
      row.put("log_long_side", Math.log(box[0] * side));
      row.put("log_short_side", Math.log(box[1] * side));
      row.put("sides", box[0] / box[1]);
      row.put("rim_over_rectangle", perimeter / (2 * (box[0] + box[1]) * side));
      row.put("solidity", n / hull(node));
    }

    /** Crofton's formula with four directions, in pixels. */
    private double perimeter(int node) {
      int at = node * sums.stride + sums.border;
      double straight = sums.numbers[at + NodeSums.SIDES];
      double diagonal = sums.numbers[at + NodeSums.DIAGONALS] / Math.sqrt(2);
      return Math.max(1, Math.PI / 8 * (straight + diagonal));
    }

    /** Longer and shorter side of the smallest of the rectangles in the directions there are. */
    private double[] rectangle(int node) {
      int quarter = NodeSums.DIRECTIONS / 4;
      double least = Double.POSITIVE_INFINITY;
      double[] sides = {1, 1};
      for (int k = 0; k < quarter; k++) {
        double along = width(node, k);
        double across = width(node, k + quarter);
        if (along * across < least) {
          least = along * across;
          sides[0] = Math.max(along, across);
          sides[1] = Math.max(1, Math.min(along, across));
        }
      }
      return sides;
    }

    private double width(int node, int direction) {
      int at = node * NodeSums.DIRECTIONS;
      return sums.reach[at + direction] + sums.reach[at + direction + NodeSums.DIRECTIONS / 2];
    }

    /** Area of the polygon between the lines that touch it in all directions, in pixels. */
    private double hull(int node) {
      int at = node * NodeSums.DIRECTIONS;
      double turn = 2 * Math.PI / NodeSums.DIRECTIONS;
      // from its middle, as differences of large numbers would be lost
      double x = sums.form[node * NodeSums.FORM + 1] / sums.form[node * NodeSums.FORM] + 0.5;
      double y = sums.form[node * NodeSums.FORM + 2] / sums.form[node * NodeSums.FORM] + 0.5;
      double[] far = new double[NodeSums.DIRECTIONS];
      for (int k = 0; k < far.length; k++) {
        far[k] = sums.reach[at + k] - x * Math.cos(turn * k) - y * Math.sin(turn * k);
      }
      double area = 0;
      for (int k = 0; k < far.length; k++) {
        double before = far[Math.floorMod(k - 1, far.length)];
        double after = far[(k + 1) % far.length];
        double edge = (before + after - 2 * far[k] * Math.cos(turn)) / Math.sin(turn);
        area += far[k] * edge / 2;
      }
      return Math.max(sums.form[node * NodeSums.FORM], area);
    }

    private double mean(int node, int dimension, double n) {
      return sums.numbers[node * sums.stride + 2 * dimension] / n;
    }

    private double spread(int node, int dimension, double n) {
      double mean = mean(node, dimension, n);
      double square = sums.numbers[node * sums.stride + 2 * dimension + 1] / n;
      return Math.sqrt(Math.max(0, square - mean * mean));
    }

    private int dimension(String name) {
      return dimensions.indexOf(name);
    }

    /** Difference of two colours; NaN where the scene has not both. */
    private double between(int node, double n, String over, String under) {
      int a = dimension(over);
      int b = dimension(under);
      return a < 0 || b < 0 ? Double.NaN : mean(node, a, n) - mean(node, b, n);
    }

    private void light(int node, double n, Row row) {
      for (int d = 0; d < dimensions.size(); d++) {
        String name = dimensions.get(d).toLowerCase(Locale.ROOT).replace(' ', '_');
        row.put("mean_" + name, mean(node, d, n));
        row.put("spread_" + name, spread(node, d, n));
      }
      row.put("infrared_over_red", between(node, n, "near_infrared", "red"));
      row.put("red_over_blue", between(node, n, "red", "blue"));
      row.put("green_over_infrared", between(node, n, "green", "near_infrared"));
      row.put("red_over_green", between(node, n, "red", "green"));
      int at = node * sums.stride + sums.histogram;
      double below = 0;
      double entropy = 0;
      double most = 0;
      double[] wanted = {0.1, 0.25, 0.5, 0.75, 0.9};
      double[] found = new double[wanted.length];
      int next = 0;
      for (int b = 0; b < NodeSums.BINS; b++) {
        double share = sums.numbers[at + b] / n;
        while (next < wanted.length && below + share >= wanted[next] - 1e-9) {
          found[next] = b + (wanted[next] - below) / Math.max(share, 1e-9);
          next++;
        }
        below += share;
        entropy -= share > 0 ? share * Math.log(share) : 0;
        most = Math.max(most, share);
      }
      row.put("light_p10", found[0]);
      row.put("light_median", found[2]);
      row.put("light_p90", found[4]);
      row.put("light_middle_half", found[3] - found[1]);
      row.put("light_entropy", entropy);
      row.put("light_most", most);
      row.put("light_dark", (sums.numbers[at] + sums.numbers[at + 1]) / n);
      row.put(
          "light_bright",
          (sums.numbers[at + NodeSums.BINS - 1] + sums.numbers[at + NodeSums.BINS - 2]) / n);
      row.put("roughness", sums.numbers[node * sums.stride + sums.within] / n);
    }

    private void border(int node, double n, Row row) {
      int at = node * sums.stride + sums.border;
      double length = sums.numbers[at + NodeSums.SIDES] - sums.numbers[at + NodeSums.EDGE];
      double sides = length > 0 ? length : Double.NaN;
      double lightStep = sums.numbers[at + NodeSums.LIGHT_STEP] / sides;
      row.put("border_light", lightStep);
      row.put("border_colour", sums.numbers[at + NodeSums.COLOUR_STEP] / sides);
      double rough = sums.numbers[node * sums.stride + sums.within] / (2 * n);
      row.put("border_over_within", lightStep / (rough + 0.05));
      row.put(
          "edge_share",
          sums.numbers[at + NodeSums.EDGE] / Math.max(1, sums.numbers[at + NodeSums.SIDES]));
      int beyond = node * sums.stride + sums.outside;
      for (int d = 0; d < dimensions.size(); d++) {
        row.put(
            "beyond_" + dimensions.get(d).toLowerCase(Locale.ROOT).replace(' ', '_'),
            mean(node, d, n) - sums.numbers[beyond + d] / sides);
      }
      double away = sums.numbers[at + NodeSums.AWAY];
      double towards = sums.numbers[at + NodeSums.TOWARDS];
      double awayOf = sun && away > 0.5 ? away : Double.NaN;
      double towardsOf = sun && towards > 0.5 ? towards : Double.NaN;
      double shadow =
          (sums.numbers[at + NodeSums.AWAY_OUTSIDE] - sums.numbers[at + NodeSums.AWAY_INSIDE])
              / awayOf;
      double lit =
          (sums.numbers[at + NodeSums.TOWARDS_OUTSIDE] - sums.numbers[at + NodeSums.TOWARDS_INSIDE])
              / towardsOf;
      row.put("away_from_sun", shadow);
      row.put("towards_sun", lit);
      row.put("away_less_towards", shadow - lit);
      row.put("away_light", sums.numbers[at + NodeSums.AWAY_OUTSIDE] / awayOf);
      row.put(
          "sides_apart",
          sums.numbers[at + NodeSums.TOWARDS_INSIDE] / towardsOf
              - sums.numbers[at + NodeSums.AWAY_INSIDE] / awayOf);
    }

    private void surroundings(int node, double n, Row row) {
      for (int ring = 0; ring < NodeSums.RINGS; ring++) {
        int at = node * sums.stride + sums.rings + ring * (1 + sums.dimensions);
        double count = sums.numbers[at] > 0.5 ? sums.numbers[at] : Double.NaN;
        for (int d = 0; d < dimensions.size(); d++) {
          row.put(
              "ring" + (ring + 1) + "_"
                  + dimensions.get(d).toLowerCase(Locale.ROOT).replace(' ', '_'),
              mean(node, d, n) - sums.numbers[at + 1 + d] / count);
        }
      }
    }

    private void place(int node, double n, Row row) {
      int parent = tree.parent(node);
      row.put("log_height", Math.log(height(node)));
      row.put("stability", stability(node));
      row.put("grows", parent < 0 ? 0 : Math.log(sums.form[parent * NodeSums.FORM] / n));
      row.put("parent_stability", parent < 0 ? 0 : stability(parent));
      int above = parent < 0 ? -1 : tree.parent(parent);
      row.put("steady_twice", above < 0 ? 0 : Math.log(height(above) / height(node)));
      apart("joins", node, sibling[node], n, row);
      int part = child[node];
      int other = part < 0 ? -1 : sibling[part];
      double partPixels = part < 0 ? Double.NaN : sums.form[part * NodeSums.FORM];
      apart("parts", part, other, partPixels, row);
      row.put("part_share", other < 0 ? 0 : Math.min(partPixels, n - partPixels) / n);
      row.put("joins_share", parent < 0 ? 0 : n / sums.form[parent * NodeSums.FORM]);
      double[] box = parent < 0 ? new double[] {Double.NaN, 1} : rectangle(parent);
      row.put(
          "parent_rectangularity",
          parent < 0 ? Double.NaN : sums.form[parent * NodeSums.FORM] / (box[0] * box[1]));
      row.put(
          "parent_solidity",
          parent < 0 ? Double.NaN : sums.form[parent * NodeSums.FORM] / hull(parent));
    }

    /** How far two nodes are apart in light and colour. */
    private void apart(String name, int node, int other, double n, Row row) {
      double otherPixels = other < 0 ? Double.NaN : sums.form[other * NodeSums.FORM];
      row.put(
          name + "_light", other < 0 ? Double.NaN : mean(node, 0, n) - mean(other, 0, otherPixels));
      double colour = other < 0 ? Double.NaN : 0;
      for (int d = 1; d < dimensions.size(); d++) {
        double off = other < 0 ? 0 : mean(node, d, n) - mean(other, d, otherPixels);
        colour += off * off;
      }
      row.put(name + "_colour", Math.sqrt(colour));
    }
  }
}
