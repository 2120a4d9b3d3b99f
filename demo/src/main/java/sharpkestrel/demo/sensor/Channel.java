package sharpkestrel.demo.sensor;

import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.SampleType;

/**
 * One band of an instrument.
 *
 * @param response share of each of the samples of the spectrum (0.425, 0.480, 0.545, 0.660, 0.725, 0.835 micrometres) in what its
 *     detectors see
 * @param irradiance of the sun outside of the air, W/m2/um
 */
public record Channel(String name, BandRole role, double irradiance, float... response) {

  private static final double[] SUN = {1750, 1950, 1850, 1600, 1420, 1080};

  /** One that sees what the samples with a response have, and the sun's light in the same shares. */
  static Channel of(BandRole role, double... shares) {
    return of(role.label(), role, shares);
  }

  static Channel of(String name, BandRole role, double... shares) {
    float[] response = new float[SUN.length];
    double sun = 0;
    double sum = 0;
    for (int b = 0; b < SUN.length; b++) {
      sum += shares[b];
    }
    for (int b = 0; b < SUN.length; b++) {
      response[b] = (float) (shares[b] / sum);
      sun += shares[b] / sum * SUN[b];
    }
    return new Channel(name, role, sun, response);
  }

  /** Those that see one sample each. */
  static List<Channel> sixOfTheSpectrum() {
    BandRole[] roles = {
      BandRole.VIOLET,
      BandRole.BLUE,
      BandRole.GREEN,
      BandRole.RED,
      BandRole.RED_EDGE,
      BandRole.NEAR_INFRARED
    };
    Channel[] channels = new Channel[roles.length];
    for (int b = 0; b < roles.length; b++) {
      float[] response = new float[roles.length];
      response[b] = 1;
      channels[b] = new Channel(roles[b].label(), roles[b], SUN[b], response);
    }
    return List.of(channels);
  }

  /** As a file has it. */
  public Band band(SampleType type) {
    return Band.of(role, type).withName(name);
  }
}
