package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;

/** Comparing planes bit by bit, no-data with no-data. */
public final class Pixels {

  private Pixels() {}

  public static void assertSame(float[][] found, float[][] expected) {
    assertThat(found).hasDimensions(expected.length, expected.length == 0 ? 0 : expected[0].length);
    for (int b = 0; b < expected.length; b++) {
      int at = java.util.Arrays.mismatch(found[b], expected[b]);
      assertThat(at).as("first differing sample of band " + b).isEqualTo(-1);
    }
  }
}
