package sharpkestrel.raster;

import java.util.List;

/** The same pixels with other things attached. */
public record Reattached(Raster source, Attachments attachments) implements Raster {

  @Override
  public Grid grid() {
    return source.grid();
  }

  @Override
  public List<Band> bands() {
    return source.bands();
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
    source.read(level, window, target, request);
  }
}
