package sharpkestrel.step;

import sharpkestrel.raster.Job;

/**
 * One step of the work: a record whose components are its inputs ({@link In}) and settings ({@link Setting}).
 *
 * @param <R> what it produces: a lazy raster, a cut, an object set, outlines, scores or files
 */
public interface Step<R> {

  /**
   * Does the work, or for rasters sets it up to be done tile by tile when somebody reads.
   *
   * @throws sharpkestrel.raster.RasterException with a message a person can act on
   * @throws java.util.concurrent.CancellationException when the job is cancelled
   */
  R run(Job job);
}
