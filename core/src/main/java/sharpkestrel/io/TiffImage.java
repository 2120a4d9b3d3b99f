package sharpkestrel.io;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.OptionalDouble;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** One directory seen as pixels: its layout, checked, and the decoding of one block. */
final class TiffImage {

  private final TiffFile file;
  final int width;
  final int height;
  final int samples;
  final SampleType type;
  final boolean interleaved;
  final int blockWidth;
  final int blockHeight;
  final Compression compression;
  final boolean tiled;
  final boolean mask;
  private final int bits;
  private final int predictor;
  private final int rowsInStrip;
  private final long[] offsets;
  private final long[] lengths;
  private final Spares<byte[]> unpacked = new Spares<>(() -> new byte[(int) blockBytes()]);
  private final Spares<short[]> pairsOfBytes =
      new Spares<>(() -> new short[(int) blockBytes() / 2]);

  TiffImage(TiffFile file, TiffDirectory directory) {
    this.file = file;
    width = directory.integer(TiffTags.WIDTH, 0);
    height = directory.integer(TiffTags.HEIGHT, 0);
    if (width < 1 || height < 1) {
      throw file.broken("its size is " + width + " x " + height + " pixels");
    }
    samples = directory.integer(TiffTags.SAMPLES, 1);
    if (samples < 1 || samples > 4096) {
      throw file.broken("it claims " + samples + " bands");
    }
    mask = (directory.integer(TiffTags.SUBFILE_TYPE, 0) & 4) != 0;
    bits = bits(directory);
    type = type(directory);
    compression = compression(directory);
    predictor = directory.integer(TiffTags.PREDICTOR, 1);
    if (predictor < 1 || predictor > 3 || predictor == 3 && type != SampleType.FLOAT32) {
      throw file.unsupported(
          "predictor " + predictor + " on " + type.label() + " samples is not read",
          "Write the file again with predictor 1, 2 (whole numbers) or 3 (floats).");
    }
    interleaved = directory.integer(TiffTags.PLANAR, 1) == 1;
    tiled = directory.has(TiffTags.TILE_OFFSETS);
    if (tiled) {
      blockWidth = directory.integer(TiffTags.TILE_WIDTH, 0);
      blockHeight = directory.integer(TiffTags.TILE_HEIGHT, 0);
      rowsInStrip = blockHeight;
    } else {
      blockWidth = width;
      long rows = directory.number(TiffTags.ROWS_PER_STRIP, height);
      rowsInStrip = (int) Math.max(1, Math.min(rows, height));
      // Strips that are not packed can be read in parts.
      int most = (int) Math.max(1, Math.min(64, (4L << 20) / Math.max(1, rowBytes(width))));
      blockHeight = compression == Compression.NONE ? Math.min(rowsInStrip, most) : rowsInStrip;
    }
    if (blockWidth < 1 || blockHeight < 1) {
      throw file.broken("its blocks are " + blockWidth + " x " + blockHeight + " pixels");
    }
    long blockSamples = (long) blockWidth * blockHeight * (interleaved ? samples : 1);
    long most = Math.min(Runtime.getRuntime().maxMemory() / 16, 1L << 28);
    if (blockSamples > most) {
      throw file.unsupported(
          "its blocks hold "
              + blockSamples
              + " samples, more than fits the memory at hand ("
              + most
              + ")",
          "Write the file again in tiles of 256 or 512 pixels, or give the application more memory.");
    }
    offsets = directory.numbers(tiled ? TiffTags.TILE_OFFSETS : TiffTags.STRIP_OFFSETS);
    long[] given = directory.numbers(tiled ? TiffTags.TILE_BYTES : TiffTags.STRIP_BYTES);
    long storedBlocks = (long) Math.ceilDiv(width, blockWidth)
        * Math.ceilDiv(height, rowsInStrip)
        * (interleaved ? 1 : samples);
    if (offsets.length < storedBlocks) {
      throw file.broken(
          "its pixels need " + storedBlocks + " blocks but the directory lists " + offsets.length);
    }
    lengths = given.length >= storedBlocks ? given : lengthsFromLayout(directory, given);
  }

  /** Old writers leave the byte counts of unpacked strips out. */
  private long[] lengthsFromLayout(TiffDirectory directory, long[] given) {
    if (compression != Compression.NONE) {
      throw file.broken(
          "its directory does not say how long its " + offsets.length + " blocks are");
    }
    long[] known = new long[offsets.length];
    java.util.Arrays.fill(known, (long) rowsInStrip * rowBytes(blockWidth));
    return known;
  }

  private long rowBytes(int pixels) {
    long inRow = (long) pixels * (interleaved ? samples : 1);
    return (inRow * bits + 7) / 8;
  }

  private int bits(TiffDirectory directory) {
    long[] all = directory.numbers(TiffTags.BITS);
    long first = all.length == 0 ? 1 : all[0];
    for (long each : all) {
      if (each != first) {
        throw file.unsupported(
            "its bands have different numbers of bits (" + first + " and " + each + ")",
            "Write the file again with one sample type for all bands.");
      }
    }
    return (int) Math.max(0, Math.min(first, 1024));
  }

  private SampleType type(TiffDirectory directory) {
    int format = directory.integer(TiffTags.SAMPLE_FORMAT, 1);
    SampleType found = switch (format * 100 + bits) {
      case 101, 108, 408 -> SampleType.UINT8;
      case 116, 416 -> SampleType.UINT16;
      case 132, 432 -> SampleType.UINT32;
      case 216 -> SampleType.INT16;
      case 332 -> SampleType.FLOAT32;
      default -> null;
    };
    if (found == null || bits == 1 && !mask) {
      throw file.unsupported(
          "samples of " + bits + " bits in format " + format + " are not read",
          "Convert them to unsigned 8, 16 or 32 bit, signed 16 bit or 32-bit float.");
    }
    return found;
  }

  private Compression compression(TiffDirectory directory) {
    int code = directory.integer(TiffTags.COMPRESSION, 1);
    return switch (code) {
      case 1 -> Compression.NONE;
      case 5 -> Compression.LZW;
      case 8, 32946 -> Compression.DEFLATE;
      case 50000 -> Compression.ZSTD;
      default ->
        throw file.unsupported(
            "compression " + code + (code == 7 ? " (JPEG)" : "") + " is not read",
            "Write the file again with no compression, LZW, DEFLATE or ZSTD.");
    };
  }

  int blocksAcross() {
    return Math.ceilDiv(width, blockWidth);
  }

  /** The pixels of a block; the last ones of a row or column end with the image. */
  Window blockWindow(int bx, int by) {
    return new Window(bx * blockWidth, by * blockHeight, blockWidth, blockHeight)
        .intersect(new Window(0, 0, width, height));
  }

  /**
   * Decodes a block.
   *
   * @param band the band wanted where bands lie in planes of their own; ignored where they are interleaved
   * @return one plane of the block's window for each band decoded; null for a block that was never written
   */
  float[][] decode(int bx, int by, int band, OptionalDouble noData) {
    Raw raw = raw(bx, by, band);
    if (raw == null) {
      return null;
    }
    Window window = blockWindow(bx, by);
    int inRow = interleaved ? samples : 1;
    boolean plain = type == SampleType.UINT16 && inRow == 1 && raw.stride == 2 * window.width();
    float[][] planes =
        plain ? new float[][] {shorts(raw.bytes, window.area())} : new float[inRow][window.area()];
    float hole = (float) noData.orElse(Double.NaN);
    boolean little = file.order() == ByteOrder.LITTLE_ENDIAN;
    boolean inFours = type == SampleType.UINT16 && inRow == 4 && little;
    if (inFours) {
      fours(raw, window, planes);
    }
    for (int y = 0; y < window.height() && !plain && !inFours; y++) {
      for (int s = 0; s < inRow; s++) {
        toFloats(
            raw.bytes, y * raw.stride, s, inRow, planes[s], y * window.width(), window.width());
      }
    }
    done(raw);
    if (!Float.isNaN(hole)) {
      for (float[] plane : planes) {
        for (int i = 0; i < plane.length; i++) {
          if (plane[i] == hole) {
            plane[i] = Float.NaN;
          }
        }
      }
    }
    return planes;
  }

  /** Decodes a block of a single band of whole numbers without passing through float. */
  int[] decodeInts(int bx, int by) {
    Raw raw = raw(bx, by, 0);
    Window window = blockWindow(bx, by);
    int[] values = new int[window.area()];
    if (raw == null) {
      return values;
    }
    for (int y = 0; y < window.height(); y++) {
      int from = y * raw.stride;
      for (int x = 0; x < window.width(); x++) {
        values[y * window.width() + x] = switch (type) {
          case UINT8 -> raw.bytes[from + x] & 0xff;
          case UINT16 -> shortAt(raw.bytes, from + 2 * x) & 0xffff;
          case INT16 -> shortAt(raw.bytes, from + 2 * x);
          case UINT32 -> Predictor.getInt(raw.bytes, from + 4 * x, file.order());
          case FLOAT32 ->
            throw file.unsupported(
                "it holds floats, not object numbers", "Choose a raster of whole numbers.");
        };
      }
    }
    done(raw);
    return values;
  }

  private record Raw(byte[] bytes, int stride) {}

  private long blockBytes() {
    return blockHeight * rowBytes(blockWidth);
  }

  /** What was unpacked has been read. */
  private void done(Raw raw) {
    if (raw.bytes.length == blockBytes()) {
      unpacked.give(raw.bytes);
    }
  }

  private Raw raw(int bx, int by, int band) {
    int firstRow = by * blockHeight;
    int stripRow = firstRow / rowsInStrip;
    int rowInStrip = firstRow % rowsInStrip;
    int perBand = blocksAcross() * Math.ceilDiv(height, rowsInStrip);
    int index = stripRow * blocksAcross() + bx + (interleaved ? 0 : band * perBand);
    if (offsets[index] == 0 || lengths[index] == 0) {
      return null;
    }
    int stride = (int) rowBytes(blockWidth);
    int rows = tiled ? blockHeight : blockWindow(bx, by).height();
    long bytes = (long) rows * stride;
    byte[] raw = bytes == blockBytes() ? unpacked.take() : new byte[(int) bytes];
    int got;
    if (compression == Compression.NONE) {
      file.check(offsets[index], lengths[index]);
      long skip = (long) rowInStrip * stride;
      got = (int) Math.max(0, Math.min(bytes, lengths[index] - skip));
      file.copy(offsets[index] + skip, raw, got);
    } else {
      int length = (int) Math.min(lengths[index], Integer.MAX_VALUE - 16);
      file.check(offsets[index], lengths[index]);
      if (length > Math.max(1 << 16, 2 * bytes)) {
        throw file.broken("block " + index + " claims " + length + " packed bytes for " + bytes
            + " bytes of pixels");
      }
      byte[] packed = new byte[length];
      file.copy(offsets[index], packed, length);
      try {
        got = compression.unpack(packed, length, raw);
      } catch (Compression.MalformedBlockException damaged) {
        throw file.broken("block " + index + " is damaged (" + damaged.getMessage() + ")");
      }
    }
    long needed = (long) blockWindow(bx, by).height() * stride;
    if (got < needed) {
      throw file.broken("block " + index + " holds " + got + " of its " + needed + " bytes");
    }
    if (predictor > 1) {
      int inRow = interleaved ? samples : 1;
      Predictor.undo(predictor, raw, rows, blockWidth * inRow, inRow, type.bytes(), file.order());
    }
    return new Raw(raw, stride);
  }

  private int shortAt(byte[] raw, int i) {
    int value = raw[i] & 0xff | raw[i + 1] << 8;
    return file.order() == ByteOrder.LITTLE_ENDIAN
        ? (short) value
        : Short.reverseBytes((short) value);
  }

  private void toFloats(
      byte[] raw, int rowStart, int sample, int inRow, float[] plane, int at, int count) {
    boolean little = file.order() == ByteOrder.LITTLE_ENDIAN;
    if (bits == 1) {
      for (int x = 0; x < count; x++) {
        plane[at + x] = raw[rowStart + (x >> 3)] >> (7 - (x & 7)) & 1;
      }
      return;
    }
    int size = type.bytes();
    int step = inRow * size;
    int i = rowStart + sample * size;
    switch (type) {
      case UINT8 -> {
        for (int x = 0; x < count; x++, i += step) {
          plane[at + x] = raw[i] & 0xff;
        }
      }
      case UINT16 -> {
        int low = little ? 0 : 1;
        int high = 1 - low;
        for (int x = 0; x < count; x++, i += step) {
          plane[at + x] = raw[i + low] & 0xff | (raw[i + high] & 0xff) << 8;
        }
      }
      case INT16 -> {
        for (int x = 0; x < count; x++, i += step) {
          plane[at + x] = (short) shortAt(raw, i);
        }
      }
      case UINT32 -> {
        for (int x = 0; x < count; x++, i += step) {
          plane[at + x] = Predictor.getInt(raw, i, file.order()) & 0xffff_ffffL;
        }
      }
      case FLOAT32 -> {
        for (int x = 0; x < count; x++, i += step) {
          plane[at + x] = Float.intBitsToFloat(Predictor.getInt(raw, i, file.order()));
        }
      }
    }
  }

  /** A block of four samples of two bytes a pixel, taken as one number of eight bytes each. */
  private static void fours(Raw raw, Window window, float[][] planes) {
    int width = window.width();
    long[] row = new long[width];
    for (int y = 0; y < window.height(); y++) {
      ByteBuffer.wrap(raw.bytes, y * raw.stride, 8 * width)
          .order(ByteOrder.LITTLE_ENDIAN)
          .asLongBuffer()
          .get(row);
      for (int s = 0; s < 4; s++) {
        take(row, 16 * s, planes[s], y * width);
      }
    }
  }

  private static void take(long[] fours, int shift, float[] plane, int at) {
    for (int x = 0; x < fours.length; x++) {
      plane[at + x] = (int) (fours[x] >>> shift) & 0xffff;
    }
  }

  /** A block of single samples of two bytes, copied at once and then widened. */
  private float[] shorts(byte[] raw, int count) {
    short[] samples = pairsOfBytes.take();
    ByteBuffer.wrap(raw).order(file.order()).asShortBuffer().get(samples, 0, count);
    float[] plane = new float[count];
    for (int i = 0; i < count; i++) {
      plane[i] = samples[i] & 0xffff;
    }
    pairsOfBytes.give(samples);
    return plane;
  }
}
