package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import sharpkestrel.raster.Extent;

/** Roads out of the town to every place where people live, and tracks to the quarries and the peat. */
final class RoadPlan {

  private static final double LONGEST = 2100;

  private final Ground ground;

  RoadPlan(Ground ground) {
    this.ground = ground;
  }

  void lay() {
    List<double[]> reached = new ArrayList<>(gates());
    int first = reached.size();
    for (Sites.Site site : ground.sites().all()) {
      if (site.kind() == Sites.Kind.TOWN) {
        continue;
      }
      Road.Kind kind = site.kind() == Sites.Kind.HAMLET
          ? reached.size() < first + 3 ? Road.Kind.MAIN : Road.Kind.MINOR
          : site.kind() == Sites.Kind.FARM ? Road.Kind.MINOR : Road.Kind.TRACK;
      double[] here = {site.east(), site.north()};
      int ways = site.kind() == Sites.Kind.HAMLET ? 2 : 1;
      if (link(here, reached, kind, ways)) {
        reached.add(here);
      }
    }
    Extent box = ground.extent();
    for (Quarry quarry : ground.quarriesWithin(box)) {
      double[] rim = {quarry.east(), quarry.north()};
      link(rim, reached, Road.Kind.TRACK, 1);
    }
    for (double[] works : ground.peatWithin(box)) {
      link(new double[] {works[0], works[1]}, reached, Road.Kind.TRACK, 1);
    }
  }

  /** The ends of the town's streets. */
  private List<double[]> gates() {
    List<double[]> gates = new ArrayList<>();
    for (Road road : ground.roads().all()) {
      if (road.kind() == Road.Kind.MAIN || road.kind() == Road.Kind.STREET) {
        gates.add(new double[] {road.e(0), road.n(0)});
        gates.add(new double[] {road.e(road.points() - 1), road.n(road.points() - 1)});
      }
    }
    return gates;
  }

  private boolean link(double[] from, List<double[]> reached, Road.Kind kind, int ways) {
    List<double[]> near = reached.stream()
        .filter(to -> distance(from, to) < LONGEST && distance(from, to) > 1)
        .sorted(Comparator.comparingDouble(to -> distance(from, to)))
        .limit(4)
        .toList();
    int made = 0;
    for (double[] to : near) {
      if (made >= ways) {
        break;
      }
      double[] way = joined(Route.between(from, to, ground::height, this::price), made > 0);
      if (way.length >= 6) {
        ground.roads().add(new Road(kind, Route.eased(way)));
        made++;
      }
    }
    return made > 0;
  }

  /**
   * The way up to the first road it comes to.
   *
   * @param second whether it sets out from a road that is there already
   */
  private double[] joined(double[] way, boolean second) {
    boolean away = !second;
    for (int i = 2; i + 1 < way.length; i += 2) {
      double beyond = ground.roads().beyondEdge(way[i], way[i + 1]);
      away |= beyond > 30;
      if (away && beyond < 9) {
        double[] cut = Arrays.copyOf(way, i + 2);
        double[] junction = ground.roads().nearest(way[i], way[i + 1]);
        cut[i] = junction[0];
        cut[i + 1] = junction[1];
        return cut;
      }
    }
    return away ? way : new double[0];
  }

  private double price(double e, double n) {
    double shore = ground.coast().at(e, n);
    if (shore < 9 || ground.lake(e, n) < 1.2 || ground.quarry(e, n) < 0.5) {
      return Double.POSITIVE_INFINITY;
    }
    double beyond = ground.roads().beyondEdge(e, n);
    double town = ground.coast().town(e, n);
    return (beyond < 8 ? 0.35 : 1) * (1 + 2.5 * town) + (ground.burn(e, n) < 1.5 ? 2 : 0);
  }

  private static double distance(double[] a, double[] b) {
    return Math.hypot(a[0] - b[0], a[1] - b[1]);
  }
}
