package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Where people live: the town at the head of the cove, and the best place in each square of the land around it. */
public final class Sites {

  private static final double SQUARE = 900;
  private static final int TRIES = 70;

  /** What a place is. */
  public enum Kind {
    TOWN,
    HAMLET,
    FARM,
    CROFT
  }

  /**
   * A place where people live.
   *
   * @param rank 0 for the town, then the ring of squares about it
   */
  public record Site(Kind kind, double east, double north, int rank, long key) {}

  private final List<Site> sites = new ArrayList<>();

  Sites(long seed, Coast coast, Ground ground, Extent extent) {
    double e0 = coast.east(60, 0);
    double n0 = coast.north(60, 0);
    sites.add(new Site(Kind.TOWN, e0, n0, 0, 0));
    int reach = (int) Math.ceil(Math.max(
                Math.max(extent.east() - e0, e0 - extent.west()),
                Math.max(extent.north() - n0, n0 - extent.south()))
            / SQUARE)
        + 1;
    for (int j = -reach; j <= reach; j++) {
      for (int i = -reach; i <= reach; i++) {
        if ((i != 0 || j != 0) && extent.grown(SQUARE).holds(e0 + i * SQUARE, n0 + j * SQUARE)) {
          place(seed, coast, ground, e0 + i * SQUARE, n0 + j * SQUARE, i, j);
        }
      }
    }
    sites.sort(Comparator.comparingInt(Site::rank).thenComparingLong(Site::key));
  }

  private void place(long seed, Coast coast, Ground ground, double e0, double n0, int i, int j) {
    Chance chance = Chance.of(seed, 33, i, j);
    double best = Double.POSITIVE_INFINITY;
    double[] at = null;
    for (int k = 0; k < TRIES; k++) {
      double e = e0 + chance.between(-0.42, 0.42) * SQUARE;
      double n = n0 + chance.between(-0.42, 0.42) * SQUARE;
      double shore = coast.at(e, n);
      if (shore < 35 || coast.town(e, n) > 0) {
        continue;
      }
      double h = ground.bare(e, n);
      double slope = Math.hypot(
              ground.bare(e + 30, n) - ground.bare(e - 30, n),
              ground.bare(e, n + 30) - ground.bare(e, n - 30))
          / 60;
      double cost = 8 * slope + h / 60 + shore / 900;
      if (cost < best) {
        best = cost;
        at = new double[] {e, n};
      }
    }
    double draw = chance.unit();
    if (at == null || best > 5.0) {
      return;
    }
    Kind kind =
        best < 1.9 && draw < 0.62 ? Kind.HAMLET : best < 3 && draw < 0.85 ? Kind.FARM : Kind.CROFT;
    sites.add(new Site(
        kind,
        at[0],
        at[1],
        Math.max(Math.abs(i), Math.abs(j)),
        1 + (i + 4096L) * 16384 + j + 4096));
  }

  public List<Site> all() {
    return sites;
  }

  public Site town() {
    return sites.get(0);
  }
}
