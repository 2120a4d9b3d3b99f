package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Extent;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Sites;
import sharpkestrel.demo.ground.TownPlan;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** Quays, jetties, pontoons, the ferry slip, a breakwater, and the vessels that lie at them. */
final class Harbour {

  static final String TOWN = "Fenwrack harbour";
  private static final double QUAY_LEVEL = 2.6;
  private static final double SQUARE = 600;
  private static final double BERTH = 4.1;
  /** Where along the shore they begin, in the town's frame. */
  private static final double[] JETTIES = {-268, -176, -92, -8, 92, 176};

  private static final double[] MARINAS = {42, 134, -50};

  /** A small jetty below a hamlet. */
  private record Landing(Frame out, double length, String place, long key) {}

  private final Ground ground;
  private final Coast coast;
  private final Things things;
  private final Shipwright ships;
  private final double[][] jetties;
  private final double[] marinas;
  private final List<Landing> landings;

  Harbour(Ground ground, Things things) {
    this(
        ground,
        things,
        new double[JETTIES.length][],
        new double[MARINAS.length],
        new ArrayList<>());
  }

  private Harbour(
      Ground ground, Things things, double[][] jetties, double[] marinas, List<Landing> landings) {
    this.ground = ground;
    coast = ground.coast();
    this.things = things;
    ships = new Shipwright(ground, things);
    this.jetties = jetties;
    this.marinas = marinas;
    this.landings = landings;
  }

  /** The same harbour among other things: those of another day. */
  Harbour among(Things others) {
    return new Harbour(ground, others, jetties, marinas, landings);
  }

  /** Quays, jetties and pontoons of the town, pens in the sound, landings of the hamlets. */
  void build(Extent extent) {
    Chance chance = Chance.of(ground.seed(), 51);
    quay(chance);
    for (int k = 0; k < JETTIES.length; k++) {
      jetties[k] = new double[] {
        chance.between(68, 122) * (Math.abs(JETTIES[k]) > 150 ? 0.8 : 1), chance.between(7, 12)
      };
      jetty(JETTIES[k], jetties[k][0], jetties[k][1], chance);
    }
    slip(246, chance);
    for (int k = 0; k < MARINAS.length; k++) {
      marinas[k] = chance.between(76, 98);
      marina(MARINAS[k], marinas[k], chance);
    }
    breakwater(chance);
    for (Sites.Site site : ground.sites().all()) {
      if (site.kind() == Sites.Kind.HAMLET && extent.grown(250).holds(site.east(), site.north())) {
        landing(site, Chance.of(ground.seed(), 52, site.key()));
      }
    }
    squares(extent, (i, j) -> {
      Chance here = Chance.of(ground.seed(), 53, i, j);
      double e = (i + here.between(0.2, 0.8)) * SQUARE;
      double n = (j + here.between(0.2, 0.8)) * SQUARE;
      if (coast.at(e, n) < -95 && Math.abs(coast.v(e, n)) + Math.abs(coast.u(e, n)) > 420) {
        pens(e, n, here);
      }
    });
  }

  /** The vessels of one day, and what lies on the quays. */
  void fill(Extent extent, long day) {
    Chance chance = Chance.of(ground.seed(), 54, day);
    for (int k = 0; k < MARINAS.length; k++) {
      smallBoats(MARINAS[k], marinas[k], chance);
    }
    for (int k = 0; k < JETTIES.length; k++) {
      for (int side = -1; side <= 1; side += 2) {
        berths(JETTIES[k], side, jetties[k], chance);
      }
    }
    for (double v = -250; v < 280; v += 21) {
      double u = TownPlan.atShore(coast, v, -8.5);
      Frame berth = Frame.at(coast.east(u, v), coast.north(u, v), quayLine(v));
      raft(berth, -1, 3, chance);
    }
    moorings(chance);
    for (double v = -285; v < 285; v += chance.between(4, 11)) {
      double u = TownPlan.atShore(coast, v, chance.between(-4.5, 6));
      Frame spot =
          Frame.at(coast.east(u, v), coast.north(u, v), quayLine(v) + 0.1 * chance.gaussian());
      gear(spot, QUAY_LEVEL, chance);
    }
    for (Landing landing : landings) {
      boats(landing, Chance.of(ground.seed(), 55, landing.key, day));
    }
    squares(extent, (i, j) -> {
      Chance here = Chance.of(ground.seed(), 56, i, j, day);
      for (int k = 0; k < 3; k++) {
        underWay((i + here.unit()) * SQUARE, (j + here.unit()) * SQUARE, here);
      }
    });
  }

  private interface Square {
    void at(long i, long j);
  }

  private static void squares(Extent extent, Square square) {
    for (long j = (long) Math.floor(extent.south() / SQUARE); j * SQUARE < extent.north(); j++) {
      for (long i = (long) Math.floor(extent.west() / SQUARE); i * SQUARE < extent.east(); i++) {
        square.at(i, j);
      }
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

  private double quayLine(double v) {
    double before = TownPlan.atShore(coast, v - 12, -7);
    double after = TownPlan.atShore(coast, v + 12, -7);
    return coast.inland() + Math.PI / 2 - Math.atan2(after - before, 24);
  }

  private static Surface concrete(Chance chance) {
    return Surface.of(
        Material.CONCRETE,
        Material.CONCRETE.toned(chance.between(0.62, 1.05), 0.012 * chance.gaussian()));
  }

  /** A wall of stone and an apron of concrete along the head of the cove. */
  private void quay(Chance chance) {
    Surface wall = Surface.of(Material.STONE_WALL, Material.STONE_WALL.toned(0.7, 0));
    for (double v = -300; v < 300; v += 20) {
      double in0 = TownPlan.atShore(coast, v, 9);
      double in1 = TownPlan.atShore(coast, v + 20, 9);
      double out0 = TownPlan.atShore(coast, v, -7);
      double out1 = TownPlan.atShore(coast, v + 20, -7);
      double[] ring = town(out1, v + 20.05, in1, v + 20.05, in0, v, out0, v);
      if (Polygons.area(ring) < 0) {
        ring = town(out0, v, in0, v, in1, v + 20.05, out1, v + 20.05);
      }
      things.add(new Solid(ring, 0, new double[][] {{QUAY_LEVEL, 0, 0}}, wall, concrete(chance)));
      things.take(ring);
    }
  }

  private double[] town(double... uv) {
    double[] ring = new double[uv.length];
    for (int i = 0; i < uv.length; i += 2) {
      ring[i] = coast.east(uv[i], uv[i + 1]);
      ring[i + 1] = coast.north(uv[i], uv[i + 1]);
    }
    return ring;
  }

  /** A frame at the quay's edge that points out to sea. */
  private Frame seaward(double v) {
    double u = TownPlan.atShore(coast, v, -6);
    return Frame.at(coast.east(u, v), coast.north(u, v), coast.inland() + Math.PI);
  }

  private void jetty(double v, double length, double width, Chance chance) {
    Frame out = seaward(v);
    double[] ring = out.oblong(length / 2 - 4, 0, length, width);
    boolean timber = chance.happens(0.35);
    Surface top = timber
        ? Surface.of(Material.DECK, Material.DECK.toned(chance.between(0.8, 1.3), 0))
            .with(Pattern.STRIPES, Material.PEAT.spectrum(), 0.9, out.angle())
        : concrete(chance);
    Surface wall = Surface.of(Material.STONE_WALL, Material.STONE_WALL.toned(0.6, 0));
    things.add(Solid.box(ring, 0, QUAY_LEVEL - 0.1, wall, top));
    things.take(ring);
  }

  /** A ramp of concrete down into the water, for the ferry. */
  private void slip(double v, Chance chance) {
    Frame out = seaward(v);
    double length = 34;
    double[] ring = out.oblong(length / 2 - 6, 0, length, 15);
    double fall = QUAY_LEVEL / length;
    double[][] roof = {{QUAY_LEVEL / 2 + 0.1, -fall * out.cos(), -fall * out.sin()}};
    Surface top = concrete(chance);
    things.add(new Solid(ring, -0.5, roof, top, top));
    things.take(ring);
  }

  /** A pontoon with fingers. */
  private void marina(double v, double length, Chance chance) {
    Frame out = seaward(v);
    Surface planks = Surface.of(
            Material.PONTOON, Material.PONTOON.toned(chance.between(0.8, 1.15), 0))
        .with(Pattern.STRIPES, Material.DECK.spectrum(), 1.2, out.angle());
    double[] spine = out.oblong(length / 2, 0, length, 2.4);
    things.add(Solid.box(spine, 0, 0.55, planks, planks));
    things.take(spine);
    for (double u = 10; u < length - 3; u += 2 * BERTH) {
      for (int side = -1; side <= 1; side += 2) {
        double[] arm = out.oblong(u - BERTH / 2, side * 4.6, 0.9, 7);
        things.add(Solid.box(arm, 0, 0.5, planks, planks));
      }
    }
  }

  /** Small boats between the fingers. */
  private void smallBoats(double v, double length, Chance chance) {
    Frame out = seaward(v);
    for (double u = 10; u < length - 3; u += BERTH) {
      for (int side = -1; side <= 1; side += 2) {
        if (chance.happens(0.84)) {
          boolean large = chance.happens(0.25);
          Vessel.Kind kind = large ? Vessel.Kind.WORKBOAT : Vessel.Kind.DINGHY;
          double l = large ? chance.between(7.5, 9.5) : chance.between(4, 6.6);
          double b = Math.min(2.75, l / chance.between(2.4, 3));
          double turn = side * (chance.happens(0.7) ? -1 : 1) * Math.PI / 2;
          Frame berth = out.moved(u, side * (1.5 + l / 2), turn + 0.03 * chance.gaussian());
          if (ships.fits(berth, l, b, true)) {
            ships.launch(berth, kind, l, b, 0, TOWN, Vessel.State.BERTHED, 1, chance);
          }
        }
      }
    }
  }

  /** A mound of boulders from the headland across part of the mouth. */
  private void breakwater(Chance chance) {
    double side = chance.happens(0.5) ? 1 : -1;
    double u0 = TownPlan.atShore(coast, side * 330, -2);
    double at = Math.min(u0 - 8, -90);
    for (int k = 0; k < 62; k++) {
      double v = side * (338 - k * 3.6);
      double u = at - 26 * Math.sin(k / 62.0 * Math.PI / 2) + chance.between(-0.8, 0.8);
      double e = coast.east(u, v);
      double n = coast.north(u, v);
      if (coast.at(e, n) > 5) {
        continue;
      }
      Frame block = Frame.at(e, n, chance.between(0, 3));
      for (int j = -1; j <= 1; j++) {
        double size = chance.between(3.4, 5.2) * (j == 0 ? 1.15 : 0.9);
        Frame spot = block.moved(0, 0, 0);
        double be = spot.east() + coast.east(j * 3.2, 0) - coast.east(0, 0);
        double bn = spot.north() + coast.north(j * 3.2, 0) - coast.north(0, 0);
        Surface stone =
            Surface.of(Material.ROCK, Material.ROCK.toned(chance.between(0.7, 1.5), 0.01));
        double[] ring = Polygons.oblong(be, bn, block.angle() + j, size, size * 0.8);
        double top = (j == 0 ? 2.8 : 1.2) + chance.between(-0.5, 0.5);
        double lean = chance.between(-0.3, 0.3);
        things.add(new Solid(ring, 0, new double[][] {{top, lean, 0.2 * lean}}, stone, stone));
        things.take(ring);
      }
    }
  }

  /** Rafts along a jetty's side. */
  private void berths(double v, int side, double[] jetty, Chance chance) {
    Frame out = seaward(v);
    for (double u = 20; u < jetty[0] - 8; u += chance.between(17, 27)) {
      Frame berth = out.moved(u, side * (jetty[1] / 2 + 0.6), 0);
      raft(berth, side, 5, chance);
      gear(
          out.moved(u, side * chance.between(0.05, 0.35) * jetty[1], chance.between(-0.3, 0.3)),
          QUAY_LEVEL - 0.1,
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
          TOWN,
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
      boat(Frame.at(e, n, wind + 0.14 * chance.gaussian()), TOWN, chance);
    }
  }

  private void boat(Frame frame, String place, Chance chance) {
    Vessel.Kind kind = switch (chance.weighted(58, 35, 7)) {
      case 0 -> Vessel.Kind.DINGHY;
      case 1 -> Vessel.Kind.WORKBOAT;
      default -> Vessel.Kind.BARGE;
    };
    double[] size = Shipwright.size(kind, chance);
    if (kind == Vessel.Kind.WORKBOAT) {
      size[0] = Math.min(size[0], 15);
      size[1] = Math.min(size[1], 5.2);
    }
    if (!chance.happens(0.78)) {
      buoy(frame.east(), frame.north(), chance);
    } else if (ships.fits(frame.moved(0, 0, 0), size[0] + 8, size[1] + 8, true)) {
      ships.launch(frame, kind, size[0], size[1], 0, place, Vessel.State.MOORED, 1, chance);
      buoy(frame.e(size[0] / 2 + 3, 0), frame.n(size[0] / 2 + 3, 0), chance);
    }
  }

  private void buoy(double e, double n, Chance chance) {
    double r = chance.between(0.35, 0.9);
    things.add(
        new Crown(e, n, r * 0.4, r, r, chance.happens(0.7) ? Material.BUOY : Material.PAINT, 1f));
  }

  private void landing(Sites.Site site, Chance chance) {
    double best = 260;
    double angle = 0;
    for (int k = 0; k < 36; k++) {
      double a = k * Math.PI / 18;
      for (double r = 10; r < best; r += 6) {
        if (coast.at(site.east() + r * Math.cos(a), site.north() + r * Math.sin(a)) < 0) {
          best = r;
          angle = a;
          break;
        }
      }
    }
    if (best >= 259) {
      return;
    }
    Frame out = Frame.at(
        site.east() + (best - 6) * Math.cos(angle),
        site.north() + (best - 6) * Math.sin(angle),
        angle);
    double length = chance.between(22, 46);
    double[] ring = out.oblong(length / 2, 0, length, chance.between(2.6, 4.6));
    if (!things.free(ring)) {
      return;
    }
    Surface top = concrete(chance);
    things.add(Solid.box(ring, 0, 1.5, top, top));
    things.take(ring);
    landings.add(new Landing(out, length, "Landing " + site.key() % 1000, site.key()));
  }

  private void boats(Landing landing, Chance chance) {
    Frame out = landing.out;
    for (int side = -1; side <= 1; side += 2) {
      for (double u = 14; u < landing.length - 4; u += chance.between(8, 14)) {
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
              landing.place,
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
          landing.place,
          chance);
    }
    for (int k = 0; k < 5; k++) {
      Frame spot = out.moved(-chance.between(1, 12), chance.between(-26, 26), chance.unit() - 0.5);
      ashore(spot, landing.place, chance);
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

  /** Two rows of pens with a raft for the feed. */
  private void pens(double e, double n, Chance chance) {
    if (!chance.happens(0.4)) {
      return;
    }
    Frame frame = Frame.at(e, n, chance.between(0, Math.PI));
    double radius = chance.between(8, 13);
    int columns = chance.whole(2, 5);
    for (int c = 0; c < columns; c++) {
      for (int r = 0; r < 2; r++) {
        double u = (c - columns / 2.0) * (2 * radius + 7);
        double v = r * (2 * radius + 7);
        if (coast.at(frame.e(u, v), frame.n(u, v)) < -radius - 10) {
          things.add(new Pen(frame.e(u, v), frame.n(u, v), radius));
          things.take(frame.oblong(u, v, 2 * radius + 2, 2 * radius + 2));
        }
      }
    }
    double[] raft = frame.oblong(-(columns / 2.0 + 1) * (2 * radius + 7), radius, 12, 7);
    double[] at = Polygons.middle(raft);
    if (coast.at(at[0], at[1]) < -12 && things.free(raft)) {
      Surface planks = Surface.of(Material.PONTOON);
      Surface hut = Surface.of(Material.PAINT, Material.PAINT.toned(1.3, 0));
      things.add(Solid.box(raft, 0, 0.9, planks, planks));
      things.add(Solid.box(Polygons.oblong(at[0], at[1], frame.angle(), 5, 4), 0.5, 3.6, hut, hut));
      things.take(raft);
    }
  }

  private void underWay(double e, double n, Chance chance) {
    double shore = coast.at(e, n);
    double course = chance.between(0, 2 * Math.PI);
    Vessel.Kind kind = switch (chance.weighted(55, 12, 33)) {
      case 0 -> Vessel.Kind.WORKBOAT;
      case 1 -> Vessel.Kind.BARGE;
      default -> Vessel.Kind.DINGHY;
    };
    double[] size = Shipwright.size(kind, chance);
    Frame frame = Frame.at(e, n, course);
    if (chance.happens(0.75)
        && shore < -35
        && coast.at(frame.e(-size[0] * 5, 0), frame.n(-size[0] * 5, 0)) < -12
        && ships.fits(frame, size[0] + 12, size[1] + 12, true)) {
      ships.launch(
          frame, kind, size[0], size[1], 0, "the sound", Vessel.State.UNDER_WAY, 1, chance);
    }
  }
}
