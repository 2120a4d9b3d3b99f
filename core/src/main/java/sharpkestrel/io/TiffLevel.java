package sharpkestrel.io;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.util.function.Consumer;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Planes;

/** One size of an image that is being written: where its tiles went, and the row of tiles that is being filled. */
final class TiffLevel {

  private static final int TILE = GeoTiffWriter.FILE_TILE;

  final Grid grid;

  /** Tiles in a row, and rows of them. */
  final int across;

  final int down;

  /** Of each tile where it begins and how many bytes it has. */
  final long[] offsets;

  final long[] lengths;
  final FileChannel scratch;
  final HoleMask holes;
  long written;

  /** Of a reduced level, by band: pixels of the row of tiles that larger levels fill. */
  float[][] strip;

  /** Rows of the next larger level's tiles that are in the strip. */
  int rowsHeld;

  int tileRow;

  /**
   * @param full grid of the whole image
   * @param scratch where tiles are written
   */
  TiffLevel(Grid full, int level, int bands, FileChannel scratch) {
    grid = full.atLevel(level);
    across = Math.ceilDiv(grid.width(), TILE);
    down = Math.ceilDiv(grid.height(), TILE);
    offsets = new long[across * down];
    lengths = new long[across * down];
    this.scratch = scratch;
    holes = new HoleMask(grid, TILE, bands, offsets.length);
    if (level > 0) {
      strip = new float[bands][across * TILE * TILE];
      clear();
    }
  }

  void clear() {
    Planes.fillNaN(strip);
    rowsHeld = 0;
  }

  /**
   * A row of tiles that are written from left to right as they are packed: the same file whichever is ready first.
   *
   * @param done told of each that is written
   */
  Row row(int row, Consumer<byte[]> done) {
    return new Row(row, done);
  }

  final class Row {
    private final int row;
    private final Consumer<byte[]> done;
    private final byte[][] waiting = new byte[across][];
    private int next;

    private Row(int row, Consumer<byte[]> done) {
      this.row = row;
      this.done = done;
    }

    synchronized void append(int column, byte[] packed) {
      waiting[column] = packed;
      while (next < waiting.length && waiting[next] != null) {
        try {
          write(next, waiting[next]);
        } catch (IOException failed) {
          throw new UncheckedIOException(failed);
        }
        waiting[next++] = null;
      }
    }

    private void write(int column, byte[] packed) throws IOException {
      int index = row * across + column;
      offsets[index] = written;
      lengths[index] = packed.length;
      AtomicFile.writeAll(scratch, ByteBuffer.wrap(packed));
      written += packed.length;
      done.accept(packed);
    }
  }
}
