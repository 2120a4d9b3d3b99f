package sharpkestrel.cli;

import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Scheme;
import sharpkestrel.demo.Sky;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.demo.WorldReport;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.raster.RasterException;

@Command(
    name = "world",
    description =
        "Makes a demo survey: two scenes, an air photo, height models, the council's files and the truth.",
    mixinStandardHelpOptions = true)
final class WorldCommand implements Runnable {

  @Option(
      names = "--seed",
      required = true,
      description = "1 to 9 may be tuned on, 101 and up are for reports.")
  long seed;

  @Option(names = "--size", description = "Panchromatic pixels along one side, 256 to 40000.")
  int size = 4096;

  @Option(
      names = "--scenario",
      description = "What the scenes look at: harbour, town, moor, or whole: all of it.")
  String scenario = "whole";

  @Option(names = "--region", description = "isles, old-town, plateau, farmland or suburb.")
  String region = Region.ISLES.label();

  @Option(names = "--season", description = "leaf-on, leaf-off, dry, snow or wet.")
  String season = Season.LEAF_ON.label();

  @Option(
      names = "--sensor",
      description =
          "six-bands, eight-bands, four-bands, metre or colour in orbit; air-colour or air-four in an aircraft.")
  String sensor = Instrument.SIX_BANDS.label();

  @Option(
      names = "--sky",
      description =
          "plain: as ever over the isles; clear, hazy, veiled or cloudy: so, with sun and view on any side.")
  String sky = Sky.PLAIN.label();

  @Option(
      names = "--years",
      description =
          "The second scene shows the same ground so many years later; 0 for scenes that overlap.")
  int years;

  @Option(
      names = "--bias",
      description = "Pixels by which the delivered RPCs are off, as real ones are.")
  double bias;

  @Option(
      names = "--truth",
      description =
          "full: with radiometry without noise and a cover map of each scene; outlines: without them, in half of the time.")
  Truth truth = Truth.full;

  @Option(
      names = "--picture",
      description = "Also write the first scene at three scales side by side as a PNG.")
  Path picture;

  @Option(
      names = "--out",
      required = true,
      description = "Folder in which the survey's folder is made.")
  Path out;

  @Spec
  CommandSpec spec;

  /** Named as they are typed. */
  enum Truth {
    full,
    outlines
  }

  @Override
  public void run() {
    if (!(bias >= 0 && bias <= 50)) {
      throw new RasterException("--bias is 0 to 50 pixels, not " + bias + ".");
    }
    ConsoleJob job = new ConsoleJob(
        spec.commandLine().getErr(), Runtime.getRuntime().availableProcessors(), 512);
    Survey.Order order = new Survey.Order(
        seed,
        size,
        Scenario.of(scenario),
        bias,
        truth == Truth.full ? Survey.Holds.TRUTH_RASTERS : Survey.Holds.ALL_FILES,
        new Scheme(
            Region.of(region), Season.of(season), Instrument.of(sensor), Sky.of(sky), years));
    Survey survey = SurveyMaker.make(out, order, job);
    if (picture != null) {
      WorldReport.picture(order, picture, job);
    }
    spec.commandLine().getOut().println(survey.folder());
  }
}
