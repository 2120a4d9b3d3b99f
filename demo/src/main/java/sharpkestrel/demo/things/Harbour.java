package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Sites;
import sharpkestrel.demo.ground.TownPlan;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Quays, jetties, pontoons, the ferry slip, a breakwater, landings and pens: what is built by and in the water. */
final class Harbour {

  static final String TOWN = "Fenwrack harbour";
  static final double QUAY_LEVEL = 2.6;
  static final double SQUARE = 600;
  static final double BERTH = 4.1;
  /** Where along the shore they begin, in the town's frame. */
  private static final double[] JETTIES = {-268, -176, -92, -8, 92, 176, 262};

  private static final double[] MARINAS = {42, 134, -50};

  /** A jetty of the town, {@code v} along its shore. */
  record Jetty(double v, double length, double width) {}

  /** A pontoon with fingers. */
  record Marina(double v, double length) {}

  /** A small jetty below a hamlet. */
  record Landing(Frame out, double length, String place, long key) {}

  private final Ground ground;
  private final Coast coast;
  private final Things things;
  private final List<Jetty> jetties = new ArrayList<>();
  private final List<Marina> marinas = new ArrayList<>();
  private final List<Landing> landings = new ArrayList<>();

  Harbour(Ground ground, Things things) {
    this.ground = ground;
    coast = ground.coast();
    this.things = things;
  }

  /** Quays, jetties and pontoons of the town, pens in the sound, landings of the hamlets. */
  void build(Extent extent) {
    Chance chance = Chance.of(ground.seed(), 51);
    quay(chance);
    double mole = chance.happens(0.5) ? 1 : -1;
    for (double v : JETTIES) {
      if (v * mole > 200) {
        continue; // the breakwater begins there
      }
      double length = chance.between(68, 122) * (Math.abs(v) > 150 ? 0.8 : 1);
      jetties.add(new Jetty(v, length, chance.between(7, 12)));
      jetty(jetties.getLast(), chance);
    }
    slip(222, chance);
    for (double v : MARINAS) {
      marinas.add(new Marina(v, chance.between(76, 98)));
      marina(marinas.getLast(), chance);
    }
    breakwater(mole, chance);
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

  interface Square {
    void at(long i, long j);
  }

  static void squares(Extent extent, Square square) {
    for (long j = (long) Math.floor(extent.south() / SQUARE); j * SQUARE < extent.north(); j++) {
      for (long i = (long) Math.floor(extent.west() / SQUARE); i * SQUARE < extent.east(); i++) {
        square.at(i, j);
      }
    }
  }

  double quayLine(double v) {
    double before = TownPlan.atShore(coast, v - 12, -7);
    double after = TownPlan.atShore(coast, v + 12, -7);
    return coast.inland() + Math.PI / 2 - Math.atan2(after - before, 24);
  }

  List<Jetty> jetties() {
    return jetties;
  }

  List<Marina> marinas() {
    return marinas;
  }

  List<Landing> landings() {
    return landings;
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
  Frame seaward(double v) {
    double u = TownPlan.atShore(coast, v, -6);
    return Frame.at(coast.east(u, v), coast.north(u, v), coast.inland() + Math.PI);
  }

  private void jetty(Jetty jetty, Chance chance) {
    Frame out = seaward(jetty.v);
    double[] ring = out.oblong(jetty.length / 2 - 4, 0, jetty.length, jetty.width);
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
  private void marina(Marina marina, Chance chance) {
    double length = marina.length;
    Frame out = seaward(marina.v);
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

  /** A mound of boulders from a headland out past the jetties and across part of the mouth. */
  private void breakwater(double side, Chance chance) {
    double root = TownPlan.atShore(coast, side * 352, 4);
    double out = Math.min(root - 30, -chance.between(165, 185));
    double[][] bends = {{root, 352}, {out + 18, 300}, {out, 262}, {out - 10, 105}};
    for (int k = 0; k + 1 < bends.length; k++) {
      double du = bends[k + 1][0] - bends[k][0];
      double dv = bends[k + 1][1] - bends[k][1];
      double length = Math.hypot(du, dv);
      for (double d = 0; d < length; d += 3.4) {
        double u = bends[k][0] + du * d / length;
        double v = side * (bends[k][1] + dv * d / length);
        for (int row = -1; row <= 1; row++) {
          boulder(
              u + 3.2 * row * Math.abs(dv) / length,
              v - 3.2 * row * Math.signum(du) * Math.abs(du) / length,
              row == 0,
              chance);
        }
      }
    }
  }

  private void boulder(double u, double v, boolean crest, Chance chance) {
    double e = coast.east(u, v) + chance.between(-0.6, 0.6);
    double n = coast.north(u, v) + chance.between(-0.6, 0.6);
    double size = chance.between(3.4, 5.2) * (crest ? 1.15 : 0.9);
    double top = (crest ? 2.8 : 1.2) + chance.between(-0.5, 0.5);
    double lean = chance.between(-0.3, 0.3);
    double[] ring = Polygons.oblong(e, n, chance.between(0, 3), size, size * 0.8);
    if (coast.at(e, n) > 5) {
      return;
    }
    Surface stone = Surface.of(Material.ROCK, Material.ROCK.toned(chance.between(0.7, 1.5), 0.01));
    things.add(new Solid(ring, 0, new double[][] {{top, lean, 0.2 * lean}}, stone, stone));
    things.take(ring);
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
}
