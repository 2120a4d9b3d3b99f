package sharpkestrel.raster;

import java.util.Locale;

/** The memory that there is to work in. */
public final class Heap {

  private static final double GIB = 1L << 30;

  private Heap() {}

  /**
   * Says beforehand that something will not fit.
   *
   * @param what needs it, as the beginning of a sentence
   * @param advice how it would need less, as the beginning of a sentence; how to have more is added
   * @throws RasterException where more bytes are needed than may be used
   */
  public static void check(long bytes, String what, String advice) {
    if (bytes > Runtime.getRuntime().maxMemory()) {
      throw new RasterException(String.format(
          Locale.ROOT,
          "%s needs about %.1f GiB of memory, and %.1f may be used. %s, or %s.",
          what,
          bytes / GIB,
          most(),
          advice,
          more(bytes)));
    }
  }

  /** What to say where memory has run out. */
  public static String exhausted() {
    return String.format(
        Locale.ROOT,
        "The memory does not suffice: %.1f GiB may be used. Work on a smaller area, or %s.",
        most(),
        more(2 * Runtime.getRuntime().maxMemory()));
  }

  private static double most() {
    return Runtime.getRuntime().maxMemory() / GIB;
  }

  private static String more(long bytes) {
    return "start with more: KESTREL_HEAP=" + (long) Math.ceil(1.1 * bytes / GIB) + "g";
  }
}
