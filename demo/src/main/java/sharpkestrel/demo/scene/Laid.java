package sharpkestrel.demo.scene;

import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;

/** What lies at a place, as one material after another is laid there. */
class Laid {

  private final float[][] spectra;

  /** Reflectance there. */
  final float[] rho = new float[Material.BANDS];

  Material material;
  /** Slope of furrows and tufts, to be added to the ground's. */
  double tiltEast;

  double tiltNorth;

  Laid(Season season) {
    Material[] all = Material.values();
    spectra = new float[all.length][];
    for (int i = 0; i < all.length; i++) {
      spectra[i] = season.spectrum(all[i]);
    }
  }

  /** Lays one material alone. */
  final void set(Material of) {
    material = of;
    System.arraycopy(spectra[of.ordinal()], 0, rho, 0, Material.BANDS);
  }

  /** Lays a share of a material over what is there. */
  final void mix(Material with, double share) {
    if (share <= 0) {
      return;
    }
    float s = (float) Math.min(1, share);
    float[] other = spectra[with.ordinal()];
    for (int b = 0; b < Material.BANDS; b++) {
      rho[b] += (other[b] - rho[b]) * s;
    }
    if (s > 0.5) {
      material = with;
    }
  }

  /** Makes it brighter or darker. */
  final void scale(double factor) {
    float f = (float) Math.max(0.25, factor);
    for (int b = 0; b < Material.BANDS; b++) {
      rho[b] *= f;
    }
  }
}
