package sharpkestrel.app;

import java.util.List;
import sharpkestrel.demo.DemoData;
import sharpkestrel.raster.RasterException;

/** Which demo survey is wanted: {@code --seed} and {@code --size}, with the value after a blank or an equals sign. */
record DemoOptions(long seed, int size) {

  /** Smaller ones hold no village, larger ones take longer to make than anybody waits. */
  private static final int LEAST = 256;

  private static final int MOST = 16_384;

  /**
   * @param sizeOtherwise in pixels, where none is given
   * @throws RasterException that names what is wrong
   */
  static DemoOptions of(List<String> arguments, int sizeOtherwise) {
    long seed = number(arguments, "--seed", 1);
    long size = number(arguments, "--size", sizeOtherwise);
    if (size < LEAST || size > MOST) {
      throw new RasterException("--size is the survey's side in pixels, " + LEAST + " to " + MOST
          + ", not " + size + ".");
    }
    return new DemoOptions(seed, (int) size);
  }

  static DemoOptions of(List<String> arguments) {
    return of(arguments, DemoData.DEFAULT_SIZE);
  }

  private static long number(List<String> arguments, String name, long otherwise) {
    for (int i = 0; i < arguments.size(); i++) {
      String argument = arguments.get(i);
      String text = argument.startsWith(name + "=")
          ? argument.substring(name.length() + 1)
          : argument.equals(name) && i + 1 < arguments.size() ? arguments.get(i + 1) : null;
      if (text != null) {
        try {
          return Long.parseLong(text);
        } catch (NumberFormatException notANumber) {
          throw new RasterException(
              name + " wants a whole number, not '" + text + "'.", notANumber);
        }
      }
    }
    return otherwise;
  }
}
