package sharpkestrel.io;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
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
    Path absolute = target.toAbsolutePath().normalize();
    Path temporary = absolute.resolveSibling(
        "." + absolute.getFileName() + "." + ProcessHandle.current().pid() + ".part");
    try {
      Files.createDirectories(absolute.getParent());
      writer.write(temporary);
      sync(temporary);
      try {
        Files.move(
            temporary,
            absolute,
            StandardCopyOption.ATOMIC_MOVE,
            StandardCopyOption.REPLACE_EXISTING);
      } catch (AtomicMoveNotSupportedException elsewhere) {
        Files.move(temporary, absolute, StandardCopyOption.REPLACE_EXISTING);
      }
      syncFolder(absolute.getParent());
    } catch (UncheckedIOException failed) {
      throw notWritten(target, failed.getCause());
    } catch (IOException failed) {
      throw notWritten(target, failed);
    } finally {
      deleteQuietly(temporary);
    }
  }

  /** Writes all of a buffer, or fails: a channel may take less than it was given, as on a disk that fills. */
  public static void writeAll(FileChannel out, ByteBuffer bytes) throws IOException {
    while (bytes.hasRemaining()) {
      if (out.write(bytes) == 0) {
        throw new IOException("no more could be written; the disk may be full");
      }
    }
  }

  /** Copies the first bytes of one file to where another stands, all of them, or fails. */
  static void transferAll(FileChannel from, long bytes, FileChannel out) throws IOException {
    long done = 0;
    while (done < bytes) {
      long some = from.transferTo(done, bytes - done, out);
      if (some <= 0) {
        throw new IOException("no more could be written; the disk may be full");
      }
      done += some;
    }
  }

  /** What is renamed must be on the disk before: a name for a file whose bytes never came would pass for a good one. */
  private static void sync(Path file) throws IOException {
    try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
      channel.force(true);
    }
  }

  private static void syncFolder(Path folder) {
    try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
      channel.force(true);
    } catch (IOException notThere) {
      // not every system lets a folder be opened; the file itself is on the disk
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
