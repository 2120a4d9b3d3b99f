package sharpkestrel.io;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Optional;

/** The boxes of a JPEG 2000 file (ISO 15444-1, annex I): among them may be a small GeoTIFF that says where it lies. */
final class JpegTwoBoxes {

  private static final byte[] GEOTIFF = HexFormat.of().parseHex("b14bf8bd083d4b43a5ae8cd7d5a6ce03");
  private static final int UUID = 0x75756964;
  private static final int CODESTREAM = 0x6a703263;
  private static final int MOST_BOXES = 1_000;
  private static final int MOST_BYTES = 1 << 20;

  private JpegTwoBoxes() {}

  /** Where a file lies; empty for other pictures, and where it does not say. */
  static Optional<GeoKeys.Reference> reference(Path path) {
    if (!path.toString().toLowerCase(Locale.ROOT).endsWith(".jp2")) {
      return Optional.empty();
    }
    try (RandomAccessFile file = new RandomAccessFile(path.toFile(), "r")) {
      long at = 0;
      for (int n = 0; n < MOST_BOXES && at + 8 <= file.length(); n++) {
        file.seek(at);
        long size = file.readInt() & 0xffff_ffffL;
        int type = file.readInt();
        int head = 8;
        if (size == 1) {
          size = file.readLong();
          head = 16;
        }
        if (type == UUID && size > head + 16 && size < MOST_BYTES && at + size <= file.length()) {
          byte[] content = new byte[(int) size - head];
          file.readFully(content);
          if (Arrays.equals(content, 0, 16, GEOTIFF, 0, 16)) {
            TiffFile tiff = TiffFile.of(path, Arrays.copyOfRange(content, 16, content.length));
            return Optional.of(GeoKeys.read(tiff, tiff.directories().getFirst()));
          }
        }
        if (size < head || type == CODESTREAM && size == 0) {
          break;
        }
        at += size;
      }
      return Optional.empty();
    } catch (IOException unreadable) {
      return Optional.empty();
    }
  }
}
