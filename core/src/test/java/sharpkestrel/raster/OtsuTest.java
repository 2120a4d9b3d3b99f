package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class OtsuTest {

  @Test
  void twoGroupsArePartedBetweenThem() {
    float[] values = {1, 2, 1, 2, 1, 9, 10, 11, 9, Float.NaN};

    assertThat(Otsu.threshold(values)).isEqualTo(5.5);
  }

  @Test
  void theThresholdIsTheOneOfTheLargestVarianceBetweenGroups() {
    float[] values = {3, 7, 8, 1, 15, 22, 4, 6, 30, 2};
    double best = -1;
    double expected = 0;
    for (float candidate : new float[] {1.5f, 2.5f, 3.5f, 5, 6.5f, 7.5f, 11.5f, 18.5f, 26}) {
      double n = 0;
      double low = 0;
      double high = 0;
      for (float v : values) {
        if (v < candidate) {
          n++;
          low += v;
        } else {
          high += v;
        }
      }
      double d = low / n - high / (values.length - n);
      double between = n * (values.length - n) * d * d;
      if (between > best) {
        best = between;
        expected = candidate;
      }
    }

    assertThat(Otsu.threshold(values)).isEqualTo(expected);
  }

  @Test
  void oneValueHasNoThreshold() {
    assertThat(Otsu.threshold(new float[] {4, 4, 4})).isNaN();
    assertThat(Otsu.threshold(new float[] {Float.NaN})).isNaN();
  }
}
