package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import sharpkestrel.demo.ground.Cells;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.raster.Extent;

/** All things of a world, by kind and by place. */
public final class Things {

  private static final double CELL = 64;
  private static final double CLOSE = 16;

  private final List<Building> buildings = new ArrayList<>();
  private final List<Vessel> vessels = new ArrayList<>();
  private final List<Vehicle> vehicles = new ArrayList<>();
  private final List<double[]> marks = new ArrayList<>();
  private final Cells<Solid> solids = new Cells<>(CELL);
  private final Cells<Crown> crowns = new Cells<>(CELL);
  private final Cells<Patch> patches = new Cells<>(CELL);
  private final Cells<Wake> wakes = new Cells<>(CELL);
  private final Cells<Pen> pens = new Cells<>(CELL);
  private final Cells<double[]> taken = new Cells<>(CLOSE);
  private final Cells<double[]> reserved = new Cells<>(CLOSE);

  public void add(Solid solid) {
    solids.enter(solid, solid.east, solid.north, solid.reach);
  }

  public void add(Crown crown) {
    crowns.enter(crown, crown.east(), crown.north(), crown.radius());
  }

  public void add(Patch patch) {
    patches.enter(patch, patch.east, patch.north, patch.reach);
  }

  void add(Pen pen) {
    pens.enter(pen, pen.east(), pen.north(), pen.radius() + 2);
  }

  void add(Wake wake) {
    double reach = wake.length() + wake.beam() * 3;
    wakes.enter(wake, wake.east(), wake.north(), reach);
  }

  public void add(Building building) {
    buildings.add(building);
    building.parts().forEach(this::add);
  }

  void add(Vessel vessel) {
    vessels.add(vessel);
  }

  void add(Vehicle vehicle) {
    vehicles.add(vehicle);
  }

  void mark(double e, double n, double height) {
    marks.add(new double[] {e, n, height});
  }

  /** Keeps a convex piece of ground from being built on again. */
  void take(double[] ring) {
    double[] middle = Polygons.middle(ring);
    taken.enter(ring, middle[0], middle[1], reach(ring, middle));
  }

  /** Keeps a convex piece of ground for what a plan puts there. */
  void reserve(double[] ring) {
    double[] middle = Polygons.middle(ring);
    reserved.enter(ring, middle[0], middle[1], reach(ring, middle));
  }

  /** Whether nothing was put on this convex piece of ground. */
  boolean free(double[] ring) {
    return clear(taken, ring);
  }

  /** Whether nothing was put there and no plan wants it. */
  boolean open(double[] ring) {
    return clear(taken, ring) && clear(reserved, ring);
  }

  private static boolean clear(Cells<double[]> taken, double[] ring) {
    double[] middle = Polygons.middle(ring);
    double reach = reach(ring, middle);
    for (double[] other :
        taken.within(middle[0] - reach, middle[1] - reach, middle[0] + reach, middle[1] + reach)) {
      if (Polygons.overlap(ring, other)) {
        return false;
      }
    }
    return true;
  }

  /** Whether nothing was put on a round place and no plan wants it. */
  public boolean open(double e, double n, double radius) {
    return open(Polygons.oblong(e, n, 0, 2 * radius, 2 * radius));
  }

  private static double reach(double[] ring, double[] middle) {
    double far = 0;
    for (int i = 0; i < ring.length; i += 2) {
      far = Math.max(far, Math.hypot(ring[i] - middle[0], ring[i + 1] - middle[1]));
    }
    return far;
  }

  /** The same things once more, to which others may be added. */
  Things copy() {
    Things then = before(Integer.MAX_VALUE);
    crowns.all().forEach(then::add);
    wakes.all().forEach(then::add);
    pens.all().forEach(then::add);
    then.vessels.addAll(vessels);
    then.vehicles.addAll(vehicles);
    then.marks.addAll(marks);
    reserved.all().forEach(then::reserve);
    return then;
  }

  /** What stood in an earlier year: buildings that are older, walls and quays. */
  public Things before(int year) {
    return standing(
        buildings.stream().filter(building -> building.year() > year).toList(), false);
  }

  /** All but some buildings and what is on their roofs. */
  Things without(List<Building> gone) {
    Things then = standing(gone, true);
    crowns.all().forEach(then::add);
    wakes.all().forEach(then::add);
    pens.all().forEach(then::add);
    then.marks.addAll(marks);
    reserved.all().forEach(then::reserve);
    return then;
  }

  /**
   * @param bare whether what is on roofs goes with them
   */
  private Things standing(List<Building> gone, boolean bare) {
    Things then = new Things();
    Set<Building> left = Collections.newSetFromMap(new IdentityHashMap<>());
    left.addAll(gone);
    Set<Solid> dropped = Collections.newSetFromMap(new IdentityHashMap<>());
    for (Building building : buildings) {
      if (left.contains(building)) {
        dropped.addAll(building.parts());
      } else {
        then.buildings.add(building);
      }
    }
    for (Building building : bare ? gone : List.<Building>of()) {
      if (building != null) {
        for (Solid part : building.parts()) {
          for (Solid on : solids.at(part.east, part.north)) {
            if (on.base > part.base + 1.5 && part.inside(on.east, on.north) > 0) {
              dropped.add(on);
            }
          }
        }
      }
    }
    for (Solid solid : solids.all()) {
      if (!dropped.contains(solid)) {
        then.add(solid);
      }
    }
    patches.all().forEach(then::add);
    taken.all().forEach(then::take);
    return then;
  }

  public List<Building> buildings() {
    return buildings;
  }

  public List<Vessel> vessels() {
    return vessels;
  }

  public List<Vehicle> vehicles() {
    return vehicles;
  }

  /** East, north and height above the geoid of the surveyed marks. */
  public List<double[]> marks() {
    return marks;
  }

  public Iterable<Solid> solids(Extent box) {
    return solids.within(box.west(), box.south(), box.east(), box.north());
  }

  public Iterable<Crown> crowns(Extent box) {
    return crowns.within(box.west(), box.south(), box.east(), box.north());
  }

  public Iterable<Patch> patches(Extent box) {
    return patches.within(box.west(), box.south(), box.east(), box.north());
  }

  public Iterable<Wake> wakes(Extent box) {
    return wakes.within(box.west(), box.south(), box.east(), box.north());
  }

  public Iterable<Pen> pens(Extent box) {
    return pens.within(box.west(), box.south(), box.east(), box.north());
  }
}
