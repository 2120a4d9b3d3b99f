package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.raster.Extent;

/** Fills the archipelago: what must stand in its place comes first, what comes and goes with the day last. */
public final class Plan implements Settling {

  private final Ground ground;
  private final Extent extent;
  private final Things lasting = new Things();
  private final Harbour harbour;

  /**
   * Builds what lasts.
   *
   * @param marks where surveyed marks are laid
   */
  public Plan(Ground ground, Extent extent, Extent marks) {
    this.ground = ground;
    this.extent = extent;
    harbour = new Harbour(ground, lasting);
    Settlements settlements = new Settlements(
        ground, lasting, new Builder(ground, lasting), new Clutter(ground, lasting, false));
    harbour.build(extent);
    settlements.town();
    settlements.country(extent);
    new Traffic(ground, lasting).pave();
    Marks.lay(ground, lasting, marks);
    new Dykes(ground, lasting, 46, 18, 36).along(extent);
  }

  @Override
  public Things lasting() {
    return lasting;
  }

  @Override
  public Changed after(int years) {
    return new Years(
            ground,
            extent,
            years,
            chance -> chance.happens(0.5) ? Orders.croft(chance) : Orders.warehouse(chance))
        .after(lasting);
  }

  @Override
  public Things day(Things lastingThen, long day) {
    Things things = lastingThen.copy();
    Anchorage anchorage = new Anchorage(ground, things, harbour);
    new Traffic(ground, things).fill(extent, anchorage, day);
    anchorage.fill(extent, day);
    return things;
  }
}
