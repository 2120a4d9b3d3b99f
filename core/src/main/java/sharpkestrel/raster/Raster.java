package sharpkestrel.raster;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Pixels that are computed when they are asked for. Implementations are safe for use by many threads, have no side
 * effects, and give the same numbers for a pixel whichever window it is asked through.
 */
public interface Raster {

  Grid grid();

  List<Band> bands();

  default Attachments attachments() {
    return Attachments.NONE;
  }

  default Zoom zoom() {
    return Zoom.POINTWISE;
  }

  /**
   * Fills planes with the pixels of a window.
   *
   * @param level 0 is full size; level n+1 has half the size of level n, rounded up, from the same origin
   * @param window in pixels of that level; what lies outside of the grid is NaN
   * @param target (output) one plane of window height * width for each band, row by row; a null plane is not wanted
   * @param request urgency and cancellation
   * @throws java.util.concurrent.CancellationException when cancelled
   * @throws RasterException where the pixels cannot be had
   */
  void read(int level, Window window, float[][] target, Request request);

  default int levels() {
    return grid().levels();
  }

  /**
   * The only band as whole numbers of 32 bits, which float planes do not hold exactly above 2^24; empty where its numbers are
   * smaller ones, fractions, or several bands. Where the plane is NaN any number may stand.
   */
  default Optional<LabelRaster> wholeNumbers() {
    return Optional.empty();
  }

  default OptionalInt bandOf(BandRole role) {
    for (int i = 0; i < bands().size(); i++) {
      if (bands().get(i).role() == role) {
        return OptionalInt.of(i);
      }
    }
    return OptionalInt.empty();
  }

  /**
   * The band of a role.
   *
   * @throws RasterException that names the roles there are
   */
  default int require(BandRole role) {
    return bandOf(role)
        .orElseThrow(() -> new RasterException("This needs a band with the role '"
            + role.label()
            + "'; the scene has "
            + bands().stream().map(b -> b.role().label()).distinct().toList()
            + ". Assign the role to one of its bands, or choose another scene."));
  }

  /** Reads all bands of a window into fresh planes. */
  default float[][] read(int level, Window window, Request request) {
    float[][] planes = new float[bands().size()][window.area()];
    read(level, window, planes, request);
    return planes;
  }
}
