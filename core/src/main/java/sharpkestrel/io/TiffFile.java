package sharpkestrel.io;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * The container: a mapped file, its byte order and its chain of directories. Every offset and count is checked
 * against the length of the file before anything is allocated for it, and the chain may not visit a place twice.
 */
final class TiffFile {

  private static final int MOST_DIRECTORIES = 256;

  private final Path path;
  private final MemorySegment bytes;
  private final ByteOrder order;
  private final boolean big;
  private final List<TiffDirectory> directories = new ArrayList<>();

  private TiffFile(Path path, MemorySegment bytes) {
    this.path = path;
    this.bytes = bytes;
    long size = bytes.byteSize();
    if (size < 8) {
      throw broken("it is " + size + " bytes long, shorter than the header of a TIFF file");
    }
    int mark = unsignedByte(0) << 8 | unsignedByte(1);
    order = switch (mark) {
      case 0x4949 -> ByteOrder.LITTLE_ENDIAN;
      case 0x4d4d -> ByteOrder.BIG_ENDIAN;
      default -> throw broken("it does not begin with the marks of a TIFF file");
    };
    int version = unsignedShort(2);
    big = switch (version) {
      case 42 -> false;
      case 43 -> true;
      default -> throw broken("its version is " + version + "; 42 and 43 are known");
    };
    if (big && (unsignedShort(4) != 8 || unsignedShort(6) != 0)) {
      throw broken("its BigTIFF header does not use offsets of 8 bytes");
    }
    long next = big ? signedLong(8) : unsignedInt(4);
    Set<Long> seen = new HashSet<>();
    while (next != 0) {
      if (!seen.add(next)) {
        throw broken("its directories form a loop at byte " + next);
      }
      if (directories.size() == MOST_DIRECTORIES) {
        throw broken("it has more than " + MOST_DIRECTORIES + " directories");
      }
      next = readDirectory(next);
    }
    if (directories.isEmpty()) {
      throw broken("it has no directory");
    }
  }

  static TiffFile open(Path path) {
    if (!Files.isRegularFile(path)) {
      throw new FileFormatException(
          path + " is not there, or is not a file. Check the name and the folder.");
    }
    try (FileChannel channel = FileChannel.open(path, StandardOpenOption.READ)) {
      MemorySegment mapped =
          channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size(), Arena.ofAuto());
      return new TiffFile(path, mapped);
    } catch (IOException failed) {
      throw new FileFormatException(
          path + " cannot be read: " + failed.getMessage()
              + ". Check that it is there and yours to read.",
          failed);
    }
  }

  /** A file that lies in memory, such as one within another. */
  static TiffFile of(Path path, byte[] bytes) {
    return new TiffFile(path, MemorySegment.ofArray(bytes));
  }

  private long readDirectory(long at) {
    long count = big ? signedLong(at) : unsignedShort(at);
    int entrySize = big ? 20 : 12;
    long first = at + (big ? 8 : 2);
    if (count < 1 || count > 65_535) {
      throw broken("the directory at byte " + at + " claims " + count + " entries");
    }
    check(first, count * entrySize + (big ? 8 : 4));
    TiffDirectory directory = new TiffDirectory(this);
    for (int i = 0; i < count; i++) {
      long entry = first + (long) i * entrySize;
      int tag = unsignedShort(entry);
      int type = unsignedShort(entry + 2);
      long values = big ? signedLong(entry + 4) : unsignedInt(entry + 4);
      int size = TiffDirectory.sizeOf(type);
      if (size == 0) {
        continue;
      }
      if (values < 0 || values > bytes.byteSize()) {
        throw broken("tag " + tag + " claims " + values + " values, more than the file has bytes");
      }
      int inline = big ? 8 : 4;
      long field = entry + (big ? 12 : 8);
      long length = values * size;
      long where = length <= inline ? field : big ? signedLong(field) : unsignedInt(field);
      check(where, length);
      directory.put(
          tag, new TiffDirectory.Entry(type, (int) Math.min(values, Integer.MAX_VALUE), where));
    }
    directories.add(directory);
    long end = first + count * entrySize;
    return big ? signedLong(end) : unsignedInt(end);
  }

  Path path() {
    return path;
  }

  boolean isBig() {
    return big;
  }

  ByteOrder order() {
    return order;
  }

  List<TiffDirectory> directories() {
    return directories;
  }

  FileFormatException broken(String what) {
    return new FileFormatException(
        path + " cannot be read as GeoTIFF: " + what + ". Fetch or export the file again.");
  }

  FileFormatException unsupported(String what, String advice) {
    return new FileFormatException(path + ": " + what + ". " + advice);
  }

  void check(long offset, long length) {
    if (offset < 0 || length < 0 || offset > bytes.byteSize() - length) {
      throw broken("it ends at byte "
          + bytes.byteSize()
          + ", but bytes "
          + offset
          + " to "
          + (offset + length)
          + " are referred to; it is cut short or damaged");
    }
  }

  int unsignedByte(long at) {
    return some(at, 1)[0] & 0xff;
  }

  int unsignedShort(long at) {
    return ByteBuffer.wrap(some(at, 2)).order(order).getShort() & 0xffff;
  }

  long unsignedInt(long at) {
    return ByteBuffer.wrap(some(at, 4)).order(order).getInt() & 0xffff_ffffL;
  }

  long signedLong(long at) {
    return ByteBuffer.wrap(some(at, 8)).order(order).getLong();
  }

  private byte[] some(long at, int length) {
    byte[] read = new byte[length];
    copy(at, read, length);
    return read;
  }

  /**
   * @throws FileFormatException where the file ends before, or was cut short since it was opened
   */
  void copy(long offset, byte[] target, int length) {
    check(offset, length);
    try {
      MemorySegment.copy(bytes, ValueLayout.JAVA_BYTE, offset, target, 0, length);
    } catch (InternalError goneSinceMapped) {
      throw new FileFormatException(
          path
              + " was cut short or taken away while it was being read. Put the file back, or open it again.",
          goneSinceMapped);
    }
  }
}
