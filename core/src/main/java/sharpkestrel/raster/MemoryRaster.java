package sharpkestrel.raster;

import java.util.List;

/** A raster held in memory; reduced levels are means, made when first asked for. */
public final class MemoryRaster implements Raster {

  private final Grid grid;
  private final List<Band> bands;
  private final Attachments attachments;
  private final float[][] planes;
  private volatile MemoryRaster half;

  /**
   * @param planes one of height * width for each band, row by row; kept, not copied
   */
  public MemoryRaster(Grid grid, List<Band> bands, Attachments attachments, float[][] planes) {
    if (planes.length != bands.size()) {
      throw new IllegalArgumentException(
          bands.size() + " bands need as many planes, not " + planes.length);
    }
    for (float[] plane : planes) {
      if (plane.length != grid.pixels()) {
        throw new IllegalArgumentException(
            "A plane of " + plane.length + " samples does not fill " + grid);
      }
    }
    this.grid = grid;
    this.bands = List.copyOf(bands);
    this.attachments = attachments;
    this.planes = planes;
  }

  @Override
  public Grid grid() {
    return grid;
  }

  @Override
  public List<Band> bands() {
    return bands;
  }

  @Override
  public Attachments attachments() {
    return attachments;
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    request.cancellation().check();
    if (level > 0) {
      half().read(level - 1, window, target, request);
      return;
    }
    Planes.fillNaN(target);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        Planes.copy(planes[b], grid.window(), target[b], window);
      }
    }
  }

  private MemoryRaster half() {
    MemoryRaster made = half;
    if (made == null) {
      Grid small = grid.atLevel(1);
      Window window = small.window();
      float[][] halved = new float[planes.length][window.area()];
      Planes.readByHalving(this, 1, window, halved, Request.BACKGROUND);
      made = new MemoryRaster(small, bands, attachments, halved);
      half = made;
    }
    return made;
  }
}
