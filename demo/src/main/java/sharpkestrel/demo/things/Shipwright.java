package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** Builds vessels: a hull with a rim about its deck, houses, hatches and what is carried. */
final class Shipwright {

  private final Ground ground;
  private final Things things;

  Shipwright(Ground ground, Things things) {
    this.ground = ground;
    this.things = things;
  }

  /** Length and beam of a vessel of a class, metres. */
  static double[] size(Vessel.Kind kind, Chance chance) {
    double length = switch (kind) {
      case DINGHY -> chance.between(4, 6.6);
      case WORKBOAT -> 7.5 + 18 * Math.pow(chance.unit(), 1.5);
      case BARGE -> chance.between(18, 60);
    };
    double slender = switch (kind) {
      case DINGHY -> chance.between(2.2, 2.8);
      case WORKBOAT -> chance.between(2.5, 3.5);
      case BARGE -> chance.between(3.2, 4.6);
    };
    return new double[] {length, length / slender};
  }

  /** The plan of a hull, bow towards {@code u}: blunt for barges, pointed for the rest. */
  private static double[] hull(Frame frame, Vessel.Kind kind, double length, double beam) {
    double l = length / 2;
    double b = beam / 2;
    if (kind == Vessel.Kind.BARGE) {
      return frame.ring(
          -l, -b * 0.92, l * 0.86, -b, l, -b * 0.6, l, b * 0.6, l * 0.86, b, -l, b * 0.92);
    }
    return frame.ring(
        -l, -b * 0.72, -l * 0.35, -b, l * 0.25, -b * 0.94, l * 0.72, -b * 0.5, l, -b * 0.06, l,
        b * 0.06, l * 0.72, b * 0.5, l * 0.25, b * 0.94, -l * 0.35, b, -l, b * 0.72);
  }

  /** Whether there is water, and nothing yet, where a vessel would lie. */
  boolean fits(Frame frame, double length, double beam, boolean afloat) {
    double[] ring = frame.oblong(0, 0, length, beam);
    for (int i = 0; i < ring.length; i += 2) {
      double shore = ground.landform().at(ring[i], ring[i + 1]);
      if (afloat && shore > -1.5 || !afloat && shore < 0.5) {
        return false;
      }
    }
    return things.free(frame.oblong(0, 0, length - 0.1, beam - 0.1));
  }

  /**
   * Builds a vessel and puts it where it lies; {@code frame} points to its bow.
   *
   * @param foot height of the water, or of the ground under its keel
   */
  void launch(
      Frame frame,
      Vessel.Kind kind,
      double length,
      double beam,
      double foot,
      String place,
      Vessel.State state,
      int abreast,
      Chance chance) {
    things.take(frame.oblong(0, 0, length, beam));
    double[] ring = hull(frame, kind, length, beam);
    double rail = foot + freeboard(kind, length, chance);
    float[] paint = kind == Vessel.Kind.BARGE && chance.happens(0.7)
        ? Material.CONTAINER.toned(chance.between(0.5, 1.3), 0.02 * chance.gaussian())
        : Clutter.coat(chance);
    float[] deck = deck(kind, chance);
    float[] rim = chance.happens(0.55)
        ? Material.PAINT.toned(chance.between(1.2, 1.9), 0.005)
        : Material.mixed(paint, deck, 0.3);
    Surface side = Surface.of(Material.PAINT, paint);
    Surface top = Surface.of(Material.DECK, deck)
        .with(Pattern.RIM, rim, kind == Vessel.Kind.DINGHY ? 0.22 : 0.34, frame.angle());
    things.add(Solid.box(ring, foot, rail, side, top));
    switch (kind) {
      case DINGHY -> dinghy(frame, length, beam, rail, chance);
      case WORKBOAT -> workboat(frame, length, beam, rail, chance);
      case BARGE -> barge(frame, length, beam, rail, chance);
    }
    double heading = Math.toDegrees(Math.PI / 2 - frame.angle());
    things.add(new Vessel(
        things.vessels().size(),
        kind,
        frame.east(),
        frame.north(),
        (heading % 360 + 360) % 360,
        length,
        beam,
        ring,
        rail,
        place,
        state,
        abreast));
    if (state == Vessel.State.UNDER_WAY) {
      things.add(new Wake(
          frame.east(),
          frame.north(),
          frame.cos(),
          frame.sin(),
          length * chance.between(4, 9),
          beam));
    }
  }

  private static double freeboard(Vessel.Kind kind, double length, Chance chance) {
    return switch (kind) {
      case DINGHY -> chance.between(0.45, 0.7);
      case WORKBOAT -> 0.8 + 0.05 * length;
      case BARGE -> chance.between(0.7, 2.2);
    };
  }

  private static float[] deck(Vessel.Kind kind, Chance chance) {
    return switch (kind) {
      case DINGHY ->
        chance.happens(0.5)
            ? Material.TIMBER.toned(chance.between(0.5, 1.1), 0)
            : Material.PAINT.toned(chance.between(0.5, 1.5), 0.01 * chance.gaussian());
      case WORKBOAT ->
        switch (chance.weighted(45, 30, 25)) {
          case 0 -> Material.DECK.toned(chance.between(0.7, 1.3), 0.02 * chance.gaussian());
          case 1 ->
            Material.mixed(
                Material.TARPAULIN.spectrum(), Material.DECK.spectrum(), chance.between(0.2, 0.8));
          default -> Material.RUSTED_METAL_ROOF.toned(chance.between(0.5, 0.9), 0);
        };
      case BARGE ->
        Material.mixed(
            Material.RUSTED_METAL_ROOF.spectrum(), Material.DECK.spectrum(), chance.unit());
    };
  }

  private void box(
      Frame frame, double u, double v, double l, double w, double foot, double top, Surface over) {
    things.add(Solid.box(frame.oblong(u, v, l, w), foot, top, over, over));
  }

  private void dinghy(Frame frame, double length, double beam, double rail, Chance chance) {
    if (chance.happens(0.3)) {
      // under a cover
      Surface cloth = Surface.of(
          Material.TARPAULIN,
          chance.happens(0.5)
              ? Material.TARPAULIN.toned(chance.between(0.6, 1.3), 0)
              : Material.PAINT.toned(chance.between(0.4, 1.6), 0));
      box(frame, -0.08 * length, 0, length * 0.62, beam * 0.7, rail - 0.3, rail + 0.3, cloth);
    } else if (length > 5.4 && chance.happens(0.5)) {
      Surface white = Surface.of(Material.PAINT, Material.PAINT.toned(1.7, 0));
      box(frame, 0.1 * length, 0, length * 0.3, beam * 0.55, rail - 0.3, rail + 0.9, white);
    } else {
      Surface thwart = Surface.of(Material.TIMBER, Material.TIMBER.toned(1.2, 0));
      for (int k = -1; k <= 1; k++) {
        box(frame, k * length * 0.22, 0, 0.3, beam * 0.7, rail - 0.3, rail - 0.02, thwart);
      }
    }
  }

  private void workboat(Frame frame, double length, double beam, double rail, Chance chance) {
    double fore = chance.happens(0.6) ? 0.2 : -0.26;
    double house = Math.max(1.8, length * chance.between(0.16, 0.26));
    Surface white =
        Surface.of(Material.PAINT, Material.PAINT.toned(chance.between(1.2, 1.95), 0.004));
    double wide = beam * chance.between(0.5, 0.7);
    double tall = 1.9 + 0.05 * length;
    box(frame, fore * length, 0, house, wide, rail - 0.5, rail + tall, white);
    if (length > 13) {
      box(
          frame,
          fore * length + 0.1 * house,
          0,
          house * 0.6,
          wide * 0.8,
          rail + tall - 0.3,
          rail + tall + 2.1,
          white);
    }
    Surface hatch = Surface.of(
        Material.PAINT, Material.PAINT.toned(chance.between(0.4, 1.5), 0.03 * chance.gaussian()));
    box(
        frame,
        fore > 0 ? -0.08 * length : 0.14 * length,
        0,
        length * 0.14,
        beam * 0.4,
        rail - 0.3,
        rail + 0.45,
        hatch);
    int gear = chance.whole(0, 3);
    for (int k = 0; k < gear; k++) {
      Surface net = Surface.of(
          Material.NET,
          chance.happens(0.5) ? Material.PASTURE.toned(1.1, -0.05) : Material.BUOY.toned(0.7, 0));
      double u = fore > 0 ? -chance.between(0.2, 0.42) : chance.between(0.25, 0.36);
      box(
          frame,
          u * length,
          chance.between(-0.2, 0.2) * beam,
          length * 0.09,
          beam * 0.25,
          rail - 0.3,
          rail + chance.between(0.2, 0.8),
          net);
    }
  }

  private void barge(Frame frame, double length, double beam, double rail, Chance chance) {
    Surface white = Surface.of(Material.PAINT, Material.PAINT.toned(chance.between(0.9, 1.8), 0));
    double house = chance.between(3.5, 6);
    box(
        frame,
        -length * 0.5 + house * 0.75,
        0,
        house,
        beam * 0.72,
        rail - 0.5,
        rail + chance.between(2.6, 5.5),
        white);
    double hold = length - house * 1.5 - length * 0.16;
    double middle = -length * 0.5 + house * 1.5 + hold / 2;
    int load = chance.weighted(34, 22, 22, 22);
    if (load == 0) {
      Surface hatch = Surface.of(
              Material.PAINT,
              Material.PAINT.toned(chance.between(0.3, 1.3), 0.03 * chance.gaussian()))
          .with(Pattern.STRIPES, Material.PAINT.toned(0.25, 0), 3.1, frame.angle());
      box(frame, middle, 0, hold, beam * 0.76, rail - 0.5, rail + 0.9, hatch);
    } else if (load == 1) {
      Material cargo = chance.happens(0.5) ? Material.GRAVEL : Material.SAND;
      Surface heap = Surface.of(cargo, cargo.toned(chance.between(0.7, 1.2), 0));
      box(frame, middle, 0, hold * 0.94, beam * 0.7, rail - 0.5, rail + 0.6, heap);
    } else if (load == 2) {
      int across = Math.max(1, (int) (beam * 0.85 / 2.6));
      for (double u = middle - hold / 2 + 6.5; u + 6.1 < middle + hold / 2; u += 12.6) {
        for (int k = 0; k < across; k++) {
          if (chance.happens(0.75)) {
            Surface steel = Surface.of(Material.CONTAINER, Clutter.coat(chance));
            double v = (k - (across - 1) / 2.0) * 2.6;
            box(frame, u, v, 12.2, 2.44, rail - 0.3, rail + 2.6 * chance.whole(1, 2), steel);
          }
        }
      }
    } else {
      Surface open = Surface.of(Material.DECK, Material.PEAT.toned(1.3, 0));
      box(frame, middle, 0, hold * 0.9, beam * 0.66, rail - 0.5, rail + 0.05, open);
    }
  }
}
