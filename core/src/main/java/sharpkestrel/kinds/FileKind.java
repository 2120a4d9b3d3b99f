package sharpkestrel.kinds;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/** Files that were written for others. */
final class FileKind extends ResultKind<Path> {

  FileKind() {
    super(Path.class, "a file");
  }

  @Override
  public String describe(Path file) {
    return file.toString();
  }

  @Override
  public String note(Path file) {
    return "written";
  }

  @Override
  public void digest(Path file, Digest into, Job job) {
    try {
      into.add(Files.readAllBytes(file));
    } catch (IOException unreadable) {
      throw new RasterException(file + " cannot be read: " + unreadable.getMessage(), unreadable);
    }
  }
}
