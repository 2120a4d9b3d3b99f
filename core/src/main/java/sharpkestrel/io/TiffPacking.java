package sharpkestrel.io;

import com.twelvemonkeys.imageio.plugins.webp.WebPImageReaderSpi;
import java.awt.image.Raster;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.tukaani.xz.XZInputStream;
import sharpkestrel.io.Compression.MalformedBlockException;

/** How the blocks of a TIFF file that is read are packed: what {@link Compression} writes, and more. */
abstract class TiffPacking {

  private static final int YCBCR = 6;

  private final String name;

  private TiffPacking(String name) {
    this.name = name;
  }

  /**
   * @throws FileFormatException for a packing that is not read
   */
  static TiffPacking of(TiffFile file, TiffDirectory directory) {
    int code = directory.integer(TiffTags.COMPRESSION, 1);
    return switch (code) {
      case 1 -> new Plain(Compression.NONE);
      case 5 -> new Plain(Compression.LZW);
      case 8, 32946 -> new Plain(Compression.DEFLATE);
      case 50000 -> new Plain(Compression.ZSTD);
      case 32773 -> new PackBits();
      case 34925 -> new Lzma();
      case 7 -> jpeg(file, directory);
      case 50001 -> new WebP();
      default ->
        throw file.unsupported(
            "compression " + code + nameOf(code) + " is not read",
            "Write the file again with no compression, LZW, DEFLATE, ZSTD or JPEG.");
    };
  }

  private static TiffPacking jpeg(TiffFile file, TiffDirectory directory) {
    long[] bits = directory.numbers(TiffTags.BITS);
    if (bits.length > 0 && bits[0] != 8) {
      throw file.unsupported(
          "JPEG of " + bits[0] + " bits is not read",
          "Write the file again with 8 bits, or with another compression.");
    }
    return new Jpeg(
        directory.bytes(TiffTags.JPEG_TABLES), directory.integer(TiffTags.PHOTOMETRIC, 1) == YCBCR);
  }

  private static String nameOf(int code) {
    return switch (code) {
      case 2, 3, 4 -> " (of fax machines)";
      case 6 -> " (JPEG of the old kind)";
      case 34712 -> " (JPEG 2000 in TIFF)";
      case 34887 -> " (LERC)";
      case 50002, 52546 -> " (JPEG XL)";
      default -> "";
    };
  }

  /** Whether bytes lie in the file as they are. */
  boolean isPlain() {
    return false;
  }

  /** For people. */
  @Override
  public String toString() {
    return name;
  }

  /**
   * @param packed (input) the first {@code length} bytes are the block
   * @param raw (output) filled from the start; what the block does not hold stays as it is
   * @return bytes unpacked
   * @throws MalformedBlockException where the block is damaged
   */
  abstract int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException;

  private static final class Plain extends TiffPacking {
    private final Compression compression;

    Plain(Compression compression) {
      super(compression.name().toLowerCase(java.util.Locale.ROOT));
      this.compression = compression;
    }

    @Override
    boolean isPlain() {
      return compression == Compression.NONE;
    }

    @Override
    int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
      return compression.unpack(packed, length, raw);
    }
  }

  /** Runs of bytes (TIFF 6.0, section 9). */
  private static final class PackBits extends TiffPacking {

    PackBits() {
      super("packbits");
    }

    @Override
    int unpack(byte[] packed, int length, byte[] raw) {
      int in = 0;
      int out = 0;
      while (in < length && out < raw.length) {
        int n = packed[in++];
        if (n >= 0) {
          int many = Math.min(Math.min(n + 1, length - in), raw.length - out);
          System.arraycopy(packed, in, raw, out, many);
          in += n + 1;
          out += many;
        } else if (n != -128 && in < length) {
          int many = Math.min(1 - n, raw.length - out);
          java.util.Arrays.fill(raw, out, out + many, packed[in++]);
          out += many;
        }
      }
      return out;
    }
  }

  /** Streams in the xz format. */
  private static final class Lzma extends TiffPacking {

    private static final int MOST_KIB = 128 << 10;

    Lzma() {
      super("lzma");
    }

    @Override
    int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
      try (XZInputStream in =
          new XZInputStream(new ByteArrayInputStream(packed, 0, length), MOST_KIB)) {
        return in.readNBytes(raw, 0, raw.length);
      } catch (IOException damaged) {
        throw new MalformedBlockException(String.valueOf(damaged.getMessage()));
      }
    }
  }

  /** A picture of 8 bits, its samples as they come out of a reader of the picture's own format. */
  private abstract static class Picture extends TiffPacking {

    Picture(String name) {
      super(name);
    }

    abstract Raster read(byte[] packed, int length) throws IOException;

    @Override
    int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
      try {
        Raster pixels = read(packed, length);
        int[] row = new int[pixels.getWidth() * pixels.getNumBands()];
        int out = 0;
        for (int y = 0; y < pixels.getHeight() && out + row.length <= raw.length; y++) {
          pixels.getPixels(pixels.getMinX(), pixels.getMinY() + y, pixels.getWidth(), 1, row);
          for (int value : row) {
            raw[out++] = (byte) value;
          }
        }
        return out;
      } catch (IOException | RuntimeException damaged) {
        throw new MalformedBlockException(String.valueOf(damaged.getMessage()));
      }
    }
  }

  /** Streams without their tables, which stand in the directory (TIFF Technical Note 2). */
  private static final class Jpeg extends Picture {
    private final byte[] tables;
    private final boolean ycbcr;

    Jpeg(byte[] tables, boolean ycbcr) {
      super("jpeg");
      this.tables = tables;
      this.ycbcr = ycbcr;
    }

    @Override
    Raster read(byte[] packed, int length) throws IOException {
      ByteArrayOutputStream whole = new ByteArrayOutputStream(length + tables.length);
      boolean abbreviated = tables.length > 4;
      // Tables end with their end mark, and the stream begins with its start mark: one of each is
      // left out.
      if (abbreviated) {
        whole.write(tables, 0, tables.length - 2);
      }
      int from = abbreviated ? 2 : 0;
      whole.write(packed, from, Math.max(0, length - from));
      ImageReader reader = ImageIO.getImageReadersByFormatName("jpeg").next();
      try (ImageInputStream in =
          ImageIO.createImageInputStream(new ByteArrayInputStream(whole.toByteArray()))) {
        reader.setInput(in, true, true);
        Raster raster = reader.readRaster(0, null);
        return ycbcr && raster.getNumBands() == 3 ? toRgb(raster) : raster;
      } finally {
        reader.dispose();
      }
    }

    /** ITU-R BT.601 over the full range, as JFIF has it. */
    private static Raster toRgb(Raster ycc) {
      var rgb = ycc.createCompatibleWritableRaster();
      int width = ycc.getWidth();
      int[] row = new int[3 * width];
      for (int line = 0; line < ycc.getHeight(); line++) {
        ycc.getPixels(0, line, width, 1, row);
        for (int i = 0; i < row.length; i += 3) {
          double y = row[i];
          double cb = row[i + 1] - 128;
          double cr = row[i + 2] - 128;
          row[i] = toByte(y + 1.402 * cr);
          row[i + 1] = toByte(y - 0.344136 * cb - 0.714136 * cr);
          row[i + 2] = toByte(y + 1.772 * cb);
        }
        rgb.setPixels(0, line, width, 1, row);
      }
      return rgb;
    }

    private static int toByte(double value) {
      return (int) Math.max(0, Math.min(255, Math.rint(value)));
    }
  }

  private static final class WebP extends Picture {

    WebP() {
      super("webp");
    }

    @Override
    Raster read(byte[] packed, int length) throws IOException {
      ImageReader reader = new WebPImageReaderSpi().createReaderInstance(null);
      try (ImageInputStream in =
          ImageIO.createImageInputStream(new ByteArrayInputStream(packed, 0, length))) {
        reader.setInput(in, true, true);
        return reader.read(0).getRaster();
      } finally {
        reader.dispose();
      }
    }
  }
}
