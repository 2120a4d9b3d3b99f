package sharpkestrel.demo.sensor;

import static sharpkestrel.demo.sensor.Vectors.cross;
import static sharpkestrel.demo.sensor.Vectors.dot;
import static sharpkestrel.demo.sensor.Vectors.unit;

import sharpkestrel.demo.noise.Chance;

/**
 * A pushbroom sensor in map coordinates (east, north, height above the ellipsoid): a line of detectors carried along a
 * curved orbit, its attitude drifting slowly and trembling a little. A ray is a closed form; the line on which a point
 * of the ground is seen is found by Newton's method to 1e-9 of a line.
 */
public final class Pushbroom implements Sensor {

  public static final double ALTITUDE = 500_000;
  private static final double EARTH = 6_378_000;
  private static final int ITERATIONS = 12;

  private final int width;
  private final int height;
  private final double[] middle;
  private final double[] track;
  private final double[] across;
  private final double[] look;
  private final double[] ahead;
  private final double metresPerLine;
  private final double focal;
  private final double[] drift = new double[3];
  private final double[] bend = new double[3];
  private final double[][] tremor = new double[6][];
  private final double reading;

  /**
   * @param place east, north and ellipsoidal height of the ground point in the middle of the image
   * @param offNadir angle at the ground between the view and the vertical, degrees
   * @param azimuth from the ground towards the sensor, degrees clockwise from north
   * @param heading of the flight, degrees
   * @param gsd metres of level ground in a pixel
   * @param jitter amplitude of the tremor in pixels
   */
  public Pushbroom(
      double[] place,
      double offNadir,
      double azimuth,
      double heading,
      double gsd,
      int width,
      int height,
      double jitter,
      Chance chance) {
    this.width = width;
    this.height = height;
    double tangent = Math.tan(Math.toRadians(offNadir));
    double az = Math.toRadians(azimuth);
    middle = new double[] {
      place[0] + ALTITUDE * tangent * Math.sin(az),
      place[1] + ALTITUDE * tangent * Math.cos(az),
      place[2] + ALTITUDE
    };
    double course = Math.toRadians(heading);
    track = new double[] {Math.sin(course), Math.cos(course), 0};
    look = unit(place[0] - middle[0], place[1] - middle[1], place[2] - middle[2]);
    // The line of detectors lies at right angles to the track as it is seen along the look.
    double[] level = {-track[1], track[0], 0};
    double part = dot(level, look);
    across = unit(level[0] - part * look[0], level[1] - part * look[1], -part * look[2]);
    ahead = cross(look, across);
    metresPerLine = gsd;
    double range = ALTITUDE / -look[2];
    // Pixels a unit of tangent: a pixel is one GSD of ground across the look.
    focal = range / gsd;
    for (int axis = 0; axis < 3; axis++) {
      drift[axis] = 3e-6 * chance.gaussian();
      bend[axis] = 2e-6 * chance.gaussian();
    }
    double pixel = gsd / range;
    reading = 1.0 / Math.max(width, height);
    for (int k = 0; k < tremor.length; k++) {
      double period = k < 2 ? chance.between(350, 900) : chance.between(60, 220);
      tremor[k] = new double[] {
        jitter * pixel * chance.between(0.3, 1) / 2,
        2 * Math.PI / period,
        chance.between(0, 2 * Math.PI)
      };
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

  /** Roll, pitch and yaw on a line, radians about ahead, across and look. */
  private void attitude(double row, double[] angles) {
    double t = (row - height / 2.0) * reading;
    for (int axis = 0; axis < 3; axis++) {
      angles[axis] = drift[axis] * t + bend[axis] * t * t;
    }
    for (int k = 0; k < tremor.length; k++) {
      angles[k % 2] += tremor[k][0] * Math.sin(tremor[k][1] * row + tremor[k][2]);
    }
  }

  private void position(double row, double[] at) {
    double along = (row - height / 2.0) * metresPerLine;
    for (int i = 0; i < 3; i++) {
      at[i] = middle[i] + along * track[i];
    }
    at[2] -= along * along / (2 * (EARTH + ALTITUDE));
  }

  @Override
  public Row row(double row) {
    double[] angles = new double[3];
    double[] from = new double[3];
    attitude(row, angles);
    position(row, from);
    return (col, ray) -> {
      // in the sensor: x across, 0 ahead, 1 along the look; turned by small angles
      double x = (col - width / 2.0) / focal;
      double a = x - angles[0];
      double b = angles[1] + angles[2] * x;
      double dz = look[2] + a * across[2] + b * ahead[2];
      ray[2] = (look[0] + a * across[0] + b * ahead[0]) / dz;
      ray[3] = (look[1] + a * across[1] + b * ahead[1]) / dz;
      ray[0] = from[0] - from[2] * ray[2];
      ray[1] = from[1] - from[2] * ray[3];
    };
  }

  @Override
  public void toImage(double east, double north, double height, double[] image) {
    double[] angles = new double[3];
    double[] from = new double[3];
    double row = this.height / 2.0;
    double x = 0;
    double perLine = metresPerLine * dot(track, ahead);
    for (int k = 0; k < ITERATIONS; k++) {
      position(row, from);
      attitude(row, angles);
      double ex = east - from[0];
      double ey = north - from[1];
      double ez = height - from[2];
      double depth = ex * look[0] + ey * look[1] + ez * look[2];
      double a = (ex * across[0] + ey * across[1] + ez * across[2]) / depth;
      double b = (ex * ahead[0] + ey * ahead[1] + ez * ahead[2]) / depth;
      x = a + angles[0];
      double off = b - angles[1] - angles[2] * x;
      double step = off * depth / perLine;
      row += step;
      if (Math.abs(step) < 1e-9) {
        break;
      }
    }
    image[0] = width / 2.0 + focal * x;
    image[1] = row;
  }
}
