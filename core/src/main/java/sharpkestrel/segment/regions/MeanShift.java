package sharpkestrel.segment.regions;

import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/** Regions of a scene filtered by mean shift: neighbours whose filtered colours are within half a ball hang together. */
final class MeanShift {

  private static final int STRIP = 64;
  private static final float NEAR = 0.5f;

  private MeanShift() {}

  /**
   * @param labels (output) 1 to the returned count in order of each region's first pixel; 0 for no-data
   */
  static int make(MeanShiftRaster filtered, ScratchLabels labels, Job job) {
    int width = labels.grid().width();
    int bands = filtered.bands().size();
    int strips = Math.ceilDiv(labels.grid().height(), STRIP);
    int batch = Math.max(1, 2 * job.threads());
    float[][][] held = new float[batch][][];
    float[] above = new float[width * bands];
    float[] row = new float[width * bands];
    return Pieces.of(labels, job, (y, flags) -> {
      int strip = y / STRIP;
      if (y % (STRIP * batch) == 0) {
        int count = Math.min(batch, strips - strip);
        Parallel.run(count, job, i -> {
          Window rows = new Window(0, (strip + i) * STRIP, width, STRIP)
              .intersect(labels.grid().window());
          held[i] = filtered.read(0, rows, job.request());
        });
        job.progress("Filtering", strip + count, strips);
      }
      System.arraycopy(row, 0, above, 0, row.length);
      for (int b = 0; b < bands; b++) {
        float[] plane = held[strip % batch][b];
        for (int x = 0; x < width; x++) {
          row[x * bands + b] = plane[y % STRIP * width + x] * filtered.scales()[b];
        }
      }
      for (int x = 0; x < width; x++) {
        int i = x * bands;
        boolean valid = true;
        for (int b = 0; b < bands; b++) {
          valid &= !Float.isNaN(row[i + b]);
        }
        flags[x] = (byte)
            (!valid
                ? 0
                : Pieces.VALID
                    | (x > 0 && near(row, i, row, i - bands, bands) ? Pieces.LEFT : 0)
                    | (y > 0 && near(row, i, above, i, bands) ? Pieces.UP : 0));
      }
    });
  }

  private static boolean near(float[] a, int i, float[] b, int j, int bands) {
    float distance = 0;
    for (int k = 0; k < bands; k++) {
      float d = a[i + k] - b[j + k];
      distance += d * d;
    }
    return distance <= NEAR * NEAR;
  }
}
