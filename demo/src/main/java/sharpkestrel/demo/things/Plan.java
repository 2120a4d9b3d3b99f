package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.raster.Extent;

/** Fills a world: what must stand in its place comes first, what comes and goes with the day last. */
public final class Plan {

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
    settlements.marks(marks);
    new Dykes(ground, lasting).along(extent);
  }

  /** What lasts: no vessel, no vehicle. */
  public Things lasting() {
    return lasting;
  }

  /** What is there on a day. */
  public Things day(long day) {
    Things things = lasting.copy();
    Anchorage anchorage = new Anchorage(ground, things, harbour);
    new Traffic(ground, things).fill(extent, anchorage, day);
    anchorage.fill(extent, day);
    return things;
  }
}
