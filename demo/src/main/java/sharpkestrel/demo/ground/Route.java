package sharpkestrel.demo.ground;

import java.util.Arrays;
import java.util.PriorityQueue;
import java.util.function.DoubleBinaryOperator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;
import sharpkestrel.raster.Extent;

/**
 * The cheapest way over the land between two places: A* (Hart, Nilsson and Raphael 1968) on a lattice of eight
 * neighbours, where steep and wet ground costs more and a road that is there already less; then eased
 * (Douglas and Peucker 1973) and rounded by cutting corners (Chaikin 1974).
 */
final class Route {

  private static final double STEP = 14;
  private static final double MARGIN = 380;
  private static final double LEAST = 0.35;
  private static final double SLACK = 9;
  private static final int[] DX = {1, 1, 0, -1, -1, -1, 0, 1};
  private static final int[] DY = {0, 1, 1, 1, 0, -1, -1, -1};

  private final Extent box;
  private final int width;
  private final int height;
  private final float[] ground;
  private final float[] factor;

  /**
   * @param heights of the land
   * @param price of a metre there; infinite where no road may go
   */
  private Route(Extent box, DoubleBinaryOperator heights, DoubleBinaryOperator price) {
    this.box = box;
    width = (int) (box.width() / STEP) + 1;
    height = (int) (box.height() / STEP) + 1;
    ground = new float[width * height];
    factor = new float[width * height];
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        ground[y * width + x] = (float) heights.applyAsDouble(e(x), n(y));
        factor[y * width + x] = (float) price.applyAsDouble(e(x), n(y));
      }
    }
  }

  private double e(int x) {
    return box.west() + x * STEP;
  }

  private double n(int y) {
    return box.south() + y * STEP;
  }

  /** Points of the way, east and north in turn; empty where there is none. */
  static double[] between(
      double[] from, double[] to, DoubleBinaryOperator heights, DoubleBinaryOperator price) {
    Extent box = new Extent(
        Math.min(from[0], to[0]) - MARGIN,
        Math.min(from[1], to[1]) - MARGIN,
        Math.max(from[0], to[0]) + MARGIN,
        Math.max(from[1], to[1]) + MARGIN);
    return new Route(box, heights, price).search(from, to);
  }

  /** The way as a road runs: without the lattice's steps, its corners rounded. */
  static double[] eased(double[] way) {
    Coordinate[] points = new Coordinate[way.length / 2];
    for (int i = 0; i < points.length; i++) {
      points[i] = new Coordinate(way[2 * i], way[2 * i + 1]);
    }
    Coordinate[] kept = DouglasPeuckerSimplifier.simplify(
            new GeometryFactory().createLineString(points), SLACK)
        .getCoordinates();
    double[] line = new double[2 * kept.length];
    for (int i = 0; i < kept.length; i++) {
      line[2 * i] = kept[i].x;
      line[2 * i + 1] = kept[i].y;
    }
    return rounded(rounded(rounded(line)));
  }

  private double[] search(double[] from, double[] to) {
    int start = node(from);
    int goal = node(to);
    float[] cost = new float[width * height];
    int[] before = new int[width * height];
    Arrays.fill(cost, Float.POSITIVE_INFINITY);
    Arrays.fill(before, -1);
    PriorityQueue<float[]> open = new PriorityQueue<>(
        (a, b) -> a[0] != b[0] ? Float.compare(a[0], b[0]) : Float.compare(a[1], b[1]));
    cost[start] = 0;
    open.add(new float[] {0, start});
    boolean[] done = new boolean[width * height];
    while (!open.isEmpty()) {
      int at = (int) open.remove()[1];
      if (done[at]) {
        continue;
      }
      done[at] = true;
      if (at == goal) {
        return path(before, from, to, goal);
      }
      int x = at % width;
      int y = at / width;
      for (int k = 0; k < 8; k++) {
        int nx = x + DX[k];
        int ny = y + DY[k];
        if (nx < 0 || ny < 0 || nx >= width || ny >= height) {
          continue;
        }
        int next = ny * width + nx;
        double length = STEP * ((k & 1) == 0 ? 1 : Math.sqrt(2));
        double slope = (ground[next] - ground[at]) / length;
        double price = length * factor[next] * (1 + 60 * slope * slope);
        float total = (float) (cost[at] + price);
        if (total < cost[next]) {
          cost[next] = total;
          before[next] = at;
          double left = Math.hypot(e(nx) - to[0], n(ny) - to[1]);
          open.add(new float[] {(float) (total + LEAST * left), next});
        }
      }
    }
    return new double[0];
  }

  private int node(double[] place) {
    int x = (int) Math.round((place[0] - box.west()) / STEP);
    int y = (int) Math.round((place[1] - box.south()) / STEP);
    return Math.min(height - 1, y) * width + Math.min(width - 1, x);
  }

  private double[] path(int[] before, double[] from, double[] to, int goal) {
    int count = 0;
    for (int at = goal; at >= 0; at = before[at]) {
      count++;
    }
    double[] way = new double[2 * count];
    int i = count - 1;
    for (int at = goal; at >= 0; at = before[at], i--) {
      way[2 * i] = e(at % width);
      way[2 * i + 1] = n(at / width);
    }
    System.arraycopy(from, 0, way, 0, 2);
    System.arraycopy(to, 0, way, way.length - 2, 2);
    return way;
  }

  /** Corners cut at a quarter and three quarters of each piece; the ends stay. */
  static double[] rounded(double[] line) {
    int points = line.length / 2;
    double[] result = new double[4 * (points - 1) + 4];
    int at = 0;
    result[at++] = line[0];
    result[at++] = line[1];
    for (int i = 0; i + 1 < points; i++) {
      for (double t = 0.25; t < 1; t += 0.5) {
        result[at++] = line[2 * i] + t * (line[2 * i + 2] - line[2 * i]);
        result[at++] = line[2 * i + 1] + t * (line[2 * i + 3] - line[2 * i + 1]);
      }
    }
    result[at++] = line[line.length - 2];
    result[at] = line[line.length - 1];
    return result;
  }
}
