package sharpkestrel.demo.things;

import java.util.Optional;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.noise.Chance;

/** Houses wall to wall about courts. */
final class Rows {

  private static final double TOUCHING = 0.012;

  private final Taste taste;
  private final Builder builder;
  private final Builder touching;
  private final Clutter clutter;
  private final Fittings fittings;

  Rows(Ground ground, Things things, Taste taste, Fittings fittings) {
    this.taste = taste;
    this.fittings = fittings;
    builder = new Builder(ground, things, Builder.GAP, taste::wall);
    touching = new Builder(ground, things, TOUCHING, taste::wall);
    clutter = new Clutter(ground, things, true);
  }

  /** Houses wall to wall along the sides of a block, a court behind them with wings, sheds and trees. */
  void build(double[] ring, Chance chance) {
    double depth = chance.between(8.5, 12.5);
    for (int corner = 0; corner < ring.length; corner += 2) {
      Side side = Side.of(ring, corner);
      double height = taste.wallHeight(chance);
      double at = Side.WITHIN;
      while (at < side.length() - 4.5) {
        double front = Math.min(chance.between(5.2, 14), side.length() - Side.WITHIN - at);
        double deep = depth * chance.between(0.85, 1.12);
        boolean open = chance.happens(0.03);
        Material roof = taste.houseRoof(chance);
        Builder.Order order = taste.house(
            chance.happens(0.2) ? Building.Use.SHOP : Building.Use.DWELLING,
            Building.Shape.OBLONG,
            roof,
            front - TOUCHING * 2,
            deep,
            Math.max(3, height + chance.between(-1.6, 1.6)),
            chance);
        Frame frame = side.frame().moved(at + front / 2, deep / 2 + Side.WITHIN, 0);
        Optional<Building> built =
            open ? Optional.empty() : touching.build(frame, order, 0.3, ring, chance);
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
    touching.build(house.moved(u, deep / 2 + back / 2 + 0.03, 0), lower, 0.3, ring, chance);
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
      Frame spot = side.frame()
          .moved(
              chance.between(2, side.length() - 2),
              chance.between(2, 12),
              0.03 * chance.gaussian());
      builder.build(spot, Orders.shed(chance), 0.3, court, chance);
    }
    fittings.crowns(court, taste.crowns() * Polygons.area(court) / 300, chance);
  }
}
