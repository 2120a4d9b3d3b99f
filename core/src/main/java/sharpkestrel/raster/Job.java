package sharpkestrel.raster;

/**
 * A long piece of work as seen from inside: where it reports progress, whether it should stop, on how many threads
 * it may run.
 */
public interface Job {

  /**
   * @param what what is being done, for people
   * @param done units of work finished
   * @param total units of work known
   */
  default void progress(String what, long done, long total) {}

  default Cancellation cancellation() {
    return Cancellation.NEVER;
  }

  int threads();

  /** Side of the square tiles in which rasters are computed; results do not depend on it. */
  default int tileSize() {
    return 512;
  }

  /** Something the person who runs this should know though it goes on. */
  default void warn(String message) {}

  /** The same, but what there is to know is not told again. */
  default Job withoutWarnings() {
    Job told = this;
    return new Job() {
      @Override
      public void progress(String what, long done, long total) {
        told.progress(what, done, total);
      }

      @Override
      public Cancellation cancellation() {
        return told.cancellation();
      }

      @Override
      public int threads() {
        return told.threads();
      }

      @Override
      public int tileSize() {
        return told.tileSize();
      }
    };
  }

  default Request request() {
    return Request.of(cancellation());
  }

  /** Reports to nobody, is never cancelled, runs on every core. */
  Job QUIET = of(Runtime.getRuntime().availableProcessors(), 512);

  static Job of(int threads, int tileSize) {
    return new Job() {
      @Override
      public int threads() {
        return threads;
      }

      @Override
      public int tileSize() {
        return tileSize;
      }
    };
  }
}
