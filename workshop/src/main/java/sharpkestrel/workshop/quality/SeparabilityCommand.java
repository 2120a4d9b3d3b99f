package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.Scheme;
import sharpkestrel.demo.Sky;
import sharpkestrel.demo.WorldReport;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.truth.RoofsByOneNumber;
import sharpkestrel.demo.truth.Separability;
import sharpkestrel.io.AtomicFile;

@Command(
    name = "separability",
    description =
        "Measures how well one band or ratio tells roofs from what is taken for them in the demo surveys.",
    mixinStandardHelpOptions = true)
public final class SeparabilityCommand implements Runnable {

  @Option(names = "--seeds", split = ",", description = "Seeds to look at.")
  List<Long> seeds = List.of(101L, 102L, 103L);

  @Option(names = "--size", description = "Panchromatic pixels along one side.")
  int size = 4096;

  @Option(names = "--region", description = "isles, old-town, plateau, farmland or suburb.")
  String region = Region.ISLES.label();

  @Option(names = "--out", description = "The page to write.")
  Path page = Path.of("docs/quality/separability.md");

  @Spec
  CommandSpec spec;

  @Override
  public void run() {
    PrintWriter out = spec.commandLine().getOut();
    StringBuilder text = new StringBuilder("# Roofs and what is taken for them\n\n");
    text.append("`./kestrel separability --seeds ")
        .append(String.join(",", seeds.stream().map(String::valueOf).toList()))
        .append(" --size ")
        .append(size)
        .append(region.equals(Region.ISLES.label()) ? "" : " --region " + region)
        .append(
            "` takes the mean number of each object of 20 m² and more in the first scene of the survey, without blur and"
                + " noise, and finds the best threshold on any band or any ratio of two bands. Accuracy is the mean of the two"
                + " classes' shares on the right side: 0.5 is chance, 1 is no task at all.\n\n"
                + "| seed | roofs | others | best band or ratio | accuracy |\n|---|---|---|---|---|\n");
    Scheme scheme = new Scheme(Region.of(region), Season.LEAF_ON, Instrument.SIX_BANDS, Sky.PLAIN);
    for (long seed : seeds) {
      for (Separability.Result r : WorldReport.separability(seed, size, scheme)) {
        String row = String.format(
            Locale.ROOT,
            "| %d | %d %s | %d %s | %s | %.3f |",
            seed,
            r.roofs(),
            r.pair().roof.label(),
            r.others(),
            r.pair().other.label().replace("pale rock", "bare pale rock"),
            r.feature(),
            r.accuracy());
        out.println(row);
        out.flush();
        text.append(row).append('\n');
      }
    }
    text.append(
        "\nRoof or not, pixel by pixel: the best threshold on one band or one ratio, of pixels without blur and noise"
            + " in 500 windows of 8 x 8 of the first scene. Where all is called roof, F1 is 2 p / (1 + p) for a share p.\n\n"
            + "| seed | region | share of roofs | best band or ratio | F1 | all called roof |\n|---|---|---|---|---|---|\n");
    for (long seed : seeds) {
      for (Region each : Region.values()) {
        RoofsByOneNumber.Best best = WorldReport.roofsByOneNumber(
            seed, size, new Scheme(each, Season.LEAF_ON, Instrument.SIX_BANDS, Sky.PLAIN));
        String row = String.format(
            Locale.ROOT,
            "| %d | %s | %.2f | %s | %.3f | %.3f |",
            seed,
            each.label(),
            best.share(),
            best.feature(),
            best.f1(),
            2 * best.share() / (1 + best.share()));
        out.println(row);
        out.flush();
        text.append(row).append('\n');
      }
    }
    AtomicFile.write(page, temporary -> Files.writeString(temporary, text.toString()));
  }
}
