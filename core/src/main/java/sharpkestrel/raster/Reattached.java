package sharpkestrel.raster;

import java.util.Optional;

/** The same pixels with other things attached. */
public final class Reattached extends RasterView {

  private final Raster source;
  private final Attachments attachments;

  public Reattached(Raster source, Attachments attachments) {
    this.source = source;
    this.attachments = attachments;
  }

  @Override
  protected Raster source() {
    return source;
  }

  @Override
  public Optional<LabelRaster> wholeNumbers() {
    return source.wholeNumbers();
  }

  @Override
  public Attachments attachments() {
    return attachments;
  }
}
