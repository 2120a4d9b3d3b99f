package sharpkestrel.raster;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** The bands of a raster with those of another on the same grid behind them. */
public final class Layered extends RasterView {

  private final Raster first;
  private final Raster second;
  private final List<Band> bands;

  /**
   * @throws RasterException where they lie on different pixels
   */
  public static Raster of(Raster first, Raster second) {
    if (!first.grid().equals(second.grid())) {
      throw new RasterException("The further layer lies on other pixels than the scene: "
          + second.grid().width() + " x " + second.grid().height() + " against "
          + first.grid().width() + " x " + first.grid().height()
          + ", or elsewhere. Make it from the scene, or clip and warp it to the same grid.");
    }
    return new Layered(first, second);
  }

  private Layered(Raster first, Raster second) {
    this.first = first;
    this.second = second;
    bands = new ArrayList<>(first.bands());
    bands.addAll(second.bands());
  }

  @Override
  protected Raster source() {
    return first;
  }

  @Override
  public List<Band> bands() {
    return bands;
  }

  @Override
  public Zoom zoom() {
    return first.zoom().over(second.zoom());
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    int own = first.bands().size();
    float[][] before = Arrays.copyOf(target, own);
    float[][] behind = Arrays.copyOfRange(target, own, target.length);
    if (Arrays.stream(before).anyMatch(plane -> plane != null)) {
      first.read(level, window, before, request);
    }
    if (Arrays.stream(behind).anyMatch(plane -> plane != null)) {
      second.read(level, window, behind, request);
    }
  }
}
