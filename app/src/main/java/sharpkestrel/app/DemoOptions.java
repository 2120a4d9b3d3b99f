package sharpkestrel.app;

import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Scheme;
import sharpkestrel.demo.Sky;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.raster.RasterException;

/**
 * Which demo survey is wanted: {@code --seed}, {@code --size} and {@code --scenario}, with the value after a blank or an
 * equals sign.
 */
public final class DemoOptions {

  /** Smaller ones hold no town, larger ones take longer to make than anybody waits. */
  private static final int LEAST = 256;

  private static final int MOST = 16_384;

  private DemoOptions() {}

  /**
   * @param sizeOtherwise in pixels, where none is given
   * @throws RasterException that names what is wrong
   */
  public static Survey.Order order(List<String> arguments, int sizeOtherwise) {
    long seed = number(arguments, "--seed", 1);
    long size = number(arguments, "--size", sizeOtherwise);
    if (size < LEAST || size > MOST) {
      throw new RasterException("--size is the survey's side in pixels, " + LEAST + " to " + MOST
          + ", not " + size + ".");
    }
    Scenario scenario = text(arguments, "--scenario").map(Scenario::of).orElse(Scenario.WHOLE);
    Scheme scheme = new Scheme(
        text(arguments, "--region").map(Region::of).orElse(Region.ISLES),
        text(arguments, "--season").map(Season::of).orElse(Season.LEAF_ON),
        text(arguments, "--sensor").map(Instrument::of).orElse(Instrument.SIX_BANDS),
        text(arguments, "--sky").map(Sky::of).orElse(Sky.PLAIN),
        (int) number(arguments, "--years", 0));
    return new Survey.Order(seed, (int) size, scenario, 0, Survey.Holds.FIRST_SCENE, scheme);
  }

  public static Survey.Order order(List<String> arguments) {
    return order(arguments, DemoData.DEFAULT_SIZE);
  }

  private static long number(List<String> arguments, String name, long otherwise) {
    Optional<String> text = text(arguments, name);
    try {
      return text.map(Long::parseLong).orElse(otherwise);
    } catch (NumberFormatException notANumber) {
      throw new RasterException(
          name + " wants a whole number, not '" + text.orElse("") + "'.", notANumber);
    }
  }

  private static Optional<String> text(List<String> arguments, String name) {
    for (int i = 0; i < arguments.size(); i++) {
      String argument = arguments.get(i);
      if (argument.startsWith(name + "=")) {
        return Optional.of(argument.substring(name.length() + 1));
      }
      if (argument.equals(name) && i + 1 < arguments.size()) {
        return Optional.of(arguments.get(i + 1));
      }
    }
    return Optional.empty();
  }
}
