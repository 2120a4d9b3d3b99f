package sharpkestrel.raster;

import java.util.Locale;

/** What a band stands for; it survives every step, so that no step or look asks for a band by number. */
public enum BandRole {
  PAN("pan"),
  VIOLET("violet"),
  BLUE("blue"),
  GREEN("green"),
  RED("red"),
  RED_EDGE("red edge"),
  NEAR_INFRARED("near infrared"),
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

  /** Reads a role's label, its key or a usual abbreviation; {@link #OTHER} where the text names none. */
  public static BandRole guess(String text) {
    String plain = text.strip().toLowerCase(Locale.ROOT).replace('-', ' ').replace('_', ' ');
    for (BandRole role : values()) {
      if (plain.equals(role.label)) {
        return role;
      }
    }
    return switch (plain) {
      case "p", "panchromatic" -> PAN;
      case "coastal", "coastal blue", "v" -> VIOLET;
      case "b" -> BLUE;
      case "g" -> GREEN;
      case "r" -> RED;
      case "rededge" -> RED_EDGE;
      case "nir", "near ir", "infrared", "n" -> NEAR_INFRARED;
      case "dem", "dtm", "dsm", "elevation", "terrain" -> HEIGHT;
      default -> OTHER;
    };
  }
}
