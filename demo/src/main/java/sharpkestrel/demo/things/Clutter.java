package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** What lies about and is taken for something else: stacks, tunnels, covers, bleached swards, bare rock, wet yards. */
final class Clutter {

  private final Ground ground;
  private final Things things;
  private final boolean inYards;

  /**
   * @param inYards whether it is put into yards, which are kept free of it elsewhere
   */
  Clutter(Ground ground, Things things, boolean inYards) {
    this.ground = ground;
    this.things = things;
    this.inYards = inYards;
  }

  private boolean take(double[] ring) {
    double[] middle = Polygons.middle(ring);
    boolean fit = inYards
        ? things.free(ring)
        : things.open(ring)
            && ground.buildable(middle[0], middle[1])
            && ground.roads().beyondEdge(middle[0], middle[1]) > 1;
    if (!fit) {
      return false;
    }
    things.take(ring);
    return true;
  }

  /** A yard of wet asphalt, concrete or gravel. */
  boolean yard(Frame frame, double length, double width, Chance chance) {
    double[] ring = frame.oblong(0, 0, length, width);
    if (!take(ring)) {
      return false;
    }
    Material material =
        chance.pick(List.of(Material.WET_ASPHALT, Material.CONCRETE, Material.GRAVEL), 40, 28, 32);
    float[] rho = material.toned(Math.exp(0.24 * chance.gaussian()), 0.024 * chance.gaussian());
    things.add(new Patch(ring, Surface.of(material, rho), material == Material.GRAVEL ? 0.8 : 0));
    return true;
  }

  /** Covers what is left open of a yard; nothing is kept from standing on it. */
  void pave(double[] ring, double clinker, Chance chance) {
    if (ring.length > 0 && Polygons.area(ring) > 12) {
      Material material = chance.happens(clinker)
          ? Material.CLINKER
          : chance.pick(List.of(Material.PAVING, Material.CONCRETE, Material.GRAVEL), 50, 20, 30);
      float[] rho =
          material.toned(0.85 * Math.exp(0.24 * chance.gaussian()), 0.024 * chance.gaussian());
      things.add(new Patch(ring, Surface.of(material, rho), material == Material.GRAVEL ? 0.8 : 0));
    }
  }

  /** A drive from the street, {@code u} along it. */
  void drive(Frame street, double deep, Chance chance) {
    Material material =
        chance.pick(List.of(Material.CONCRETE, Material.PAVING, Material.ASPHALT), 40, 30, 30);
    float[] rho = material.toned(Math.exp(0.2 * chance.gaussian()), 0.02 * chance.gaussian());
    things.add(new Patch(
        street.oblong(0, deep / 2 - 1.5, chance.between(2.6, 5.4), deep + 3),
        Surface.of(material, rho),
        0));
  }

  /** A pool in its rim of flags, within a plot. */
  void pool(Frame frame, double[] plot, Chance chance) {
    double length = chance.between(6, 11);
    double width = chance.between(3.2, 5);
    double[] rim = frame.oblong(0, 0, length + 3, width + 3);
    for (int k = 0; k < rim.length; k += 2) {
      if (!Polygons.holds(plot, rim[k], rim[k + 1])) {
        return;
      }
    }
    if (!take(rim)) {
      return;
    }
    float[] flags = Material.PAVING.toned(chance.between(1, 1.9), 0.01 * chance.gaussian());
    things.add(new Patch(rim, Surface.of(Material.PAVING, flags), 0));
    float[] water = Material.POOL.toned(chance.between(0.75, 1.2), -0.02);
    things.add(new Patch(frame.oblong(0, 0, length, width), Surface.of(Material.POOL, water), 0));
  }

  /** Asphalt with painted bays; false where it does not fit. */
  boolean carPark(Frame frame, double length, double width, double[] within, Chance chance) {
    double[] ring = frame.oblong(0, 0, length, width);
    for (int k = 0; k < ring.length; k += 2) {
      if (!Polygons.holds(within, ring[k], ring[k + 1])) {
        return false;
      }
    }
    if (!things.open(ring)) {
      return false;
    }
    float[] rho = Material.ASPHALT.toned(Math.exp(0.22 * chance.gaussian()), 0.02);
    things.add(new Patch(
        ring,
        Surface.of(Material.ASPHALT, rho)
            .with(Pattern.LANES, Material.PAINT_LINE.spectrum(), 2.5, frame.angle()),
        0));
    return true;
  }

  /** A sward as dry as a turf roof, of about its size. */
  void sward(Frame house, Chance chance) {
    double[] ring = free(house, chance.between(8, 16), chance.between(5.5, 10), chance);
    if (ring.length > 0) {
      float[] dry = Material.DRY_GRASS.toned(chance.between(0.75, 1.2), 0.02 * chance.gaussian());
      float[] green =
          Material.TURF_ROOF.toned(chance.between(0.75, 1.15), 0.02 * chance.gaussian());
      double share = Math.min(1, Math.max(0, 0.58 + 0.30 * chance.gaussian()));
      things.add(new Patch(
          ring,
          Surface.of(Material.DRY_GRASS, Material.mixed(green, dry, share))
              .with(Pattern.TUFTS, dry, 0.3, chance.between(0, 3)),
          1.2));
    }
  }

  /** Rock laid bare, as bright as new sheets. */
  void bareRock(Frame house, Chance chance) {
    double[] ring = free(house, chance.between(7, 17), chance.between(5, 9), chance);
    if (ring.length > 0) {
      float[] rho =
          Material.PALE_ROCK.toned(chance.between(0.68, 1.12), 0.028 * chance.gaussian() - 0.01);
      things.add(new Patch(ring, Surface.of(Material.PALE_ROCK, rho), 1.4));
    }
  }

  /** A place about a house, taken; empty where there is none. */
  private double[] free(Frame house, double length, double width, Chance chance) {
    for (int tries = 0; tries < 8; tries++) {
      double a = chance.between(0, 2 * Math.PI);
      double off = chance.between(13, 32);
      Frame spot = house.moved(off * Math.cos(a), off * Math.sin(a), chance.between(0, Math.PI));
      double[] ring = spot.oblong(0, 0, length, width);
      if (take(ring)) {
        return ring;
      }
    }
    return new double[0];
  }

  void polytunnel(Frame frame, Chance chance) {
    double length = chance.between(10, 24);
    double width = chance.between(4.5, 7);
    double[] ring = frame.oblong(0, 0, length, width);
    if (take(ring)) {
      float[] film = Material.FILM.toned(chance.between(0.75, 1.2), 0.015 * chance.gaussian());
      float[] hoop = Material.mixed(film, Material.PASTURE.spectrum(), 0.45);
      Surface skin =
          Surface.of(Material.FILM, film).with(Pattern.STRIPES, hoop, 1.9, frame.angle());
      double base = ground.height(frame.east(), frame.north());
      things.add(new Solid(ring, base, barrel(frame.angle(), base + 0.6, width), skin, skin));
    }
  }

  /** Six planes about a half round. */
  private static double[][] barrel(double angle, double spring, double width) {
    double radius = width / 2;
    double[][] planes = new double[6][];
    for (int k = 0; k < 6; k++) {
      double lean = Math.toRadians(-75 + 30 * k);
      // the plane that touches the round where its normal leans so far
      double slope = Math.tan(lean);
      double rise = radius * 0.8 / Math.cos(lean) * 0.9;
      planes[k] = new double[] {spring + rise, slope * Math.sin(angle), -slope * Math.cos(angle)};
    }
    return planes;
  }

  void greenhouse(Frame frame, Chance chance) {
    greenhouse(frame, chance.between(4, 15), chance);
  }

  void greenhouse(Frame frame, double length, Chance chance) {
    double width = chance.between(3, 6.5);
    double[] ring = frame.oblong(0, 0, length, width);
    if (take(ring)) {
      float[] pane = Material.GLASS.toned(chance.between(0.7, 1.5), 0.01 * chance.gaussian());
      Surface glass = Surface.of(Material.GLASS, pane)
          .with(Pattern.PANES, Material.WALL.spectrum(), 0.12, frame.angle());
      double base = ground.height(frame.east(), frame.north());
      double pitch = 0.5;
      double side = base + 1.9 + pitch * width / 2;
      double sin = Math.sin(frame.angle());
      double cos = Math.cos(frame.angle());
      things.add(new Solid(
          ring,
          base,
          new double[][] {{side, pitch * sin, -pitch * cos}, {side, -pitch * sin, pitch * cos}},
          glass,
          glass));
    }
  }

  void tarpaulin(Frame frame, Chance chance) {
    double[] ring = frame.oblong(0, 0, chance.between(3, 9), chance.between(2.4, 6));
    if (take(ring)) {
      float[] cloth = switch (chance.whole(0, 2)) {
        case 0 -> Material.TARPAULIN.toned(chance.between(0.7, 1.4), 0);
        case 1 -> Material.PAINT.toned(chance.between(0.9, 1.5), 0.01);
        default -> Material.mixed(Material.TARPAULIN.spectrum(), Material.PASTURE.spectrum(), 0.6);
      };
      Surface skin = Surface.of(Material.TARPAULIN, cloth);
      double base = ground.height(frame.east(), frame.north());
      things.add(Solid.box(ring, base, base + chance.between(0.5, 1.9), skin, skin));
    }
  }

  /** Round timber in stacks beside each other, ends to the sides. */
  void timber(Frame frame, int stacks, Chance chance) {
    double length = chance.between(3.6, 6);
    for (int k = 0; k < stacks; k++) {
      double run = chance.between(7, 16);
      Frame spot = frame.moved(0, k * (length + 0.8), 0);
      double[] ring = spot.oblong(0, 0, run, length);
      if (!take(ring)) {
        continue;
      }
      float[] log = Material.TIMBER.toned(chance.between(0.6, 1.15), 0.02 * chance.gaussian());
      float[] gap = Material.mixed(log, Material.PEAT.spectrum(), 0.75);
      Surface wood = Surface.of(Material.TIMBER, log)
          .with(Pattern.STRIPES, gap, chance.between(0.5, 0.8), spot.angle());
      double base = ground.height(spot.east(), spot.north());
      things.add(Solid.box(ring, base, base + chance.between(1.6, 3.4), wood, wood));
    }
  }

  /** Containers side by side, some on top of others. */
  void containers(Frame frame, int rows, int columns, Chance chance) {
    for (int r = 0; r < rows; r++) {
      for (int c = 0; c < columns; c++) {
        if (chance.happens(0.28)) {
          continue;
        }
        boolean longer = chance.happens(0.6);
        double length = longer ? 12.2 : 6.06;
        Frame spot = frame.moved(
            c * 13 + (longer ? 0 : chance.between(-3, 3)), r * 2.75, 0.006 * chance.gaussian());
        double[] ring = spot.oblong(0, 0, length, 2.44);
        if (!things.free(spot.oblong(0, 0, length - 0.3, 2.1))) {
          continue;
        }
        things.take(ring);
        int tiers = chance.weighted(60, 30, 10) + 1;
        float[] paint = coat(chance);
        float[] rib = Material.mixed(paint, Material.PEAT.spectrum(), 0.22);
        Surface steel =
            Surface.of(Material.CONTAINER, paint).with(Pattern.STRIPES, rib, 0.55, spot.angle());
        double base = ground.height(spot.east(), spot.north());
        things.add(Solid.box(ring, base, base + 2.6 * tiers, steel, steel));
      }
    }
  }

  /** Ship's and container colours: rust red, blue, green, grey, white. */
  static float[] coat(Chance chance) {
    float[][] coats = {
      {0.055f, 0.055f, 0.065f, 0.17f, 0.21f, 0.23f},
      {0.10f, 0.16f, 0.14f, 0.075f, 0.09f, 0.12f},
      {0.05f, 0.07f, 0.12f, 0.07f, 0.10f, 0.16f},
      {0.20f, 0.21f, 0.22f, 0.22f, 0.22f, 0.22f},
      {0.46f, 0.50f, 0.52f, 0.52f, 0.52f, 0.51f},
      {0.07f, 0.08f, 0.22f, 0.40f, 0.44f, 0.45f}
    };
    float[] coat = coats[chance.weighted(26, 24, 16, 14, 12, 8)].clone();
    float fade = (float) chance.between(0.75, 1.25);
    for (int b = 0; b < coat.length; b++) {
      coat[b] *= fade;
    }
    return coat;
  }

  /** What stands about a farmyard. */
  void farm(Frame yard, Chance chance) {
    if (chance.happens(0.6)) {
      polytunnel(yard.moved(chance.between(30, 44), chance.between(-20, 20), 0), chance);
    }
    if (chance.happens(0.7)) {
      tarpaulin(yard.moved(chance.between(-40, -28), chance.between(-20, 20), 0), chance);
    }
    if (chance.happens(0.5)) {
      timber(yard.moved(chance.between(-20, 20), chance.between(24, 34), 0), 2, chance);
    }
    sward(yard, chance);
    bareRock(yard, chance);
  }
}
