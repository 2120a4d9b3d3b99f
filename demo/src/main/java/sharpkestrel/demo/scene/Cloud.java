package sharpkestrel.demo.scene;

import sharpkestrel.demo.noise.SmoothTexture;

/**
 * Cloud: how much of the light it stops, by the place where a ray crosses its height. A bank over one corner, or single clouds all
 * over.
 *
 * @param east middle of the bank, metres; the bank fades out at {@code radius} from it
 * @param height above the geoid, metres
 * @param thickest share of the light stopped where it is thickest
 * @param broken whether it is single clouds, with gaps between
 */
public record Cloud(
    double east,
    double north,
    double radius,
    double height,
    SmoothTexture veil,
    double thickest,
    boolean broken) {

  private static final double THIN = 0.62;

  /** A bank of thin cloud. */
  public Cloud(double east, double north, double radius, double height, SmoothTexture veil) {
    this(east, north, radius, height, veil, THIN, false);
  }

  /** No cloud at all. */
  public static final Cloud NONE = new Cloud(0, 0, 0, 1000, null);

  /** Share of light stopped where a ray crosses the cloud's height at a place, 0 to 1. */
  public double stops(double e, double n) {
    if (radius == 0) {
      return 0;
    }
    double away = Math.hypot(e - east, n - north) / radius;
    if (away > 1) {
      return 0;
    }
    if (broken) {
      double heap = veil.octaves(e / 460, n / 460, 6);
      return thickest * Math.max(0, Math.min(1, 7 * (heap - 0.2)));
    }
    double wisps = veil.octaves(e / 210, n / 210, 5);
    double body = 1.5 * (wisps + 0.55 - 1.05 * away * away);
    return thickest * Math.max(0, Math.min(1, body));
  }
}
