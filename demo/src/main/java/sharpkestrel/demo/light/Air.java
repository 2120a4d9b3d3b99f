package sharpkestrel.demo.light;

/**
 * What the air does to light, by band: how much of the sun's comes down straight, how much as light of the sky, how much
 * of the ground's goes up, and what the haze adds. Single scattering by molecules (optical depth after Hansen and Travis
 * 1974) and by aerosol of Angstrom's exponent 1.3; all radiances are given as reflectance of a level white surface
 * times the sine of the sun's elevation.
 */
public final class Air {

  /** Middle of each band, micrometres. */
  private static final double[] MICROMETRES = {0.425, 0.480, 0.545, 0.660, 0.725, 0.835};

  private static final double AEROSOL_EXPONENT = 1.3;

  private final double[] down = new double[Material.BANDS];
  private final double[] sky = new double[Material.BANDS];
  private final double[] up = new double[Material.BANDS];
  private final double[] haze = new double[Material.BANDS];

  /**
   * @param aerosol optical depth of haze at 0.55 micrometres: 0.05 on a clear northern day to 0.3
   */
  public Air(Sun sun, double offNadir, double aerosol) {
    double sine = Math.sin(Math.toRadians(sun.elevation()));
    double view = Math.cos(Math.toRadians(offNadir));
    for (int b = 0; b < Material.BANDS; b++) {
      double l = MICROMETRES[b];
      double molecules =
          0.008569 * Math.pow(l, -4) * (1 + 0.0113 / (l * l) + 0.00013 / Math.pow(l, 4));
      double particles = aerosol * Math.pow(l / 0.55, -AEROSOL_EXPONENT);
      double depth = molecules + particles;
      down[b] = Math.exp(-depth / sine);
      up[b] = Math.exp(-0.55 * depth / view);
      // what is lost on the way: half of the molecules' and most of the particles' share arrives as
      // light of the sky
      double lostToMolecules = (1 - Math.exp(-molecules / sine));
      double lostToParticles = (1 - Math.exp(-particles / sine));
      sky[b] = sine * (0.5 * lostToMolecules + 0.75 * lostToParticles);
      haze[b] = sine * (0.42 * lostToMolecules * sine + 0.10 * lostToParticles) + 0.0006;
    }
  }

  /** Share of the sun's light that comes straight. */
  public double down(int band) {
    return down[band];
  }

  /** Light of the whole sky on a level surface. */
  public double sky(int band) {
    return sky[band];
  }

  /** Share of the ground's light that reaches the sensor. */
  public double up(int band) {
    return up[band];
  }

  /** What comes from the air between. */
  public double haze(int band) {
    return haze[band];
  }
}
