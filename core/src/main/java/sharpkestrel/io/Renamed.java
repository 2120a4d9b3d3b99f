package sharpkestrel.io;

import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterView;

/** The same pixels with other names and roles of their bands. */
final class Renamed extends RasterView {

  private final Raster source;
  private final List<Band> bands;

  Renamed(Raster source, List<Band> bands) {
    this.source = source;
    this.bands = List.copyOf(bands);
  }

  @Override
  protected Raster source() {
    return source;
  }

  @Override
  public List<Band> bands() {
    return bands;
  }

  @Override
  public Optional<LabelRaster> wholeNumbers() {
    return source.wholeNumbers();
  }
}
