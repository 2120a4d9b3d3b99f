package sharpkestrel.demo.scene;

import sharpkestrel.demo.noise.SmoothTexture;

/**
 * A bank of thin cloud over one corner: how much of the light it stops, by the place where a ray crosses its height.
 *
 * @param east middle of the bank, metres; the bank fades out at {@code radius} from it
 * @param height above the geoid, metres
 */
public record Cloud(double east, double north, double radius, double height, SmoothTexture veil) {

  private static final double THICKEST = 0.62;

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
    double wisps = veil.octaves(e / 210, n / 210, 5);
    double body = 1.5 * (wisps + 0.55 - 1.05 * away * away);
    return THICKEST * Math.max(0, Math.min(1, body));
  }
}
