package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class DistancesTest {

  @Test
  void areThoseOfTheNearestOfAll() {
    int width = 41;
    int height = 29;
    Random random = new Random(5);
    boolean[] set = new boolean[width * height];
    for (int k = 0; k < 14; k++) {
      set[random.nextInt(set.length)] = true;
    }
    float[] found = Distances.to(set, width, height);
    for (int i = 0; i < set.length; i++) {
      double nearest = Double.MAX_VALUE;
      for (int j = 0; j < set.length; j++) {
        if (set[j]) {
          nearest = Math.min(nearest, Math.hypot(i % width - j % width, i / width - j / width));
        }
      }
      assertThat(found[i]).isCloseTo((float) nearest, within(1e-4f));
    }
  }

  @Test
  void areInfiniteWhereThereIsNothing() {
    assertThat(Distances.to(new boolean[12], 4, 3)).containsOnly(Float.POSITIVE_INFINITY);
  }
}
