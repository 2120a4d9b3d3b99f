package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.ground.Terrace;
import sharpkestrel.demo.ground.TownPlan;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Yards with what stands in them, and vehicles in lanes, in bays, along kerbs and on the road. */
final class Traffic {

  private final Ground ground;
  private final Things things;
  private final Garage garage;
  private final Clutter clutter;

  Traffic(Ground ground, Things things) {
    this.ground = ground;
    this.things = things;
    clutter = new Clutter(ground, things, true);
    garage = new Garage(things);
  }

  /** Paves the town's yards. */
  void pave() {
    for (TownPlan.Yard yard : TownPlan.yards(ground.coast())) {
      Terrace t = yard.terrace();
      Chance chance = Chance.of(ground.seed(), 61, yard.purpose().ordinal());
      Frame frame = Frame.at(t.east(), t.north(), t.angle());
      boolean paved = yard.purpose() != TownPlan.Purpose.BOATYARD;
      Material material =
          paved ? chance.happens(0.5) ? Material.WET_ASPHALT : Material.ASPHALT : Material.GRAVEL;
      Surface cover = Surface.of(
          material, material.toned(Math.exp(0.15 * chance.gaussian()), 0.02 * chance.gaussian()));
      if (yard.purpose() == TownPlan.Purpose.FERRY) {
        cover =
            cover.with(Pattern.LANES, Material.PAINT_LINE.spectrum(), 3.1, t.angle() + Math.PI / 2);
      } else if (yard.purpose() == TownPlan.Purpose.MARKET) {
        cover = cover.with(Pattern.LANES, Material.PAINT_LINE.spectrum(), 2.5, t.angle());
      }
      things.add(new Patch(frame.oblong(0, 0, t.length(), t.width()), cover, 0));
    }
  }

  /** What stands in the yards, in the streets and on the roads on one day. */
  void fill(Extent extent, Anchorage anchorage, long day) {
    for (TownPlan.Yard yard : TownPlan.yards(ground.coast())) {
      Terrace t = yard.terrace();
      Chance chance = Chance.of(ground.seed(), 64, yard.purpose().ordinal(), day);
      Frame frame = Frame.at(t.east(), t.north(), t.angle());
      switch (yard.purpose()) {
        case FERRY -> ferry(frame, t, chance);
        case FREIGHT -> freight(frame, t, chance);
        case MARKET -> bays(frame, t.length(), t.width(), 0.86, chance);
        case BOATYARD -> boatyard(frame, t, anchorage, chance);
        default -> depot(frame, t, chance);
      }
    }
    streets(extent, day);
  }

  private double level(Frame frame) {
    return ground.height(frame.east(), frame.north());
  }

  private boolean park(
      Frame spot, Vehicle.Kind kind, double[] size, Vehicle.Place place, Chance chance) {
    if (!garage.fits(spot, size[0], size[1])) {
      return false;
    }
    garage.park(spot, kind, size[0], size[1], level(spot), place, chance);
    return true;
  }

  /** Lanes of vehicles nose to tail towards the slip, the first lanes the fullest. */
  private void ferry(Frame frame, Terrace t, Chance chance) {
    int lanes = (int) ((t.width() - 4) / 3.1);
    for (int lane = 0; lane < lanes; lane++) {
      // the lane is the space between two painted lines
      double v = (Math.floor(-t.width() / 2 / 3.1) + 1 + lane + 0.5) * 3.1;
      if (Math.abs(v) > t.width() / 2 - 1.4) {
        continue;
      }
      double full = t.length() * Math.max(0.1, 1.02 - 0.085 * lane - 0.12 * chance.unit());
      double u = t.length() / 2 - 2;
      while (u > t.length() / 2 - full + 6) {
        Vehicle.Kind kind = lane >= 3 && lane <= 4
            ? Garage.kind(chance, 15, 30, 55)
            : Garage.kind(chance, 84, 15, 1);
        double[] size = Garage.size(kind, chance);
        Frame spot = frame.moved(
            u - size[0] / 2, v + chance.between(-0.25, 0.25), 0.012 * chance.gaussian());
        if (Math.abs(u - size[0]) < t.length() / 2) {
          park(spot, kind, size, Vehicle.Place.FERRY, chance);
        }
        u -= size[0] + chance.between(0.6, 2.4);
        if (kind == Vehicle.Kind.LORRY && chance.happens(0.5)) {
          double[] behind = Garage.size(Vehicle.Kind.TRAILER, chance);
          Frame tail = frame.moved(u - behind[0] / 2 + 0.5, v, 0.01 * chance.gaussian());
          if (u - behind[0] > -t.length() / 2) {
            park(tail, Vehicle.Kind.TRAILER, behind, Vehicle.Place.FERRY, chance);
          }
          u -= behind[0] + 1;
        }
      }
    }
  }

  /** Rows of bays across the yard. */
  private void bays(Frame frame, double length, double width, double full, Chance chance) {
    for (double v = -width / 2 + 4; v < width / 2 - 2; v += 10.5) {
      for (double u = -length / 2 + 2.5 + 1.25; u < length / 2 - 2; u += 2.5) {
        if (chance.happens(full)) {
          Vehicle.Kind kind = Garage.kind(chance, 86, 14, 0);
          double[] size = Garage.size(kind, chance);
          double turn = chance.happens(0.5) ? Math.PI / 2 : -Math.PI / 2;
          // bays are painted from the yard's middle outwards
          double middle = (Math.floor(u / 2.5) + 0.5) * 2.5;
          park(
              frame.moved(middle, v + chance.between(-0.4, 0.4), turn + 0.02 * chance.gaussian()),
              kind,
              size,
              Vehicle.Place.YARD,
              chance);
        }
      }
    }
  }

  private void freight(Frame frame, Terrace t, Chance chance) {
    clutter.containers(frame.moved(-t.length() / 2 + 8, -t.width() / 2 + 3, 0), 5, 3, chance);
    clutter.timber(frame.moved(t.length() / 2 - 12, -t.width() / 2 + 5, 0), 3, chance);
    for (double u = -t.length() / 2 + 3; u < t.length() / 2 - 3; u += 3.6) {
      if (chance.happens(0.7)) {
        boolean trailer = chance.happens(0.4);
        Vehicle.Kind kind = trailer ? Vehicle.Kind.TRAILER : Vehicle.Kind.LORRY;
        double[] size = Garage.size(kind, chance);
        park(
            frame.moved(u, t.width() / 2 - 7.5, Math.PI / 2 + 0.02 * chance.gaussian()),
            kind,
            size,
            Vehicle.Place.YARD,
            chance);
      }
    }
  }

  private void boatyard(Frame frame, Terrace t, Anchorage anchorage, Chance chance) {
    for (double u = -t.length() / 2 + 4; u < t.length() / 2 - 4; u += chance.between(3.4, 5)) {
      for (double v = -t.width() / 2 + 5; v < t.width() / 2 - 4; v += 9.5) {
        double draw = chance.unit();
        Frame spot = frame.moved(u, v, Math.PI / 2 + 0.08 * chance.gaussian());
        if (draw < 0.5) {
          trailer(spot, chance.happens(0.6), anchorage, chance);
        } else if (draw < 0.75) {
          clutter.tarpaulin(spot, chance);
        }
      }
    }
  }

  /** A trailer for a boat, with its boat or without: the boat counts as a vessel, the trailer as nothing. */
  private void trailer(Frame spot, boolean loaded, Anchorage anchorage, Chance chance) {
    if (loaded) {
      anchorage.ashore(spot, "Boatyard", chance);
    } else if (things.free(spot.oblong(0, 0, 5.6, 2))) {
      Surface steel = Surface.of(Material.PAINT, Material.PAINT.toned(0.7, 0.01));
      double base = level(spot);
      things.take(spot.oblong(0, 0, 5.6, 2));
      things.add(Solid.box(spot.oblong(0, 0, 5.2, 0.5), base, base + 0.6, steel, steel));
      for (int side = -1; side <= 1; side += 2) {
        things.add(
            Solid.box(spot.oblong(-0.6, side * 0.85, 1.5, 0.35), base, base + 0.6, steel, steel));
      }
    }
  }

  private void depot(Frame frame, Terrace t, Chance chance) {
    clutter.timber(frame.moved(-t.length() / 2 + 10, -t.width() / 2 + 5, 0), 4, chance);
    clutter.containers(frame.moved(8, -t.width() / 2 + 3, 0), 3, 2, chance);
    for (int k = 0; k < 4; k++) {
      clutter.tarpaulin(frame.moved(chance.between(-20, 30), chance.between(0, 5), 0.1), chance);
    }
    bays(frame.moved(0, t.width() / 2 - 8, 0), t.length(), 14, 0.6, chance);
  }

  /** Vehicles along kerbs in the town, beside walls, and under way elsewhere. */
  private void streets(Extent extent, long day) {
    for (Road road : ground.roads().all()) {
      Chance chance =
          Chance.of(ground.seed(), 62, Math.round(road.e(0) * 10), Math.round(road.n(0) * 10), day);
      for (int k = 0; k + 1 < road.points(); k++) {
        if (!extent.grown(50).holds(road.e(k), road.n(k))) {
          continue;
        }
        double angle = Math.atan2(road.n(k + 1) - road.n(k), road.e(k + 1) - road.e(k));
        double length = Math.hypot(road.n(k + 1) - road.n(k), road.e(k + 1) - road.e(k));
        Frame middle =
            Frame.at((road.e(k) + road.e(k + 1)) / 2, (road.n(k) + road.n(k + 1)) / 2, angle);
        boolean town = ground.coast().town(middle.east(), middle.north()) > 0.05;
        if (town && road.kind() != Road.Kind.TRACK) {
          kerb(middle, road.kind(), length, chance);
        } else if (chance.happens(length / (road.kind() == Road.Kind.MAIN ? 110 : 320))) {
          double side = road.kind() == Road.Kind.MAIN ? 1.5 : 0.3;
          boolean ahead = chance.happens(0.5);
          Vehicle.Kind kind = Garage.kind(chance, 70, 20, 10);
          double[] size = Garage.size(kind, chance);
          park(
              middle.moved(0, ahead ? -side : side, ahead ? 0 : Math.PI),
              kind,
              size,
              Vehicle.Place.ROAD,
              chance);
        }
      }
    }
    for (Building building : things.buildings()) {
      if (building.use() != Building.Use.SHED) {
        beside(building, day);
      }
    }
  }

  private void kerb(Frame middle, Road.Kind kind, double length, Chance chance) {
    for (double u = -length / 2; u < length / 2; u += 6.2) {
      if (!chance.happens(kind == Road.Kind.LANE ? 0.12 : 0.32)) {
        continue;
      }
      int side = chance.happens(0.5) ? 1 : -1;
      Vehicle.Kind what = Garage.kind(chance, 80, 18, 2);
      double[] size = Garage.size(what, chance);
      double off = side * (kind.half - size[1] / 2 + 0.25);
      park(
          middle.moved(u, off, (side > 0 ? Math.PI : 0) + 0.02 * chance.gaussian()),
          what,
          size,
          Vehicle.Place.STREET,
          chance);
    }
  }

  /** A car by a house, sometimes hard by its wall and in its shadow. */
  private void beside(Building building, long day) {
    Chance chance = Chance.of(ground.seed(), 63, building.id(), day);
    if (!chance.happens(0.34)) {
      return;
    }
    double[] plan = building.parts().get(0).plan();
    int k = 2 * chance.whole(0, plan.length / 2 - 1);
    int j = (k + 2) % plan.length;
    double angle = Math.atan2(plan[j + 1] - plan[k + 1], plan[j] - plan[k]);
    Vehicle.Kind kind = Garage.kind(chance, 80, 20, 0);
    double[] size = Garage.size(kind, chance);
    Frame wall = Frame.at((plan[k] + plan[j]) / 2, (plan[k + 1] + plan[j + 1]) / 2, angle);
    Frame spot = wall.moved(
        chance.between(-2, 2), -(size[1] / 2 + chance.between(0.5, 2.2)), 0.05 * chance.gaussian());
    double[] ring = Polygons.oblong(spot.east(), spot.north(), angle, size[0], size[1]);
    for (int i = 0; i < ring.length; i += 2) {
      if (!ground.buildable(ring[i], ring[i + 1])) {
        return;
      }
    }
    park(spot, kind, size, Vehicle.Place.YARD, chance);
  }
}
