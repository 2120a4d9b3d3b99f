package sharpkestrel.io;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import sharpkestrel.raster.RasterException;

/** Files that appear whole or not at all: written under a temporary name beside the target, then renamed. */
public final class AtomicFile {

  /** Writes the content of a file. */
  public interface Writer {
    void write(Path temporary) throws IOException;
  }

  private AtomicFile() {}

  /**
   * @throws RasterException that names the file, what failed and what to do
   */
  public static void write(Path target, Writer writer) {
    Path absolute = target.toAbsolutePath();
    Path temporary = absolute.resolveSibling(
        "." + absolute.getFileName() + "." + ProcessHandle.current().pid() + ".part");
    try {
      Files.createDirectories(absolute.getParent());
      writer.write(temporary);
      try {
        Files.move(
            temporary,
            absolute,
            StandardCopyOption.ATOMIC_MOVE,
            StandardCopyOption.REPLACE_EXISTING);
      } catch (AtomicMoveNotSupportedException elsewhere) {
        Files.move(temporary, absolute, StandardCopyOption.REPLACE_EXISTING);
      }
    } catch (UncheckedIOException failed) {
      throw notWritten(target, failed.getCause());
    } catch (IOException failed) {
      throw notWritten(target, failed);
    } finally {
      deleteQuietly(temporary);
    }
  }

  private static RasterException notWritten(Path target, IOException failed) {
    return new RasterException(
        target
            + " could not be written: "
            + failed.getMessage()
            + ". Check that the disk has room and the folder is yours to write; nothing was replaced.",
        failed);
  }

  private static void deleteQuietly(Path temporary) {
    try {
      Files.deleteIfExists(temporary);
    } catch (IOException stays) {
      // a leftover temporary name does no harm and the first failure is the one to report
    }
  }
}
