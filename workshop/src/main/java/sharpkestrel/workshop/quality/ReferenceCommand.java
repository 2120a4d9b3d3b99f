package sharpkestrel.workshop.quality;

import java.nio.file.Files;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import sharpkestrel.flow.StepReference;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.objects.FeatureCatalogue;

@Command(
    name = "reference",
    description = "Writes the reference pages of all steps and all features of objects.",
    mixinStandardHelpOptions = true)
public final class ReferenceCommand implements Runnable {

  @Parameters(defaultValue = "docs", description = "The folder in which the pages are written.")
  Path folder;

  @Override
  public void run() {
    AtomicFile.write(
        folder.resolve("steps.md"),
        temporary -> Files.writeString(temporary, StepReference.markdown()));
    AtomicFile.write(
        folder.resolve("features.md"),
        temporary -> Files.writeString(temporary, FeatureCatalogue.markdown()));
  }
}
