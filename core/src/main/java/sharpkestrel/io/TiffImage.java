package sharpkestrel.io;

import sharpkestrel.raster.Window;

/** One directory seen as pixels: its layout, checked, and the decoding of one block. */
final class TiffImage {

  /** Of the memory there is, what one block may take while it is unpacked and widened. */
  private static final int SHARE_OF_MEMORY = 16;

  private final TiffFile file;
  final int width;
  final int height;
  final int samples;
  final boolean interleaved;
  final int blockWidth;
  final int blockHeight;
  final boolean tiled;
  final boolean mask;
  final TiffSamples format;
  final TiffPacking packing;
  private final int predictor;
  private final int rowsInStrip;
  private final long[] offsets;
  private final long[] lengths;
  private final Spares<byte[]> unpacked = new Spares<>(() -> new byte[(int) blockBytes()]);

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
    format = TiffSamples.of(file, directory);
    packing = TiffPacking.of(file, directory);
    predictor = predictor(directory);
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
      blockHeight = packing.isPlain() ? partOf(rowsInStrip, most) : rowsInStrip;
    }
    if (blockWidth < 1 || blockHeight < 1) {
      throw file.broken("its blocks are " + blockWidth + " x " + blockHeight + " pixels");
    }
    checkMemory();
    offsets = directory.numbers(tiled ? TiffTags.TILE_OFFSETS : TiffTags.STRIP_OFFSETS);
    long[] given = directory.numbers(tiled ? TiffTags.TILE_BYTES : TiffTags.STRIP_BYTES);
    long storedBlocks = (long) Math.ceilDiv(width, blockWidth)
        * Math.ceilDiv(height, rowsInStrip)
        * (interleaved ? 1 : samples);
    if (offsets.length < storedBlocks) {
      throw file.broken(
          "its pixels need " + storedBlocks + " blocks but the directory lists " + offsets.length);
    }
    lengths = given.length >= storedBlocks ? given : lengthsFromLayout();
  }

  /** The most rows of a strip, at most so many, that it is a multiple of, or that it is cut into where there is one only. */
  private int partOf(int rows, int most) {
    if (rows >= height) {
      return Math.min(rows, most);
    }
    int part = Math.min(rows, most);
    while (rows % part != 0) {
      part--;
    }
    return part;
  }

  /** A block is unpacked and widened whole, so its size is bounded before anything is allocated for it. */
  private void checkMemory() {
    long inBlock = (long) blockWidth * blockHeight * (interleaved ? samples : 1);
    long needed = inBlock * Float.BYTES + blockHeight * rowBytes(blockWidth);
    long most = Runtime.getRuntime().maxMemory() / SHARE_OF_MEMORY;
    if (needed > most || inBlock > 1 << 28) {
      throw file.unsupported(
          "its blocks hold " + inBlock + " samples, which take " + (needed >> 20)
              + " MiB of memory to unpack; at most " + (most >> 20) + " are at hand",
          "Write the file again in tiles of 256 or 512 pixels, or give the application more memory"
              + " (KESTREL_HEAP=8g).");
    }
  }

  private int predictor(TiffDirectory directory) {
    int found = packing.isPlain() ? 1 : directory.integer(TiffTags.PREDICTOR, 1);
    boolean fits =
        found == 1 || found == 2 && format.bits() % 8 == 0 || found == 3 && format.isFloat();
    if (!fits) {
      throw file.unsupported(
          "predictor " + found + " on samples of " + format.bits() + " bits is not read",
          "Write the file again with predictor 1, 2 (whole numbers) or 3 (floats).");
    }
    return found;
  }

  /** Old writers leave the byte counts of unpacked strips out. */
  private long[] lengthsFromLayout() {
    if (!packing.isPlain()) {
      throw file.broken(
          "its directory does not say how long its " + offsets.length + " blocks are");
    }
    long[] known = new long[offsets.length];
    java.util.Arrays.fill(known, (long) rowsInStrip * rowBytes(blockWidth));
    return known;
  }

  private long rowBytes(int pixels) {
    long inRow = (long) pixels * (interleaved ? samples : 1);
    return (inRow * format.bits() + 7) / 8;
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
   * @param noData the stored number that means none; NaN where none is set aside
   * @return one plane of the block's window for each band decoded; null for a block that was never written
   */
  float[][] decode(int bx, int by, int band, double noData) {
    Raw raw = raw(bx, by, band);
    if (raw == null) {
      return null;
    }
    Window window = blockWindow(bx, by);
    float[][] planes = new float[interleaved ? samples : 1][];
    format.toFloats(raw.bytes, raw.stride, window.width(), window.height(), noData, planes);
    done(raw);
    return planes;
  }

  /** Decodes a block of a single band of whole numbers without passing through float; no-data becomes 0. */
  int[] decodeInts(int bx, int by, double noData) {
    Raw raw = raw(bx, by, 0);
    Window window = blockWindow(bx, by);
    int[] values = new int[window.area()];
    if (raw != null) {
      format.toInts(raw.bytes, raw.stride, window.width(), window.height(), noData, values);
      done(raw);
    }
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
    if (packing.isPlain()) {
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
        got = packing.unpack(packed, length, raw);
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
      Predictor.undo(
          predictor, raw, rows, blockWidth * inRow, inRow, format.bits() / 8, file.order());
    }
    return new Raw(raw, stride);
  }
}
