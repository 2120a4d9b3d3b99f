package sharpkestrel.app.model;

import java.util.Locale;

/**
 * How values are spread from dark to bright.
 *
 * @param kind how the ends are found
 * @param low per cent, or deviations below the mean
 * @param high per cent, or deviations above it
 * @param fromView whether from what is in view rather than from the whole scene
 * @param linked whether all bands share the ends
 * @param gamma brightness on the screen is the share of the way between the ends to the power of one over this
 * @param ends for {@link Kind#BY_HAND}: low and high of red, green and blue
 */
public record StretchRule(
    Kind kind, double low, double high, boolean fromView, boolean linked, double gamma, Ends ends) {

  /** How the ends are found. */
  public enum Kind {
    PERCENT("Per cent"),
    RANGE("Full range"),
    DEVIATIONS("Deviations"),
    BY_HAND("By hand");

    private final String title;

    Kind(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  /** Low and high ends of red, green and blue. */
  public record Ends(double[] low, double[] high) {}

  /** Opens the shadows without losing bright roofs. */
  public static final double USUAL_GAMMA = 1 / 0.65;

  public static final StretchRule USUAL = percent(1, 99);

  public static StretchRule percent(double low, double high) {
    return new StretchRule(Kind.PERCENT, low, high, false, false, USUAL_GAMMA, null);
  }

  /** By another way of finding the ends, with what is usual for it. */
  public StretchRule as(Kind newKind) {
    return switch (newKind) {
      case PERCENT -> with(newKind, 1, 99, null);
      case DEVIATIONS -> with(newKind, 2, 2, null);
      default -> with(newKind, low, high, ends);
    };
  }

  private StretchRule with(Kind newKind, double newLow, double newHigh, Ends newEnds) {
    return new StretchRule(newKind, newLow, newHigh, fromView, linked, gamma, newEnds);
  }

  public StretchRule between(double newLow, double newHigh) {
    return with(kind, newLow, newHigh, ends);
  }

  public StretchRule byHand(Ends newEnds) {
    return with(Kind.BY_HAND, low, high, newEnds);
  }

  public StretchRule ofView(boolean newFromView) {
    return new StretchRule(kind, low, high, newFromView, linked, gamma, ends);
  }

  public StretchRule linked(boolean newLinked) {
    return new StretchRule(kind, low, high, fromView, newLinked, gamma, ends);
  }

  public StretchRule withGamma(double newGamma) {
    return new StretchRule(kind, low, high, fromView, linked, newGamma, ends);
  }

  public String toText() {
    String of = fromView ? "view" : "scene";
    return switch (kind) {
      case PERCENT ->
        String.format(Locale.ROOT, "%s\u2013%s %% of %s", plain(low), plain(high), of);
      case RANGE -> "range of " + of;
      case DEVIATIONS -> String.format(Locale.ROOT, "\u00b1%s \u03c3 of %s", plain(low), of);
      case BY_HAND -> "by hand";
    };
  }

  private static String plain(double value) {
    return value == Math.rint(value)
        ? Long.toString(Math.round(value))
        : String.format(Locale.ROOT, "%.1f", value);
  }
}
