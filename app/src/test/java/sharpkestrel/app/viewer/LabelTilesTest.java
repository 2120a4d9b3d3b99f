package sharpkestrel.app.viewer;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.ScratchLabels;

class LabelTilesTest {

  /** Blocks of labels of uneven size, with specks of others. */
  private static int[] labels(int width, int height, long seed) {
    Random random = new Random(seed);
    int[] all = new int[width * height];
    for (int i = 0; i < all.length; i++) {
      all[i] =
          random.nextInt(5) == 0 ? 1 + random.nextInt(50) : 1 + i % width / 37 + i / width / 29;
    }
    return all;
  }

  /** A level of the whole pyramid from the one below, by counting. */
  private static int[][] halved(int[][] below) {
    int[][] level = new int[(below.length + 1) / 2][(below[0].length + 1) / 2];
    for (int y = 0; y < level.length; y++) {
      for (int x = 0; x < level[0].length; x++) {
        int best = 0;
        int most = 0;
        for (int k = 0; k < 4; k++) {
          int wanted = at(below, 2 * x + k % 2, 2 * y + k / 2);
          int count = 0;
          for (int j = 0; j < 4; j++) {
            count += at(below, 2 * x + j % 2, 2 * y + j / 2) == wanted ? 1 : 0;
          }
          if (count > most) {
            most = count;
            best = wanted;
          }
        }
        level[y][x] = best;
      }
    }
    return level;
  }

  private static int at(int[][] level, int x, int y) {
    return y < level.length && x < level[0].length ? level[y][x] : 0;
  }

  private static int[] await(LabelTiles tiles, int level, int x, int y) {
    int[] tile = tiles.get(level, x, y);
    while (tile == null) {
      Thread.onSpinWait();
      tile = tiles.get(level, x, y);
    }
    return tile;
  }

  @ParameterizedTest
  @CsvSource({"700,530,1", "513,300,2", "1030,257,3"})
  void everyLevelIsTheMajorityOfTheOneBelow(int width, int height, long seed) {
    int[] all = labels(width, height, seed);
    Grid grid = Grid.ofPixels(width, height);
    ScratchLabels scratch = new ScratchLabels(grid);
    scratch.write(grid.window(), all);
    LabelTiles tiles = new LabelTiles(scratch, () -> {});
    int[][] expected = new int[height][width];
    for (int i = 0; i < all.length; i++) {
      expected[i / width][i % width] = all[i];
    }

    for (int level = 0; level < 4; level++) {
      for (int y = 0; y < expected.length; y++) {
        for (int x = 0; x < expected[0].length; x++) {
          int size = LabelTiles.SIZE;
          int found = await(tiles, level, x / size, y / size)[y % size * size + x % size];
          assertThat(found).as("level %d at %d %d", level, x, y).isEqualTo(expected[y][x]);
        }
      }
      expected = halved(expected);
    }
  }
}
