package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.noise.Chance;

/**
 * The town's plan: streets that follow the shore at a few distances, as such towns grow, lanes up the slope between
 * them, and level yards by the water.
 */
public final class TownPlan {

  /** Distances of the streets from the shore, metres, and how far they run to each side. */
  private static final double[][] STREETS = {
    {25, 340}, {72, 332}, {117, 312}, {163, 286}, {210, 252}, {258, 210}, {306, 150}
  };

  /** What a yard is for. */
  public enum Purpose {
    FERRY,
    FREIGHT,
    MARKET,
    BOATYARD,
    DEPOT
  }

  /** A yard: its place and what it is for. */
  public record Yard(Purpose purpose, Terrace terrace) {}

  private final Ground ground;
  private final Coast coast;
  private final Chance chance;

  TownPlan(long seed, Ground ground) {
    this.ground = ground;
    coast = ground.coast();
    chance = Chance.of(seed, 36);
  }

  /** Yards are where the town's plan puts them, in the town's frame. */
  public static List<Yard> yards(Coast coast) {
    List<Yard> yards = new ArrayList<>();
    yards.add(yard(coast, Purpose.FERRY, 246, 49, 96, 36));
    yards.add(yard(coast, Purpose.FREIGHT, -226, 49, 104, 36));
    yards.add(yard(coast, Purpose.MARKET, 62, 49, 52, 33));
    yards.add(yard(coast, Purpose.BOATYARD, -312, 98, 74, 34));
    yards.add(yard(coast, Purpose.DEPOT, 238, 98, 66, 34));
    return yards;
  }

  private static Yard yard(
      Coast coast, Purpose purpose, double v, double shore, double length, double width) {
    double u = atShore(coast, v, shore);
    double before = atShore(coast, v - 20, shore);
    double after = atShore(coast, v + 20, shore);
    double lean = Math.atan2(after - before, 40);
    // along the shore: a quarter turn from inland, less the bend of the coast
    double angle = coast.inland() + Math.PI / 2 - lean;
    return new Yard(
        purpose,
        new Terrace(
            coast.east(u, v),
            coast.north(u, v),
            angle,
            length,
            width,
            2.8 + 0.055 * Math.max(0, shore - 30)));
  }

  /** The {@code u} at which the shore is so far away, going inland along {@code v}. */
  public static double atShore(Coast coast, double v, double shore) {
    double low = -260;
    double high = 420;
    for (int k = 0; k < 50; k++) {
      double middle = (low + high) / 2;
      if (coast.smooth(coast.east(middle, v), coast.north(middle, v)) < shore) {
        low = middle;
      } else {
        high = middle;
      }
    }
    return high;
  }

  void lay() {
    for (Yard yard : yards(coast)) {
      ground.terrace(yard.terrace());
    }
    for (int k = 0; k < STREETS.length; k++) {
      Road.Kind kind = k == 0 ? Road.Kind.MAIN : k % 2 == 0 ? Road.Kind.STREET : Road.Kind.LANE;
      ground.roads().add(new Road(kind, along(STREETS[k][0], STREETS[k][1])));
    }
    double last = STREETS[STREETS.length - 1][0];
    for (double v = -300 + chance.between(0, 30); v < 310; v += chance.between(56, 96)) {
      double top = STREETS[0][0];
      for (double[] street : STREETS) {
        if (Math.abs(v) < street[1]) {
          top = street[0];
        }
      }
      double from = top > last - 1 && chance.happens(0.4) ? last + 45 : top;
      ground
          .roads()
          .add(new Road(chance.happens(0.6) ? Road.Kind.LANE : Road.Kind.STREET, up(v, from)));
    }
  }

  private double[] along(double shore, double reach) {
    int steps = (int) (2 * reach / 12);
    double[] line = new double[2 * steps + 2];
    for (int k = 0; k <= steps; k++) {
      double v = -reach + 2 * reach * k / steps;
      double u = atShore(coast, v, shore);
      line[2 * k] = coast.east(u, v);
      line[2 * k + 1] = coast.north(u, v);
    }
    return line;
  }

  private double[] up(double v, double shore) {
    double low = atShore(coast, v, STREETS[0][0]);
    double high = atShore(coast, v, shore);
    int steps = Math.max(1, (int) ((high - low) / 12));
    double sway = chance.between(-9, 9);
    double[] line = new double[2 * steps + 2];
    for (int k = 0; k <= steps; k++) {
      double t = (double) k / steps;
      double u = low + (high - low) * t;
      double beside = v + sway * Math.sin(t * Math.PI);
      line[2 * k] = coast.east(u, beside);
      line[2 * k + 1] = coast.north(u, beside);
    }
    return line;
  }
}
