package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;

/** Comparing planes bit by bit, no-data with no-data. */
public final class Pixels {

  private Pixels() {}

  public static void assertSame(float[][] found, float[][] expected) {
    assertThat(found).hasDimensions(expected.length, expected.length == 0 ? 0 : expected[0].length);
    for (int b = 0; b < expected.length; b++) {
      assertThat(found[b]).as("band " + b).isEqualTo(expected[b]);
    }
  }
}
