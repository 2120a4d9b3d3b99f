package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PairTableTest {

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void tablesJoinedHoldTheSumsOfAllThatWasAdded(long seed) {
    Random random = new Random(seed);
    Map<Long, double[]> plain = new TreeMap<>();
    PairTable.Pairs[] tables = new PairTable.Pairs[5];
    for (int t = 0; t < tables.length; t++) {
      PairTable table = new PairTable(2);
      // tables share some keys, as strips share the regions across their lines; the fourth is empty
      for (int i = 0; i < (t == 3 ? 0 : 30_000); i++) {
        long key = (long) (1_000 * t + random.nextInt(1_500)) << 32 | random.nextInt(20);
        for (int again = 0; again <= random.nextInt(3); again++) {
          float[] contrast = {random.nextFloat(), random.nextInt(5)};
          table.add(key, contrast);
          double[] sums = plain.computeIfAbsent(key, k -> new double[3]);
          sums[0]++;
          sums[1] += contrast[0];
          sums[2] += contrast[1];
        }
      }
      tables[t] = table.sorted();
    }

    PairTable.Pairs joined = PairTable.joined(tables, 2);

    assertThat(joined.keys())
        .isEqualTo(plain.keySet().stream().mapToLong(Long::longValue).toArray());
    for (int i = 0; i < joined.keys().length; i++) {
      double[] sums = plain.get(joined.keys()[i]);
      assertThat(joined.sides()[i]).isEqualTo((int) sums[0]);
      assertThat((double) joined.contrasts()[2 * i]).isCloseTo(sums[1], within(1e-4));
      assertThat((double) joined.contrasts()[2 * i + 1]).isEqualTo(sums[2]);
    }
  }
}
