package sharpkestrel.raster;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Room on disk for what does not fit the memory while a step runs. It lies beside the project where one is open, else in the
 * folder for temporary files; every byte of it is written before it is used, so that a disk without room is told of at once,
 * and not by a crash at some later access.
 */
public final class Scratch {

  private static final int PIECE = 4 << 20;

  private static volatile Path folder = Path.of(System.getProperty("java.io.tmpdir"));

  private Scratch() {}

  /** From now on room is taken in a folder, which is made when it is first needed. */
  public static void in(Path newFolder) {
    folder = newFolder;
  }

  public static Path folder() {
    return folder;
  }

  /**
   * A mapped file of zeros that goes when nothing refers to it.
   *
   * @param what it is for, for people
   * @throws RasterException where there is no room, with how much is needed and where
   */
  public static MemorySegment map(String name, long bytes, String what) {
    Path where = folder;
    try {
      Files.createDirectories(where);
      if (Files.getFileStore(where).getUsableSpace() < bytes) {
        throw new IOException("not begun");
      }
      Path file = Files.createTempFile(where, "kestrel-" + name, ".bin");
      try (FileChannel channel =
          FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
        fill(channel, bytes);
        return channel.map(FileChannel.MapMode.READ_WRITE, 0, bytes, Arena.ofAuto());
      } finally {
        Files.deleteIfExists(file);
      }
    } catch (IOException failed) {
      throw new RasterException(
          "There is no room for " + what + ": they need " + megabytes(bytes) + " in " + where
              + ", where " + free(where) + " are free (" + failed.getMessage()
              + "). Free some space there.",
          failed);
    }
  }

  private static void fill(FileChannel channel, long bytes) throws IOException {
    ByteBuffer zeros = ByteBuffer.allocateDirect((int) Math.min(PIECE, bytes));
    for (long at = 0; at < bytes; ) {
      zeros.clear().limit((int) Math.min(zeros.capacity(), bytes - at));
      int some = channel.write(zeros, at);
      if (some <= 0) {
        throw new IOException("no more could be written");
      }
      at += some;
    }
  }

  private static String megabytes(long bytes) {
    return Math.ceilDiv(bytes, 1L << 20) + " MiB";
  }

  private static String free(Path where) {
    try {
      return megabytes(Files.getFileStore(where).getUsableSpace());
    } catch (IOException unknown) {
      return "an unknown number of MiB";
    }
  }
}
