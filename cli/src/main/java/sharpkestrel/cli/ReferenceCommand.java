package sharpkestrel.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import sharpkestrel.flow.StepReference;
import sharpkestrel.io.AtomicFile;

@Command(
    name = "reference",
    description = "Writes the reference page of all steps.",
    mixinStandardHelpOptions = true)
final class ReferenceCommand implements Runnable {

  @Parameters(defaultValue = "docs/steps.md", description = "The page to write.")
  Path page;

  @Override
  public void run() {
    AtomicFile.write(page, temporary -> Files.writeString(temporary, StepReference.markdown()));
  }
}
