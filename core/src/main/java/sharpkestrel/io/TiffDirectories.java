package sharpkestrel.io;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.util.ArrayList;
import java.util.List;

/** The head of a TIFF file that is being written: its marks and all its directories, one after the other. */
final class TiffDirectories {

  private final boolean big;
  private final List<TiffEntries> all = new ArrayList<>();
  private final List<Long> places = new ArrayList<>();
  private long at;

  TiffDirectories(boolean big) {
    this.big = big;
    at = big ? 16 : 8;
  }

  void add(TiffEntries directory) {
    all.add(directory);
    places.add(at);
    at += directory.size(big);
  }

  /** Where pixels may begin. */
  long end() {
    return at + 15 & ~15L;
  }

  /** Writes all from where the channel stands, the start of the file. */
  void write(FileChannel out) throws IOException {
    ByteBuffer head = ByteBuffer.allocate(big ? 16 : 8).order(ByteOrder.LITTLE_ENDIAN);
    head.put((byte) 'I').put((byte) 'I');
    if (big) {
      head.putShort((short) 43).putShort((short) 8).putShort((short) 0).putLong(16);
    } else {
      head.putShort((short) 42).putInt(8);
    }
    AtomicFile.writeAll(out, head.flip());
    for (int i = 0; i < all.size(); i++) {
      long next = i + 1 < all.size() ? places.get(i + 1) : 0;
      AtomicFile.writeAll(out, ByteBuffer.wrap(all.get(i).toBytes(big, places.get(i), next)));
    }
  }
}
