package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Lets years pass: buildings are pulled down, get another roof, are extended, are built; woods are felled. */
final class Years {

  /** Shares of all buildings in a year. */
  private static final double PULLED_DOWN = 0.008;

  private static final double REROOFED = 0.012;
  private static final double EXTENDED = 0.008;
  private static final double BUILT = 0.012;

  /** Share of all woods in a year. */
  private static final double FELLED = 0.03;

  private final Ground ground;
  private final Extent extent;
  private final int years;
  private final Function<Chance, Builder.Order> orders;

  /**
   * @param orders what is built anew
   */
  Years(Ground ground, Extent extent, int years, Function<Chance, Builder.Order> orders) {
    this.ground = ground;
    this.extent = extent;
    this.years = years;
    this.orders = orders;
  }

  Changed after(Things lasting) {
    List<Change> changes = new ArrayList<>();
    for (Building building : lasting.buildings()) {
      change(building, lasting).ifPresent(changes::add);
    }
    Things later = lasting.without(changes.stream().map(Change::before).toList());
    changes.stream().map(Change::after).filter(after -> after != null).forEach(later::add);
    build(lasting, later, changes);
    fell(later, changes);
    return new Changed(later, changes);
  }

  private Optional<Change> change(Building building, Things lasting) {
    Chance chance = Chance.of(
        ground.seed(), 81, Math.round(building.east() * 10), Math.round(building.north() * 10));
    double draw = chance.unit() / years;
    if (building.use() == Building.Use.CHURCH || draw > PULLED_DOWN + REROOFED + EXTENDED) {
      return Optional.empty();
    }
    if (draw < PULLED_DOWN) {
      return Optional.of(Change.of(Change.Kind.PULLED_DOWN, building, null));
    }
    return draw < PULLED_DOWN + REROOFED
        ? reroofed(building, chance)
        : extended(building, lasting, chance);
  }

  private Optional<Change> reroofed(Building building, Chance chance) {
    Material roof = orders.apply(chance).roof();
    if (roof == building.roof()) {
      return Optional.empty();
    }
    double[] plan = building.parts().getFirst().plan();
    double direction = Math.atan2(plan[3] - plan[1], plan[2] - plan[0]);
    Surface over = Roofs.roof(roof, chance, direction);
    List<Solid> parts = building.parts().stream().map(part -> part.roofed(over)).toList();
    return Optional.of(Change.of(Change.Kind.REROOFED, building, as(building, roof, parts)));
  }

  private static Building as(Building building, Material roof, List<Solid> parts) {
    return new Building(
        building.id(),
        building.use(),
        roof,
        building.shape(),
        building.year(),
        building.east(),
        building.north(),
        building.base(),
        parts);
  }

  /** A flat-roofed part at one of the sides, where there is room. */
  private Optional<Change> extended(Building building, Things lasting, Chance chance) {
    Solid main = building.parts().getFirst();
    double[] plan = main.plan();
    int first = 2 * chance.whole(0, plan.length / 2 - 1);
    for (int turn = 0; turn < plan.length; turn += 2) {
      int k = (first + turn) % plan.length;
      int next = (k + 2) % plan.length;
      double de = plan[next] - plan[k];
      double dn = plan[next + 1] - plan[k + 1];
      double side = Math.hypot(de, dn);
      double deep = chance.between(3, 6.5);
      double wide = side * chance.between(0.5, 0.95);
      Frame wall = Frame.at(
          (plan[k] + plan[next]) / 2, (plan[k + 1] + plan[next + 1]) / 2, Math.atan2(dn, de));
      double[] ring = wall.oblong(0, -deep / 2 + 0.1, wide, deep);
      double[] room = wall.oblong(0, -deep / 2 - 0.5, wide, deep);
      if (side > 4 && lasting.open(room) && isDry(ring)) {
        double top = main.base + Math.max(2.6, 0.6 * (main.top - main.base));
        Surface over = Roofs.roof(Material.FELT_ROOF, chance, wall.angle());
        Surface wallOf = Roofs.wall(chance, false);
        List<Solid> parts = new ArrayList<>(building.parts());
        parts.add(Solid.box(ring, main.base, top, wallOf, over));
        return Optional.of(
            Change.of(Change.Kind.EXTENDED, building, as(building, building.roof(), parts)));
      }
    }
    return Optional.empty();
  }

  private boolean isDry(double[] ring) {
    for (int i = 0; i < ring.length; i += 2) {
      if (!ground.buildable(ring[i], ring[i + 1])
          || ground.roads().beyondEdge(ring[i], ring[i + 1]) < 0.5) {
        return false;
      }
    }
    return true;
  }

  /** New ones beside those that stand, as they lie. */
  private void build(Things lasting, Things later, List<Change> changes) {
    Builder builder = new Builder(ground, later);
    for (Building neighbour : lasting.buildings()) {
      Chance chance = Chance.of(
          ground.seed(), 82, Math.round(neighbour.east() * 10), Math.round(neighbour.north() * 10));
      if (!chance.happens(BUILT * years)) {
        continue;
      }
      double[] plan = neighbour.parts().getFirst().plan();
      double angle = Math.atan2(plan[3] - plan[1], plan[2] - plan[0]);
      for (int tries = 0; tries < 24; tries++) {
        double a = chance.between(0, 2 * Math.PI);
        double r = chance.between(14, 60);
        Frame spot = Frame.at(
            neighbour.east() + r * Math.cos(a), neighbour.north() + r * Math.sin(a), angle);
        Optional<Building> built = extent.holds(spot.east(), spot.north())
            ? builder.build(spot, orders.apply(chance), 1, null, chance)
            : Optional.empty();
        if (built.isPresent()) {
          changes.add(Change.of(Change.Kind.BUILT, null, built.get()));
          break;
        }
      }
    }
  }

  /** Felled woods are bare, with what was left lying. */
  private void fell(Things later, List<Change> changes) {
    for (Parcel parcel : ground.parcels().within(extent)) {
      boolean wood = parcel.use() == Parcel.Use.WOOD || parcel.use() == Parcel.Use.PLANTATION;
      double[] middle = Polygons.middle(parcel.ring());
      Chance chance =
          Chance.of(ground.seed(), 83, Math.round(middle[0] * 10), Math.round(middle[1] * 10));
      if (!wood || !chance.happens(FELLED * years) || !extent.holds(middle[0], middle[1])) {
        continue;
      }
      float[] waste = Material.mixed(
          Material.SOIL.spectrum(), Material.TIMBER.spectrum(), chance.between(0.2, 0.5));
      later.take(parcel.ring());
      later.add(new Patch(parcel.ring(), Surface.of(Material.SOIL, waste), 1.5));
      changes.add(new Change(Change.Kind.FELLED, null, null, parcel.ring()));
    }
  }
}
