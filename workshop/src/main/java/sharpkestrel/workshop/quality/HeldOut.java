package sharpkestrel.workshop.quality;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import sharpkestrel.cli.ConsoleJob;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** The surveys that a report is made on. */
final class HeldOut {

  @Option(names = "--seeds", split = ",", description = "Held-out seeds, 101 and up.")
  List<Long> seeds = List.of(101L, 102L, 103L);

  @Option(
      names = "--on-tuning-seeds",
      description = "Allow seeds below 101; what is written says that it is no report.")
  boolean onTuningSeeds;

  @Option(names = "--size", description = "Panchromatic pixels along one side.")
  int size = 4096;

  /** Makes sure that no seed is one that settings may be tuned on, unless that was asked for. */
  void check() {
    for (long seed : seeds) {
      if (seed < DemoData.FIRST_HELD_OUT && !onTuningSeeds) {
        throw new RasterException("Seed " + seed
            + " is one that settings may be tuned on; reports are made on seeds 101 and up. To look at it while tuning,"
            + " add --on-tuning-seeds: the page then says so.");
      }
    }
  }

  /** A job that tells its progress where errors are told. */
  static Job job(CommandSpec spec) {
    return new ConsoleJob(
        spec.commandLine().getErr(), Runtime.getRuntime().availableProcessors(), 512);
  }

  /** What a page says of seeds that may be tuned on; empty where there are none. */
  String tuningNote() {
    return onTuningSeeds ? "\n\n**Some of these seeds may be tuned on: this is no report.**" : "";
  }

  /** Writes a page, and where it lies to the console. */
  static void write(CommandSpec spec, Path page, CharSequence text) {
    AtomicFile.write(page, temporary -> Files.writeString(temporary, text));
    spec.commandLine().getOut().println(page);
  }

  /** The seeds, separated by commas. */
  String seedsText() {
    return String.join(",", seeds.stream().map(String::valueOf).toList());
  }

  /** A survey, all of it, made where it is not there yet. */
  Survey survey(long seed, double bias, Job job) {
    return survey(seed, bias, Survey.Holds.ALL_FILES, job);
  }

  /** The same with what covers each pixel, which takes as long again. */
  Survey withCover(long seed, Job job) {
    return survey(seed, 0, Survey.Holds.TRUTH_RASTERS, job);
  }

  private Survey survey(long seed, double bias, Survey.Holds holds, Job job) {
    return SurveyMaker.make(
        DemoData.surveys(), new Survey.Order(seed, size, Scenario.WHOLE, bias, holds), job);
  }
}
