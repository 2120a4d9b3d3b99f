package sharpkestrel.demo.things;

import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;

/** Halls with what lies about them, and farmsteads. */
final class Works {

  private final Ground ground;
  private final Taste taste;
  private final Builder builder;
  private final Clutter clutter;
  private final Clutter fields;
  private final Fittings fittings;
  private final List<Bays> bays;

  /**
   * @param bays (modified) where vehicles are parked
   */
  Works(Ground ground, Things things, Taste taste, Fittings fittings, List<Bays> bays) {
    this.ground = ground;
    this.taste = taste;
    this.fittings = fittings;
    this.bays = bays;
    builder = new Builder(ground, things, Builder.GAP, taste::wall);
    clutter = new Clutter(ground, things, true);
    fields = new Clutter(ground, things, false);
  }

  /** A hall as large as the ground has room for, with plant on its roof; a car park; what is stored in the open. */
  void halls(double[] ring, Chance chance) {
    Side side = Side.longest(ring);
    double across = Polygons.area(ring) / side.length();
    Material roof = taste.workRoof(chance);
    Optional<Building> hall = Optional.empty();
    double share = chance.between(0.55, 0.9);
    double depth = 0;
    for (int tries = 0; tries < 8 && hall.isEmpty(); tries++, share *= 0.86) {
      double length = Math.min(220, side.length() * share);
      double width = Math.min(Math.min(120, length), across * share * chance.between(0.6, 0.9));
      if (width < 8) {
        return;
      }
      depth = width;
      Builder.Order order = new Builder.Order(
          chance.happens(0.5) ? Building.Use.WORKS : Building.Use.WAREHOUSE,
          chance.happens(0.7) ? Building.Shape.OBLONG : Building.Shape.ELL,
          roof,
          Taste.isFlat(roof) || chance.happens(0.5) ? Builder.Form.FLAT : Builder.Form.GABLE,
          length,
          width,
          chance.between(5, 13),
          chance.between(0.06, 0.16));
      Frame frame = side.frame()
          .moved(
              side.length() * chance.between(0.42, 0.58),
              across - width / 2 - chance.between(3, 8),
              0);
      hall = builder.build(frame, order, 2, ring, chance);
    }
    hall.ifPresent(built -> fittings.hall(built, chance));
    double room = across - depth - 12;
    if (room > 12) {
      double width = Math.min(room - 4, chance.between(20, 60));
      double length = Math.min(side.length() * 0.8, chance.between(40, 170));
      Frame park = side.frame().moved(side.length() / 2, width / 2 + 4, 0);
      if (clutter.carPark(park, length, width, ring, chance)) {
        bays.add(new Bays(park, length, width, chance.between(0.25, 0.9)));
      }
    }
    Frame yard = side.frame().moved(side.length() * chance.between(0.1, 0.25), across * 0.6, 0);
    if (chance.happens(0.5)) {
      clutter.containers(yard, chance.whole(2, 6), chance.whole(1, 3), chance);
    } else if (chance.happens(0.4)) {
      clutter.timber(yard, 3, chance);
    }
    for (int k = 0; k < 3; k++) {
      if (chance.happens(0.3)) {
        Frame spot = side.frame()
            .moved(
                side.length() * chance.between(0.08, 0.92), across * chance.between(0.2, 0.9), 0);
        builder.build(spot, Orders.warehouse(chance), 1, ring, chance);
      }
    }
    fittings.crowns(Polygons.inset(ring, 1), 2, chance);
  }

  /** A farmhouse, large sheds, silos, glass and stacks about a yard. */
  void steading(double[] ring, Chance chance) {
    double[] middle = Polygons.middle(ring);
    Side side = Side.longest(ring);
    Frame yard = Frame.at(middle[0], middle[1], side.frame().angle());
    fields.yard(yard, chance.between(24, 46), chance.between(16, 30), chance);
    int sheds = chance.whole(2, 6);
    for (int tries = 0, built = 0; tries < 70 && built < sheds; tries++) {
      double a = chance.between(0, 2 * Math.PI);
      double r = chance.between(24, 62);
      Frame spot =
          yard.moved(r * Math.cos(a), r * Math.sin(a) * 0.8, chance.happens(0.6) ? 0 : Math.PI / 2);
      boolean large = chance.happens(0.5);
      Material roof = taste.workRoof(chance);
      Builder.Order order = new Builder.Order(
          Building.Use.BARN,
          chance.happens(0.75) ? Building.Shape.OBLONG : Building.Shape.DOUBLE,
          roof,
          Taste.isFlat(roof) ? Builder.Form.FLAT : Builder.Form.GABLE,
          large ? chance.between(28, 64) : chance.between(12, 26),
          large ? chance.between(14, 26) : chance.between(7, 13),
          chance.between(3.4, 6.5),
          chance.between(0.18, 0.42));
      Optional<Building> shed = builder.build(spot, order, 1.5, ring, chance);
      if (shed.isPresent()) {
        built++;
        fittings.roof(shed.get(), chance);
      }
    }
    for (int tries = 0; tries < 30; tries++) {
      double a = chance.between(0, 2 * Math.PI);
      Frame spot = yard.moved(48 * Math.cos(a), 42 * Math.sin(a), 0.1 * chance.gaussian());
      Builder.Order order = taste.house(
          Building.Use.DWELLING,
          Building.Shape.ELL,
          taste.houseRoof(chance),
          chance.between(10, 18),
          chance.between(6.5, 9.5),
          taste.wallHeight(chance),
          chance);
      Optional<Building> house = builder.build(spot, order, 1.5, ring, chance);
      if (house.isPresent()) {
        fittings.roof(house.get(), chance);
        break;
      }
    }
    int silos = chance.weighted(40, 20, 20, 12, 8);
    for (int k = 0; k < silos; k++) {
      Frame spot = yard.moved(22 + 8 * (k % 2), -26 - 8 * (k / 2.0), 0);
      if (ground.roads().beyondEdge(spot.east(), spot.north()) < 6
          || !ground.buildable(spot.east(), spot.north())) {
        continue;
      }
      builder.tower(
          spot.east(),
          spot.north(),
          chance.between(2.2, 4.6),
          chance.between(6, 17),
          chance.happens(0.7) ? Material.METAL_ROOF : Material.CONCRETE_ROOF,
          Building.Use.TOWER,
          chance);
    }
    int houses = chance.happens(0.25) ? chance.whole(2, 7) : 0;
    for (int k = 0; k < houses; k++) {
      fields.greenhouse(yard.moved(-30 + 7.5 * k, 52, Math.PI / 2), 40, chance);
    }
    fields.farm(yard, chance);
    fittings.crowns(Polygons.inset(ring, 3), 6, chance);
    bays.add(new Bays(yard, 14, 10, 0.2));
  }
}
