package sharpkestrel.demo.scene;

import java.time.Instant;
import sharpkestrel.demo.light.Air;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.light.Sun;

/**
 * One moment over the sound.
 *
 * @param offNadir angle at the ground between the view and the vertical, degrees
 * @param viewAzimuth from the ground towards the sensor, degrees clockwise from north
 * @param wind metres a second, from {@code windFrom} degrees
 * @param wetness of roads and roofs after rain, 0 to 1
 */
public record Conditions(
    Instant time,
    Sun sun,
    Air air,
    double offNadir,
    double viewAzimuth,
    double wind,
    double windFrom,
    double wetness,
    Cloud cloud,
    Season season) {

  /** With leaves on the trees. */
  public Conditions(
      Instant time,
      Sun sun,
      Air air,
      double offNadir,
      double viewAzimuth,
      double wind,
      double windFrom,
      double wetness,
      Cloud cloud) {
    this(time, sun, air, offNadir, viewAzimuth, wind, windFrom, wetness, cloud, Season.LEAF_ON);
  }

  /** Unit vector from the ground to the sensor: east, north, up. */
  public double[] view() {
    double o = Math.toRadians(offNadir);
    double a = Math.toRadians(viewAzimuth);
    return new double[] {Math.sin(o) * Math.sin(a), Math.sin(o) * Math.cos(a), Math.cos(o)};
  }
}
