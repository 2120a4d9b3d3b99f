package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** Builds vehicles: a body and a cabin with dark panes, a cab and its load, a trailer with a boat. */
final class Garage {

  private static final double CLEAR = 0.25;

  private final Things things;

  Garage(Things things) {
    this.things = things;
  }

  /** Car, van, lorry, lorry with a trailer: length and width, metres. */
  static double[] size(Vehicle.Kind kind, Chance chance) {
    return switch (kind) {
      case CAR -> new double[] {chance.between(3.7, 4.9), chance.between(1.68, 1.9)};
      case VAN -> new double[] {chance.between(5, 6.6), chance.between(1.95, 2.15)};
      case LORRY -> new double[] {chance.between(7.5, 11), 2.5};
      case TRAILER -> new double[] {chance.between(8, 13.6), 2.5};
    };
  }

  static Vehicle.Kind kind(Chance chance, double cars, double vans, double lorries) {
    return chance.pick(
        List.of(Vehicle.Kind.CAR, Vehicle.Kind.VAN, Vehicle.Kind.LORRY), cars, vans, lorries);
  }

  boolean fits(Frame frame, double length, double width) {
    return things.free(frame.oblong(0, 0, length + CLEAR, width + CLEAR));
  }

  /** Parks a vehicle; the frame points ahead of it and lies at its middle, {@code ground} under its wheels. */
  void park(
      Frame frame,
      Vehicle.Kind kind,
      double length,
      double width,
      double ground,
      Vehicle.Place place,
      Chance chance) {
    double[] plan = frame.oblong(0, 0, length, width);
    things.take(plan);
    float[] paint = paint(kind, chance);
    Surface body = Surface.of(Material.PAINT, paint);
    Surface glass = Surface.of(Material.WINDOW, Material.WINDOW.toned(chance.between(0.6, 1.6), 0));
    double top = switch (kind) {
      case CAR -> car(frame, length, width, ground, body, glass, chance);
      case VAN -> van(frame, length, width, ground, body, glass, chance);
      case LORRY -> lorry(frame, length, width, ground, body, glass, chance);
      case TRAILER -> load(frame, 0, length, width, ground, chance);
    };
    double heading = Math.toDegrees(Math.PI / 2 - frame.angle());
    things.add(new Vehicle(
        things.vehicles().size(),
        kind,
        frame.east(),
        frame.north(),
        (heading % 360 + 360) % 360,
        plan,
        top,
        place));
  }

  private static float[] paint(Vehicle.Kind kind, Chance chance) {
    double white = kind == Vehicle.Kind.CAR ? 24 : 60;
    return switch (chance.weighted(white, 18, 16, 16, 9, 12, 5)) {
      case 0 -> Material.PAINT.toned(chance.between(1.7, 2.3), 0);
      case 1 -> Material.PAINT.toned(chance.between(0.9, 1.4), 0);
      case 2 -> Material.PAINT.toned(chance.between(0.3, 0.6), 0);
      case 3 -> Material.PAINT.toned(chance.between(0.06, 0.15), 0);
      case 4 -> new float[] {0.05f, 0.045f, 0.05f, 0.28f, 0.34f, 0.36f};
      case 5 -> new float[] {0.10f, 0.14f, 0.09f, 0.06f, 0.10f, 0.20f};
      default -> new float[] {0.04f, 0.05f, 0.10f, 0.06f, 0.12f, 0.24f};
    };
  }

  private void box(
      Frame frame,
      double u,
      double l,
      double w,
      double foot,
      double top,
      Surface side,
      Surface over) {
    things.add(Solid.box(frame.oblong(u, 0, l, w), foot, top, side, over));
  }

  private double car(
      Frame frame, double l, double w, double ground, Surface body, Surface glass, Chance chance) {
    double cabin = l * chance.between(0.44, 0.6);
    double u = -l * chance.between(0.04, 0.12);
    double top = ground + chance.between(1.4, 1.75);
    box(frame, 0, l, w, ground, ground + 0.85, body, body);
    box(frame, u, cabin, w * 0.88, ground + 0.6, ground + 1.3, glass, glass);
    box(frame, u - 0.05, cabin * 0.62, w * 0.8, ground + 0.6, top, glass, body);
    return ground + 0.85;
  }

  private double van(
      Frame frame, double l, double w, double ground, Surface body, Surface glass, Chance chance) {
    double top = ground + chance.between(2, 2.6);
    box(frame, -0.1 * l, l * 0.8, w, ground, top, body, body);
    box(frame, 0.32 * l, l * 0.14, w * 0.92, ground, ground + 1.8, glass, glass);
    box(frame, 0.43 * l, l * 0.14, w * 0.95, ground, ground + 1.1, body, body);
    return top;
  }

  private double lorry(
      Frame frame, double l, double w, double ground, Surface body, Surface glass, Chance chance) {
    box(frame, l / 2 - 0.95, 1.9, w, ground, ground + 2.9, glass, body);
    return load(frame, -1.15, l - 2.5, w, ground, chance);
  }

  /** A box, a container, a flat bed with timber or an empty one. */
  private double load(
      Frame frame, double u, double length, double w, double ground, Chance chance) {
    int kind = chance.weighted(45, 30, 15, 10);
    if (kind == 3) {
      Surface deck = Surface.of(Material.DECK, Material.DECK.toned(0.8, 0));
      box(frame, u, length, w, ground, ground + 1.25, deck, deck);
      return ground + 1.25;
    }
    Surface skin = switch (kind) {
      case 0 -> Surface.of(Material.PAINT, Material.PAINT.toned(chance.between(1.2, 2.1), 0));
      case 1 -> Surface.of(Material.CONTAINER, Clutter.coat(chance));
      default -> Surface.of(Material.TIMBER, Material.TIMBER.toned(chance.between(0.7, 1.1), 0));
    };
    double top = ground + chance.between(3, 4);
    box(frame, u, length, w, ground, top, skin, skin);
    return top;
  }
}
