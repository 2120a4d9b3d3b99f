package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.gather.Assemble;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.sharpen.PanInputs;
import sharpkestrel.sharpen.RateSharpening;
import sharpkestrel.sharpen.pan.Rating;
import sharpkestrel.sharpen.pan.Ratings;

/** What the ways of sharpening are worth on held-out seeds. */
@Command(
    name = "sharpen-quality",
    description = "Rates all methods of pan-sharpening on held-out seeds and writes what came out.",
    mixinStandardHelpOptions = true)
public final class SharpenQualityCommand implements Runnable {

  @Mixin
  HeldOut on = new HeldOut();

  @Option(names = "--out", description = "The page to write.")
  Path page = Path.of("docs/quality/sharpen-methods.md");

  @Spec
  CommandSpec spec;

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    StringBuilder text = new StringBuilder("# Methods of pan-sharpening, on held-out seeds\n\n");
    text.append("`./kestrel sharpen-quality --seeds ")
        .append(on.seedsText())
        .append(" --size ")
        .append(on.size)
        .append(
            "` on Fenwrack Sound: scene one orthorectified to 0.5 m and 2 m, as delivered (numbers of the sensor, haze and"
                + " all), six bands, ratio 4. ERGAS, SAM and Q2n: both images reduced once more by the same ratio, sharpened, and"
                + " compared with the multispectral one as it is (Wald's protocol); D and QNR: at full resolution, without a"
                + " reference. Weights and gains are fitted to each scene by each method's own rule; nothing was tuned on these"
                + " seeds.\n");
    if (on.onTuningSeeds) {
      text.append("\nMade with --on-tuning-seeds: this is no report.\n");
    }
    for (long seed : on.seeds) {
      Ratings ratings = rate(seed, job);
      String table = table(seed, ratings);
      out.println(table);
      out.flush();
      text.append(table);
    }
    AtomicFile.write(page, temporary -> Files.writeString(temporary, text.toString()));
  }

  private Ratings rate(long seed, Job job) {
    Survey survey = on.survey(seed, 0, job);
    Path folder = DemoData.home().resolve("runs/sharpen-" + seed + "-" + on.size);
    Raster pan = ortho(survey, "pan", "0.5", folder.resolve("pan.tif"), job);
    Raster bands = ortho(survey, "ms", "2", folder.resolve("bands.tif"), job);
    return new RateSharpening(Optional.empty(), List.of(), PanInputs.of(pan, bands)).run(job);
  }

  private static Raster ortho(Survey survey, String image, String pixel, Path file, Job job) {
    Raster raw = new Assemble(survey.item(), image).run(job);
    Raster placed = (Raster) StepCatalogue.get("ortho")
        .make(
            Map.of("scene", raw, "heights", RasterFiles.open(survey.heights())),
            Map.of("undulation", "47", "pixel-size", pixel))
        .run(job);
    GeoTiffWriter.write(placed, file, Compression.ZSTD, false, job);
    return RasterFiles.open(file);
  }

  private static String table(long seed, Ratings ratings) {
    double plain = ratings.rows().stream()
        .filter(row -> row.method().isEmpty())
        .findFirst()
        .orElseThrow()
        .ergas();
    StringBuilder text = new StringBuilder(String.format(
        Locale.ROOT,
        "%n## Seed %d, %,d multispectral pixels%n%n| method | ERGAS | against bilinear | SAM, degrees | Q2n | D lambda | D s | QNR |%n"
            + "|---|---|---|---|---|---|---|---|%n",
        seed,
        ratings.pixels()));
    for (Rating row : ratings.rows()) {
      text.append(String.format(
          Locale.ROOT,
          "| %s | %.3f | %s | %.2f | %.4f | %.4f | %.4f | %.4f |%n",
          row.title(),
          row.ergas(),
          row.method().isEmpty()
              ? ""
              : String.format(Locale.ROOT, "%+.0f %%", 100 * (row.ergas() / plain - 1)),
          row.angle(),
          row.q2n(),
          row.spectral(),
          row.spatial(),
          row.qnr()));
    }
    return text.toString();
  }
}
