package sharpkestrel.cli;

import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;

@Command(
    name = "world",
    description = "Makes a demo survey: the delivery, the terrain model and the truth.",
    mixinStandardHelpOptions = true)
final class WorldCommand implements Runnable {

  @Option(
      names = "--seed",
      required = true,
      description = "1 to 9 may be tuned on, 101 and up are for reports.")
  long seed;

  @Option(names = "--size", description = "Panchromatic pixels along one side, 256 to 8192.")
  int size = 4096;

  @Option(
      names = "--out",
      required = true,
      description = "Folder in which the survey's folder is made.")
  Path out;

  @Spec
  CommandSpec spec;

  @Override
  public void run() {
    ConsoleJob job = new ConsoleJob(
        spec.commandLine().getErr(), Runtime.getRuntime().availableProcessors(), 512);
    Survey survey = SurveyMaker.make(out, seed, size, job);
    spec.commandLine().getOut().println(survey.folder());
  }
}
