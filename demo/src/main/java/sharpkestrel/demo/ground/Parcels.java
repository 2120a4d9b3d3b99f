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

  private static final double CELL = 340;

  /** What a place is like, as far as farming goes: 0 for open land to 1 for the best. */
  interface Fertility {
    double at(double e, double n);
  }

  /** A boundary line between parcels. */
  public record Boundary(double e0, double n0, double e1, double n1, long key) {}

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
  private final Fertility fertility;
  private final Map<Long, Cell> cells = new ConcurrentHashMap<>();

  Parcels(long seed, Fertility fertility) {
    this.seed = seed;
    this.fertility = fertility;
  }

  private double[] site(long i, long j) {
    Chance chance = Chance.of(seed, 31, i, j);
    return new double[] {
      (i + chance.between(0.12, 0.88)) * CELL, (j + chance.between(0.12, 0.88)) * CELL
    };
  }

  private Cell cell(long i, long j) {
    Long key = Noise.mix(i << 32 ^ j & 0xffffffffL);
    Cell known = cells.get(key);
    return known != null ? known : cells.computeIfAbsent(key, k -> make(i, j));
  }

  private Cell make(long i, long j) {
    double[] own = site(i, j);
    double[] ring = Polygons.oblong(own[0], own[1], 0, 6 * CELL, 6 * CELL);
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
    double grain = chance.between(3500, 11000);
    double turn = chance.between(0, Math.PI);
    split(cell, cell.root, ring, turn, grain, chance, 0);
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
        cell.lines.add(new Boundary(ring[k], ring[k + 1], ring[next], ring[next + 1], key + k));
      }
    }
  }

  private void split(
      Cell cell, Split node, double[] ring, double turn, double grain, Chance chance, int depth) {
    double area = Polygons.area(ring);
    if (area < grain * 1.7 || depth > 9) {
      node.parcel = parcel(ring, turn, chance);
      cell.parcels.add(node.parcel);
      return;
    }
    double long0 = extent(ring, Math.cos(turn), Math.sin(turn));
    double long1 = extent(ring, -Math.sin(turn), Math.cos(turn));
    double across = (long0 > long1 ? turn : turn + Math.PI / 2) + 0.09 * chance.gaussian();
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
    line(cell, below, node, chance);
    node.below = new Split();
    node.above = new Split();
    split(cell, node.below, below, turn, grain, chance, depth + 1);
    split(cell, node.above, above, turn, grain, chance, depth + 1);
  }

  /** The side of the lower part that lies on the split. */
  private static void line(Cell cell, double[] ring, Split node, Chance chance) {
    for (int k = 0; k < ring.length; k += 2) {
      int next = (k + 2) % ring.length;
      double here = node.a * ring[k] + node.b * ring[k + 1] - node.c;
      double there = node.a * ring[next] + node.b * ring[next + 1] - node.c;
      if (Math.abs(here) < 1e-6 && Math.abs(there) < 1e-6) {
        long key = Double.doubleToLongBits(chance.unit());
        cell.lines.add(new Boundary(ring[k], ring[k + 1], ring[next], ring[next + 1], key));
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

  private Parcel parcel(double[] ring, double turn, Chance chance) {
    double[] middle = Polygons.middle(ring);
    double good = fertility.at(middle[0], middle[1]);
    double draw = chance.unit();
    Parcel.Use use = Parcel.Use.OPEN;
    if (good > 0.55) {
      use = chance.pick(
          List.of(
              Parcel.Use.PASTURE,
              Parcel.Use.MEADOW,
              Parcel.Use.STUBBLE,
              Parcel.Use.PLOUGHED,
              Parcel.Use.OATS,
              Parcel.Use.ROOTS,
              Parcel.Use.RUSHES,
              Parcel.Use.PLANTATION),
          34,
          20,
          11,
          7,
          12,
          6,
          6,
          4);
    } else if (good > 0.25) {
      use = draw < 0.40
          ? Parcel.Use.PASTURE
          : draw < 0.56
              ? Parcel.Use.MEADOW
              : draw < 0.68
                  ? Parcel.Use.RUSHES
                  : draw < 0.80 ? Parcel.Use.PLANTATION : Parcel.Use.OPEN;
    }
    return new Parcel(
        use,
        ring,
        chance.between(0.78, 1.22),
        turn + (chance.happens(0.5) ? Math.PI / 2 : 0) + 0.03 * chance.gaussian(),
        chance.unit());
  }

  /** The parcel at a place. */
  public Parcel at(double e, double n) {
    long i = (long) Math.floor(e / CELL);
    long j = (long) Math.floor(n / CELL);
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

  /** All boundaries of the cells about a box. */
  public List<Boundary> boundaries(Extent box) {
    List<Boundary> found = new ArrayList<>();
    for (long j = (long) Math.floor(box.south() / CELL) - 1; j * CELL <= box.north() + CELL; j++) {
      for (long i = (long) Math.floor(box.west() / CELL) - 1; i * CELL <= box.east() + CELL; i++) {
        found.addAll(cell(i, j).lines);
      }
    }
    return found;
  }
}
