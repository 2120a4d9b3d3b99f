package sharpkestrel.demo.things;

import java.util.Locale;

/**
 * What became of a building, or of a wood, within some years.
 *
 * @param before what there was; null for nothing
 * @param after what there is; null for nothing
 * @param ring ground of a felled wood, corners in turn; of buildings null
 */
public record Change(Kind kind, Building before, Building after, double[] ring) {

  /** What was done. */
  public enum Kind {
    BUILT,
    PULLED_DOWN,
    EXTENDED,
    REROOFED,
    FELLED;

    public String label() {
      return name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
  }

  static Change of(Kind kind, Building before, Building after) {
    return new Change(kind, before, after, null);
  }
}
