package sharpkestrel.app.model;

import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/** How a raster is shown: three band roles, or one, and a stretch between two percentiles. */
public record Look(String name, List<BandRole> roles, double low, double high, boolean fromView) {

  public static final Look NATURAL =
      new Look("Natural", List.of(BandRole.RED, BandRole.GREEN, BandRole.BLUE), 1, 99, false);
  public static final Look INFRARED = new Look(
      "Infrared", List.of(BandRole.NEAR_INFRARED, BandRole.RED, BandRole.GREEN), 1, 99, false);
  public static final Look GREY = new Look("Grey", List.of(BandRole.PAN), 1, 99, false);

  public static List<Look> standard() {
    return List.of(NATURAL, INFRARED, GREY);
  }

  public Look withStretch(double newLow, double newHigh, boolean newFromView) {
    return new Look(name, roles, newLow, newHigh, newFromView);
  }

  /**
   * Bands for red, green and blue. Roles that the raster lacks fall back on its first band, all three, so that a
   * single band is grey.
   */
  public int[] bandsOf(Raster raster) {
    int[] bands = new int[3];
    for (int i = 0; i < 3; i++) {
      BandRole role = roles.get(Math.min(i, roles.size() - 1));
      int found = raster.bandOf(role).orElse(-1);
      if (found < 0) {
        int only = greyBand(raster.bands());
        return new int[] {only, only, only};
      }
      bands[i] = found;
    }
    return bands;
  }

  private static int greyBand(List<Band> bands) {
    for (int i = 0; i < bands.size(); i++) {
      if (bands.get(i).role() == BandRole.GREEN) {
        return i;
      }
    }
    return 0;
  }

  public String stretchText() {
    return Math.round(low) + "\u2013" + Math.round(high) + " % of " + (fromView ? "view" : "scene");
  }
}
