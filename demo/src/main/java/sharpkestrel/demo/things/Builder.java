package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** Puts up one building: its ranges under gables, hips, single pitches or flat roofs, where the ground is free. */
final class Builder {

  /** How a range is roofed. */
  enum Form {
    GABLE,
    HIP,
    FLAT,
    MONO
  }

  /**
   * What is wanted.
   *
   * @param length along the frame's {@code u}, metres
   * @param eaves height of the walls
   * @param pitch rise of the roof for a metre
   */
  record Order(
      Building.Use use,
      Building.Shape shape,
      Material roof,
      Form form,
      double length,
      double width,
      double eaves,
      double pitch) {}

  /** A range in the frame of its building. */
  private record Range(
      double u, double v, double length, double width, boolean across, double eaves, Form form) {}

  /** Metres between buildings, at least, where nothing else is said. */
  static final double GAP = 0.35;

  private final Ground ground;
  private final Things things;
  private final double gap;
  private final Walls walls;

  /** What walls are made of. */
  interface Walls {
    Surface of(Chance chance, boolean works);
  }

  Builder(Ground ground, Things things) {
    this(ground, things, GAP, Roofs::wall);
  }

  /**
   * @param gap metres to what is built already, at least
   */
  Builder(Ground ground, Things things, double gap, Walls walls) {
    this.ground = ground;
    this.things = things;
    this.gap = gap;
    this.walls = walls;
  }

  /**
   * Builds where the plan lies on dry, free, not too steep ground.
   *
   * @param clearance metres to the edges of roads
   * @return whether it was built
   */
  boolean build(Frame frame, Order order, double clearance, Chance chance) {
    return build(frame, order, clearance, null, chance).isPresent();
  }

  /**
   * The same within a convex piece of land; null for any.
   *
   * @return what was built
   */
  Optional<Building> build(
      Frame frame, Order order, double clearance, double[] within, Chance chance) {
    List<Range> ranges = ranges(order, chance);
    List<double[]> rings = new ArrayList<>();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (Range range : ranges) {
      rings.add(ring(frame, range, gap));
      double[] ring = ring(frame, range, 0);
      for (int i = 0; i < ring.length; i += 2) {
        double e = ring[i];
        double n = ring[i + 1];
        if (!ground.buildable(e, n)
            || ground.roads().beyondEdge(e, n) < clearance
            || within != null && !Polygons.holds(within, e, n)) {
          return Optional.empty();
        }
        double h = ground.height(e, n);
        low = Math.min(low, h);
        high = Math.max(high, h);
      }
    }
    if (high - low > 4.2 + order.length * 0.04) {
      return Optional.empty();
    }
    for (double[] ring : rings) {
      if (!things.open(ring)) {
        return Optional.empty();
      }
    }
    for (double[] ring : rings) {
      things.take(ring);
    }
    Building built = raise(frame, order, ranges, low, high, chance);
    things.add(built);
    return Optional.of(built);
  }

  private Building raise(
      Frame frame, Order order, List<Range> ranges, double low, double high, Chance chance) {
    double base = ground.height(frame.east(), frame.north());
    double sill = Math.max(base, (low + 2 * high) / 3);
    Surface wall = walls.of(chance, isWorks(order.use));
    List<Solid> parts = new ArrayList<>();
    Surface main = Roofs.roof(order.roof, chance, frame.angle());
    for (Range range : ranges) {
      double angle = frame.angle() + (range.across ? Math.PI / 2 : 0);
      Surface over = turned(main, angle);
      double pitch = range.form == Form.MONO ? Math.min(order.pitch, 0.3) : order.pitch;
      parts.add(solid(
          ring(frame, range, 0),
          angle,
          range.across ? range.width : range.length,
          range.across ? range.length : range.width,
          sill,
          sill + range.eaves,
          pitch,
          range.form,
          wall,
          over));
    }
    if (order.roof == Material.SLATE_ROOF && order.use == Building.Use.DWELLING) {
      chimneys(frame, order, parts.get(0), chance);
    }
    int year = chance.happens(0.2) ? chance.whole(1975, 2030) : chance.whole(1840, 1960);
    return new Building(
        things.buildings().size(),
        order.use,
        order.roof,
        order.shape,
        year,
        frame.east(),
        frame.north(),
        base,
        parts);
  }

  private static boolean isWorks(Building.Use use) {
    return use == Building.Use.WAREHOUSE || use == Building.Use.WORKS || use == Building.Use.BARN;
  }

  private static Surface turned(Surface surface, double angle) {
    return surface.with(surface.pattern(), surface.second(), surface.share(), angle);
  }

  private static double[] ring(Frame frame, Range range, double margin) {
    return frame.oblong(range.u, range.v, range.length + 2 * margin, range.width + 2 * margin);
  }

  /** A range with walls to the eaves; {@code long0} along {@code angle}. */
  private static Solid solid(
      double[] ring,
      double angle,
      double long0,
      double short0,
      double base,
      double eaves,
      double pitch,
      Form form,
      Surface wall,
      Surface over) {
    double along = Math.cos(angle);
    double up = Math.sin(angle);
    double side = eaves + pitch * short0 / 2;
    double end = eaves + pitch * long0 / 2;
    double[][] roof = switch (form) {
      case FLAT -> new double[][] {{eaves, 0, 0}};
      case MONO -> new double[][] {{side, -pitch * up, pitch * along}};
      case GABLE ->
        new double[][] {{side, pitch * up, -pitch * along}, {side, -pitch * up, pitch * along}};
      case HIP ->
        new double[][] {
          {side, pitch * up, -pitch * along},
          {side, -pitch * up, pitch * along},
          {end, -pitch * along, -pitch * up},
          {end, pitch * along, pitch * up}
        };
    };
    return new Solid(ring, base, roof, wall, over);
  }

  private void chimneys(Frame frame, Order order, Solid house, Chance chance) {
    Surface stone = Surface.of(Material.STONE_WALL);
    double half = order.length / 2 - 0.8;
    for (int side = -1; side <= 1; side += 2) {
      if (order.form == Form.GABLE && chance.happens(0.75)) {
        things.add(Solid.box(
            frame.oblong(side * half, 0, 0.7, 1.1),
            house.top - 1,
            house.top + chance.between(0.7, 1.2),
            stone,
            stone));
      }
    }
  }

  /** The ranges of a plan; the first is the main one. */
  private static List<Range> ranges(Order order, Chance chance) {
    double l = order.length;
    double w = order.width;
    double h = order.eaves;
    Form form = order.form;
    List<Range> ranges = new ArrayList<>();
    double wing = w * chance.between(0.62, 0.9);
    double deep = w * chance.between(0.55, 1.1);
    double lower = h * chance.between(0.75, 0.95);
    double side = chance.happens(0.5) ? 1 : -1;
    Range main = new Range(0, 0, l, w, false, h, form);
    ranges.add(main);
    double out = side * (w / 2 + deep / 2 - 0.4);
    double end = l / 2 - wing / 2;
    switch (order.shape) {
      case OBLONG, OCTAGON -> {}
      case ELL -> ranges.add(wing(chance.happens(0.5) ? end : -end, out, wing, deep, lower, form));
      case TEE ->
        ranges.add(wing(chance.between(-0.2, 0.2) * (l - wing), out, wing, deep, lower, form));
      case YOU -> {
        ranges.add(wing(end, out, wing, deep, lower, form));
        ranges.add(wing(-end, out, wing, deep * chance.between(0.8, 1), lower, form));
      }
      case CROSS -> {
        ranges.add(wing(0, out, wing, deep, h, form));
        ranges.add(wing(0, -out, wing, deep, h, form));
      }
      case COURT -> {
        double court = Math.max(l - 2 * w, w * 0.9) + w;
        double half = court / 2 + w / 2 - 0.4;
        ranges.clear();
        double far = side * (court - 0.2);
        ranges.add(new Range(0, 0, l, w, false, h, form));
        ranges.add(new Range(0, far, l, w, false, lower, form));
        double between = Math.abs(far) - w + 0.8;
        ranges.add(wing(l / 2 - w / 2, far / 2, w, between, lower, form));
        ranges.add(wing(-l / 2 + w / 2, far / 2, w, between, lower, form));
        if (half < w) {
          ranges.remove(3);
        }
      }
      case OUTSHUT -> {
        double lean = chance.between(2, 3.2);
        double span = l * chance.between(0.5, 0.95);
        ranges.add(new Range(
            chance.between(-0.4, 0.4) * (l - span),
            side * (w / 2 + lean / 2 - 0.2),
            span,
            lean,
            false,
            Math.max(1.9, h * 0.7),
            Form.FLAT));
      }
      case DOUBLE ->
        ranges.add(
            new Range(chance.between(-0.1, 0.1) * l, side * (w - 0.3), l, w, false, h, form));
      case ROW -> {
        ranges.clear();
        int houses = Math.max(2, (int) Math.round(l / 7.5));
        double step = l / houses;
        for (int i = 0; i < houses; i++) {
          ranges.add(new Range(
              -l / 2 + step * (i + 0.5),
              chance.between(-0.35, 0.35),
              step + 0.02,
              w,
              false,
              h + chance.between(-0.35, 0.35),
              form));
        }
      }
    }
    return ranges;
  }

  private static Range wing(double u, double v, double wide, double deep, double eaves, Form form) {
    return new Range(u, v, wide, deep, true, eaves, form);
  }

  /** A tower of eight sides: a silo, a mill, a light. */
  boolean tower(
      double e,
      double n,
      double radius,
      double height,
      Material roof,
      Building.Use use,
      Chance chance) {
    double[] ring = new double[16];
    double[] margin = new double[16];
    for (int k = 0; k < 8; k++) {
      double a = (k + 0.5) * Math.PI / 4;
      ring[2 * k] = e + radius * Math.cos(a);
      ring[2 * k + 1] = n + radius * Math.sin(a);
      margin[2 * k] = e + (radius + 1) * Math.cos(a);
      margin[2 * k + 1] = n + (radius + 1) * Math.sin(a);
    }
    if (!things.open(margin) || ground.landform().at(e, n) < 2) {
      return false;
    }
    things.take(margin);
    double base = ground.height(e, n);
    double pitch = chance.between(0.2, 0.7);
    double[][] planes = new double[8][];
    for (int k = 0; k < 8; k++) {
      double a = k * Math.PI / 4;
      planes[k] = new double[] {base + height, -pitch * Math.cos(a), -pitch * Math.sin(a)};
    }
    Surface over = Roofs.roof(roof, chance, 0);
    Surface wall = Surface.of(Material.WALL, Material.WALL.toned(chance.between(0.7, 1.1), 0.01));
    Solid solid = new Solid(ring, base, planes, wall, over);
    things.add(new Building(
        things.buildings().size(),
        use,
        roof,
        Building.Shape.OCTAGON,
        chance.whole(1880, 1990),
        e,
        n,
        base,
        List.of(solid)));
    return true;
  }
}
