package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DisjointSetsTest {

  /** Against sets kept as plain labels that are all rewritten at every join. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void rootsAreTheLowestMembersWhateverTheOrderOfJoins(long seed) {
    Random random = new Random(seed);
    DisjointSets sets = new DisjointSets(5);
    int n = 400;
    while (sets.size() < n) {
      assertThat(sets.add()).isEqualTo(sets.size() - 1);
    }
    int[] plain = new int[n];
    Arrays.setAll(plain, i -> i);
    for (int join = 0; join < 250; join++) {
      int a = random.nextInt(n);
      int b = random.nextInt(n);
      int low = Math.min(plain[a], plain[b]);
      int high = Math.max(plain[a], plain[b]);
      for (int i = 0; i < n; i++) {
        plain[i] = plain[i] == high ? low : plain[i];
      }

      assertThat(sets.unite(a, b)).isEqualTo(low);
    }

    for (int i = 0; i < n; i++) {
      assertThat(sets.root(i)).isEqualTo(plain[i]);
    }
  }
}
