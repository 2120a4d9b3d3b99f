package sharpkestrel.segment.regions;

import java.util.List;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** What hangs together of one class of values: between the same two cuts, or of the same whole number. */
final class ValueRegions {

  private static final int STRIP = 256;

  /** The class of a value, from 1. */
  private interface Classes {
    int of(float value);
  }

  private ValueRegions() {}

  /**
   * @param cuts in rising order; a value on a cut is above it
   * @param labels (output) 1 to the returned count; 0 for no-data
   */
  static int between(Raster raster, int band, List<Double> cuts, ScratchLabels labels, Job job) {
    double[] at = cuts.stream().mapToDouble(Double::doubleValue).sorted().toArray();
    return make(raster, band, labels, job, value -> {
      int place = 0;
      while (place < at.length && value >= at[place]) {
        place++;
      }
      return place + 1;
    });
  }

  /** Of class or cluster numbers, 0 being none. */
  static int ofNumbers(Raster raster, int band, ScratchLabels labels, Job job) {
    return make(raster, band, labels, job, value -> Math.round(value));
  }

  private static int make(Raster raster, int band, ScratchLabels labels, Job job, Classes classes) {
    int width = labels.grid().width();
    for (int top = 0; top < labels.grid().height(); top += STRIP) {
      Window rows = new Window(0, top, width, STRIP).intersect(labels.grid().window());
      float[][] planes = new float[raster.bands().size()][];
      planes[band] = new float[rows.area()];
      raster.read(0, rows, planes, job.request());
      int[] numbers = new int[rows.area()];
      for (int i = 0; i < numbers.length; i++) {
        numbers[i] = Float.isNaN(planes[band][i]) ? 0 : classes.of(planes[band][i]);
      }
      labels.write(rows, numbers);
    }
    return Pieces.ofEqual(labels, job);
  }
}
