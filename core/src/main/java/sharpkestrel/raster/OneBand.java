package sharpkestrel.raster;

import java.util.List;

/** One band of another raster. */
public final class OneBand extends RasterView {

  private final Raster source;
  private final int band;

  public OneBand(Raster source, int band) {
    this.source = source;
    this.band = band;
  }

  @Override
  protected Raster source() {
    return source;
  }

  @Override
  public List<Band> bands() {
    return List.of(source.bands().get(band));
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    float[][] all = new float[source.bands().size()][];
    all[band] = target[0];
    source.read(level, window, all, request);
  }
}
