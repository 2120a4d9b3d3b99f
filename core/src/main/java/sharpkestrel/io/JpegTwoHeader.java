package sharpkestrel.io;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * The main header of a JPEG 2000 codestream (ISO 15444-1, annex A), checked before a decoder goes to work: a whole file holds at
 * least a byte for each packet it claims, so one that claims more is damaged, and would keep a decoder busy for hours.
 */
final class JpegTwoHeader {

  private static final int START = 0xff4f;
  private static final int SIZE = 0xff51;
  private static final int CODING = 0xff52;
  private static final int TILE = 0xff90;

  private JpegTwoHeader() {}

  /**
   * @throws FileFormatException where the header is damaged, or claims more than the file can hold
   */
  static void check(Path path) throws IOException {
    ByteBuffer file = ByteBuffer.wrap(Files.readAllBytes(path));
    int at = start(file);
    if (at < 0) {
      throw broken(path, "it has no codestream");
    }
    long tiles = 0;
    long tileWidth = 0;
    long tileHeight = 0;
    long components = 0;
    at += 2;
    while (at + 4 <= file.capacity()) {
      int marker = file.getShort(at) & 0xffff;
      int length = file.getShort(at + 2) & 0xffff;
      if (marker == TILE) {
        return;
      }
      if (length < 2 || at + 2 + length > file.capacity()) {
        throw broken(path, "its header ends early");
      }
      int body = at + 4;
      if (marker == SIZE && length >= 38) {
        tileWidth = file.getInt(body + 18) & 0xffff_ffffL;
        tileHeight = file.getInt(body + 22) & 0xffff_ffffL;
        long right = file.getInt(body + 2) & 0xffff_ffffL;
        long lower = file.getInt(body + 6) & 0xffff_ffffL;
        components = file.getShort(body + 34) & 0xffff;
        if (tileWidth == 0 || tileHeight == 0) {
          throw broken(path, "its tiles have no size");
        }
        tiles = Math.ceilDiv(right, tileWidth) * Math.ceilDiv(lower, tileHeight);
        tileWidth = Math.min(tileWidth, right);
        tileHeight = Math.min(tileHeight, lower);
      } else if (marker == CODING && length >= 12) {
        long packets = packets(file, body, length, tileWidth, tileHeight);
        double all = (double) packets * tiles * components;
        if (all > file.capacity()) {
          throw broken(
              path,
              "it claims " + (long) all + " packets, more than its " + file.capacity()
                  + " bytes can hold");
        }
      }
      at += 2 + length;
    }
    throw broken(path, "it has no tile");
  }

  /** Layers times precincts of one component in one tile, over all resolutions. */
  private static long packets(ByteBuffer file, int body, int length, long width, long height) {
    boolean precincts = (file.get(body) & 1) != 0;
    long layers = file.getShort(body + 2) & 0xffff;
    int levels = Math.min(32, file.get(body + 5) & 0xff);
    long count = 0;
    for (int r = 0; r <= levels; r++) {
      int shrink = levels - r;
      boolean told = precincts && 12 + r < length;
      int sizes = told ? file.get(body + 10 + r) & 0xff : 0xff;
      long across = Math.ceilDiv((width >> shrink) + 1, 1L << (sizes & 15));
      long down = Math.ceilDiv((height >> shrink) + 1, 1L << (sizes >> 4));
      count += across * down;
    }
    return layers * count;
  }

  private static int start(ByteBuffer file) {
    for (int at = 0; at + 4 <= file.capacity(); at++) {
      if ((file.getShort(at) & 0xffff) == START && (file.getShort(at + 2) & 0xffff) == SIZE) {
        return at;
      }
    }
    return -1;
  }

  private static FileFormatException broken(Path path, String what) {
    return new FileFormatException(
        path + " cannot be read as JPEG 2000: " + what + ". Fetch or export it again.");
  }
}
