package sharpkestrel.demo.sensor;

import java.util.function.Supplier;

/**
 * A grid over the ground as a sensor, to look at what lies at each of its pixels: down the rays of another sensor, as
 * an orthorectification over the terrain puts it there, or straight down, as a true one would. The rays' slants change so
 * slowly that they are taken from nodes {@value #NODE} pixels apart.
 */
public final class GroundSensor implements Sensor {

  private static final int NODE = 64;

  /** Height of the ground above the ellipsoid. */
  public interface Heights {
    double at(double east, double north);
  }

  private final int width;
  private final int height;
  private final double west;
  private final double north;
  private final double step;
  private final Supplier<Heights> heights;
  private final int across;
  private final double[] slants;

  /**
   * @param west corner of the first pixel; {@code step} metres from one to the next
   * @param heights a fresh one for each row: it may remember where it looked last
   * @param through whose rays are followed; null for straight down
   */
  public GroundSensor(
      double west,
      double north,
      double step,
      int width,
      int height,
      Supplier<Heights> heights,
      Sensor through) {
    this.west = west;
    this.north = north;
    this.step = step;
    this.width = width;
    this.height = height;
    this.heights = heights;
    across = width / NODE + 2;
    int down = height / NODE + 2;
    slants = new double[2 * across * down];
    if (through != null) {
      Heights ground = heights.get();
      double[] image = new double[2];
      double[] ray = new double[4];
      for (int y = 0; y < down; y++) {
        for (int x = 0; x < across; x++) {
          double e = west + x * NODE * step;
          double n = north - y * NODE * step;
          through.toImage(e, n, ground.at(e, n), image);
          through.ray(image[0], image[1], ray);
          slants[2 * (y * across + x)] = ray[2];
          slants[2 * (y * across + x) + 1] = ray[3];
        }
      }
    }
  }

  @Override
  public int width() {
    return width;
  }

  @Override
  public int height() {
    return height;
  }

  @Override
  public Row row(double row) {
    double n = north - row * step;
    double py = Math.max(0, Math.min(slants.length / 2 / across - 1.001, row / NODE));
    int y = (int) py;
    Heights ground = heights.get();
    return (col, ray) -> {
      double e = west + col * step;
      double px = Math.max(0, Math.min(across - 1.001, col / NODE));
      int x = (int) px;
      double h = ground.at(e, n);
      for (int axis = 0; axis < 2; axis++) {
        int i = 2 * (y * across + x) + axis;
        double top = slants[i] + (slants[i + 2] - slants[i]) * (px - x);
        double bottom = slants[i + 2 * across]
            + (slants[i + 2 * across + 2] - slants[i + 2 * across]) * (px - x);
        ray[2 + axis] = top + (bottom - top) * (py - y);
      }
      ray[0] = e - h * ray[2];
      ray[1] = n - h * ray[3];
    };
  }

  @Override
  public void toImage(double east, double northing, double h, double[] image) {
    image[0] = (east - west) / step;
    image[1] = (north - northing) / step;
  }
}
