package sharpkestrel.raster;

import java.util.List;

/** What most lazy rasters share: a grid, bands, attachments and zoom fixed when made; rounding to the sample type. */
public abstract class DerivedRaster implements Raster {

  private final Grid grid;
  private final List<Band> bands;
  private final Attachments attachments;
  private final Zoom zoom;

  protected DerivedRaster(Grid grid, List<Band> bands, Attachments attachments, Zoom zoom) {
    this.grid = grid;
    this.bands = List.copyOf(bands);
    this.attachments = attachments;
    this.zoom = zoom;
  }

  @Override
  public final Grid grid() {
    return grid;
  }

  @Override
  public final List<Band> bands() {
    return bands;
  }

  @Override
  public final Attachments attachments() {
    return attachments;
  }

  @Override
  public final Zoom zoom() {
    return zoom;
  }

  @Override
  public final void read(int level, Window window, float[][] target, Request request) {
    request.cancellation().check();
    if (window.isEmpty()) {
      return;
    }
    Window inside = window.intersect(grid.atLevel(level).window());
    if (inside.equals(window)) {
      computeRounded(level, window, target, request);
      return;
    }
    Planes.fillNaN(target);
    if (inside.isEmpty()) {
      return;
    }
    float[][] part = Planes.like(target, inside.area());
    computeRounded(level, inside, part, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        Planes.copy(part[b], inside, target[b], window);
      }
    }
  }

  private void computeRounded(int level, Window window, float[][] target, Request request) {
    compute(level, window, target, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null && !isRounded()) {
        bands.get(b).quantise(target[b], 0, target[b].length);
      }
    }
  }

  /** Whether what is computed is rounded to the bands' samples already, while it was in the processor's cache. */
  protected boolean isRounded() {
    return false;
  }

  /**
   * Computes a window that lies inside of the grid at the level.
   *
   * @param target (output) every wanted plane is filled, NaN for no-data; rounding is done by the caller
   */
  protected abstract void compute(int level, Window window, float[][] target, Request request);
}
