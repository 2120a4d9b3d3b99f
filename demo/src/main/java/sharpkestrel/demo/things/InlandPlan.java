package sharpkestrel.demo.things;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.raster.Extent;

/** Fills a region inland as its taste has it. */
public final class InlandPlan implements Settling {

  private final Ground ground;
  private final Extent extent;
  private final Things lasting = new Things();
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
    quarters = new Quarters(ground, lasting, taste);
    quarters.settle(extent);
    Marks.lay(ground, lasting, marks);
    new Dykes(ground, lasting, bounds).along(extent);
  }

  @Override
  public Things lasting() {
    return lasting;
  }

  @Override
  public Changed after(int years) {
    return new Years(ground, extent, years, quarters::order).after(lasting);
  }

  @Override
  public Things day(Things lastingThen, long day) {
    Things things = lastingThen.copy();
    new StreetLife(ground, things).fill(extent, quarters.bays(), day);
    return things;
  }
}
