package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Pattern;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;

/** What is put on roofs and along bounds: tanks, stair heads, plant, panels; walls, fences and hedges; single trees. */
final class Fittings {

  private final Ground ground;
  private final Things things;
  private final Taste taste;

  Fittings(Ground ground, Things things, Taste taste) {
    this.ground = ground;
    this.things = things;
    this.taste = taste;
  }

  /** On the roof of a house or a barn. */
  void roof(Building building, Chance chance) {
    Solid part = building.parts().getFirst();
    if (part.facets() == 1) {
      if (chance.happens(taste.tanks())) {
        flat(part, chance);
      }
    } else if (chance.happens(taste.solar())) {
      panels(part, chance.whole(0, 1), chance.between(0.45, 0.85), chance);
    }
  }

  /** Tanks and a stair head, or coolers. */
  private void flat(Solid part, Chance chance) {
    int many = chance.whole(1, 3);
    for (int k = 0; k < many; k++) {
      double e = part.east + chance.between(-0.3, 0.3) * part.reach;
      double n = part.north + chance.between(-0.3, 0.3) * part.reach;
      if (part.inside(e, n) < 1.4) {
        continue;
      }
      if (chance.happens(0.3)) {
        Surface wall = Surface.of(
            Material.WALL, Material.WALL.toned(chance.between(0.5, 1.1), 0.02 * chance.gaussian()));
        things.add(Solid.box(
            Polygons.oblong(e, n, angle(part), chance.between(2.2, 3.4), 2.2),
            part.top - 0.1,
            part.top + chance.between(2.1, 2.6),
            wall,
            wall));
      } else {
        float[] coat = chance.happens(0.5)
            ? Material.PAINT.toned(chance.between(0.12, 2.1), 0)
            : Clutter.coat(chance);
        Surface skin = Surface.of(Material.PAINT, coat);
        double r = chance.between(0.5, 0.85);
        things.add(Solid.box(
            round(e, n, r), part.top - 0.1, part.top + chance.between(1.0, 1.7), skin, skin));
      }
    }
  }

  private static double angle(Solid part) {
    double[] plan = part.plan();
    return Math.atan2(plan[3] - plan[1], plan[2] - plan[0]);
  }

  static double[] round(double e, double n, double radius) {
    double[] ring = new double[16];
    for (int k = 0; k < 8; k++) {
      ring[2 * k] = e + radius * Math.cos((k + 0.5) * Math.PI / 4);
      ring[2 * k + 1] = n + radius * Math.sin((k + 0.5) * Math.PI / 4);
    }
    return ring;
  }

  /** Panels that lie on a facet of a pitched roof. */
  private void panels(Solid part, int facet, double share, Chance chance) {
    double[][] corners = part.facet(facet);
    if (corners.length < 3) {
      return;
    }
    double[] ring = new double[2 * corners.length];
    double me = 0;
    double mn = 0;
    double mz = 0;
    for (double[] corner : corners) {
      me += corner[0] / corners.length;
      mn += corner[1] / corners.length;
      mz += corner[2] / corners.length;
    }
    double low = Double.POSITIVE_INFINITY;
    for (int k = 0; k < corners.length; k++) {
      ring[2 * k] = me + share * (corners[k][0] - me);
      ring[2 * k + 1] = mn + share * (corners[k][1] - mn);
      low = Math.min(low, corners[k][2]);
    }
    if (Polygons.area(ring) < 6) {
      return;
    }
    double[] slope = slope(corners);
    double[] middle = Polygons.middle(ring);
    double z = mz + slope[0] * (middle[0] - me) + slope[1] * (middle[1] - mn) + 0.14;
    Surface panel = panel(Math.atan2(slope[1], slope[0]), chance);
    things.add(new Solid(ring, low, new double[][] {{z, slope[0], slope[1]}}, panel, panel));
  }

  private static Surface panel(double direction, Chance chance) {
    float[] glass = Material.SOLAR.toned(chance.between(0.7, 1.4), 0.01 * chance.gaussian());
    return Surface.of(Material.SOLAR, glass)
        .with(Pattern.STRIPES, Material.PAINT.toned(0.7, 0), 1.05, direction);
  }

  /** Change of height for a metre east and north of a facet. */
  private static double[] slope(double[][] corners) {
    double[] a = corners[0];
    double[] b = corners[1];
    double[] c = corners[2];
    double det = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
    return new double[] {
      ((b[2] - a[2]) * (c[1] - a[1]) - (c[2] - a[2]) * (b[1] - a[1])) / det,
      ((b[0] - a[0]) * (c[2] - a[2]) - (c[0] - a[0]) * (b[2] - a[2])) / det
    };
  }

  /** On the roof of a hall: plant and rooflights in rows, or panels. */
  void hall(Building hall, Chance chance) {
    for (Solid part : hall.parts()) {
      double[] plan = part.plan();
      double length = Math.hypot(plan[2] - plan[0], plan[3] - plan[1]);
      double width = Math.hypot(plan[4] - plan[2], plan[5] - plan[3]);
      Frame frame = Frame.at(part.east, part.north, angle(part));
      if (part.facets() == 1 && chance.happens(taste.solar())) {
        array(frame, length - 8, width - 8, part.top, chance);
      } else if (part.facets() == 1) {
        plant(frame, length - 6, width - 6, part.top, chance);
      } else if (chance.happens(taste.solar())) {
        panels(part, chance.whole(0, 1), chance.between(0.5, 0.92), chance);
      }
    }
  }

  private void array(Frame frame, double length, double width, double top, Chance chance) {
    double row = chance.between(2.2, 3.4);
    for (double v = -width / 2 + row; v < width / 2 - row; v += row + 0.9) {
      Frame spot = frame.moved(0, v, 0);
      Surface panel = panel(frame.angle(), chance);
      double tilt = 0.16;
      things.add(new Solid(
          spot.oblong(0, 0, length, row),
          top - 0.1,
          new double[][] {{top + 0.45, tilt * frame.sin(), -tilt * frame.cos()}},
          panel,
          panel));
    }
  }

  private void plant(Frame frame, double length, double width, double top, Chance chance) {
    boolean lights = chance.happens(0.5);
    if (lights) {
      Surface dome = Surface.of(Material.GLASS, Material.GLASS.toned(chance.between(0.9, 2), 0));
      for (double u = -length / 2 + 4; u < length / 2 - 3; u += chance.between(7, 11)) {
        for (double v = -width / 2 + 4; v < width / 2 - 3; v += 9) {
          things.add(Solid.box(frame.oblong(u, v, 2.4, 1.3), top - 0.1, top + 0.45, dome, dome));
        }
      }
    }
    int many = chance.whole(1, Math.max(2, (int) (length * width / 500)));
    for (int k = 0; k < many; k++) {
      Surface skin =
          Surface.of(Material.PAINT, Material.PAINT.toned(chance.between(0.7, 1.9), 0.01));
      things.add(Solid.box(
          frame.oblong(
              chance.between(-0.42, 0.42) * length,
              chance.between(-0.42, 0.42) * width,
              chance.between(1.5, 6),
              chance.between(1.5, 3)),
          top - 0.1,
          top + chance.between(0.9, 2.4),
          skin,
          skin));
    }
  }

  /** Walls, fences or hedges along the bounds of a plot, a gate left open. */
  void walls(double[] plot, Chance chance) {
    boolean hedge = taste.bound() == Material.HEDGE;
    double width = hedge ? chance.between(0.7, 1.3) : 0.28;
    double height = hedge ? chance.between(1.2, 2.2) : chance.between(1.6, 2.7);
    float[] rho = taste.bound().toned(chance.between(0.7, 1.25), 0.02 * chance.gaussian());
    Surface skin = Surface.of(taste.bound(), rho);
    int gate = chance.whole(0, plot.length / 2 - 1);
    for (int k = 0; k < plot.length; k += 2) {
      int next = (k + 2) % plot.length;
      double de = plot[next] - plot[k];
      double dn = plot[next + 1] - plot[k + 1];
      double length = Math.hypot(de, dn);
      double angle = Math.atan2(dn, de);
      double open = k / 2 == gate ? 3.2 : 0;
      int pieces = Math.max(1, (int) (length / 9));
      double run = (length - open) / pieces;
      for (int p = 0; p < pieces && run > 0.5; p++) {
        double at = open + (p + 0.5) * run;
        double e = plot[k] + de * at / length;
        double n = plot[k + 1] + dn * at / length;
        double base = ground.height(e, n);
        double[] ring = Polygons.oblong(e, n, angle, run + 0.02, width);
        if (things.open(ring) && ground.landform().at(e, n) > 1) {
          things.add(Solid.box(ring, base, base + height, skin, skin));
        }
      }
    }
  }

  /** About so many trees and bushes where nothing stands. */
  void crowns(double[] ring, double many, Chance chance) {
    if (ring.length == 0) {
      return;
    }
    double[] box = {1e12, 1e12, -1e12, -1e12};
    for (int k = 0; k < ring.length; k += 2) {
      box[0] = Math.min(box[0], ring[k]);
      box[1] = Math.min(box[1], ring[k + 1]);
      box[2] = Math.max(box[2], ring[k]);
      box[3] = Math.max(box[3], ring[k + 1]);
    }
    int count = (int) Math.floor(many + chance.unit());
    for (int k = 0; k < count; k++) {
      double e = chance.between(box[0], box[2]);
      double n = chance.between(box[1], box[3]);
      double size = chance.unit();
      double radius = 0.9 + 2.6 * size * size;
      boolean conifer = chance.happens(0.2);
      double tall = radius * (conifer ? 1.6 : chance.between(0.8, 1.15));
      float tone = (float) chance.between(0.7, 1.3);
      if (!Polygons.holds(ring, e, n) || !things.open(e, n, radius * 0.7)) {
        continue;
      }
      double h = ground.height(e, n);
      things.add(new Crown(
          e,
          n,
          h + tall * 1.05,
          radius,
          tall,
          conifer ? Material.CONIFER : Material.BROADLEAF,
          tone));
    }
  }
}
