package sharpkestrel.app.model;

import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/**
 * How a raster is shown: three band roles, or one, and a stretch. Roles hold for every raster, so a look stays when
 * sharpening or stacking puts bands in another order.
 *
 * @param ramp whether one band is shown in colours from low to high rather than in grey
 */
public record Look(String name, List<BandRole> roles, StretchRule stretch, boolean ramp) {

  public static final Look NATURAL = of("Natural", BandRole.RED, BandRole.GREEN, BandRole.BLUE);
  public static final Look INFRARED =
      of("Infrared", BandRole.NEAR_INFRARED, BandRole.RED, BandRole.GREEN);
  public static final Look GREY = of("Grey", BandRole.PAN);
  public static final Look RAMP =
      new Look("Ramp", List.of(BandRole.OTHER), StretchRule.USUAL, true);

  public static Look of(String name, BandRole... roles) {
    return new Look(name, List.of(roles), StretchRule.USUAL, false);
  }

  public static List<Look> standard() {
    return List.of(NATURAL, INFRARED, GREY, RAMP);
  }

  public Look with(StretchRule newStretch) {
    return new Look(name, roles, newStretch, ramp);
  }

  /** Another look, stretched as this one is; ends set by hand are of this one's bands and are left. */
  public Look changedTo(Look other) {
    return other.with(
        stretch.kind() == StretchRule.Kind.BY_HAND && !other.roles.equals(roles)
            ? stretch.as(StretchRule.Kind.PERCENT)
            : stretch);
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
}
