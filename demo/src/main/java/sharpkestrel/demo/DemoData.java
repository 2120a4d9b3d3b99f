package sharpkestrel.demo;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Where demo surveys are kept, and how a run sheet names them. */
public final class DemoData {

  public static final int DEFAULT_SIZE = 4096;
  private static final String PREFIX = "demo:";
  private static final Pattern SEED = Pattern.compile(Arrays.stream(Region.values())
      .map(region -> region.site().slug())
      .collect(Collectors.joining("|", "(?:^demo:|(?:", ")-)(\\d{1,18})")));

  /** From this seed on nothing is tuned: figures that are reported come from these. */
  public static final long FIRST_HELD_OUT = 101;

  private DemoData() {}

  /**
   * Whether a text names a survey of a seed that settings may be tuned on: {@code demo:3}, or the folder of one. Other
   * folders and files are nobody's survey.
   */
  public static boolean isForTuning(String text) {
    return seedOf(text) < FIRST_HELD_OUT;
  }

  private static long seedOf(String text) {
    Matcher named = SEED.matcher(text);
    return named.find() ? Long.parseLong(named.group(1)) : FIRST_HELD_OUT;
  }

  /** {@code KESTREL_HOME}, or a folder in the user's home. */
  public static Path home() {
    String given = System.getenv("KESTREL_HOME");
    return given != null && !given.isBlank()
        ? Path.of(given)
        : Path.of(System.getProperty("user.home"), ".sharp-kestrel");
  }

  public static Path surveys() {
    return home().resolve("surveys");
  }

  /**
   * {@code demo:SEED}, {@code demo:SEED:SIZE} and then words in any order: a scenario, a region, a season, a sky. The folder of
   * that survey, its first scene made where it is not there; with {@code all} among the words all files. Other texts stay.
   */
  public static String resolve(String text, Job job) {
    return text.startsWith(PREFIX)
        ? SurveyMaker.make(surveys(), order(text), job).folder().toString()
        : text;
  }

  private static Survey.Order order(String text) {
    String[] parts = text.substring(PREFIX.length()).split(":");
    try {
      long seed = Long.parseLong(parts[0]);
      int size = parts.length > 1 ? Integer.parseInt(parts[1]) : DEFAULT_SIZE;
      OrderWords words = new OrderWords();
      Arrays.stream(parts).skip(2).forEach(words::take);
      return words.order(seed, size);
    } catch (NumberFormatException notANumber) {
      throw new RasterException(
          "A demo survey is named demo:SEED, demo:SEED:SIZE or demo:SEED:SIZE:WORD:WORD, e.g. demo:101 or"
              + " demo:101:2048:plateau:dry, not '" + text + "'.",
          notANumber);
    }
  }

  /** The text by which a run sheet names a survey. */
  public static String text(Survey.Order order) {
    Scheme scheme = order.scheme();
    return Stream.of(
            PREFIX.replace(":", ""),
            Long.toString(order.seed()),
            Integer.toString(order.size()),
            order.scenario().label(),
            scheme.region() == Region.ISLES ? "" : scheme.region().label(),
            scheme.season() == Season.LEAF_ON ? "" : scheme.season().label(),
            scheme.instrument() == Instrument.SIX_BANDS
                ? ""
                : scheme.instrument().label(),
            scheme.sky() == Sky.PLAIN ? "" : scheme.sky().label(),
            scheme.years() == 0 ? "" : scheme.years() + "-years")
        .filter(word -> !word.isEmpty())
        .collect(Collectors.joining(":"));
  }
}
