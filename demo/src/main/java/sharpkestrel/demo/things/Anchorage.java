package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.TownPlan;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** The vessels of one day: berthed, rafted, moored, ashore and under way, and the gear that lies on the quays. */
final class Anchorage {

  private final Ground ground;
  private final Coast coast;
  private final Things things;
  private final Harbour harbour;
  private final Shipwright ships;

  Anchorage(Ground ground, Things things, Harbour harbour) {
    this.ground = ground;
    coast = ground.coast();
    this.things = things;
    this.harbour = harbour;
    ships = new Shipwright(ground, things);
  }

  /** The vessels of one day, and what lies on the quays. */
  void fill(Extent extent, long day) {
    Chance chance = Chance.of(ground.seed(), 54, day);
    for (Harbour.Marina marina : harbour.marinas()) {
      smallBoats(marina, chance);
    }
    for (Harbour.Jetty jetty : harbour.jetties()) {
      for (int side = -1; side <= 1; side += 2) {
        berths(jetty, side, chance);
      }
    }
    for (double v = -250; v < 280; v += 21) {
      double u = TownPlan.atShore(coast, v, -8.5);
      Frame berth = Frame.at(coast.east(u, v), coast.north(u, v), harbour.quayLine(v));
      raft(berth, -1, 3, chance);
    }
    moorings(chance);
    for (double v = -285; v < 285; v += chance.between(4, 11)) {
      double u = TownPlan.atShore(coast, v, chance.between(-4.5, 6));
      Frame spot = Frame.at(
          coast.east(u, v), coast.north(u, v), harbour.quayLine(v) + 0.1 * chance.gaussian());
      gear(spot, Harbour.QUAY_LEVEL, chance);
    }
    for (Harbour.Landing landing : harbour.landings()) {
      boats(landing, Chance.of(ground.seed(), 55, landing.key(), day));
    }
    Harbour.squares(extent, (i, j) -> {
      Chance here = Chance.of(ground.seed(), 56, i, j, day);
      for (int k = 0; k < 3; k++) {
        underWay((i + here.unit()) * Harbour.SQUARE, (j + here.unit()) * Harbour.SQUARE, here);
      }
    });
  }

  /** Small boats between the fingers. */
  private void smallBoats(Harbour.Marina marina, Chance chance) {
    Frame out = harbour.seaward(marina.v());
    for (double u = 10; u < marina.length() - 3; u += Harbour.BERTH) {
      for (int side = -1; side <= 1; side += 2) {
        if (chance.happens(0.84)) {
          boolean large = chance.happens(0.25);
          Vessel.Kind kind = large ? Vessel.Kind.WORKBOAT : Vessel.Kind.DINGHY;
          double l = large ? chance.between(7.5, 9.5) : chance.between(4, 6.6);
          double b = Math.min(2.75, l / chance.between(2.4, 3));
          double turn = side * (chance.happens(0.7) ? -1 : 1) * Math.PI / 2;
          Frame berth = out.moved(u, side * (1.5 + l / 2), turn + 0.03 * chance.gaussian());
          if (ships.fits(berth, l, b, true)) {
            ships.launch(berth, kind, l, b, 0, Harbour.TOWN, Vessel.State.BERTHED, 1, chance);
          }
        }
      }
    }
  }

  /** Rafts along a jetty's side. */
  private void berths(Harbour.Jetty jetty, int side, Chance chance) {
    Frame out = harbour.seaward(jetty.v());
    for (double u = 20; u < jetty.length() - 8; u += chance.between(17, 27)) {
      Frame berth = out.moved(u, side * (jetty.width() / 2 + 0.6), 0);
      raft(berth, side, 5, chance);
      gear(
          out.moved(
              u, side * chance.between(0.05, 0.35) * jetty.width(), chance.between(-0.3, 0.3)),
          Harbour.QUAY_LEVEL - 0.1,
          chance);
    }
  }

  /**
   * One to five vessels side by side, the first along the frame's {@code u}, the rest beyond it.
   *
   * @param side on which side of the frame there is water: 1 for its left
   */
  private void raft(Frame frame, int side, int most, Chance chance) {
    if (chance.happens(0.2)) {
      return;
    }
    int abreast = Math.min(most, 1 + chance.weighted(34, 26, 20, 12, 8));
    boolean barges = abreast == 1 && most > 3 && chance.happens(0.55);
    Vessel.Kind kind = barges ? Vessel.Kind.BARGE : Vessel.Kind.WORKBOAT;
    double off = 0;
    List<double[]> sizes = new ArrayList<>();
    List<Frame> places = new ArrayList<>();
    for (int k = 0; k < abreast; k++) {
      double[] size = Shipwright.size(kind, chance);
      size[0] = Math.min(size[0], barges ? 44 : 22);
      size[1] = Math.min(size[1], barges ? 11 : 6.5);
      double turn = (chance.happens(0.75) ? 0 : Math.PI) + 0.008 * chance.gaussian();
      Frame spot = frame.moved(chance.between(-1.5, 1.5), side * (off + size[1] / 2 + 0.35), turn);
      if (!ships.fits(spot, size[0], size[1], true)) {
        break;
      }
      // side by side they touch: fenders are thinner than a pixel
      off += size[1] + 0.12;
      sizes.add(size);
      places.add(spot);
    }
    for (int k = 0; k < places.size(); k++) {
      ships.launch(
          places.get(k),
          kind,
          sizes.get(k)[0],
          sizes.get(k)[1],
          0,
          Harbour.TOWN,
          places.size() > 1 ? Vessel.State.RAFTED : Vessel.State.BERTHED,
          places.size(),
          chance);
    }
  }

  /** Boats on buoys in the bay, all swung by the same wind, and buoys without boats. */
  private void moorings(Chance chance) {
    double wind = chance.between(0, 2 * Math.PI);
    for (int k = 0; k < 320; k++) {
      double u = chance.between(-330, -70);
      double v = chance.between(-310, 310);
      double e = coast.east(u, v);
      double n = coast.north(u, v);
      double shore = coast.at(e, n);
      if (shore > -14 || shore < -190) {
        continue;
      }
      boat(Frame.at(e, n, wind + 0.14 * chance.gaussian()), Harbour.TOWN, chance);
    }
  }

  private void boat(Frame frame, String place, Chance chance) {
    Vessel.Kind kind = chance.pick(
        List.of(Vessel.Kind.DINGHY, Vessel.Kind.WORKBOAT, Vessel.Kind.BARGE), 58, 35, 7);
    double[] size = Shipwright.size(kind, chance);
    if (kind == Vessel.Kind.WORKBOAT) {
      size[0] = Math.min(size[0], 15);
      size[1] = Math.min(size[1], 5.2);
    }
    if (!chance.happens(0.78)) {
      buoy(frame.east(), frame.north(), chance);
    } else if (ships.fits(frame, size[0] + 8, size[1] + 8, true)) {
      ships.launch(frame, kind, size[0], size[1], 0, place, Vessel.State.MOORED, 1, chance);
      buoy(frame.e(size[0] / 2 + 3, 0), frame.n(size[0] / 2 + 3, 0), chance);
    }
  }

  private void buoy(double e, double n, Chance chance) {
    double r = chance.between(0.35, 0.9);
    things.add(
        new Crown(e, n, r * 0.4, r, r, chance.happens(0.7) ? Material.BUOY : Material.PAINT, 1f));
  }

  private void boats(Harbour.Landing landing, Chance chance) {
    Frame out = landing.out();
    for (int side = -1; side <= 1; side += 2) {
      for (double u = 14; u < landing.length() - 4; u += chance.between(8, 14)) {
        double[] size = Shipwright.size(Vessel.Kind.WORKBOAT, chance);
        size[0] = Math.min(size[0], 11);
        size[1] = Math.min(size[1], 3.8);
        Frame berth = out.moved(u, side * (2.5 + size[1] / 2), 0.03 * chance.gaussian());
        if (chance.happens(0.55) && ships.fits(berth, size[0], size[1], true)) {
          ships.launch(
              berth,
              Vessel.Kind.WORKBOAT,
              size[0],
              size[1],
              0,
              landing.place(),
              Vessel.State.BERTHED,
              1,
              chance);
        }
      }
    }
    double wind = chance.between(0, 2 * Math.PI);
    for (int k = 0; k < 14; k++) {
      double u = chance.between(20, 110);
      double v = chance.between(-70, 70);
      boat(
          Frame.at(out.e(u, v), out.n(u, v), wind + 0.14 * chance.gaussian()),
          landing.place(),
          chance);
    }
    for (int k = 0; k < 5; k++) {
      Frame spot = out.moved(-chance.between(1, 12), chance.between(-26, 26), chance.unit() - 0.5);
      ashore(spot, landing.place(), chance);
    }
  }

  /** A dinghy drawn up on the shore or standing in a yard. */
  void ashore(Frame spot, String place, Chance chance) {
    double[] size = Shipwright.size(Vessel.Kind.DINGHY, chance);
    if (ships.fits(spot, size[0], size[1], false)
        && ground.roads().beyondEdge(spot.east(), spot.north()) > 3) {
      ships.launch(
          spot,
          Vessel.Kind.DINGHY,
          size[0],
          size[1],
          ground.height(spot.east(), spot.north()),
          place,
          Vessel.State.ASHORE,
          1,
          chance);
    }
  }

  private void underWay(double e, double n, Chance chance) {
    double shore = coast.at(e, n);
    double course = chance.between(0, 2 * Math.PI);
    Vessel.Kind kind = chance.pick(
        List.of(Vessel.Kind.WORKBOAT, Vessel.Kind.BARGE, Vessel.Kind.DINGHY), 55, 12, 33);
    double[] size = Shipwright.size(kind, chance);
    Frame frame = Frame.at(e, n, course);
    if (chance.happens(0.75)
        && shore < -35
        && (coast.front(e, n) == 0 || coast.u(e, n) < -230)
        && coast.at(frame.e(-size[0] * 5, 0), frame.n(-size[0] * 5, 0)) < -12
        && ships.fits(frame, size[0] + 12, size[1] + 12, true)) {
      ships.launch(
          frame, kind, size[0], size[1], 0, "the sound", Vessel.State.UNDER_WAY, 1, chance);
    }
  }

  /** Nets, boxes and creels, heaped or stacked. */
  private void gear(Frame spot, double level, Chance chance) {
    float[] rho = switch (chance.weighted(35, 25, 20, 20)) {
      case 0 -> Material.PASTURE.toned(chance.between(0.6, 1.4), -0.06);
      case 1 -> Clutter.coat(chance);
      case 2 -> Material.TIMBER.toned(chance.between(0.5, 1.1), 0);
      default -> Material.PAINT.toned(chance.between(0.3, 1.7), 0.02 * chance.gaussian());
    };
    Surface surface = Surface.of(Material.NET, rho);
    double top = level + chance.between(0.5, 2.2);
    things.add(Solid.box(
        spot.oblong(0, 0, chance.between(1.2, 6), chance.between(1.1, 2.6)),
        level - 0.3,
        top,
        surface,
        surface));
  }
}
