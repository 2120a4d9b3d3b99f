package sharpkestrel.demo;

import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Where demo surveys are kept, and how a run sheet names them. */
public final class DemoData {

  public static final int DEFAULT_SIZE = 4096;
  private static final String PREFIX = "demo:";
  private static final Pattern SEED = Pattern.compile("(?:^demo:|fenwrack-sound-)(\\d{1,18})");

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
   * {@code demo:SEED}, {@code demo:SEED:SIZE} or {@code demo:SEED:SIZE:SCENARIO} as the folder of that survey, its first
   * scene made where it is not there; with {@code :all} at its end all files. Other texts stay.
   */
  public static String resolve(String text, Job job) {
    return text.startsWith(PREFIX)
        ? SurveyMaker.make(surveys(), order(text), job).folder().toString()
        : text;
  }

  private static Survey.Order order(String text) {
    String[] parts = text.substring(PREFIX.length()).split(":");
    try {
      return new Survey.Order(
          Long.parseLong(parts[0]),
          parts.length > 1 ? Integer.parseInt(parts[1]) : DEFAULT_SIZE,
          parts.length > 2 ? Scenario.of(parts[2]) : Scenario.WHOLE,
          0,
          holds(parts));
    } catch (NumberFormatException notANumber) {
      throw new RasterException(
          "A demo survey is named demo:SEED, demo:SEED:SIZE or demo:SEED:SIZE:SCENARIO, e.g. demo:101, not '"
              + text + "'.",
          notANumber);
    }
  }

  private static Survey.Holds holds(String[] parts) {
    if (parts.length > 4 || parts.length == 4 && !parts[3].equals("all")) {
      throw new RasterException(
          "After the scenario a demo survey's name may say 'all', for all of its files, as in"
              + " demo:101:2048:whole:all; not '" + String.join(":", parts) + "'.");
    }
    return parts.length == 4 ? Survey.Holds.ALL_FILES : Survey.Holds.FIRST_SCENE;
  }

  /** The text by which a run sheet names a survey. */
  public static String text(Survey.Order order) {
    return PREFIX + order.seed() + ":" + order.size() + ":" + order.scenario().label();
  }
}
