package sharpkestrel.raster;

import java.util.List;
import java.util.function.IntUnaryOperator;

/** Whole numbers looked up by labels as a raster to be written, 0 being none; exact as they are below 2^24. */
public final class NumberRaster extends DerivedRaster {

  /** The largest number that a float plane holds exactly, with all below it. */
  public static final int MOST = 1 << 24;

  private final LabelRaster labels;
  private final IntUnaryOperator numberOf;

  /**
   * @param most the largest number there is
   * @param numberOf the number of a label
   * @throws RasterException for numbers over {@link #MOST}
   */
  public NumberRaster(LabelRaster labels, String bandName, int most, IntUnaryOperator numberOf) {
    super(
        labels.grid(),
        List.of(new Band(bandName, BandRole.OTHER, "", SampleType.UINT32, 0)),
        Attachments.NONE,
        Zoom.FULL_RESOLUTION);
    if (most > MOST) {
      throw new RasterException(
          most + " are too many for a raster of numbers, which holds up to " + MOST + ".");
    }
    this.labels = labels;
    this.numberOf = numberOf;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level != 0) {
      throw new RasterException("Numbers have no reduced levels.");
    }
    int[] read = new int[window.area()];
    labels.read(window, read);
    for (int i = 0; i < read.length; i++) {
      int number = numberOf.applyAsInt(read[i]);
      target[0][i] = number == 0 ? Float.NaN : number;
    }
  }
}
