package sharpkestrel.raster;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;

/** What a band stands for; it survives every step, so that no step or look asks for a band by number. */
public enum BandRole {
  PAN("pan"),
  COASTAL("coastal"),
  VIOLET("violet"),
  BLUE("blue"),
  GREEN("green"),
  YELLOW("yellow"),
  RED("red"),
  RED_EDGE("red edge"),
  NEAR_INFRARED("near infrared"),
  SHORT_WAVE_INFRARED_1("short-wave infrared 1"),
  SHORT_WAVE_INFRARED_2("short-wave infrared 2"),
  THERMAL("thermal"),
  HEIGHT("height"),
  OTHER("other");

  private final String label;

  BandRole(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** The role's name in formulas and file items: lower case with underscores. */
  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** The keys of all, for people. */
  public static String keys() {
    return Arrays.stream(values()).map(BandRole::key).collect(Collectors.joining(", "));
  }

  /** Reads a role's label, its key or a usual abbreviation; {@link #OTHER} where the text names none. */
  public static BandRole guess(String text) {
    String plain = text.strip().toLowerCase(Locale.ROOT).replaceAll("[-_ ]+", " ");
    for (BandRole role : values()) {
      if (plain.equals(role.label) || plain.equals(role.label.replace('-', ' '))) {
        return role;
      }
    }
    return switch (plain) {
      case "p", "panchromatic" -> PAN;
      case "coastal blue", "coastal aerosol", "aerosol", "ca" -> COASTAL;
      case "v" -> VIOLET;
      case "b" -> BLUE;
      case "g" -> GREEN;
      case "y" -> YELLOW;
      case "r" -> RED;
      case "rededge", "re", "red edge 1", "rededge1" -> RED_EDGE;
      case "nir", "nir1", "nir 1", "near ir", "infrared", "n", "near infrared 1" -> NEAR_INFRARED;
      case "swir", "swir1", "swir 1", "mir", "shortwave infrared", "shortwave infrared 1" ->
        SHORT_WAVE_INFRARED_1;
      case "swir2", "swir 2", "shortwave infrared 2" -> SHORT_WAVE_INFRARED_2;
      case "tir", "thermal infrared", "lwir" -> THERMAL;
      case "dem", "dtm", "dsm", "elevation", "terrain" -> HEIGHT;
      default -> OTHER;
    };
  }

  /**
   * The role that a longer text names, such as a file's name or a band's description: by the last of its words, or two or
   * three of them; single letters do not count where a number follows, as those count bands.
   */
  public static BandRole inText(String text) {
    String[] words = text.toLowerCase(Locale.ROOT).split("[^a-z0-9]+");
    for (int k = words.length - 1; k >= 0; k--) {
      for (int many = Math.min(3, k + 1); many >= 1; many--) {
        BandRole role = guess(String.join(" ", Arrays.copyOfRange(words, k + 1 - many, k + 1)));
        boolean letter = many == 1 && words[k].length() == 1;
        boolean counted = letter && k + 1 < words.length && words[k + 1].matches("\\d+");
        if (role != OTHER && !counted) {
          return role;
        }
      }
    }
    return OTHER;
  }

  /** The role of a band whose sensitivity is greatest at a wavelength; {@link #OTHER} between the usual windows. */
  public static BandRole ofWavelength(double micrometres) {
    double[] ends = {0.4, 0.45, 0.52, 0.58, 0.625, 0.69, 0.75, 1.05, 1.4, 1.85, 1.95, 2.5, 7.5, 14.5
    };
    BandRole[] between = {
      OTHER,
      COASTAL,
      BLUE,
      GREEN,
      YELLOW,
      RED,
      RED_EDGE,
      NEAR_INFRARED,
      OTHER,
      SHORT_WAVE_INFRARED_1,
      OTHER,
      SHORT_WAVE_INFRARED_2,
      OTHER,
      THERMAL
    };
    for (int k = 0; k < ends.length; k++) {
      if (micrometres < ends[k]) {
        return between[k];
      }
    }
    return OTHER;
  }
}
