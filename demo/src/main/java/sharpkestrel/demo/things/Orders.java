package sharpkestrel.demo.things;

import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;

/** What people build, by quarter. */
final class Orders {

  private Orders() {}

  private static Material roof(
      Chance chance, double turf, double slate, double metal, double rust, double felt) {
    return switch (chance.weighted(turf, slate, metal, rust, felt)) {
      case 0 -> Material.TURF_ROOF;
      case 1 -> Material.SLATE_ROOF;
      case 2 -> Material.METAL_ROOF;
      case 3 -> Material.RUSTED_METAL_ROOF;
      default -> Material.FELT_ROOF;
    };
  }

  private static double pitch(Material roof, Builder.Form form, Chance chance) {
    if (form == Builder.Form.FLAT) {
      return 0;
    }
    return switch (roof) {
      case METAL_ROOF, RUSTED_METAL_ROOF -> chance.between(0.12, 0.5);
      case TURF_ROOF -> chance.between(0.36, 0.6);
      case FELT_ROOF -> chance.between(0.1, 0.35);
      default -> chance.between(0.55, 0.95);
    };
  }

  private static Builder.Form form(Material roof, Chance chance, double flat) {
    double draw = chance.unit();
    if (draw < flat || roof == Material.FELT_ROOF && draw < 0.6) {
      return Builder.Form.FLAT;
    }
    return draw > 0.84 ? Builder.Form.HIP : Builder.Form.GABLE;
  }

  private static Builder.Order order(
      Building.Use use,
      Building.Shape shape,
      Material roof,
      double flat,
      double length,
      double width,
      double eaves,
      Chance chance) {
    Builder.Form form = form(roof, chance, flat);
    return new Builder.Order(
        use, shape, roof, form, length, width, eaves, pitch(roof, form, chance));
  }

  /** A house in the lanes of the town. */
  static Builder.Order townHouse(Chance chance) {
    Building.Shape shape = switch (chance.weighted(46, 12, 8, 4, 3, 1, 12, 6, 8)) {
      case 0 -> Building.Shape.OBLONG;
      case 1 -> Building.Shape.ELL;
      case 2 -> Building.Shape.TEE;
      case 3 -> Building.Shape.YOU;
      case 4 -> Building.Shape.COURT;
      case 5 -> Building.Shape.CROSS;
      case 6 -> Building.Shape.OUTSHUT;
      case 7 -> Building.Shape.DOUBLE;
      default -> Building.Shape.ROW;
    };
    boolean shop = chance.happens(0.16);
    double length = switch (shape) {
      case ROW -> chance.between(20, 42);
      case COURT -> chance.between(19, 28);
      case YOU -> chance.between(15, 22);
      default -> chance.between(7.5, 13.5);
    };
    return order(
        shop ? Building.Use.SHOP : Building.Use.DWELLING,
        shape,
        roof(chance, 14, 46, 18, 7, 15),
        0.05,
        length,
        chance.between(5.6, 8.6),
        chance.happens(0.3) ? chance.between(6, 9.5) : chance.between(3, 6),
        chance);
  }

  /** A store, a fish house or a works by the water. */
  static Builder.Order warehouse(Chance chance) {
    Building.Shape shape = switch (chance.weighted(58, 12, 16, 14)) {
      case 0 -> Building.Shape.OBLONG;
      case 1 -> Building.Shape.ELL;
      case 2 -> Building.Shape.DOUBLE;
      default -> Building.Shape.OUTSHUT;
    };
    boolean large = chance.happens(0.45);
    return order(
        chance.happens(0.5) ? Building.Use.WAREHOUSE : Building.Use.WORKS,
        shape,
        roof(chance, 0, 12, 46, 24, 18),
        0.16,
        large ? chance.between(22, 46) : chance.between(12, 22),
        large ? chance.between(11, 17) : chance.between(7, 11),
        large ? chance.between(6, 11) : chance.between(3.6, 6),
        chance);
  }

  /** A house in a hamlet or on a croft. */
  static Builder.Order croft(Chance chance) {
    Building.Shape shape = switch (chance.weighted(52, 13, 8, 3, 2, 16, 6)) {
      case 0 -> Building.Shape.OBLONG;
      case 1 -> Building.Shape.ELL;
      case 2 -> Building.Shape.TEE;
      case 3 -> Building.Shape.YOU;
      case 4 -> Building.Shape.CROSS;
      case 5 -> Building.Shape.OUTSHUT;
      default -> Building.Shape.ROW;
    };
    return order(
        Building.Use.DWELLING,
        shape,
        roof(chance, 40, 24, 20, 8, 8),
        0.04,
        shape == Building.Shape.ROW ? chance.between(16, 26) : chance.between(9, 17),
        chance.between(5, 7.6),
        chance.between(3, 4.6),
        chance);
  }

  /** A barn or byre. */
  static Builder.Order barn(Chance chance) {
    boolean large = chance.happens(0.4);
    return order(
        Building.Use.BARN,
        chance.happens(0.75) ? Building.Shape.OBLONG : Building.Shape.DOUBLE,
        roof(chance, 16, 10, 42, 28, 4),
        0.03,
        large ? chance.between(18, 34) : chance.between(9, 17),
        large ? chance.between(9, 15) : chance.between(5, 8),
        large ? chance.between(4, 6.5) : chance.between(3, 4),
        chance);
  }

  /** A shed at the back. */
  static Builder.Order shed(Chance chance) {
    return order(
        Building.Use.SHED,
        Building.Shape.OBLONG,
        roof(chance, 12, 6, 40, 22, 20),
        0.25,
        chance.between(3.4, 7.5),
        chance.between(2.6, 4.2),
        chance.between(3, 3.5),
        chance);
  }

  /** A school, an inn or a market about a courtyard. */
  static Builder.Order court(Chance chance) {
    return order(
        Building.Use.SHOP,
        Building.Shape.COURT,
        roof(chance, 5, 60, 20, 0, 15),
        0.1,
        chance.between(19, 25),
        chance.between(5.5, 7),
        chance.between(4, 8),
        chance);
  }

  static Builder.Order church(Chance chance) {
    return new Builder.Order(
        Building.Use.CHURCH,
        Building.Shape.CROSS,
        Material.SLATE_ROOF,
        Builder.Form.GABLE,
        chance.between(24, 30),
        chance.between(9, 11),
        chance.between(8, 10),
        1.0);
  }
}
