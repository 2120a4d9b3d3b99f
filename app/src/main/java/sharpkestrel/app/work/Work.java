package sharpkestrel.app.work;

import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import sharpkestrel.raster.Heap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/**
 * A piece of work, and who is told of its end on the interface thread: one of the two, or nobody where it was cancelled.
 */
record Work<T>(Function<Job, T> work, Consumer<T> done, Consumer<Throwable> failed) {

  /**
   * Does it on the calling thread.
   *
   * @param last done on the interface thread in any case, before anybody is told
   */
  void perform(Job job, Runnable last) {
    Runnable told;
    try {
      T result = work.apply(job);
      told = () -> done.accept(result);
    } catch (CancellationException stopped) {
      told = () -> {};
    } catch (OutOfMemoryError full) {
      RasterException clear = new RasterException(Heap.exhausted(), full);
      told = () -> failed.accept(clear);
    } catch (Throwable failure) {
      told = () -> failed.accept(failure);
    }
    Runnable tell = told;
    Platform.runLater(() -> {
      last.run();
      tell.run();
    });
  }
}
