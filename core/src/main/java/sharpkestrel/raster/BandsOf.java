package sharpkestrel.raster;

import java.util.Arrays;
import java.util.List;

/** Some bands of another raster, in an order of their own. */
public final class BandsOf extends RasterView {

  private final Raster source;
  private final int[] places;

  /**
   * @param places of the bands in the other raster
   */
  public BandsOf(Raster source, int... places) {
    this.source = source;
    this.places = places.clone();
  }

  @Override
  protected Raster source() {
    return source;
  }

  @Override
  public List<Band> bands() {
    return Arrays.stream(places).mapToObj(place -> source.bands().get(place)).toList();
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    float[][] all = new float[source.bands().size()][];
    for (int b = 0; b < places.length; b++) {
      all[places[b]] = target[b];
    }
    source.read(level, window, all, request);
  }
}
