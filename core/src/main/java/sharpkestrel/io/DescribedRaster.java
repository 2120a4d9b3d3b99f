package sharpkestrel.io;

import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.TileCache;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** A raster with what a {@link Description} tells: hidden numbers, scaled ones, another grid, other names. */
final class DescribedRaster extends DerivedRaster {

  private final Raster source;
  private final double[] hidden;
  private final float[] scale;
  private final float[] offset;
  private final Optional<CachedRaster> halved;

  DescribedRaster(
      Raster source,
      Grid grid,
      List<Band> bands,
      Attachments attachments,
      Description told,
      boolean overviewsKnow) {
    super(grid, bands, attachments, Zoom.POINTWISE.over(source.zoom()));
    this.source = source;
    int count = bands.size();
    hidden = new double[count];
    scale = new float[count];
    offset = new float[count];
    boolean hides = false;
    for (int b = 0; b < count; b++) {
      hidden[b] = told.of(b).noData();
      scale[b] = (float) told.of(b).scale();
      offset[b] = (float) told.of(b).offset();
      hides |= !Double.isNaN(hidden[b]);
    }
    halved = hides && !overviewsKnow
        ? Optional.of(new CachedRaster(this, 256, TileCache.shared()))
        : Optional.empty();
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > 0 && halved.isPresent()) {
      Planes.readByHalving(halved.get(), level, window, target, request);
      return;
    }
    source.read(level, window, target, request);
    for (int b = 0; b < target.length; b++) {
      if (target[b] == null) {
        continue;
      }
      float hole = (float) hidden[b];
      boolean scales = scale[b] != 1 || offset[b] != 0;
      for (int i = 0; i < target[b].length; i++) {
        float v = target[b][i];
        target[b][i] = v == hole ? Float.NaN : scales ? v * scale[b] + offset[b] : v;
      }
    }
  }

  /** Where numbers are as they were. */
  @Override
  public Optional<LabelRaster> wholeNumbers() {
    return scale[0] == 1 && offset[0] == 0 ? source.wholeNumbers() : Optional.empty();
  }
}
