package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Vehicles of a region inland on one day: in bays and drives, along kerbs, and under way. */
final class StreetLife {

  private static final double BAY = 2.5;

  private final Ground ground;
  private final Things things;
  private final Garage garage;

  StreetLife(Ground ground, Things things) {
    this.ground = ground;
    this.things = things;
    garage = new Garage(things);
  }

  void fill(Extent extent, List<Bays> bays, long day) {
    for (Bays field : bays) {
      Frame frame = field.frame();
      Chance chance = Chance.of(
          ground.seed(), 66, Math.round(frame.east() * 10), Math.round(frame.north() * 10), day);
      if (field.length() == 0) {
        if (chance.happens(field.full())) {
          park(frame, Garage.kind(chance, 84, 16, 0), Vehicle.Place.YARD, chance);
        }
      } else {
        park(field, chance);
      }
    }
    for (Road road : ground.roads().all()) {
      if (road.kind() != Road.Kind.RAIL) {
        along(road, extent, day);
      }
    }
  }

  private void park(Frame spot, Vehicle.Kind kind, Vehicle.Place place, Chance chance) {
    double[] size = Garage.size(kind, chance);
    if (garage.fits(spot, size[0], size[1])) {
      double level = ground.height(spot.east(), spot.north());
      garage.park(spot, kind, size[0], size[1], level, place, chance);
    }
  }

  /** Rows of bays, two and two, with lanes between them. */
  private void park(Bays field, Chance chance) {
    double l = field.length();
    double w = field.width();
    for (double v = -w / 2 + 3.2; v < w / 2 - 2.6; v += 8.4) {
      for (double u = -l / 2 + 2 * BAY; u < l / 2 - BAY; u += BAY) {
        if (chance.happens(field.full())) {
          double turn = chance.happens(0.5) ? Math.PI / 2 : -Math.PI / 2;
          double middle = (Math.floor(u / BAY) + 0.5) * BAY;
          park(
              field
                  .frame()
                  .moved(middle, v + chance.between(-0.3, 0.3), turn + 0.02 * chance.gaussian()),
              Garage.kind(chance, 90, 9, 1),
              Vehicle.Place.YARD,
              chance);
        }
      }
    }
  }

  private void along(Road road, Extent extent, long day) {
    Chance chance =
        Chance.of(ground.seed(), 67, Math.round(road.e(0) * 10), Math.round(road.n(0) * 10), day);
    for (int k = 0; k + 1 < road.points(); k++) {
      if (!extent.grown(50).holds(road.e(k), road.n(k))) {
        continue;
      }
      double de = road.e(k + 1) - road.e(k);
      double dn = road.n(k + 1) - road.n(k);
      double length = Math.hypot(de, dn);
      Frame middle = Frame.at(
          (road.e(k) + road.e(k + 1)) / 2, (road.n(k) + road.n(k + 1)) / 2, Math.atan2(dn, de));
      Parcel.Use use = ground.parcels().at(middle.e(0, 9), middle.n(0, 9)).use();
      if (use.built() && road.kind() != Road.Kind.AVENUE && road.kind() != Road.Kind.TRACK) {
        kerbs(middle, road.kind(), length, chance);
      }
      moving(middle, road.kind(), length, chance);
    }
  }

  private void kerbs(Frame middle, Road.Kind kind, double length, Chance chance) {
    for (double u = -length / 2 + 3; u < length / 2; u += 6.2) {
      if (chance.happens(kind == Road.Kind.LANE ? 0.12 : 0.28)) {
        int side = chance.happens(0.5) ? 1 : -1;
        double off = side * (kind.half - 0.75);
        park(
            middle.moved(u, off, (side > 0 ? Math.PI : 0) + 0.02 * chance.gaussian()),
            Garage.kind(chance, 82, 16, 2),
            Vehicle.Place.STREET,
            chance);
      }
    }
  }

  private void moving(Frame middle, Road.Kind kind, double length, Chance chance) {
    double gap = switch (kind) {
      case AVENUE -> 26;
      case MAIN -> 70;
      case STREET, MINOR -> 240;
      default -> 700;
    };
    if (chance.happens(length / gap)) {
      boolean ahead = chance.happens(0.5);
      double lane = kind == Road.Kind.AVENUE ? chance.happens(0.5) ? 2 : 5 : kind.half * 0.45;
      park(
          middle.moved(
              chance.between(-0.4, 0.4) * length, ahead ? -lane : lane, ahead ? 0 : Math.PI),
          Garage.kind(chance, 74, 16, 10),
          Vehicle.Place.ROAD,
          chance);
    }
  }
}
