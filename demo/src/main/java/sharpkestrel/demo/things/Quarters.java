package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Builds on the parcels of a region inland: rows about courts, houses in walled yards or in gardens, halls, farmsteads. */
final class Quarters {

  /** A field of parking bays. */
  record Bays(Frame frame, double length, double width, double full) {}

  private static final double PAVEMENT = 1.6;
  private static final double TOUCHING = 0.012;

  /** Metres by which what is built along a side keeps inside of it, so that rounding does not put it outside. */
  private static final double INSIDE = 0.05;

  private final Ground ground;
  private final Things things;
  private final Taste taste;
  private final Builder builder;
  private final Builder rows;
  private final Clutter clutter;
  private final Clutter fields;
  private final Fittings fittings;
  private final List<Bays> bays = new ArrayList<>();

  Quarters(Ground ground, Things things, Taste taste) {
    this.ground = ground;
    this.things = things;
    this.taste = taste;
    builder = new Builder(ground, things, 0.35, this::wall);
    rows = new Builder(ground, things, TOUCHING, this::wall);
    clutter = new Clutter(ground, things, true);
    fields = new Clutter(ground, things, false);
    fittings = new Fittings(ground, things, taste);
  }

  List<Bays> bays() {
    return bays;
  }

  private Surface wall(Chance chance, boolean works) {
    if (works) {
      return Roofs.wall(chance, true);
    }
    Material material = chance.pick(taste.walls(), taste.wallShares());
    float[] rho =
        material.toned(Math.exp(0.18 * chance.gaussian()), 0.02 + 0.025 * chance.gaussian());
    return Surface.of(material, rho).with(Pattern.WINDOWS, Material.WINDOW.spectrum(), 0.4, 0);
  }

  void settle(Extent extent) {
    for (Parcel parcel : ground.parcels().within(extent)) {
      double[] middle = Polygons.middle(parcel.ring());
      if (!parcel.use().built() || !extent.grown(150).holds(middle[0], middle[1])) {
        continue;
      }
      Chance chance =
          Chance.of(ground.seed(), 45, Math.round(middle[0] * 10), Math.round(middle[1] * 10));
      double[] ring = besideStreets(parcel.ring());
      if (ring.length == 0 || Polygons.area(ring) < 120) {
        continue;
      }
      switch (parcel.use()) {
        case ROWS -> rows(ring, chance);
        case YARDS -> plots(ring, chance, this::walledYard);
        case HOUSES -> plots(ring, chance, this::garden);
        case WORKS -> works(ring, chance);
        default -> steading(ring, chance);
      }
    }
  }

  /** A parcel less half of the streets along its sides, and their pavements. */
  private double[] besideStreets(double[] ring) {
    double[] by = new double[ring.length / 2];
    for (int i = 0; i < ring.length; i += 2) {
      int j = (i + 2) % ring.length;
      double beyond = 0;
      for (double t : new double[] {0.25, 0.5, 0.75}) {
        beyond = Math.min(
            beyond,
            ground
                .roads()
                .beyondEdge(
                    ring[i] + t * (ring[j] - ring[i]),
                    ring[i + 1] + t * (ring[j + 1] - ring[i + 1])));
      }
      by[i / 2] = beyond < 0 ? PAVEMENT - beyond : 0.4;
    }
    return Polygons.inset(ring, by);
  }

  /** A side of a ring: where it begins, its direction, its length; the ring lies to its left. */
  private record Side(Frame frame, double length) {

    static Side of(double[] ring, int corner) {
      int next = (corner + 2) % ring.length;
      double de = ring[next] - ring[corner];
      double dn = ring[next + 1] - ring[corner + 1];
      return new Side(
          Frame.at(ring[corner], ring[corner + 1], Math.atan2(dn, de)), Math.hypot(de, dn));
    }

    static Side longest(double[] ring) {
      Side most = of(ring, 0);
      for (int k = 2; k < ring.length; k += 2) {
        Side side = of(ring, k);
        most = side.length > most.length ? side : most;
      }
      return most;
    }
  }

  private Material houseRoof(Chance chance) {
    return chance.pick(taste.roofs(), taste.houses());
  }

  private Builder.Order house(
      Building.Use use,
      Building.Shape shape,
      Material roof,
      double length,
      double width,
      double eaves,
      Chance chance) {
    boolean flat = isFlat(roof) || chance.happens(taste.flat());
    Builder.Form form = flat
        ? Builder.Form.FLAT
        : chance.happens(taste.hip()) ? Builder.Form.HIP : Builder.Form.GABLE;
    double steep = roof == Material.METAL_ROOF || roof == Material.RUSTED_METAL_ROOF ? 0.6 : 1;
    double pitch = flat ? 0 : steep * chance.between(taste.pitch()[0], taste.pitch()[1]);
    return new Builder.Order(use, shape, roof, form, length, width, eaves, pitch);
  }

  /** A house or a hall, as they are built here today. */
  Builder.Order order(Chance chance) {
    boolean hall = chance.happens(0.25);
    Material roof = hall ? chance.pick(taste.roofs(), taste.works()) : houseRoof(chance);
    return house(
        hall ? Building.Use.WORKS : Building.Use.DWELLING,
        chance.happens(0.6) ? Building.Shape.OBLONG : Building.Shape.ELL,
        roof,
        hall ? chance.between(18, 46) : chance.between(8, 16),
        hall ? chance.between(11, 24) : chance.between(6, 10),
        hall ? chance.between(4, 8) : eaves(chance),
        chance);
  }

  private static boolean isFlat(Material roof) {
    return roof == Material.CONCRETE_ROOF
        || roof == Material.MEMBRANE_ROOF
        || roof == Material.FELT_ROOF;
  }

  private double eaves(Chance chance) {
    return chance.between(taste.eaves()[0], taste.eaves()[1]);
  }

  /** Houses wall to wall along the sides of a block, a court behind them with wings, sheds and trees. */
  private void rows(double[] ring, Chance chance) {
    double depth = chance.between(8.5, 12.5);
    for (int corner = 0; corner < ring.length; corner += 2) {
      Side side = Side.of(ring, corner);
      double height = eaves(chance);
      double at = INSIDE;
      while (at < side.length - 4.5) {
        double front = Math.min(chance.between(5.2, 14), side.length - INSIDE - at);
        double deep = depth * chance.between(0.85, 1.12);
        boolean open = chance.happens(0.03);
        Material roof = houseRoof(chance);
        Builder.Order order = house(
            chance.happens(0.2) ? Building.Use.SHOP : Building.Use.DWELLING,
            Building.Shape.OBLONG,
            roof,
            front - TOUCHING * 2,
            deep,
            Math.max(3, height + chance.between(-1.6, 1.6)),
            chance);
        Frame frame = side.frame.moved(at + front / 2, deep / 2 + INSIDE, 0);
        Optional<Building> built =
            open ? Optional.empty() : rows.build(frame, order, 0.3, ring, chance);
        if (built.isPresent()) {
          fittings.roof(built.get(), chance);
          wing(frame, deep, front, order, ring, chance);
          at += front;
        } else {
          at += open ? chance.between(2.5, 5) : 0.9;
        }
      }
    }
    court(ring, depth, chance);
  }

  private void wing(
      Frame house, double deep, double front, Builder.Order order, double[] ring, Chance chance) {
    if (!chance.happens(0.4)) {
      return;
    }
    double back = chance.between(3, 8);
    double wide = Math.min(front * 0.6, chance.between(3, 5.5));
    double u = (chance.happens(0.5) ? 1 : -1) * (front - wide) / 2 * 0.96;
    Builder.Order lower = new Builder.Order(
        Building.Use.SHED,
        Building.Shape.OBLONG,
        order.roof(),
        order.form() == Builder.Form.FLAT ? Builder.Form.FLAT : Builder.Form.MONO,
        wide,
        back,
        Math.max(2.6, order.eaves() * chance.between(0.45, 0.9)),
        0.25);
    rows.build(house.moved(u, deep / 2 + back / 2 + 0.03, 0), lower, 0.3, ring, chance);
  }

  private void court(double[] ring, double depth, Chance chance) {
    double[] court = Polygons.inset(ring, depth + 1.5);
    if (court.length == 0 || Polygons.area(court) < 60) {
      return;
    }
    if (chance.happens(taste.paved())) {
      clutter.pave(court, taste.clinker(), chance);
    }
    Side side = Side.longest(court);
    int sheds = chance.whole(0, (int) Math.min(5, Polygons.area(court) / 130));
    for (int k = 0; k < sheds; k++) {
      Frame spot = side.frame.moved(
          chance.between(2, side.length - 2), chance.between(2, 12), 0.03 * chance.gaussian());
      builder.build(spot, Orders.shed(chance), 0.3, court, chance);
    }
    fittings.crowns(court, taste.crowns() * Polygons.area(court) / 300, chance);
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
    double de = side.frame.cos();
    double dn = side.frame.sin();
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
      double length = Math.min(side.length * chance.between(0.55, 0.98), 26);
      if (length < 4) {
        continue;
      }
      boolean two = chance.happens(0.35);
      Building.Shape shape = chance.happens(0.3) ? Building.Shape.ELL : Building.Shape.OBLONG;
      Builder.Order order = house(
          r == 0 ? Building.Use.DWELLING : Building.Use.SHED,
          r == 0 ? shape : Building.Shape.OBLONG,
          houseRoof(chance),
          length,
          r == 0 ? width : width * 0.7,
          two && r == 0 ? chance.between(5, 6.4) : chance.between(2.6, 3.4),
          chance);
      double at = chance.happens(0.5) ? length / 2 + INSIDE : side.length - length / 2 - INSIDE;
      Frame frame = side.frame.moved(at, order.width() / 2 + INSIDE, 0);
      builder
          .build(frame, order, 0.2, inner, chance)
          .ifPresent(built -> fittings.roof(built, chance));
    }
    fittings.crowns(plot, taste.crowns(), chance);
    if (chance.happens(taste.paved())) {
      clutter.pave(Polygons.inset(inner, chance.between(1, 4)), taste.clinker(), chance);
    } else if (chance.happens(0.25)) {
      Side side = Side.longest(inner);
      clutter.tarpaulin(side.frame.moved(side.length * chance.unit(), 4, 0), chance);
    }
  }

  /** A house in its garden: a drive, a garage, a pool, a hedge or a fence, trees. */
  private void garden(double[] plot, Chance chance) {
    if (Polygons.area(plot) < 150 || chance.happens(0.04)) {
      return;
    }
    Side street = streetSide(plot);
    double across = Polygons.area(plot) / street.length;
    double length = Math.min(street.length - 3, chance.between(9, 18));
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
    Material roof = houseRoof(chance);
    double setback = chance.between(3, 7);
    double u = street.length * chance.between(0.42, 0.58);
    double turn = 0.03 * chance.gaussian() + (chance.happens(0.12) ? Math.PI / 2 : 0);
    Frame frame = street.frame.moved(u, setback + width / 2, turn);
    Builder.Order order =
        house(Building.Use.DWELLING, shape, roof, length, width, eaves(chance), chance);
    Optional<Building> house = builder.build(frame, order, 0.4, plot, chance);
    if (house.isEmpty() && shape != Building.Shape.OBLONG) {
      order = house(
          Building.Use.DWELLING, Building.Shape.OBLONG, roof, length, width, order.eaves(), chance);
      house = builder.build(frame, order, 0.4, plot, chance);
    }
    house.ifPresent(built -> fittings.roof(built, chance));
    double side = chance.happens(0.5) ? 0.12 : 0.88;
    if (chance.happens(0.55)) {
      Builder.Order garage = house(
          Building.Use.SHED, Building.Shape.OBLONG, roof, 6.2, chance.between(3.4, 6), 2.6, chance);
      builder.build(
          street.frame.moved(street.length * side, setback + 7, Math.PI / 2),
          garage,
          0.3,
          plot,
          chance);
    }
    clutter.drive(street.frame.moved(street.length * side, 0, 0), setback + 4, chance);
    bays.add(new Bays(
        street.frame.moved(street.length * side, setback * 0.5 + 1, Math.PI / 2), 0, 0, 0.5));
    if (chance.happens(taste.pools())) {
      clutter.pool(
          street.frame.moved(
              street.length * chance.between(0.3, 0.7),
              setback + width + chance.between(5, 9),
              0.1 * chance.gaussian()),
          plot,
          chance);
    }
    if (chance.happens(0.35)) {
      Frame spot = street.frame.moved(
          street.length * chance.between(0.15, 0.85), across - 4, 0.05 * chance.gaussian());
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
      if (side.length < 8) {
        continue;
      }
      double e = side.frame.e(side.length / 2, 0);
      double n = side.frame.n(side.length / 2, 0);
      double beyond = ground.roads().beyondEdge(e, n) - 0.02 * side.length;
      if (beyond < least) {
        least = beyond;
        best = side;
      }
    }
    return best;
  }

  /** A hall as large as the ground has room for, with plant on its roof; a car park; what is stored in the open. */
  private void works(double[] ring, Chance chance) {
    Side side = Side.longest(ring);
    double across = Polygons.area(ring) / side.length;
    Material roof = chance.pick(taste.roofs(), taste.works());
    Optional<Building> hall = Optional.empty();
    double share = chance.between(0.55, 0.9);
    double depth = 0;
    for (int tries = 0; tries < 8 && hall.isEmpty(); tries++, share *= 0.86) {
      double length = Math.min(220, side.length * share);
      double width = Math.min(Math.min(120, length), across * share * chance.between(0.6, 0.9));
      if (width < 8) {
        return;
      }
      depth = width;
      Builder.Order order = new Builder.Order(
          chance.happens(0.5) ? Building.Use.WORKS : Building.Use.WAREHOUSE,
          chance.happens(0.7) ? Building.Shape.OBLONG : Building.Shape.ELL,
          roof,
          isFlat(roof) || chance.happens(0.5) ? Builder.Form.FLAT : Builder.Form.GABLE,
          length,
          width,
          chance.between(5, 13),
          chance.between(0.06, 0.16));
      Frame frame = side.frame.moved(
          side.length * chance.between(0.42, 0.58), across - width / 2 - chance.between(3, 8), 0);
      hall = builder.build(frame, order, 2, ring, chance);
    }
    hall.ifPresent(built -> fittings.hall(built, chance));
    double room = across - depth - 12;
    if (room > 12) {
      double width = Math.min(room - 4, chance.between(20, 60));
      double length = Math.min(side.length * 0.8, chance.between(40, 170));
      Frame park = side.frame.moved(side.length / 2, width / 2 + 4, 0);
      if (clutter.carPark(park, length, width, ring, chance)) {
        bays.add(new Bays(park, length, width, chance.between(0.25, 0.9)));
      }
    }
    Frame yard = side.frame.moved(side.length * chance.between(0.1, 0.25), across * 0.6, 0);
    if (chance.happens(0.5)) {
      clutter.containers(yard, chance.whole(2, 6), chance.whole(1, 3), chance);
    } else if (chance.happens(0.4)) {
      clutter.timber(yard, 3, chance);
    }
    for (int k = 0; k < 3; k++) {
      if (chance.happens(0.3)) {
        Frame spot = side.frame.moved(
            side.length * chance.between(0.08, 0.92), across * chance.between(0.2, 0.9), 0);
        builder.build(spot, Orders.warehouse(chance), 1, ring, chance);
      }
    }
    fittings.crowns(Polygons.inset(ring, 1), 2, chance);
  }

  /** A farmhouse, large sheds, silos, glass and stacks about a yard. */
  private void steading(double[] ring, Chance chance) {
    double[] middle = Polygons.middle(ring);
    Side side = Side.longest(ring);
    Frame yard = Frame.at(middle[0], middle[1], side.frame.angle());
    fields.yard(yard, chance.between(24, 46), chance.between(16, 30), chance);
    int sheds = chance.whole(2, 6);
    for (int tries = 0, built = 0; tries < 70 && built < sheds; tries++) {
      double a = chance.between(0, 2 * Math.PI);
      double r = chance.between(24, 62);
      Frame spot =
          yard.moved(r * Math.cos(a), r * Math.sin(a) * 0.8, chance.happens(0.6) ? 0 : Math.PI / 2);
      boolean large = chance.happens(0.5);
      Material roof = chance.pick(taste.roofs(), taste.works());
      Builder.Order order = new Builder.Order(
          Building.Use.BARN,
          chance.happens(0.75) ? Building.Shape.OBLONG : Building.Shape.DOUBLE,
          roof,
          isFlat(roof) ? Builder.Form.FLAT : Builder.Form.GABLE,
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
      Builder.Order order = house(
          Building.Use.DWELLING,
          Building.Shape.ELL,
          houseRoof(chance),
          chance.between(10, 18),
          chance.between(6.5, 9.5),
          eaves(chance),
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
