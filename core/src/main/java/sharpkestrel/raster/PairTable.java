package sharpkestrel.raster;

import java.util.Arrays;
import java.util.stream.IntStream;

/** Sums by pair of regions, found by open addressing; added up in the order in which they come. */
public final class PairTable {

  /**
   * Pairs of numbers that touch.
   *
   * @param keys the lower number in the upper half
   * @param sides pixel sides between the two
   * @param contrasts {@code parts} sums for each pair
   */
  public record Pairs(long[] keys, int[] sides, float[] contrasts) {}

  private final int parts;
  private long[] keys = new long[1 << 14];
  private int[] slots = new int[1 << 14];
  private int[] sides = new int[1 << 12];
  private float[] contrasts;
  private long[] found = new long[1 << 12];
  private int count;
  private long lastKey = -1;
  private int lastSlot;

  /**
   * @param parts numbers that are summed beside the count of sides
   */
  public PairTable(int parts) {
    this.parts = parts;
    contrasts = new float[sides.length * parts];
    Arrays.fill(slots, -1);
  }

  /**
   * @param contrast (input) what is added to the pair's sums
   */
  public void add(long key, float[] contrast) {
    if (key != lastKey) {
      lastSlot = slot(key);
      lastKey = key;
    }
    sides[lastSlot]++;
    for (int q = 0; q < parts; q++) {
      contrasts[lastSlot * parts + q] += contrast[q];
    }
  }

  private int slot(long key) {
    int at = place(key);
    int slot = slots[at];
    if (slot < 0) {
      slot = count++;
      slots[at] = slot;
      keys[at] = key;
      if (slot == sides.length) {
        sides = Arrays.copyOf(sides, 2 * slot);
        found = Arrays.copyOf(found, 2 * slot);
        contrasts = Arrays.copyOf(contrasts, 2 * slot * parts);
      }
      found[slot] = key;
      if (2 * count > keys.length) {
        grow();
      }
    }
    return slot;
  }

  private int place(long key) {
    long mixed = key * 0x9E3779B97F4A7C15L;
    int mask = keys.length - 1;
    int at = (int) (mixed >>> 40) & mask;
    while (slots[at] >= 0 && keys[at] != key) {
      at = at + 1 & mask;
    }
    return at;
  }

  private void grow() {
    keys = new long[2 * keys.length];
    slots = new int[keys.length];
    Arrays.fill(slots, -1);
    for (int slot = 0; slot < count; slot++) {
      int at = place(found[slot]);
      slots[at] = slot;
      keys[at] = found[slot];
    }
  }

  /** All pairs, the lowest key first. */
  public Pairs sorted() {
    long[] ordered = Arrays.copyOf(found, count);
    Arrays.sort(ordered);
    int[] orderedSides = new int[count];
    float[] orderedContrasts = new float[count * parts];
    IntStream.range(0, count).forEach(i -> {
      int slot = slots[place(ordered[i])];
      orderedSides[i] = sides[slot];
      System.arraycopy(contrasts, slot * parts, orderedContrasts, i * parts, parts);
    });
    return new Pairs(ordered, orderedSides, orderedContrasts);
  }

  /**
   * Those of several tables as one; a pair that is in more than one is summed, in their order.
   *
   * @param tables (modified) emptied, to free what they hold
   */
  public static Pairs joined(Pairs[] tables, int parts) {
    int total = 0;
    for (Pairs table : tables) {
      total += table.keys.length;
    }
    long[] keys = new long[total];
    int at = 0;
    for (Pairs table : tables) {
      System.arraycopy(table.keys, 0, keys, at, table.keys.length);
      at += table.keys.length;
    }
    Arrays.sort(keys);
    int unique = 0;
    for (int i = 0; i < keys.length; i++) {
      if (i == 0 || keys[i] != keys[i - 1]) {
        keys[unique++] = keys[i];
      }
    }
    keys = Arrays.copyOf(keys, unique);
    int[] sides = new int[unique];
    float[] contrasts = new float[unique * parts];
    for (int s = 0; s < tables.length; s++) {
      Pairs table = tables[s];
      int place = -1;
      for (int i = 0; i < table.keys.length; i++) {
        place = after(keys, place + 1, table.keys[i]);
        sides[place] += table.sides[i];
        for (int q = 0; q < parts; q++) {
          contrasts[place * parts + q] += table.contrasts[i * parts + q];
        }
      }
      tables[s] = null;
    }
    return new Pairs(keys, sides, contrasts);
  }

  /** Where a key stands at a place or after it: found in steps that double, as it is mostly near. */
  private static int after(long[] keys, int from, long key) {
    int low = from;
    int step = 1;
    while (low + step < keys.length && keys[low + step] <= key) {
      low += step;
      step *= 2;
    }
    return Arrays.binarySearch(keys, low, Math.min(keys.length, low + step), key);
  }
}
