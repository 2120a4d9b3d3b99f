package sharpkestrel.raster;

import java.util.List;

/** One band of another raster. */
public final class OneBand implements Raster {

  private final Raster source;
  private final int band;

  public OneBand(Raster source, int band) {
    this.source = source;
    this.band = band;
  }

  @Override
  public Grid grid() {
    return source.grid();
  }

  @Override
  public List<Band> bands() {
    return List.of(source.bands().get(band));
  }

  @Override
  public Attachments attachments() {
    return source.attachments();
  }

  @Override
  public Zoom zoom() {
    return source.zoom();
  }

  @Override
  public int levels() {
    return source.levels();
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    float[][] all = new float[source.bands().size()][];
    all[band] = target[0];
    source.read(level, window, all, request);
  }
}
