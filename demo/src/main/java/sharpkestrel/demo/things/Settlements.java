package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.ground.Sites;
import sharpkestrel.demo.ground.TownPlan;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Builds the town along its streets, and hamlets, farms and crofts where the sites are. */
final class Settlements {

  private static final double VERGE = 0.5;

  private final Ground ground;
  private final Things things;
  private final Builder builder;
  private final Clutter clutter;

  Settlements(Ground ground, Things things, Builder builder, Clutter clutter) {
    this.ground = ground;
    this.things = things;
    this.builder = builder;
    this.clutter = clutter;
  }

  void town() {
    Chance chance = Chance.of(ground.seed(), 41);
    for (TownPlan.Yard yard : TownPlan.yards(ground.coast())) {
      var t = yard.terrace();
      things.reserve(
          Polygons.oblong(t.east(), t.north(), t.angle(), t.length() + 1, t.width() + 1));
    }
    landmarks(chance);
    for (Road road : ground.roads().all()) {
      if (ground.coast().front(road.e(0), road.n(0)) > 0
          || ground.coast().u(road.e(0), road.n(0)) > 0
              && Math.hypot(
                      ground.coast().u(road.e(0), road.n(0)),
                      ground.coast().v(road.e(0), road.n(0)))
                  < 480) {
        street(road, chance);
      }
    }
  }

  private void landmarks(Chance chance) {
    var coast = ground.coast();
    double v = chance.between(-60, 20);
    double u = TownPlan.atShore(coast, v, 146);
    Frame church = Frame.at(coast.east(u, v), coast.north(u, v), 0.1 * chance.gaussian());
    for (int k = 0; k < 40; k++) {
      Frame there = church.moved(chance.between(-40, 40), chance.between(-40, 40), 0);
      if (builder.build(there, Orders.church(chance), VERGE, chance)) {
        for (int j = 0; j < 20; j++) {
          if (builder.tower(
              there.e(chance.between(-26, -19), chance.between(-6, 6)),
              there.n(chance.between(-26, -19), chance.between(-6, 6)),
              2.6,
              chance.between(25, 30),
              Material.SLATE_ROOF,
              Building.Use.TOWER,
              chance)) {
            break;
          }
        }
        break;
      }
    }
    for (int k = 0, built = 0; k < 400 && built < 4; k++) {
      double cv = chance.between(-190, 190);
      double cu = TownPlan.atShore(coast, cv, chance.between(90, 270));
      Frame there = Frame.at(
          coast.east(cu, cv), coast.north(cu, cv), coast.inland() + chance.between(-0.1, 0.1));
      built += builder.build(there, Orders.court(chance), VERGE, chance) ? 1 : 0;
    }
    // silos and a mill between the freight yard and the town
    for (int k = 0; k < 3; k++) {
      for (int tries = 0; tries < 150; tries++) {
        double sv = -165 + chance.between(-14, 14);
        double su = TownPlan.atShore(coast, sv, chance.between(40, 58));
        if (ground.roads().beyondEdge(coast.east(su, sv), coast.north(su, sv)) > 6
            && builder.tower(
                coast.east(su, sv),
                coast.north(su, sv),
                chance.between(3, 4.6),
                chance.between(26, 39),
                chance.happens(0.5) ? Material.METAL_ROOF : Material.FELT_ROOF,
                Building.Use.TOWER,
                chance)) {
          break;
        }
      }
    }
  }

  /** Houses on both sides of a street, shoulder to shoulder by the shore and looser up the hill. */
  private void street(Road road, Chance chance) {
    for (int side = -1; side <= 1; side += 2) {
      double left = 2;
      for (int k = 0; k + 1 < road.points(); k++) {
        double de = road.e(k + 1) - road.e(k);
        double dn = road.n(k + 1) - road.n(k);
        double length = Math.hypot(de, dn);
        double angle = Math.atan2(dn, de);
        while (left < length) {
          double e = road.e(k) + de * left / length;
          double n = road.n(k) + dn * left / length;
          if (ground.coast().town(e, n) <= 0.02) {
            break;
          }
          left += plot(Frame.at(e, n, angle), side, road.kind().half, chance);
        }
        left -= length;
        left = Math.max(0, left);
      }
    }
  }

  /** Tries to build beside a street; returns metres to go on along it. */
  private double plot(Frame street, int side, double half, Chance chance) {
    double shore = ground.coast().smooth(street.east(), street.north());
    boolean works = shore < 62
        && (chance.happens(0.16)
            || Math.abs(ground.coast().v(street.east(), street.north())) > 130);
    Builder.Order order = works ? Orders.warehouse(chance) : Orders.townHouse(chance);
    boolean gable = chance.happens(0.25) && order.length() < 16;
    double deep = gable ? order.length() : order.width();
    double front = gable ? order.width() : order.length();
    double setback = works
        ? chance.between(1, 4)
        : shore < 140 ? chance.between(0.6, 1.8) : chance.between(1, 5);
    double off = side * (half + setback + deep / 2);
    double turn = (gable ? Math.PI / 2 : 0) + 0.02 * chance.gaussian();
    Frame frame = street.moved(front / 2, off, turn);
    if (!builder.build(frame, order, VERGE, chance)) {
      return 2.5;
    }
    if (chance.happens(0.95)) {
      backyard(frame, side * (gable ? -1 : 1), order, chance);
    }
    double gap =
        shore < 140 ? chance.happens(0.5) ? 0.75 : chance.between(1, 4) : chance.between(1.5, 7);
    return front + gap;
  }

  private void backyard(Frame house, int side, Builder.Order order, Chance chance) {
    double back = side * (order.width() / 2 + chance.between(3, 11));
    Frame spot =
        house.moved(chance.between(-0.5, 0.5) * order.length(), back, 0.06 * chance.gaussian());
    double draw = chance.unit();
    if (draw < 0.6) {
      builder.build(spot, Orders.shed(chance), 0.4, chance);
    } else if (draw < 0.66) {
      clutter.greenhouse(spot, chance);
    } else if (draw < 0.70) {
      clutter.tarpaulin(spot, chance);
    } else if (draw < 0.78) {
      clutter.sward(house, chance);
    } else if (draw < 0.84) {
      clutter.bareRock(house, chance);
    } else {
      clutter.yard(spot, chance.between(5, 11), chance.between(4, 8), chance);
    }
  }

  /** Hamlets, farms and crofts of the extent. */
  void country(Extent extent) {
    for (Sites.Site site : ground.sites().all()) {
      if (site.kind() == Sites.Kind.TOWN || !extent.grown(300).holds(site.east(), site.north())) {
        continue;
      }
      Chance chance = Chance.of(ground.seed(), 42, site.key());
      switch (site.kind()) {
        case HAMLET -> hamlet(site, chance);
        case FARM -> farm(site.east(), site.north(), chance);
        default -> croft(site.east(), site.north(), chance);
      }
    }
    scattered(extent);
  }

  private void hamlet(Sites.Site site, Chance chance) {
    int wanted = chance.whole(20, 42);
    for (int tries = 0, built = 0; tries < wanted * 14 && built < wanted; tries++) {
      double r = 18 + 135 * Math.sqrt(chance.unit());
      double a = chance.between(0, 2 * Math.PI);
      double e = site.east() + r * Math.cos(a);
      double n = site.north() + r * Math.sin(a);
      double beyond = ground.roads().beyondEdge(e, n);
      if (beyond < 5 || beyond > 34) {
        continue;
      }
      Frame frame = Frame.at(
          e, n, along(e, n) + 0.12 * chance.gaussian() + (chance.happens(0.3) ? Math.PI / 2 : 0));
      if (builder.build(frame, Orders.croft(chance), 1.5, chance)) {
        built++;
        around(frame, chance);
      }
    }
    if (chance.happens(0.5)) {
      farm(site.east() + chance.between(-90, 90), site.north() + chance.between(-90, 90), chance);
    }
  }

  /** Direction of the land's contours, radians: how houses on a slope lie. */
  private double along(double e, double n) {
    double ge = ground.height(e + 12, n) - ground.height(e - 12, n);
    double gn = ground.height(e, n + 12) - ground.height(e, n - 12);
    return Math.atan2(gn, ge) + Math.PI / 2;
  }

  private void farm(double e, double n, Chance chance) {
    Frame yard = Frame.at(e, n, along(e, n));
    clutter.yard(yard, chance.between(18, 30), chance.between(12, 20), chance);
    int barns = chance.whole(2, 4);
    for (int tries = 0, built = 0; tries < 60 && built < barns; tries++) {
      double a = chance.between(0, 2 * Math.PI);
      Frame spot =
          yard.moved(25 * Math.cos(a), 19 * Math.sin(a), chance.happens(0.5) ? 0 : Math.PI / 2);
      if (builder.build(spot, Orders.barn(chance), 1, chance)) {
        built++;
      }
    }
    for (int tries = 0; tries < 40; tries++) {
      double a = chance.between(0, 2 * Math.PI);
      Frame spot = yard.moved(46 * Math.cos(a), 38 * Math.sin(a), 0.2 * chance.gaussian());
      if (builder.build(spot, Orders.croft(chance), 1.5, chance)) {
        around(spot, chance);
        break;
      }
    }
    clutter.farm(yard, chance);
  }

  private void croft(double e, double n, Chance chance) {
    for (int tries = 0; tries < 30; tries++) {
      double at = e + chance.between(-45, 45);
      double up = n + chance.between(-45, 45);
      Frame frame = Frame.at(at, up, along(at, up));
      if (builder.build(frame, Orders.croft(chance), 2, chance)) {
        around(frame, chance);
        if (chance.happens(0.7)) {
          builder.build(
              frame.moved(chance.between(-16, 16), chance.between(12, 20), 0),
              Orders.barn(chance),
              1,
              chance);
        }
        return;
      }
    }
  }

  /** Single houses by the country roads. */
  private void scattered(Extent extent) {
    for (Road road : ground.roads().all()) {
      if (road.kind() == Road.Kind.TRACK) {
        continue;
      }
      Chance chance =
          Chance.of(ground.seed(), 43, Math.round(road.e(0) * 10), Math.round(road.n(0) * 10));
      for (int k = 2; k + 2 < road.points(); k += 2) {
        if (!chance.happens(0.12)
            || ground.coast().town(road.e(k), road.n(k)) > 0
            || !extent.grown(100).holds(road.e(k), road.n(k))) {
          continue;
        }
        double angle = Math.atan2(road.n(k + 1) - road.n(k), road.e(k + 1) - road.e(k));
        double off = chance.between(9, 26) * (chance.happens(0.5) ? 1 : -1);
        Frame spot = Frame.at(road.e(k), road.n(k), angle).moved(0, off, 0.2 * chance.gaussian());
        if (builder.build(spot, Orders.croft(chance), 2, chance)) {
          around(spot, chance);
        }
      }
    }
  }

  /** What lies about a house: sheds, a yard, swards that are as dry as a roof, boats on trailers. */
  private void around(Frame house, Chance chance) {
    if (chance.happens(0.6)) {
      builder.build(
          house.moved(chance.between(-15, 15), chance.between(9, 17), 0.1 * chance.gaussian()),
          Orders.shed(chance),
          0.5,
          chance);
    }
    if (chance.happens(0.5)) {
      clutter.yard(
          house.moved(chance.between(-8, 8), -chance.between(8, 12), 0),
          chance.between(6, 13),
          chance.between(4.5, 8),
          chance);
    }
    if (chance.happens(0.7)) {
      clutter.sward(house, chance);
    }
    if (chance.happens(0.6)) {
      clutter.bareRock(house, chance);
    }
    if (chance.happens(0.2)) {
      clutter.polytunnel(house.moved(chance.between(-20, 20), -chance.between(15, 24), 0), chance);
    }
    if (chance.happens(0.12)) {
      clutter.greenhouse(house.moved(chance.between(-14, 14), -chance.between(11, 16), 0), chance);
    }
  }
}
