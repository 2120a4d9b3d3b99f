package sharpkestrel.raster;

import java.util.List;

/** What another raster is in all that an heir does not say otherwise. */
public abstract class RasterView implements Raster {

  protected abstract Raster source();

  @Override
  public Grid grid() {
    return source().grid();
  }

  @Override
  public List<Band> bands() {
    return source().bands();
  }

  @Override
  public Attachments attachments() {
    return source().attachments();
  }

  @Override
  public Zoom zoom() {
    return source().zoom();
  }

  @Override
  public int levels() {
    return source().levels();
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    source().read(level, window, target, request);
  }
}
