package sharpkestrel.flow;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;

/**
 * Tells whether a file is what it was: its true path, size, time, and a digest of its head, its tail and, of a TIFF file, its
 * first directory. A file written again in place, with as many bytes and its old time, still differs in one of those unless only
 * pixels in its midst changed.
 */
final class FileState {

  private static final int PIECE = 1 << 16;

  private FileState() {}

  static String of(Path file) {
    try {
      Path real = file.toRealPath();
      if (Files.isDirectory(real)) {
        return ofFolder(real);
      }
      return real + "|" + Files.size(real) + "|" + Files.getLastModifiedTime(real) + "|"
          + digest(real);
    } catch (IOException notThere) {
      return file.toAbsolutePath().normalize() + "|not there";
    }
  }

  /** What lies in a folder, not in those within it. */
  private static String ofFolder(Path folder) throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      StringBuilder all = new StringBuilder(folder.toString());
      for (Path file : files.sorted().toList()) {
        if (Files.isRegularFile(file)) {
          all.append('|').append(of(file));
        }
      }
      return all.toString();
    }
  }

  private static String digest(Path file) throws IOException {
    MessageDigest digest;
    try {
      digest = MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
    try (FileChannel channel = FileChannel.open(file)) {
      long size = channel.size();
      ByteBuffer head = piece(channel, 0);
      for (long at : List.of(Math.max(0, size - PIECE), directory(head, size))) {
        digest.update(piece(channel, at));
      }
      digest.update(head.rewind());
    }
    return HexFormat.of().formatHex(digest.digest()).substring(0, 32);
  }

  private static ByteBuffer piece(FileChannel channel, long at) throws IOException {
    ByteBuffer bytes = ByteBuffer.allocate(PIECE);
    while (bytes.hasRemaining() && channel.read(bytes, at + bytes.position()) > 0) {
      // until the piece is full or the file ends
    }
    return bytes.flip();
  }

  /** Where the first directory of a TIFF file begins; 0 for other files. */
  private static long directory(ByteBuffer head, long size) {
    if (head.remaining() < 16) {
      return 0;
    }
    int mark = head.getShort(0);
    if (mark != 0x4949 && mark != 0x4d4d) {
      return 0;
    }
    head.order(mark == 0x4949 ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
    long at = head.getShort(2) == 43 ? head.getLong(8) : head.getInt(4) & 0xffff_ffffL;
    head.order(ByteOrder.BIG_ENDIAN);
    return at > 0 && at < size ? at : 0;
  }
}
