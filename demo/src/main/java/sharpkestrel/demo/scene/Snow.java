package sharpkestrel.demo.scene;

import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.noise.SmoothTexture;

/** Snow in patches: where it has not melted, away from the sun, in hollows, on roofs that are not steep. */
final class Snow {

  private final SmoothTexture smooth;
  private final double[] sun;
  private final boolean lies;

  Snow(SmoothTexture smooth, Conditions conditions) {
    this.smooth = smooth;
    sun = conditions.sun().direction();
    lies = conditions.season() == Season.SNOW;
  }

  /** Whether there is any. */
  boolean lies() {
    return lies;
  }

  /**
   * Lays snow over what is there.
   *
   * @param normal of the face
   * @param melting how much sooner it goes here than on grass, 0 to 1
   * @param rho (modified)
   * @return share that is covered
   */
  double cover(double e, double n, double[] normal, double melting, float[] rho) {
    double level = Math.hypot(sun[0], sun[1]);
    double away = -(normal[0] * sun[0] + normal[1] * sun[1]) / Math.max(level, 1e-6);
    double patches = smooth.octaves(e / 55, n / 55, 5) + 0.35 * smooth.at(e / 3.1, n / 3.1);
    double share = 4 * (0.16 + patches + 1.3 * away - 0.75 * melting);
    share = Math.max(0, Math.min(1, share)) * Math.max(0, Math.min(1, 3 * (normal[2] - 0.5)));
    for (int b = 0; b < rho.length; b++) {
      rho[b] += (float) ((Material.SNOW.reflectance(b) - rho[b]) * share);
    }
    return share;
  }
}
