package sharpkestrel.raster;

import static sharpkestrel.raster.BandRole.BLUE;
import static sharpkestrel.raster.BandRole.COASTAL;
import static sharpkestrel.raster.BandRole.GREEN;
import static sharpkestrel.raster.BandRole.NEAR_INFRARED;
import static sharpkestrel.raster.BandRole.OTHER;
import static sharpkestrel.raster.BandRole.PAN;
import static sharpkestrel.raster.BandRole.RED;
import static sharpkestrel.raster.BandRole.RED_EDGE;
import static sharpkestrel.raster.BandRole.SHORT_WAVE_INFRARED_1;
import static sharpkestrel.raster.BandRole.SHORT_WAVE_INFRARED_2;
import static sharpkestrel.raster.BandRole.YELLOW;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** The roles of a scene's bands taken together: each stands once, and where none is said they are guessed by order. */
public final class BandRoles {

  private BandRoles() {}

  /** Bands in which a role stands once: later ones that claim it too have none. */
  public static List<Band> once(List<Band> bands) {
    Set<BandRole> seen = EnumSet.noneOf(BandRole.class);
    List<Band> distinct = new ArrayList<>();
    for (Band band : bands) {
      boolean free = band.role() == OTHER || seen.add(band.role());
      distinct.add(free ? band : band.withRole(OTHER));
    }
    return distinct;
  }

  /**
   * Roles by the number and order of bands as sensors and cameras usually deliver them, marked as guesses; as they are
   * where any band has a role, and where nothing is usual. Single bands of signed numbers or fractions may be heights or
   * anything, so nothing is guessed for those.
   */
  public static List<Band> guessedByOrder(List<Band> bands) {
    if (bands.stream().anyMatch(band -> band.role() != OTHER)) {
      return bands;
    }
    SampleType type = bands.getFirst().type();
    boolean unsigned = type == SampleType.UINT8 || type == SampleType.UINT16;
    BandRole[] usual = switch (bands.size()) {
      case 1 -> unsigned ? new BandRole[] {PAN} : new BandRole[0];
      case 3 -> new BandRole[] {RED, GREEN, BLUE};
      case 4 ->
        type == SampleType.UINT8
            ? new BandRole[] {RED, GREEN, BLUE, NEAR_INFRARED}
            : new BandRole[] {BLUE, GREEN, RED, NEAR_INFRARED};
      case 5 -> new BandRole[] {BLUE, GREEN, RED, RED_EDGE, NEAR_INFRARED};
      case 6 ->
        new BandRole[] {
          BLUE, GREEN, RED, NEAR_INFRARED, SHORT_WAVE_INFRARED_1, SHORT_WAVE_INFRARED_2
        };
      case 7 ->
        new BandRole[] {
          COASTAL, BLUE, GREEN, RED, NEAR_INFRARED, SHORT_WAVE_INFRARED_1, SHORT_WAVE_INFRARED_2
        };
      case 8 -> new BandRole[] {COASTAL, BLUE, GREEN, YELLOW, RED, RED_EDGE, NEAR_INFRARED, OTHER};
      default -> new BandRole[0];
    };
    List<Band> guessed = new ArrayList<>();
    for (int b = 0; b < bands.size(); b++) {
      boolean known = b < usual.length && usual[b] != OTHER;
      guessed.add(known ? bands.get(b).withGuessedRole(usual[b]) : bands.get(b));
    }
    return guessed;
  }
}
