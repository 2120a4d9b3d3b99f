package sharpkestrel.demo;

import java.util.stream.IntStream;

/**
 * Ground heights above the geoid and what lies on the ground, on a grid of 1 m over the survey, interpolated between
 * nodes. {@code shore} is above 0 on land and below it at sea, about 1 for 1400 m inland.
 */
final class Terrain {

  static final double STEP = 1.0;

  final double west;
  final double north;
  final int width;
  final int height;
  private final float[] ground;
  private final float[] shore;
  private final float[] road;
  private final float[] outcrop;
  private final float[] wet;
  private final float highest;

  Terrain(World world, double west, double south, double east, double north) {
    this.west = west;
    this.north = north;
    width = (int) Math.ceil((east - west) / STEP) + 2;
    height = (int) Math.ceil((north - south) / STEP) + 2;
    ground = new float[width * height];
    shore = new float[width * height];
    road = new float[width * height];
    outcrop = new float[width * height];
    wet = new float[width * height];
    Noise land = new Noise(world.seed() * 31 + 1);
    Noise relief = new Noise(world.seed() * 31 + 2);
    Noise stone = new Noise(world.seed() * 31 + 3);
    Noise damp = new Noise(world.seed() * 31 + 4);
    IntStream.range(0, height).parallel().forEach(y -> {
      for (int x = 0; x < width; x++) {
        double e = west + x * STEP;
        double n = north - y * STEP;
        int i = y * width + x;
        double s = shoreAt(land, e, n);
        shore[i] = (float) s;
        ground[i] = (float) heightAt(relief, s, e, n);
        outcrop[i] = (float) stone.octaves(e / 60, n / 60, 5);
        wet[i] = (float) damp.octaves(e / 130, n / 130, 4);
        road[i] = 1000;
      }
    });
    float max = 0;
    for (float h : ground) {
      max = Math.max(max, h);
    }
    highest = max;
  }

  static double shoreAt(Noise land, double e, double n) {
    return land.octaves(e / 1500, n / 1500, 6) + 0.13;
  }

  private static double heightAt(Noise relief, double s, double e, double n) {
    if (s <= 0) {
      return 0;
    }
    double hills = 1 - Math.abs(relief.octaves(e / 1100, n / 1100, 3));
    double rise = Math.min(1, s / 0.45);
    double bumps = relief.octaves(e / 90, n / 90, 4);
    return Math.min(1, s * 40) * 1.2
        + 150 * rise * rise * hills * hills
        + 7 * Math.min(1, s * 6) * (bumps + 0.4);
  }

  /** Lowers the stored distance to the nearest road where this one is nearer; below 0 for tracks is not used. */
  void carve(double[] line, double reach) {
    for (int k = 0; k + 3 < line.length; k += 2) {
      double x0 = (line[k] - west) / STEP;
      double y0 = (north - line[k + 1]) / STEP;
      double x1 = (line[k + 2] - west) / STEP;
      double y1 = (north - line[k + 3]) / STEP;
      int left = (int) Math.max(0, Math.min(x0, x1) - reach);
      int right = (int) Math.min(width - 1.0, Math.max(x0, x1) + reach);
      int top = (int) Math.max(0, Math.min(y0, y1) - reach);
      int bottom = (int) Math.min(height - 1.0, Math.max(y0, y1) + reach);
      double dx = x1 - x0;
      double dy = y1 - y0;
      double l2 = dx * dx + dy * dy;
      for (int y = top; y <= bottom; y++) {
        for (int x = left; x <= right; x++) {
          double t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / l2));
          double d = Math.hypot(x - x0 - t * dx, y - y0 - t * dy) * STEP;
          int i = y * width + x;
          road[i] = (float) Math.min(road[i], d);
        }
      }
    }
  }

  double highest() {
    return highest;
  }

  private float lookup(float[] field, double e, double n) {
    double px = (e - west) / STEP;
    double py = (north - n) / STEP;
    int x = (int) px;
    int y = (int) py;
    x = x < 0 ? 0 : Math.min(x, width - 2);
    y = y < 0 ? 0 : Math.min(y, height - 2);
    float fx = (float) (px - x);
    float fy = (float) (py - y);
    int i = y * width + x;
    float top = field[i] + (field[i + 1] - field[i]) * fx;
    float bottom = field[i + width] + (field[i + width + 1] - field[i + width]) * fx;
    return top + (bottom - top) * fy;
  }

  double height(double e, double n) {
    return lookup(ground, e, n);
  }

  float shore(double e, double n) {
    return lookup(shore, e, n);
  }

  float road(double e, double n) {
    return lookup(road, e, n);
  }

  float outcrop(double e, double n) {
    return lookup(outcrop, e, n);
  }

  float wet(double e, double n) {
    return lookup(wet, e, n);
  }

  /** Heights at the nodes, row by row from the north-west. */
  float[] nodes() {
    return ground;
  }

  /**
   * Height of the ground where a ray meets it, starting from a guess.
   *
   * @param ray east and north at height 0 above the geoid, and their change for a metre
   */
  double meet(double[] ray, double guess) {
    double h = guess;
    for (int i = 0; i < 12; i++) {
      double found = height(ray[0] + h * ray[2], ray[1] + h * ray[3]);
      double change = found - h;
      h = found;
      if (Math.abs(change) < 0.005) {
        break;
      }
    }
    return h;
  }
}
