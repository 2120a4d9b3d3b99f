package sharpkestrel.raster;

/**
 * One band of a raster.
 *
 * @param name what people call it
 * @param role what it stands for
 * @param unit unit of its values, empty for plain numbers
 * @param type how its samples are stored when written
 * @param noData the stored number that means no-data, NaN where none is set aside; in float planes no-data is NaN
 * @param roleGuessed whether the role was taken from order or colours and not from what a file or a person says
 */
public record Band(
    String name, BandRole role, String unit, SampleType type, double noData, boolean roleGuessed) {

  private static final float MOST_OF_TWO_BYTES = 65_535;

  public Band(String name, BandRole role, String unit, SampleType type, double noData) {
    this(name, role, unit, type, noData, false);
  }

  public static Band of(BandRole role, SampleType type) {
    return new Band(role.label(), role, "", type, type == SampleType.FLOAT32 ? Double.NaN : 0);
  }

  public Band withName(String newName) {
    return new Band(newName, role, unit, type, noData, roleGuessed);
  }

  public Band withRole(BandRole newRole) {
    return new Band(name, newRole, unit, type, noData, false);
  }

  public Band withGuessedRole(BandRole guess) {
    return new Band(name, guess, unit, type, noData, true);
  }

  public Band withType(SampleType newType, double newNoData) {
    return new Band(name, role, unit, newType, newNoData, roleGuessed);
  }

  public Band withUnit(String newUnit) {
    return new Band(name, role, newUnit, type, noData, roleGuessed);
  }

  /**
   * Rounds and clamps values in place to what this band's samples can hold, so that a lazy raster gives the numbers
   * that would be read back after writing. NaN stays NaN, and what is infinite becomes NaN. A valid value that would be
   * written as the no-data number moves to its neighbour, so that writing never makes holes.
   */
  public void quantise(float[] values, int from, int to) {
    if (!type.isWhole()) {
      leaveFinite(values, from, to);
      return;
    }
    float low = (float) type.min();
    float high = (float) type.max();
    if (high > type.max()) {
      high = Math.nextDown(high);
    }
    float hole = (float) noData;
    boolean atFoot = hole == low;
    if (low == 0 && high <= MOST_OF_TWO_BYTES) {
      roundPositive(values, from, to, atFoot ? 1 : 0, (int) high);
    } else {
      round(values, from, to, atFoot ? low + 1 : low, high);
    }
    if (!atFoot && !Float.isNaN(hole)) {
      avoid(values, from, to, hole, noData + 1 <= type.max() ? hole + 1 : hole - 1);
    }
  }

  /** What is infinite becomes NaN; all else stays, zero times it being added. */
  private static void leaveFinite(float[] values, int from, int to) {
    for (int i = from; i < to; i++) {
      values[i] += 0 * values[i];
    }
  }

  private static void avoid(float[] values, int from, int to, float hole, float beside) {
    for (int i = from; i < to; i++) {
      if (values[i] == hole) {
        values[i] = beside;
      }
    }
  }

  /** Without branches, so that the compiler may do several at once; what is no number stays none. */
  private static void roundPositive(float[] values, int from, int to, int low, int high) {
    for (int i = from; i < to; i++) {
      float v = values[i];
      values[i] = Math.max(low, Math.min(high, (int) (v + 0.5f))) + 0 * v;
    }
  }

  private static void round(float[] values, int from, int to, float low, float high) {
    for (int i = from; i < to; i++) {
      float v = values[i];
      float r = (float) Math.floor(v + 0.5f);
      values[i] = Math.max(low, Math.min(r, high)) + 0 * v;
    }
  }
}
