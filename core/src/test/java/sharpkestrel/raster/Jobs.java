package sharpkestrel.raster;

import java.util.List;

/** Jobs for tests that look at what a job is told, or stop it. */
public final class Jobs {

  private Jobs() {}

  /** Puts what it is warned of in a list. */
  public static Job warning(List<String> warnings) {
    return new Job() {
      @Override
      public int threads() {
        return 2;
      }

      @Override
      public void warn(String message) {
        warnings.add(message);
      }
    };
  }

  /** Stops when told so. */
  public static Job stoppedBy(Cancellation cancellation) {
    return new Job() {
      @Override
      public int threads() {
        return 2;
      }

      @Override
      public Cancellation cancellation() {
        return cancellation;
      }
    };
  }
}
