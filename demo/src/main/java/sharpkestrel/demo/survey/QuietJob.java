package sharpkestrel.demo.survey;

import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.Job;

/** A job for writing one file of many: whole file tiles at a time, its progress told by whoever writes them all. */
record QuietJob(Job job) implements Job {

  @Override
  public int threads() {
    return job.threads();
  }

  @Override
  public int tileSize() {
    return GeoTiffWriter.FILE_TILE;
  }

  @Override
  public Cancellation cancellation() {
    return job.cancellation();
  }

  @Override
  public void warn(String message) {
    job.warn(message);
  }
}
