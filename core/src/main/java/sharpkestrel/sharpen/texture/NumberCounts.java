package sharpkestrel.sharpen.texture;

import java.util.Arrays;

/**
 * How often each of some small numbers occurs in a window that slides over a tile. Counts of every column are kept up from row
 * to row; from one window to the next along a row only numbers change that occur in a column that enters or in one that leaves
 * (after Perreault and Hebert 2007, IEEE Trans. Image Processing 16(9), 2389-2394, who go through all numbers).
 *
 * <p>Four columns go together: their counts of a number stand in one long, 16 bits each, and one product makes of the changes
 * of a window's count what the four next windows hold.
 */
final class NumberCounts {

  private static final int LANES = 4;
  private static final int LANE_BITS = 16;
  private static final long ONE_IN_EACH_LANE = 0x0001_0001_0001_0001L;

  private final LogTable logs;
  private final int lead;
  private final int firstEntering;
  private final int back;
  private final int shift;
  private final Block[] blocks;
  private final int[] padded;
  private final long[] sums;

  /**
   * @param numbers that can occur: 0 to one less
   * @param columns of the tile
   * @param across columns in a window
   * @param logs up to as many numbers as a window can hold, below 65,536
   */
  NumberCounts(int numbers, int columns, int across, LogTable logs) {
    this.logs = logs;
    // empty columns on the left, so that those that enter first begin a group of four
    lead = LANES - (across - 1) % LANES;
    firstEntering = (lead + across - 1) / LANES;
    back = Math.ceilDiv(across, LANES);
    shift = (back * LANES - across) * LANE_BITS;
    int windows = LANES * Math.ceilDiv(columns - across + 1, LANES);
    int groups = firstEntering + windows / LANES + 1;
    blocks = new Block[Math.ceilDiv(numbers, Long.SIZE)];
    for (int k = 0; k < blocks.length; k++) {
      int first = k * Long.SIZE;
      blocks[k] = new Block(first, Math.min(Long.SIZE, numbers - first), groups);
    }
    padded = new int[groups * LANES];
    Arrays.fill(padded, Levels.NONE);
    sums = new long[windows];
  }

  /** Takes in a row of the tile: one number for each column, {@link Levels#NONE} for none. */
  void enter(int[] row) {
    System.arraycopy(row, 0, padded, lead, row.length);
    for (Block block : blocks) {
      block.enter(padded);
    }
  }

  /** Lets go a row that was taken in. */
  void leave(int[] row) {
    System.arraycopy(row, 0, padded, lead, row.length);
    for (Block block : blocks) {
      block.leave(padded);
    }
  }

  /**
   * @param totals how many things each window along the row holds
   * @param each how many numbers one thing gives
   * @param out (output) entropy with natural logarithms, for each window along the row; NaN where it holds nothing
   */
  void entropies(int[] totals, int each, double[] out) {
    Arrays.fill(sums, 0);
    for (Block block : blocks) {
      addSums(block);
    }
    for (int x = 0; x < out.length; x++) {
      out[x] = logs.entropy(sums[x], each * totals[x]);
    }
  }

  /** Adds the sums of {@code n ln n} over the numbers of a block. */
  private void addSums(Block block) {
    long[] table = logs.xLogX();
    long[] counts = block.counts;
    int[] held = block.held;
    long sum = block.holdFirst(firstEntering, table);
    for (int x = 0; x < sums.length; x += LANES) {
      int entering = firstEntering + x / LANES;
      int leaving = entering - back;
      int in = entering * block.numbers;
      int out = leaving * block.numbers;
      long a = 0;
      long b = 0;
      long c = 0;
      long d = 0;
      long left = block.occurring[entering] | block.occurring[leaving];
      left |= shift == 0 ? 0 : block.occurring[leaving + 1];
      while (left != 0) {
        int number = Long.numberOfTrailingZeros(left);
        left &= left - 1;
        long gone = counts[out + number] >>> shift;
        if (shift != 0) {
          gone |= counts[out + block.numbers + number] << Long.SIZE - shift;
        }
        int before = held[number];
        long four = (counts[in + number] - gone + before) * ONE_IN_EACH_LANE;
        int after = last(four);
        held[number] = after;
        // masked, as such an index needs no check
        sum -= table[before & table.length - 1];
        a += table[(int) four & table.length - 1];
        b += table[(int) (four >>> LANE_BITS) & table.length - 1];
        c += table[(int) (four >>> 2 * LANE_BITS) & table.length - 1];
        d += table[after & table.length - 1];
      }
      sums[x] += sum + a;
      sums[x + 1] += sum + b;
      sums[x + 2] += sum + c;
      sums[x + 3] += sum + d;
      sum += d;
    }
  }

  private static int last(long four) {
    return (int) (four >>> 3 * LANE_BITS);
  }

  /** Counts of up to 64 numbers in groups of four columns, and which numbers occur in each group, a bit each. */
  private static final class Block {

    private final int first;
    private final int numbers;
    private final long[] counts;
    private final long[] occurring;
    private final int[] held;

    Block(int first, int numbers, int groups) {
      this.first = first;
      this.numbers = numbers;
      counts = new long[groups * numbers];
      occurring = new long[groups];
      held = new int[numbers];
    }

    void enter(int[] row) {
      for (int group = 0; group < occurring.length; group++) {
        long bits = 0;
        for (int lane = 0; lane < LANES; lane++) {
          int number = row[group * LANES + lane] - first;
          if (number >= 0 && number < numbers) {
            counts[group * numbers + number] += 1L << lane * LANE_BITS;
            bits |= 1L << number;
          }
        }
        occurring[group] |= bits;
      }
    }

    void leave(int[] row) {
      for (int group = 0; group < occurring.length; group++) {
        long bits = 0;
        for (int lane = 0; lane < LANES; lane++) {
          int number = row[group * LANES + lane] - first;
          if (number >= 0 && number < numbers) {
            long left = counts[group * numbers + number] - (1L << lane * LANE_BITS);
            counts[group * numbers + number] = left;
            bits |= (left == 0 ? 1L : 0L) << number;
          }
        }
        occurring[group] &= ~bits;
      }
    }

    /** Holds the columns before a group; the sum over what they hold. */
    long holdFirst(int end, long[] table) {
      long sum = 0;
      for (int number = 0; number < numbers; number++) {
        int n = 0;
        for (int group = 0; group < end; group++) {
          n += last(counts[group * numbers + number] * ONE_IN_EACH_LANE);
        }
        held[number] = n;
        sum += table[n];
      }
      return sum;
    }
  }
}
