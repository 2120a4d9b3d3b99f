package sharpkestrel.segment.regions;

import java.util.Arrays;

/**
 * Pairs of a pixel and a seed by bucket, the lowest bucket first, first in first out within one. Entries of a bucket lie in
 * chunks, one beside the other.
 */
final class BucketQueue {

  private static final int ENTRIES = 16;
  private static final int CHUNK = 2 * ENTRIES;

  /** Bucket by bucket the places of its first entry and behind its last one; equal where it is empty. */
  private final int[] first;

  private final int[] end;
  private int[] entries = new int[CHUNK << 10];
  private int[] next = new int[1 << 10];
  private int chunks;
  private int free = -1;
  private int lowest;
  private int pixel;
  private int seed;

  BucketQueue(int buckets) {
    first = new int[buckets];
    end = new int[buckets];
    for (int b = 0; b < buckets; b++) {
      first[b] = chunk() * CHUNK;
      end[b] = first[b];
    }
    lowest = buckets;
  }

  private int chunk() {
    if (free >= 0) {
      int chunk = free;
      free = next[chunk];
      return chunk;
    }
    if (chunks == next.length) {
      next = Arrays.copyOf(next, 2 * chunks);
      entries = Arrays.copyOf(entries, 2 * chunks * CHUNK);
    }
    return chunks++;
  }

  void push(int bucket, int newPixel, int newSeed) {
    int at = end[bucket];
    entries[at] = newPixel;
    entries[at + 1] = newSeed;
    at += 2;
    if (at % CHUNK == 0) {
      int chunk = chunk();
      next[at / CHUNK - 1] = chunk;
      at = chunk * CHUNK;
    }
    end[bucket] = at;
    lowest = Math.min(lowest, bucket);
  }

  /** Takes the next pair out; false where there is none. */
  boolean pop() {
    while (lowest < first.length && first[lowest] == end[lowest]) {
      lowest++;
    }
    if (lowest == first.length) {
      return false;
    }
    int at = first[lowest];
    pixel = entries[at];
    seed = entries[at + 1];
    at += 2;
    if (at % CHUNK == 0) {
      int chunk = at / CHUNK - 1;
      at = next[chunk] * CHUNK;
      next[chunk] = free;
      free = chunk;
    }
    first[lowest] = at;
    return true;
  }

  int pixel() {
    return pixel;
  }

  int seed() {
    return seed;
  }
}
