package sharpkestrel.raster;

import java.util.List;
import java.util.Optional;
import java.util.function.IntUnaryOperator;

/**
 * Whole numbers looked up by labels as a raster to be written, 0 being none. Float planes hold those below 2^24 exactly; a
 * writer takes {@link #wholeNumbers}, which are exact all.
 */
public final class NumberRaster extends DerivedRaster {

  private final LabelRaster labels;
  private final IntUnaryOperator numberOf;
  private final int most;

  /**
   * @param most the largest number there is
   * @param numberOf the number of a label
   */
  public NumberRaster(LabelRaster labels, String bandName, int most, IntUnaryOperator numberOf) {
    super(
        labels.grid(),
        List.of(new Band(bandName, BandRole.OTHER, "", SampleType.UINT32, 0)),
        Attachments.NONE,
        Zoom.FULL_RESOLUTION);
    this.labels = labels;
    this.most = most;
    this.numberOf = numberOf;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    int[] read = numbers(level, window);
    for (int i = 0; i < read.length; i++) {
      target[0][i] = read[i] == 0 ? Float.NaN : read[i];
    }
  }

  private int[] numbers(int level, Window window) {
    if (level != 0) {
      throw new RasterException("Numbers have no reduced levels.");
    }
    int[] read = new int[window.area()];
    labels.read(window, read);
    for (int i = 0; i < read.length; i++) {
      read[i] = numberOf.applyAsInt(read[i]);
    }
    return read;
  }

  @Override
  public Optional<LabelRaster> wholeNumbers() {
    return Optional.of(new LabelRaster() {
      @Override
      public Grid grid() {
        return labels.grid();
      }

      @Override
      public void read(Window window, int[] target) {
        System.arraycopy(numbers(0, window), 0, target, 0, target.length);
      }

      @Override
      public int maxLabel() {
        return most;
      }
    });
  }
}
