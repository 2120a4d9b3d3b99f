package sharpkestrel.objects;

import sharpkestrel.raster.Statistics;

/** Brightness in grey levels, over the middle 98 % of the scene's. */
record GreyLevels(int bands, int levels, float from, float perLevel) {

  static GreyLevels of(Statistics[] statistics, int levels) {
    int bands = statistics.length;
    double low = 0;
    double high = 0;
    for (Statistics s : statistics) {
      low += s.valid() == 0 ? 0 : s.histogram().quantile(0.01) / bands;
      high += s.valid() == 0 ? 0 : s.histogram().quantile(0.99) / bands;
    }
    float from = (float) low;
    return new GreyLevels(bands, levels, from, high > low ? (float) (levels / (high - low)) : 0);
  }

  /**
   * @param planes the first {@code bands} of them count
   * @return levels as fractions, unlimited; NaN for no-data
   */
  float[] of(float[][] planes) {
    int n = planes[0].length;
    float[] grey = new float[n];
    for (int i = 0; i < n; i++) {
      float sum = 0;
      for (int b = 0; b < bands; b++) {
        sum += planes[b][i];
      }
      grey[i] = (sum / bands - from) * perLevel;
    }
    return grey;
  }

  int level(float grey) {
    return Math.max(0, Math.min(levels - 1, (int) grey));
  }
}
