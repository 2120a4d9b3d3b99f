package sharpkestrel.sharpen;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/** Normalised differences by what they tell apart, {@code (first - second) / (first + second)}. */
public enum IndexKind {
  /** Living plants (Rouse et al. 1974). */
  VEGETATION("Vegetation", BandRole.NEAR_INFRARED, BandRole.RED),
  /** Plants, less soon full than by red (Gitelson, Kaufman and Merzlyak 1996). */
  GREEN_VEGETATION("Vegetation by green", BandRole.NEAR_INFRARED, BandRole.GREEN),
  /** Chlorophyll (Gitelson and Merzlyak 1994). */
  RED_EDGE_VEGETATION("Vegetation by red edge", BandRole.NEAR_INFRARED, BandRole.RED_EDGE),
  /** Open water (McFeeters 1996). */
  WATER("Water", BandRole.GREEN, BandRole.NEAR_INFRARED),
  /** Plants where there is no infrared (Tucker 1979). */
  GREEN_RED("Green over red", BandRole.GREEN, BandRole.RED),
  /** Rust, tiles and bare soil. */
  RED_BLUE("Red over blue", BandRole.RED, BandRole.BLUE),
  /** Blue roofs, shadow and sky light. */
  BLUE_GREEN("Blue over green", BandRole.BLUE, BandRole.GREEN),
  /** Two bands of one's own. */
  BANDS("Two bands", null, null),
  /** An expression over band roles. */
  FORMULA("Formula", null, null);

  private final String title;
  private final BandRole first;
  private final BandRole second;

  IndexKind(String title, BandRole first, BandRole second) {
    this.title = title;
    this.first = first;
    this.second = second;
  }

  public String title() {
    return title;
  }

  /** The named ones that the bands of a scene make. */
  public static List<IndexKind> of(Raster scene) {
    return Arrays.stream(values())
        .filter(kind -> kind.first != null
            && scene.bandOf(kind.first).isPresent()
            && scene.bandOf(kind.second).isPresent())
        .toList();
  }

  BandRole first(BandRole own) {
    return first == null ? own : first;
  }

  BandRole second(BandRole own) {
    return second == null ? own : second;
  }
}
