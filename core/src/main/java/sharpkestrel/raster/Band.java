package sharpkestrel.raster;

/**
 * One band of a raster.
 *
 * @param name what people call it
 * @param role what it stands for
 * @param unit unit of its values, empty for plain numbers
 * @param type how its samples are stored when written
 * @param noData the stored number that means no-data, NaN where none is set aside; in float planes no-data is NaN
 */
public record Band(String name, BandRole role, String unit, SampleType type, double noData) {

  public static Band of(BandRole role, SampleType type) {
    return new Band(role.label(), role, "", type, type == SampleType.FLOAT32 ? Double.NaN : 0);
  }

  public Band withName(String newName) {
    return new Band(newName, role, unit, type, noData);
  }

  public Band withRole(BandRole newRole) {
    return new Band(name, newRole, unit, type, noData);
  }

  public Band withType(SampleType newType, double newNoData) {
    return new Band(name, role, unit, newType, newNoData);
  }

  public Band withUnit(String newUnit) {
    return new Band(name, role, newUnit, type, noData);
  }

  /**
   * Rounds and clamps values in place to what this band's samples can hold, so that a lazy raster gives the numbers
   * that would be read back after writing. NaN stays NaN. A valid value that would be written as the no-data number
   * moves to its neighbour, so that writing never makes holes.
   */
  public void quantise(float[] values, int from, int to) {
    if (!type.isWhole()) {
      return;
    }
    float low = (float) type.min();
    float high = (float) type.max();
    float hole = (float) noData;
    float beside = noData + 1 <= type.max() ? hole + 1 : hole - 1;
    for (int i = from; i < to; i++) {
      float v = values[i];
      if (Float.isNaN(v)) {
        continue;
      }
      float raised = v + 0.5f;
      // the cast cuts towards zero, and stays within what it can hold
      float cut = (int) raised;
      float r = cut > raised ? cut - 1 : cut;
      r = r < low ? low : Math.min(r, high);
      values[i] = r == hole ? beside : r;
    }
  }
}
