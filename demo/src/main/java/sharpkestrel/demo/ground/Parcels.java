package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.noise.Noise;
import sharpkestrel.raster.Extent;

/**
 * How the land is parted: nearest-site cells of a jittered lattice, each split again and again across its length, as
 * heirs split a farm. A cell is made when it is first asked for and is the same whenever that is.
 */
public final class Parcels {

  private static final int DEEPEST = 9;

  /**
   * A boundary line between parcels.
   *
   * @param depth of the split that made it, 0 for the first in a cell; -1 for the bounds of cells
   */
  public record Boundary(double e0, double n0, double e1, double n1, long key, int depth) {}

  /** One cell of the lattice: a tree of splits, or a leaf. */
  private static final class Split {
    double a;
    double b;
    double c;
    Split below;
    Split above;
    Parcel parcel;
  }

  private record Cell(double e, double n, Split root, List<Parcel> parcels, List<Boundary> lines) {}

  private final long seed;
  private final Division division;
  private final double side;
  private final Map<Long, Cell> cells = new ConcurrentHashMap<>();

  Parcels(long seed, Division division) {
    this.seed = seed;
    this.division = division;
    side = division.cell();
  }

  private double[] site(long i, long j) {
    Chance chance = Chance.of(seed, 31, i, j);
    return new double[] {
      (i + chance.between(0.12, 0.88)) * side, (j + chance.between(0.12, 0.88)) * side
    };
  }

  private Cell cell(long i, long j) {
    Long key = Noise.mix(i << 32 ^ j & 0xffffffffL);
    Cell known = cells.get(key);
    return known != null ? known : cells.computeIfAbsent(key, k -> make(i, j));
  }

  private Cell make(long i, long j) {
    double[] own = site(i, j);
    double[] ring = Polygons.oblong(own[0], own[1], 0, 6 * side, 6 * side);
    for (int dj = -2; dj <= 2; dj++) {
      for (int di = -2; di <= 2; di++) {
        if (di != 0 || dj != 0) {
          double[] other = site(i + di, j + dj);
          ring = Polygons.clip(
              ring, other[0] - own[0], other[1] - own[1], (square(other) - square(own)) / 2);
        }
      }
    }
    Chance chance = Chance.of(seed, 32, i, j);
    Cell cell = new Cell(own[0], own[1], new Split(), new ArrayList<>(), new ArrayList<>());
    Division.Manner manner = division.manner(own[0], own[1], chance);
    split(cell, cell.root, ring, manner, chance, 0);
    edges(cell, ring, Noise.mix(i * 7919 + j));
    return cell;
  }

  private static double square(double[] p) {
    return p[0] * p[0] + p[1] * p[1];
  }

  private void edges(Cell cell, double[] ring, long key) {
    for (int k = 0; k < ring.length; k += 2) {
      int next = (k + 2) % ring.length;
      // Each border belongs to one of its two cells: the one to its west, or south.
      double de = ring[next] - ring[k];
      double dn = ring[next + 1] - ring[k + 1];
      if (dn > 0 || dn == 0 && de > 0) {
        cell.lines.add(new Boundary(ring[k], ring[k + 1], ring[next], ring[next + 1], key + k, -1));
      }
    }
  }

  private void split(
      Cell cell, Split node, double[] ring, Division.Manner manner, Chance chance, int depth) {
    double area = Polygons.area(ring);
    double turn = manner.turn();
    if (area < manner.grain() * 1.7 || depth > DEEPEST) {
      node.parcel = manner.pieces().of(ring, chance);
      cell.parcels.add(node.parcel);
      return;
    }
    double long0 = extent(ring, Math.cos(turn), Math.sin(turn));
    double long1 = extent(ring, -Math.sin(turn), Math.cos(turn));
    double across =
        (long0 > long1 ? turn : turn + Math.PI / 2) + manner.loose() * chance.gaussian();
    node.a = Math.cos(across);
    node.b = Math.sin(across);
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int k = 0; k < ring.length; k += 2) {
      double at = node.a * ring[k] + node.b * ring[k + 1];
      low = Math.min(low, at);
      high = Math.max(high, at);
    }
    node.c = low + (high - low) * chance.between(0.36, 0.64);
    double[] below = Polygons.clip(ring, node.a, node.b, node.c);
    double[] above = Polygons.clip(ring, -node.a, -node.b, -node.c);
    line(cell, below, node, depth, chance);
    node.below = new Split();
    node.above = new Split();
    split(cell, node.below, below, manner, chance, depth + 1);
    split(cell, node.above, above, manner, chance, depth + 1);
  }

  /** The side of the lower part that lies on the split. */
  private static void line(Cell cell, double[] ring, Split node, int depth, Chance chance) {
    for (int k = 0; k < ring.length; k += 2) {
      int next = (k + 2) % ring.length;
      double here = node.a * ring[k] + node.b * ring[k + 1] - node.c;
      double there = node.a * ring[next] + node.b * ring[next + 1] - node.c;
      if (Math.abs(here) < 1e-6 && Math.abs(there) < 1e-6) {
        long key = Double.doubleToLongBits(chance.unit());
        cell.lines.add(new Boundary(ring[k], ring[k + 1], ring[next], ring[next + 1], key, depth));
      }
    }
  }

  private static double extent(double[] ring, double a, double b) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int k = 0; k < ring.length; k += 2) {
      double at = a * ring[k] + b * ring[k + 1];
      low = Math.min(low, at);
      high = Math.max(high, at);
    }
    return high - low;
  }

  /** The parcel at a place. */
  public Parcel at(double e, double n) {
    long i = (long) Math.floor(e / side);
    long j = (long) Math.floor(n / side);
    Cell nearest = null;
    double least = Double.POSITIVE_INFINITY;
    for (int dj = -1; dj <= 1; dj++) {
      for (int di = -1; di <= 1; di++) {
        Cell cell = cell(i + di, j + dj);
        double d = (cell.e - e) * (cell.e - e) + (cell.n - n) * (cell.n - n);
        if (d < least) {
          least = d;
          nearest = cell;
        }
      }
    }
    Split node = nearest.root;
    while (node.parcel == null) {
      node = node.a * e + node.b * n <= node.c ? node.below : node.above;
    }
    return node.parcel;
  }

  /** All parcels of the cells about a box. */
  public List<Parcel> within(Extent box) {
    List<Parcel> found = new ArrayList<>();
    for (long j = (long) Math.floor(box.south() / side) - 1; j * side <= box.north() + side; j++) {
      for (long i = (long) Math.floor(box.west() / side) - 1; i * side <= box.east() + side; i++) {
        found.addAll(cell(i, j).parcels);
      }
    }
    return found;
  }

  /** All boundaries of the cells about a box. */
  public List<Boundary> boundaries(Extent box) {
    List<Boundary> found = new ArrayList<>();
    for (long j = (long) Math.floor(box.south() / side) - 1; j * side <= box.north() + side; j++) {
      for (long i = (long) Math.floor(box.west() / side) - 1; i * side <= box.east() + side; i++) {
        found.addAll(cell(i, j).lines);
      }
    }
    return found;
  }
}
