package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.things.Building.Shape;
import sharpkestrel.demo.things.Building.Use;

/** What people build, by quarter. */
final class Orders {

  private static final List<Material> ROOFS = List.of(
      Material.TURF_ROOF,
      Material.SLATE_ROOF,
      Material.METAL_ROOF,
      Material.RUSTED_METAL_ROOF,
      Material.FELT_ROOF);

  private Orders() {}

  private static Material roof(
      Chance chance, double turf, double slate, double metal, double rust, double felt) {
    return chance.pick(ROOFS, turf, slate, metal, rust, felt);
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
      Use use,
      Shape shape,
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
    Shape shape = chance.pick(
        List.of(
            Shape.OBLONG,
            Shape.ELL,
            Shape.TEE,
            Shape.YOU,
            Shape.COURT,
            Shape.CROSS,
            Shape.OUTSHUT,
            Shape.DOUBLE,
            Shape.ROW),
        46,
        12,
        8,
        4,
        3,
        1,
        12,
        6,
        8);
    boolean shop = chance.happens(0.16);
    double length = switch (shape) {
      case ROW -> chance.between(20, 42);
      case COURT -> chance.between(19, 28);
      case YOU -> chance.between(15, 22);
      default -> chance.between(7.5, 13.5);
    };
    return order(
        shop ? Use.SHOP : Use.DWELLING,
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
    Shape shape =
        chance.pick(List.of(Shape.OBLONG, Shape.ELL, Shape.DOUBLE, Shape.OUTSHUT), 58, 12, 16, 14);
    boolean large = chance.happens(0.45);
    return order(
        chance.happens(0.5) ? Use.WAREHOUSE : Use.WORKS,
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
    Shape shape = chance.pick(
        List.of(
            Shape.OBLONG, Shape.ELL, Shape.TEE, Shape.YOU, Shape.CROSS, Shape.OUTSHUT, Shape.ROW),
        52,
        13,
        8,
        3,
        2,
        16,
        6);
    return order(
        Use.DWELLING,
        shape,
        roof(chance, 40, 24, 20, 8, 8),
        0.04,
        shape == Shape.ROW ? chance.between(16, 26) : chance.between(9, 17),
        chance.between(5, 7.6),
        chance.between(3, 4.6),
        chance);
  }

  /** A barn or byre. */
  static Builder.Order barn(Chance chance) {
    boolean large = chance.happens(0.4);
    return order(
        Use.BARN,
        chance.happens(0.75) ? Shape.OBLONG : Shape.DOUBLE,
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
        Use.SHED,
        Shape.OBLONG,
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
        Use.SHOP,
        Shape.COURT,
        roof(chance, 5, 60, 20, 0, 15),
        0.1,
        chance.between(19, 25),
        chance.between(5.5, 7),
        chance.between(4, 8),
        chance);
  }

  static Builder.Order church(Chance chance) {
    return new Builder.Order(
        Use.CHURCH,
        Shape.CROSS,
        Material.SLATE_ROOF,
        Builder.Form.GABLE,
        chance.between(24, 30),
        chance.between(9, 11),
        chance.between(8, 10),
        1.0);
  }
}
