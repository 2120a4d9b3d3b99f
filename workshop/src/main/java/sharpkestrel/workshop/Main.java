package sharpkestrel.workshop;

import javafx.application.Application;
import picocli.CommandLine;
import sharpkestrel.workshop.fuzz.FuzzCommand;
import sharpkestrel.workshop.quality.CarryCommand;
import sharpkestrel.workshop.quality.ClicksQualityCommand;
import sharpkestrel.workshop.quality.ExtractQualityCommand;
import sharpkestrel.workshop.quality.LandCoverQualityCommand;
import sharpkestrel.workshop.quality.LearnRoofsCommand;
import sharpkestrel.workshop.quality.PlaceQualityCommand;
import sharpkestrel.workshop.quality.QualityCommand;
import sharpkestrel.workshop.quality.ReferenceCommand;
import sharpkestrel.workshop.quality.SegmentQualityCommand;
import sharpkestrel.workshop.quality.SeparabilityCommand;
import sharpkestrel.workshop.quality.SharpenQualityCommand;
import sharpkestrel.workshop.quality.TargetQualityCommand;

/** Entry of the developers' commands: those of the command line and more, and those that need a window. */
public final class Main {

  private Main() {}

  public static void main(String[] args) {
    if (args.length > 0 && WorkshopWindow.COMMANDS.contains(args[0])) {
      Application.launch(WorkshopWindow.class, args);
    } else {
      System.exit(commandLine().execute(args));
    }
  }

  /** The commands that need no window. */
  public static CommandLine commandLine() {
    CommandLine line = sharpkestrel.cli.Main.commandLine();
    line.addSubcommand("quality", new QualityCommand());
    line.addSubcommand("sharpen-quality", new SharpenQualityCommand());
    line.addSubcommand("carry", new CarryCommand());
    line.addSubcommand("target-quality", new TargetQualityCommand());
    line.addSubcommand("segment-quality", new SegmentQualityCommand());
    line.addSubcommand("place-quality", new PlaceQualityCommand());
    line.addSubcommand("extract-quality", new ExtractQualityCommand());
    line.addSubcommand("clicks-quality", new ClicksQualityCommand());
    line.addSubcommand("land-cover-quality", new LandCoverQualityCommand());
    line.addSubcommand("learn-roofs", new LearnRoofsCommand());
    line.addSubcommand("separability", new SeparabilityCommand());
    line.addSubcommand("fuzz", new FuzzCommand());
    line.addSubcommand("reference", new ReferenceCommand());
    return line;
  }
}
