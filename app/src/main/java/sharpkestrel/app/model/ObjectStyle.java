package sharpkestrel.app.model;

/**
 * How objects are drawn over a picture.
 *
 * @param which have outlines
 * @param width of outlines in screen pixels, from 1 to {@link #WIDEST}; there is a halo beside them
 * @param opacity of outlines from 0 to 1
 * @param fill of objects to which the tool in hand gives none
 * @param strength of all fills, of classes and of what tools fill, too: 0 for unseen, {@link #AS_MADE}, 1 for opaque
 */
public record ObjectStyle(Which which, int width, double opacity, Fill fill, double strength) {

  public static final int WIDEST = 4;

  /** The strength at which fills are as opaque as whoever fills made them. */
  public static final double AS_MADE = 0.5;

  public static final ObjectStyle INITIAL = new ObjectStyle(Which.ALL, 1, 1, Fill.NONE, AS_MADE);

  /** Which objects have outlines. */
  public enum Which {
    ALL("all"),
    PICKED("the one picked"),
    NONE("none");

    private final String title;

    Which(String title) {
      this.title = title;
    }

    @Override
    public String toString() {
      return title;
    }
  }

  /** What objects are filled with. */
  public enum Fill {
    NONE("nothing"),
    /** A colour of its own that stays with an object when the grain changes. */
    RANDOM("random colours");

    private final String title;

    Fill(String title) {
      this.title = title;
    }

    @Override
    public String toString() {
      return title;
    }
  }

  public ObjectStyle {
    if (width < 1 || width > WIDEST || !isShare(opacity) || !isShare(strength)) {
      throw new IllegalArgumentException("Outlines are 1 to " + WIDEST
          + " pixels wide and, as fills, from 0 to 1 opaque, not " + width + ", " + opacity
          + " and "
          + strength + ".");
    }
  }

  private static boolean isShare(double value) {
    return value >= 0 && value <= 1;
  }

  public ObjectStyle with(Which newWhich) {
    return new ObjectStyle(newWhich, width, opacity, fill, strength);
  }

  public ObjectStyle withWidth(int newWidth) {
    return new ObjectStyle(which, newWidth, opacity, fill, strength);
  }

  public ObjectStyle withOpacity(double newOpacity) {
    return new ObjectStyle(which, width, newOpacity, fill, strength);
  }

  public ObjectStyle with(Fill newFill) {
    return new ObjectStyle(which, width, opacity, newFill, strength);
  }

  public ObjectStyle withStrength(double newStrength) {
    return new ObjectStyle(which, width, opacity, fill, newStrength);
  }
}
