package sharpkestrel.kinds;

import java.util.Optional;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterView;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.step.Step;

/** A raster from a file that was kept; once the file turns out to be damaged, the step that made it makes it again. */
final class GuardedRaster extends RasterView {

  private final Step<?> step;
  private final Job job;
  private volatile Raster source;
  private boolean again;

  GuardedRaster(Raster kept, Step<?> step, Job job) {
    source = kept;
    this.step = step;
    this.job = job;
  }

  @Override
  protected Raster source() {
    return source;
  }

  @Override
  public Optional<LabelRaster> wholeNumbers() {
    return source.wholeNumbers();
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    Raster now = source;
    try {
      now.read(level, window, target, request);
    } catch (FileFormatException damaged) {
      makeAgain(now, damaged);
      source.read(level, window, target, request);
    }
  }

  private synchronized void makeAgain(Raster failed, FileFormatException damaged) {
    if (source != failed) {
      return;
    }
    if (again) {
      throw damaged;
    }
    again = true;
    job.warn("A kept result is made again. " + damaged.getMessage());
    source = (Raster) step.run(job.withoutWarnings());
  }
}
