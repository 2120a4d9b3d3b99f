package sharpkestrel.extract.classmap;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;

/** Swallowing against a slow plain version that looks at all pixels again after each patch. */
class PatchesTest {

  private static final int WIDTH = 37;
  private static final int HEIGHT = 29;

  private static ScratchLabels labels(int[] classes, int width, int height) {
    Grid grid = new Grid(width, height, Affine.IDENTITY, CrsName.NONE);
    ScratchLabels labels = new ScratchLabels(grid);
    labels.write(grid.window(), classes);
    labels.setMaxLabel(Arrays.stream(classes).max().orElse(0));
    return labels;
  }

  private static int[] read(ScratchLabels labels) {
    int[] values = new int[labels.grid().width() * labels.grid().height()];
    labels.read(labels.grid().window(), values);
    return values;
  }

  private static int[] random(int seed, int classes) {
    SplittableRandom random = new SplittableRandom(seed);
    int[] map = new int[WIDTH * HEIGHT];
    for (int i = 0; i < map.length; i++) {
      boolean asAbove = i >= WIDTH && random.nextDouble() < 0.45;
      boolean asLeft = i % WIDTH > 0 && random.nextDouble() < 0.45;
      map[i] = asAbove ? map[i - WIDTH] : asLeft ? map[i - 1] : random.nextInt(classes + 1);
    }
    return map;
  }

  /** Which patch each pixel is in, from 1 in the order of their first pixels; 0 for no class. */
  private static int[] patches(int[] map) {
    int[] patch = new int[map.length];
    int count = 0;
    for (int i = 0; i < map.length; i++) {
      if (map[i] == 0 || patch[i] != 0) {
        continue;
      }
      patch[i] = ++count;
      ArrayDeque<Integer> open = new ArrayDeque<>();
      open.add(i);
      while (!open.isEmpty()) {
        int at = open.remove();
        for (int next : around(at)) {
          if (map[next] == map[i] && patch[next] == 0) {
            patch[next] = count;
            open.add(next);
          }
        }
      }
    }
    return patch;
  }

  private static int[] around(int at) {
    return java.util.stream.IntStream.of(
            at % WIDTH > 0 ? at - 1 : -1,
            at % WIDTH < WIDTH - 1 ? at + 1 : -1,
            at - WIDTH,
            at + WIDTH)
        .filter(next -> next >= 0 && next < WIDTH * HEIGHT)
        .toArray();
  }

  /** The smallest patch under its class's size goes to the neighbour with the longest border, again and again. */
  private static int[] plain(int[] classes, double[] least) {
    int[] map = classes.clone();
    boolean[] stuck = new boolean[map.length];
    while (true) {
      int[] patch = patches(map);
      int count = Arrays.stream(patch).max().orElse(0);
      int[] size = new int[count + 1];
      int[] first = new int[count + 1];
      for (int i = map.length - 1; i >= 0; i--) {
        size[patch[i]]++;
        first[patch[i]] = i;
      }
      int smallest = 0;
      for (int p = 1; p <= count; p++) {
        boolean small = size[p] < least[map[first[p]]] && !stuck[first[p]];
        smallest = small && (smallest == 0 || size[p] < size[smallest]) ? p : smallest;
      }
      if (smallest == 0) {
        return map;
      }
      int[] border = new int[count + 1];
      for (int i = 0; i < map.length; i++) {
        for (int next : around(i)) {
          if (patch[i] == smallest && patch[next] != smallest && patch[next] != 0) {
            border[patch[next]]++;
          }
        }
      }
      int best = 0;
      for (int p = 1; p <= count; p++) {
        best = border[p] > border[best] ? p : best;
      }
      if (best == 0) {
        stuck[first[smallest]] = true;
        continue;
      }
      int ofClass = map[first[best]];
      for (int i = 0; i < map.length; i++) {
        map[i] = patch[i] == smallest ? ofClass : map[i];
      }
    }
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8})
  void smallPatchesGoWhereThePlainVersionPutsThem(int seed) {
    int[] map = random(seed, 4);
    double[] least = {0, 6, 12, 0, 25};

    Patches patches = Patches.of(labels(map, WIDTH, HEIGHT), Job.QUIET);
    patches.absorb(least, Job.QUIET);

    assertThat(read(patches.classes(4, Job.QUIET))).isEqualTo(plain(map, least));
  }

  @Test
  void patchesAreThoseOfThePlainVersion() {
    int[] map = random(11, 3);

    Patches patches = Patches.of(labels(map, WIDTH, HEIGHT), Job.QUIET);

    int[] values = new int[map.length];
    patches.labels().read(patches.labels().grid().window(), values);
    assertThat(values).isEqualTo(patches(map));
    for (int i = 0; i < map.length; i++) {
      assertThat(values[i] == 0 ? 0 : patches.classOf(values[i])).isEqualTo(map[i]);
    }
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3})
  void theMajorityIsThatOfTheWindow(int radius) {
    int[] map = random(20 + radius, 4);

    int[] found = read(Majority.of(labels(map, WIDTH, HEIGHT), 4, radius, Job.QUIET));

    for (int i = 0; i < map.length; i++) {
      int[] counts = new int[5];
      for (int y = -radius; y <= radius; y++) {
        for (int x = -radius; x <= radius; x++) {
          int col = i % WIDTH + x;
          int row = i / WIDTH + y;
          if (col >= 0 && row >= 0 && col < WIDTH && row < HEIGHT) {
            counts[map[row * WIDTH + col]]++;
          }
        }
      }
      counts[0] = 0;
      int most = Arrays.stream(counts).max().orElse(0);
      if (map[i] == 0) {
        assertThat(found[i]).isZero();
      } else {
        assertThat(counts[found[i]]).isEqualTo(most);
        assertThat(counts[map[i]] < most || found[i] == map[i]).isTrue();
      }
    }
  }
}
