package sharpkestrel.demo.light;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/**
 * Surfaces: their class on the cover map, their reflectance in the sensor's bands (violet, blue, green, red, red edge,
 * near infrared), and how much it varies from patch to patch (metres) and from grain to grain (decimetres). The
 * spectra are rounded shapes of the kinds published in open spectral libraries, not copies of measurements.
 */
public enum Material {
  WATER(1, 0.026, 0.026, 0.019, 0.007, 0.004, 0.002, 0, 0),
  SURF(1, 0.46, 0.47, 0.46, 0.43, 0.36, 0.30, 0.2, 0.2),
  LAKE_WATER(2, 0.014, 0.016, 0.017, 0.012, 0.008, 0.005, 0, 0),
  WEED(3, 0.032, 0.036, 0.050, 0.052, 0.10, 0.16, 0.2, 0.2),
  SHINGLE(4, 0.15, 0.17, 0.20, 0.22, 0.24, 0.25, 0.10, 0.16),
  SAND(4, 0.19, 0.22, 0.28, 0.33, 0.36, 0.38, 0.06, 0.04),
  PASTURE(5, 0.030, 0.038, 0.076, 0.046, 0.25, 0.41, 0.14, 0.09),
  MEADOW(5, 0.040, 0.052, 0.098, 0.082, 0.25, 0.37, 0.13, 0.10),
  DRY_GRASS(6, 0.058, 0.076, 0.120, 0.136, 0.235, 0.315, 0.13, 0.10),
  OATS(7, 0.036, 0.048, 0.092, 0.074, 0.27, 0.42, 0.09, 0.06),
  STUBBLE(7, 0.085, 0.108, 0.150, 0.185, 0.245, 0.30, 0.10, 0.08),
  SOIL(7, 0.044, 0.055, 0.076, 0.102, 0.126, 0.15, 0.14, 0.10),
  ROOTS(7, 0.030, 0.039, 0.082, 0.052, 0.29, 0.46, 0.10, 0.12),
  RUSHES(8, 0.036, 0.045, 0.074, 0.068, 0.18, 0.27, 0.18, 0.15),
  MOOR(8, 0.033, 0.041, 0.060, 0.066, 0.15, 0.225, 0.16, 0.13),
  HEATHER(8, 0.029, 0.034, 0.044, 0.053, 0.115, 0.18, 0.16, 0.14),
  PEAT(9, 0.027, 0.032, 0.040, 0.052, 0.062, 0.076, 0.14, 0.12),
  ROCK(10, 0.125, 0.145, 0.168, 0.185, 0.20, 0.21, 0.14, 0.16),
  PALE_ROCK(10, 0.285, 0.315, 0.345, 0.365, 0.375, 0.378, 0.10, 0.12),
  LICHEN(10, 0.11, 0.135, 0.175, 0.185, 0.23, 0.28, 0.14, 0.14),
  BROADLEAF(11, 0.020, 0.026, 0.052, 0.031, 0.22, 0.40, 0.1, 0.26),
  CONIFER(11, 0.015, 0.019, 0.033, 0.022, 0.12, 0.225, 0.1, 0.28),
  HEDGE(11, 0.021, 0.027, 0.050, 0.034, 0.20, 0.36, 0.1, 0.26),
  ASPHALT(12, 0.070, 0.077, 0.085, 0.091, 0.096, 0.101, 0.08, 0.05),
  WET_ASPHALT(12, 0.052, 0.056, 0.060, 0.063, 0.066, 0.069, 0.12, 0.04),
  GRAVEL(13, 0.15, 0.17, 0.20, 0.225, 0.24, 0.25, 0.10, 0.09),
  CONCRETE(13, 0.235, 0.26, 0.29, 0.305, 0.315, 0.32, 0.08, 0.04),
  PAINT_LINE(12, 0.48, 0.52, 0.54, 0.55, 0.55, 0.55, 0.1, 0.05),
  MARK(14, 0.75, 0.76, 0.77, 0.77, 0.77, 0.76, 0, 0),
  DYKE(15, 0.13, 0.15, 0.175, 0.19, 0.215, 0.23, 0.12, 0.20),
  WALL(16, 0.36, 0.39, 0.42, 0.43, 0.44, 0.44, 0.05, 0.03),
  STONE_WALL(16, 0.13, 0.15, 0.17, 0.185, 0.195, 0.205, 0.08, 0.10),
  WINDOW(16, 0.050, 0.052, 0.052, 0.050, 0.050, 0.050, 0.3, 0.1),
  TURF_ROOF(20, 0.042, 0.054, 0.094, 0.088, 0.215, 0.325, 0.13, 0.11),
  SLATE_ROOF(21, 0.062, 0.068, 0.073, 0.076, 0.079, 0.083, 0.06, 0.05),
  METAL_ROOF(22, 0.325, 0.345, 0.362, 0.368, 0.368, 0.362, 0.03, 0.015),
  RUSTED_METAL_ROOF(23, 0.062, 0.073, 0.098, 0.165, 0.205, 0.225, 0.12, 0.06),
  FELT_ROOF(24, 0.098, 0.105, 0.112, 0.116, 0.121, 0.126, 0.07, 0.04),
  FILM(30, 0.33, 0.35, 0.38, 0.37, 0.40, 0.42, 0.10, 0.02),
  GLASS(31, 0.11, 0.12, 0.135, 0.12, 0.16, 0.19, 0.18, 0.05),
  TARPAULIN(32, 0.12, 0.19, 0.17, 0.10, 0.15, 0.22, 0.10, 0.03),
  TIMBER(33, 0.11, 0.14, 0.20, 0.26, 0.30, 0.335, 0.08, 0.14),
  CONTAINER(34, 0.10, 0.10, 0.11, 0.15, 0.19, 0.22, 0.05, 0.02),
  PAINT(35, 0.30, 0.30, 0.30, 0.30, 0.30, 0.30, 0.02, 0.01),
  DECK(36, 0.12, 0.14, 0.17, 0.20, 0.22, 0.23, 0.08, 0.06),
  PONTOON(37, 0.20, 0.23, 0.27, 0.30, 0.32, 0.33, 0.07, 0.05),
  NET(38, 0.020, 0.022, 0.022, 0.018, 0.020, 0.022, 0.1, 0.2),
  BUOY(39, 0.14, 0.10, 0.10, 0.42, 0.50, 0.52, 0, 0),
  TILE_ROOF(25, 0.050, 0.060, 0.092, 0.185, 0.225, 0.250, 0.10, 0.07),
  CONCRETE_ROOF(26, 0.20, 0.225, 0.255, 0.275, 0.285, 0.29, 0.10, 0.05),
  MEMBRANE_ROOF(27, 0.40, 0.45, 0.48, 0.49, 0.49, 0.48, 0.05, 0.02),
  SHINGLE_ROOF(28, 0.070, 0.076, 0.084, 0.092, 0.098, 0.105, 0.09, 0.07),
  BRICK(16, 0.055, 0.066, 0.098, 0.175, 0.215, 0.235, 0.08, 0.05),
  ADOBE(16, 0.13, 0.16, 0.22, 0.29, 0.33, 0.36, 0.10, 0.07),
  DUST(13, 0.15, 0.185, 0.25, 0.32, 0.355, 0.38, 0.10, 0.07),
  PAVING(13, 0.14, 0.16, 0.185, 0.205, 0.215, 0.225, 0.10, 0.08),
  BALLAST(13, 0.095, 0.105, 0.118, 0.130, 0.138, 0.145, 0.08, 0.12),
  STEEL(12, 0.12, 0.125, 0.13, 0.135, 0.14, 0.14, 0.05, 0.02),
  WHEAT(7, 0.055, 0.075, 0.130, 0.175, 0.28, 0.36, 0.07, 0.06),
  MAIZE(7, 0.026, 0.033, 0.070, 0.040, 0.29, 0.48, 0.07, 0.14),
  OILSEED(7, 0.040, 0.055, 0.165, 0.150, 0.33, 0.46, 0.08, 0.08),
  SCRUB(8, 0.040, 0.050, 0.078, 0.080, 0.155, 0.225, 0.14, 0.24),
  POOL(31, 0.13, 0.19, 0.20, 0.075, 0.030, 0.012, 0.04, 0.02),
  SOLAR(31, 0.045, 0.048, 0.036, 0.032, 0.034, 0.040, 0.05, 0.02),
  TWIGS(11, 0.040, 0.050, 0.066, 0.078, 0.105, 0.135, 0.12, 0.30),
  SNOW(17, 0.86, 0.89, 0.90, 0.90, 0.89, 0.86, 0.04, 0.02),
  CLINKER(13, 0.054, 0.064, 0.096, 0.178, 0.215, 0.238, 0.11, 0.08);

  public static final int BANDS = 6;

  /** What the archipelago is made of; what comes after it is met elsewhere alone. */
  public static final Set<Material> OF_THE_ISLES = Set.copyOf(EnumSet.range(WATER, BUOY));

  /** Number on the cover map; some materials share one. */
  public final int cover;
  /** Spread of the factor from patch to patch and from grain to grain. */
  public final float patchy;

  public final float grainy;
  private final float[] reflectance;

  Material(
      int cover,
      double violet,
      double blue,
      double green,
      double red,
      double redEdge,
      double infrared,
      double patchy,
      double grainy) {
    this.cover = cover;
    this.patchy = (float) patchy;
    this.grainy = (float) grainy;
    reflectance = new float[] {
      (float) violet, (float) blue, (float) green, (float) red, (float) redEdge, (float) infrared
    };
  }

  public float reflectance(int band) {
    return reflectance[band];
  }

  /** Whether walls are made of it, sheets among them. */
  public boolean isWall() {
    return cover == WALL.cover;
  }

  /** A fresh copy of the whole spectrum. */
  public float[] spectrum() {
    return reflectance.clone();
  }

  /** The spectrum times a factor, tilted across the bands: age, wetness, paint. */
  public float[] toned(double factor, double tilt) {
    float[] tone = new float[BANDS];
    for (int b = 0; b < BANDS; b++) {
      tone[b] = (float) Math.max(0.002, reflectance[b] * factor * (1 + tilt * (b - 2.5)));
    }
    return tone;
  }

  /** {@code share} of the other spectrum in place of so much of the first. */
  public static float[] mixed(float[] one, float[] other, double share) {
    float[] mix = new float[BANDS];
    for (int b = 0; b < BANDS; b++) {
      mix[b] = (float) (one[b] + (other[b] - one[b]) * share);
    }
    return mix;
  }

  /** Whether it covers a roof of a building. */
  public boolean isRoof() {
    return cover >= 20 && cover < 30;
  }

  /** As it is written in the truth: {@code slate}, {@code rusted metal}, {@code wet asphalt}. */
  public String label() {
    String plain = name().toLowerCase(Locale.ROOT).replace('_', ' ');
    return isRoof() ? plain.substring(0, plain.length() - " roof".length()) : plain;
  }
}
