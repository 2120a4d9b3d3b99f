package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sharpkestrel.demo.noise.Noise;

/** Things by the square cells of ground that their boxes meet; anywhere on the plane, in the order of entry. */
public final class Cells<T> {

  private final double side;
  private final Map<Long, List<T>> lists = new HashMap<>();
  private final List<T> all = new ArrayList<>();

  public Cells(double side) {
    this.side = side;
  }

  public void enter(T thing, double west, double south, double east, double north) {
    all.add(thing);
    for (long y = index(south); y <= index(north); y++) {
      for (long x = index(west); x <= index(east); x++) {
        lists.computeIfAbsent(key(x, y), any -> new ArrayList<>()).add(thing);
      }
    }
  }

  public void enter(T thing, double e, double n, double reach) {
    enter(thing, e - reach, n - reach, e + reach, n + reach);
  }

  public List<T> at(double e, double n) {
    return lists.getOrDefault(key(index(e), index(n)), List.of());
  }

  /** Each thing once whose cells meet the box. */
  public Set<T> within(double west, double south, double east, double north) {
    Set<T> found = new LinkedHashSet<>();
    for (long y = index(south); y <= index(north); y++) {
      for (long x = index(west); x <= index(east); x++) {
        found.addAll(lists.getOrDefault(key(x, y), List.of()));
      }
    }
    return found;
  }

  /** Each thing once, in the order of entry. */
  public Collection<T> all() {
    return all;
  }

  private long index(double at) {
    return (long) Math.floor(at / side);
  }

  private static long key(long x, long y) {
    // mixed, lest neighbours fall into one slot of the table
    return Noise.mix(x << 32 ^ y & 0xffffffffL);
  }
}
