package sharpkestrel.io;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.util.IdentityHashMap;
import java.util.Map;
import sharpkestrel.raster.Raster;

/** The directories of a raster's levels and of their masks. */
final class TiffHeads {

  private static final int REDUCED = 1;
  private static final int MASK = 4;

  private final Raster raster;
  private final Compression compression;
  private final int predictor;

  TiffHeads(Raster raster, Compression compression, int predictor) {
    this.raster = raster;
    this.compression = compression;
    this.predictor = predictor;
  }

  /**
   * @param index of the level, 0 for the full image
   * @param big whether offsets have eight bytes
   */
  TiffEntries of(TiffLevel level, int index, boolean big) {
    TiffEntries entries = new TiffEntries();
    if (index > 0) {
      entries.ints(TiffTags.SUBFILE_TYPE, REDUCED);
    }
    RasterEntries.size(entries, level.grid, GeoTiffWriter.FILE_TILE);
    RasterEntries.samples(entries, raster);
    entries.shorts(TiffTags.COMPRESSION, compression.code());
    if (predictor > 1) {
      entries.shorts(TiffTags.PREDICTOR, predictor);
    }
    tiles(entries, level.offsets, level.lengths, big);
    if (index == 0) {
      RasterEntries.place(entries, raster);
    }
    return entries;
  }

  /**
   * @param samples masks in one, one for each band or one for all
   */
  TiffEntries ofMask(
      TiffLevel level, int index, int samples, long[] offsets, long[] lengths, boolean big) {
    TiffEntries entries = new TiffEntries();
    entries.ints(TiffTags.SUBFILE_TYPE, index > 0 ? MASK + REDUCED : MASK);
    RasterEntries.size(entries, level.grid, GeoTiffWriter.FILE_TILE);
    RasterEntries.mask(entries, samples);
    tiles(entries, offsets, lengths, big);
    return entries;
  }

  /**
   * Writes the masks of a level where the file stands, and tells the directory that leads to them.
   *
   * @param differ whether the bands have holes of their own
   */
  TiffEntries withMask(TiffLevel level, int index, FileChannel out, boolean differ, boolean big)
      throws IOException {
    byte[][] tiles = level.holes.tiles(differ);
    long[] offsets = new long[tiles.length];
    long[] lengths = new long[tiles.length];
    Map<byte[], Long> written = new IdentityHashMap<>();
    for (int i = 0; i < tiles.length; i++) {
      lengths[i] = tiles[i].length;
      Long before = written.get(tiles[i]);
      offsets[i] = before == null ? out.position() : before;
      if (before == null) {
        written.put(tiles[i], offsets[i]);
        AtomicFile.writeAll(out, ByteBuffer.wrap(tiles[i]));
      }
    }
    return ofMask(level, index, differ ? raster.bands().size() : 1, offsets, lengths, big);
  }

  private static void tiles(TiffEntries entries, long[] offsets, long[] lengths, boolean big) {
    if (big) {
      entries.longs(TiffTags.TILE_OFFSETS, offsets);
    } else {
      entries.ints(TiffTags.TILE_OFFSETS, offsets);
    }
    entries.ints(TiffTags.TILE_BYTES, lengths);
  }
}
