package sharpkestrel.segment.regions;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class BucketQueueTest {

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void theLowestBucketComesFirstAndWithinItTheFirstThatCame(long seed) {
    Random random = new Random(seed);
    BucketQueue queue = new BucketQueue(50);
    TreeMap<Integer, Deque<Integer>> plain = new TreeMap<>();
    int pushed = 0;
    for (int i = 0; i < 200_000; i++) {
      // grows, shrinks and runs empty
      boolean push = random.nextInt(100) < (i / 20_000 % 2 == 0 ? 60 : 30);
      if (push) {
        int bucket = Math.min(49, (int) Math.abs(20 * random.nextGaussian()));
        queue.push(bucket, pushed, -pushed);
        plain.computeIfAbsent(bucket, b -> new ArrayDeque<>()).add(pushed++);
      } else {
        boolean any = queue.pop();
        assertThat(any).isEqualTo(!plain.isEmpty());
        if (any) {
          Deque<Integer> lowest = plain.firstEntry().getValue();
          assertThat(queue.pixel()).isEqualTo(lowest.peek());
          assertThat(queue.seed()).isEqualTo(-lowest.poll());
          if (lowest.isEmpty()) {
            plain.pollFirstEntry();
          }
        }
      }
    }
  }
}
