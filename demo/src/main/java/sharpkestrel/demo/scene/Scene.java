package sharpkestrel.demo.scene;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.sensor.Detector;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.raster.BandRole;

/**
 * One acquisition: a sensor over the sound at one moment, with its gains.
 *
 * @param brightest reflectance of the level surface that fills the range
 * @param shifts of each multispectral band against the panchromatic one, right and down, in multispectral pixels
 */
public record Scene(
    String name, Sensor sensor, Conditions conditions, double brightest, double[][] shifts) {

  /** The multispectral bands in the order of their planes. */
  public static final List<BandRole> ROLES = List.of(
      BandRole.VIOLET,
      BandRole.BLUE,
      BandRole.GREEN,
      BandRole.RED,
      BandRole.RED_EDGE,
      BandRole.NEAR_INFRARED);

  /** Panchromatic pixels along a side of a multispectral one. */
  public static final int RATIO = 4;

  /** Share of each band in what the panchromatic detectors see. */
  static final float[] PAN_SHARE = {0.06f, 0.21f, 0.27f, 0.27f, 0.13f, 0.06f};

  /** Sun's light outside of the air by band, W/m2/um. */
  private static final double[] IRRADIANCE = {1750, 1950, 1850, 1600, 1420, 1080};

  private static final double PAN_IRRADIANCE = 1640;

  /** Radiance, W/m2/sr/um, of one unit of signal: reflectance of a white level surface times the sine of the sun. */
  private double radiance(int band) {
    double irradiance = band < 0 ? PAN_IRRADIANCE : IRRADIANCE[band];
    double distance = bare().sunDistance();
    return irradiance / Math.PI / (distance * distance);
  }

  /** Radiance of one number; {@code band} -1 is the panchromatic one. */
  public double gain(int band) {
    return radiance(band) / scale(band);
  }

  /** The number, before noise, of one unit of signal. */
  public double scale(int band) {
    double sine = Math.sin(Math.toRadians(conditions.sun().elevation()));
    return Detector.FULL_SCALE / (brightest * (band < 0 ? 0.92 : 1) * sine);
  }

  private Acquisition bare() {
    return new Acquisition(
        conditions.time(),
        conditions.sun().elevation(),
        conditions.sun().azimuth(),
        conditions.offNadir(),
        conditions.viewAzimuth(),
        Map.of());
  }

  /** The same moment and gains through another sensor. */
  public Scene through(Sensor other) {
    return new Scene(name, other, conditions, brightest, shifts);
  }

  /** What the delivery says about it. */
  public Acquisition acquisition() {
    Map<BandRole, Calibration> calibration = new EnumMap<>(BandRole.class);
    calibration.put(BandRole.PAN, new Calibration(gain(-1), 0, PAN_IRRADIANCE));
    for (int b = 0; b < Material.BANDS; b++) {
      calibration.put(ROLES.get(b), new Calibration(gain(b), 0, IRRADIANCE[b]));
    }
    Acquisition bare = bare();
    return new Acquisition(
        bare.time(),
        bare.sunElevation(),
        bare.sunAzimuth(),
        bare.viewOffNadir(),
        bare.viewAzimuth(),
        calibration);
  }
}
