package sharpkestrel.demo.things;

import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;

/** Blocks split into plots: houses in walled yards, or each in its garden. */
final class Plots {

  private final Ground ground;
  private final Taste taste;
  private final Builder builder;
  private final Clutter clutter;
  private final Fittings fittings;
  private final List<Bays> bays;

  /**
   * @param bays (modified) where vehicles are parked
   */
  Plots(Ground ground, Things things, Taste taste, Fittings fittings, List<Bays> bays) {
    this.ground = ground;
    this.taste = taste;
    this.fittings = fittings;
    this.bays = bays;
    builder = new Builder(ground, things, Builder.GAP, taste::wall);
    clutter = new Clutter(ground, things, true);
  }

  void walled(double[] ring, Chance chance) {
    plots(ring, chance, this::walledYard);
  }

  void gardens(double[] ring, Chance chance) {
    plots(ring, chance, this::garden);
  }

  private interface OnPlot {
    void build(double[] plot, Chance chance);
  }

  /** Splits a block into plots. */
  private void plots(double[] ring, Chance chance, OnPlot each) {
    double area = Polygons.area(ring);
    double wanted = chance.between(taste.plot()[0], taste.plot()[1]);
    if (area < 1.75 * wanted) {
      each.build(ring, chance);
      return;
    }
    Side side = Side.longest(ring);
    double de = side.frame().cos();
    double dn = side.frame().sin();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int k = 0; k < ring.length; k += 2) {
      double at = de * ring[k] + dn * ring[k + 1];
      low = Math.min(low, at);
      high = Math.max(high, at);
    }
    double c = low + (high - low) * chance.between(0.44, 0.56);
    double[] below = Polygons.clip(ring, de, dn, c);
    double[] above = Polygons.clip(ring, -de, -dn, -c);
    if (below.length > 0 && above.length > 0) {
      plots(below, chance, each);
      plots(above, chance, each);
    }
  }

  /** A yard behind walls, the house against one of them, flat-roofed mostly. */
  private void walledYard(double[] plot, Chance chance) {
    if (chance.happens(0.05)) {
      return;
    }
    if (chance.happens(taste.bounded())) {
      fittings.walls(plot, chance);
    }
    double[] inner = Polygons.inset(plot, 0.4);
    if (inner.length == 0) {
      return;
    }
    int first = 2 * chance.whole(0, inner.length / 2 - 1);
    int ranges = chance.whole(1, 4);
    for (int r = 0; r < ranges; r++) {
      Side side = Side.of(inner, (first + 2 * r) % inner.length);
      double width = chance.between(4.2, 8.5);
      double length = Math.min(side.length() * chance.between(0.55, 0.98), 26);
      if (length < 4) {
        continue;
      }
      boolean two = chance.happens(0.35);
      Building.Shape shape = chance.happens(0.3) ? Building.Shape.ELL : Building.Shape.OBLONG;
      Builder.Order order = taste.house(
          r == 0 ? Building.Use.DWELLING : Building.Use.SHED,
          r == 0 ? shape : Building.Shape.OBLONG,
          taste.houseRoof(chance),
          length,
          r == 0 ? width : width * 0.7,
          two && r == 0 ? chance.between(5, 6.4) : chance.between(2.6, 3.4),
          chance);
      double at =
          chance.happens(0.5) ? length / 2 + Side.WITHIN : side.length() - length / 2 - Side.WITHIN;
      Frame frame = side.frame().moved(at, order.width() / 2 + Side.WITHIN, 0);
      builder
          .build(frame, order, 0.2, inner, chance)
          .ifPresent(built -> fittings.roof(built, chance));
    }
    fittings.crowns(plot, taste.crowns(), chance);
    if (chance.happens(taste.paved())) {
      clutter.pave(Polygons.inset(inner, chance.between(1, 4)), taste.clinker(), chance);
    } else if (chance.happens(0.25)) {
      Side side = Side.longest(inner);
      clutter.tarpaulin(side.frame().moved(side.length() * chance.unit(), 4, 0), chance);
    }
  }

  /** A house in its garden: a drive, a garage, a pool, a hedge or a fence, trees. */
  private void garden(double[] plot, Chance chance) {
    if (Polygons.area(plot) < 150 || chance.happens(0.04)) {
      return;
    }
    Side street = streetSide(plot);
    double across = Polygons.area(plot) / street.length();
    double length = Math.min(street.length() - 3, chance.between(9, 18));
    double width = Math.min(across * 0.45, chance.between(7.5, 12));
    if (length < 5.5 || width < 5) {
      return;
    }
    Building.Shape shape = chance.pick(
        List.of(
            Building.Shape.OBLONG,
            Building.Shape.ELL,
            Building.Shape.TEE,
            Building.Shape.OUTSHUT,
            Building.Shape.DOUBLE,
            Building.Shape.YOU),
        46,
        24,
        10,
        10,
        5,
        5);
    Material roof = taste.houseRoof(chance);
    double setback = chance.between(3, 7);
    double u = street.length() * chance.between(0.42, 0.58);
    double turn = 0.03 * chance.gaussian() + (chance.happens(0.12) ? Math.PI / 2 : 0);
    Frame frame = street.frame().moved(u, setback + width / 2, turn);
    Builder.Order order = taste.house(
        Building.Use.DWELLING, shape, roof, length, width, taste.wallHeight(chance), chance);
    Optional<Building> house = builder.build(frame, order, 0.4, plot, chance);
    if (house.isEmpty() && shape != Building.Shape.OBLONG) {
      order = taste.house(
          Building.Use.DWELLING, Building.Shape.OBLONG, roof, length, width, order.eaves(), chance);
      house = builder.build(frame, order, 0.4, plot, chance);
    }
    house.ifPresent(built -> fittings.roof(built, chance));
    double side = chance.happens(0.5) ? 0.12 : 0.88;
    if (chance.happens(0.55)) {
      Builder.Order garage = taste.house(
          Building.Use.SHED, Building.Shape.OBLONG, roof, 6.2, chance.between(3.4, 6), 2.6, chance);
      builder.build(
          street.frame().moved(street.length() * side, setback + 7, Math.PI / 2),
          garage,
          0.3,
          plot,
          chance);
    }
    clutter.drive(street.frame().moved(street.length() * side, 0, 0), setback + 4, chance);
    bays.add(new Bays(
        street.frame().moved(street.length() * side, setback * 0.5 + 1, Math.PI / 2), 0, 0, 0.5));
    if (chance.happens(taste.pools())) {
      clutter.pool(
          street
              .frame()
              .moved(
                  street.length() * chance.between(0.3, 0.7),
                  setback + width + chance.between(5, 9),
                  0.1 * chance.gaussian()),
          plot,
          chance);
    }
    if (chance.happens(0.35)) {
      Frame spot = street
          .frame()
          .moved(
              street.length() * chance.between(0.15, 0.85), across - 4, 0.05 * chance.gaussian());
      builder.build(spot, Orders.shed(chance), 0.3, plot, chance);
    }
    if (chance.happens(taste.bounded())) {
      fittings.walls(plot, chance);
    }
    fittings.crowns(plot, taste.crowns() * Polygons.area(plot) / 500, chance);
  }

  /** The side nearest to a street. */
  private Side streetSide(double[] plot) {
    Side best = Side.longest(plot);
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < plot.length; k += 2) {
      Side side = Side.of(plot, k);
      if (side.length() < 8) {
        continue;
      }
      double e = side.frame().e(side.length() / 2, 0);
      double n = side.frame().n(side.length() / 2, 0);
      double beyond = ground.roads().beyondEdge(e, n) - 0.02 * side.length();
      if (beyond < least) {
        least = beyond;
        best = side;
      }
    }
    return best;
  }
}
