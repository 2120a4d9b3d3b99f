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

  /** Whether a raster has what this look shows. */
  public boolean appliesTo(Raster raster) {
    return ramp || roles.stream().allMatch(role -> raster.bandOf(role).isPresent());
  }

  /** What a raster is shown by: this look, or the bands that stand in where it lacks what this one shows. */
  public String nameOn(Raster raster) {
    if (appliesTo(raster)) {
      return name;
    }
    int[] bands = bandsOf(raster);
    return bands[0] == bands[1]
        ? "Grey"
        : "Bands " + (bands[0] + 1) + ", " + (bands[1] + 1) + ", " + (bands[2] + 1);
  }

  /**
   * Bands for red, green and blue. Where the raster lacks a role it is shown by its first three bands in their order, or by one
   * in grey where this look is of one or the raster has fewer.
   */
  public int[] bandsOf(Raster raster) {
    int[] bands = new int[3];
    for (int i = 0; i < 3; i++) {
      BandRole role = roles.get(Math.min(i, roles.size() - 1));
      int found = raster.bandOf(role).orElse(-1);
      if (found < 0) {
        int only = greyBand(raster.bands());
        return roles.size() > 1 && raster.bands().size() > 2
            ? new int[] {0, 1, 2}
            : new int[] {only, only, only};
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
