package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.raster.Extent;

/** Fills a region inland as its taste has it. */
public final class InlandPlan implements Settling {

  /** Metres about a track on which nothing is built. */
  private static final double RAILWAY = 8;

  private final Ground ground;
  private final Extent extent;
  private final Things lasting = new Things();
  private final Taste taste;
  private final Quarters quarters;

  /**
   * Builds what lasts.
   *
   * @param marks where surveyed marks are laid
   * @param bounds shares of walls, hedges and nothing along the bounds of fields
   */
  public InlandPlan(Ground ground, Extent extent, Extent marks, Taste taste, double... bounds) {
    this.ground = ground;
    this.extent = extent;
    this.taste = taste;
    keepClearOfRails();
    quarters = new Quarters(ground, lasting, taste);
    quarters.settle(extent);
    Marks.lay(ground, lasting, marks);
    new Dykes(ground, lasting, bounds).along(extent);
  }

  private void keepClearOfRails() {
    for (Road road : ground.roads().all()) {
      for (int k = 0; road.kind() == Road.Kind.RAIL && k + 1 < road.points(); k++) {
        double de = road.e(k + 1) - road.e(k);
        double dn = road.n(k + 1) - road.n(k);
        lasting.reserve(Polygons.oblong(
            (road.e(k) + road.e(k + 1)) / 2,
            (road.n(k) + road.n(k + 1)) / 2,
            Math.atan2(dn, de),
            Math.hypot(de, dn) + 1,
            RAILWAY));
      }
    }
  }

  @Override
  public Things lasting() {
    return lasting;
  }

  @Override
  public Changed after(int years) {
    return new Years(ground, extent, years, taste::today).after(lasting);
  }

  @Override
  public Things day(Things lastingThen, long day) {
    Things things = lastingThen.copy();
    new StreetLife(ground, things).fill(extent, quarters.bays(), day);
    return things;
  }
}
