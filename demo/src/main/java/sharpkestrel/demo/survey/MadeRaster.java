package sharpkestrel.demo.survey;

import java.util.List;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** Pixels made window by window while a file is written; there is no more of them in memory than the writer holds. */
final class MadeRaster extends DerivedRaster {

  /** Makes the planes of a window of the full size. */
  interface Maker {
    float[][] make(Window window);
  }

  private final Maker maker;

  MadeRaster(Grid grid, List<Band> bands, Attachments attachments, Maker maker) {
    super(grid, bands, attachments, Zoom.FULL_RESOLUTION);
    this.maker = maker;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level != 0) {
      throw new IllegalArgumentException(
          "Made pixels come at full size only, not at level " + level + ".");
    }
    float[][] made = maker.make(window);
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        System.arraycopy(made[b], 0, target[b], 0, target[b].length);
      }
    }
  }
}
