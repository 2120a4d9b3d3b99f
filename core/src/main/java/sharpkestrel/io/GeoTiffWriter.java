package sharpkestrel.io;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/**
 * Writes a raster as a tiled GeoTIFF with overviews in the cloud-optimised layout: all directories first, then the
 * overviews from the smallest, then the full image. Tiles are computed a row at a time and packed in parallel; each
 * row is halved into the rows of the overviews as it passes, so every pixel is computed once and memory holds a few
 * rows of tiles. Overviews of whole numbers are means rounded half up, cascaded without rounding between levels. Pixels
 * without data have the number that the bands set aside for it; where there is none, masks say where they are.
 */
public final class GeoTiffWriter {

  /** Side of the file's tiles; independent of the tiles in which the raster is computed. */
  public static final int FILE_TILE = 512;

  /** Of pixels, in a file whose offsets have four bytes. */
  private static final long MOST_BYTES = 3_900_000_000L;

  private final Raster raster;
  private final boolean overviews;
  private final List<TiffLevel> levels = new ArrayList<>();
  private final SampleType type;
  private final int bands;
  private final TileSamples samples;
  private final Spares<float[][]> tilePlanes;
  private final boolean masked;
  private final Optional<LabelRaster> numbers;
  private final TiffHeads heads;

  private GeoTiffWriter(Raster raster, Compression compression, boolean overviews) {
    this.raster = raster;
    this.overviews = overviews;
    this.type = raster.bands().get(0).type();
    this.bands = raster.bands().size();
    this.samples = new TileSamples(raster.bands(), FILE_TILE, compression);
    masked = type.isWhole() && Double.isNaN(RasterEntries.noData(raster.bands()));
    numbers = raster.wholeNumbers();
    heads = new TiffHeads(raster, compression, samples.predictor());
    tilePlanes = new Spares<>(() -> new float[bands][FILE_TILE * FILE_TILE]);
    for (Band band : raster.bands()) {
      if (band.type() != type) {
        throw new RasterException("A GeoTIFF holds one sample type; the bands have "
            + type.label()
            + " and "
            + band.type().label()
            + ". Write them to files of their own, or convert them first.");
      }
    }
  }

  /**
   * Writes to a temporary name beside the target and renames when done; a cancelled or failed run leaves nothing.
   *
   * @throws RasterException where the disk or the raster fails
   */
  public static void write(Raster raster, Path target, Compression compression, Job job) {
    write(raster, target, compression, true, job);
  }

  public static void write(
      Raster raster, Path target, Compression compression, boolean overviews, Job job) {
    AtomicFile.write(
        target, temporary -> new GeoTiffWriter(raster, compression, overviews).run(temporary, job));
  }

  private void run(Path temporary, Job job) throws IOException {
    int count = overviews ? raster.grid().levels() : 1;
    if (count == 1) {
      writeOnly(temporary, job);
      return;
    }
    List<Path> scratchFiles = new ArrayList<>();
    try {
      for (int level = 0; level < count; level++) {
        Path scratch = temporary.resolveSibling(temporary.getFileName() + "." + level);
        scratchFiles.add(scratch);
        levels.add(new TiffLevel(
            raster.grid(),
            level,
            bands,
            FileChannel.open(
                scratch,
                StandardOpenOption.CREATE,
                StandardOpenOption.TRUNCATE_EXISTING,
                StandardOpenOption.READ,
                StandardOpenOption.WRITE)));
      }
      TiffLevel full = levels.get(0);
      for (int row = 0; row < full.down; row++) {
        writeRow(full, row, job);
      }
      for (int level = 1; level < count; level++) {
        flush(level, job);
      }
      assemble(temporary);
    } finally {
      for (TiffLevel level : levels) {
        level.scratch.close();
      }
      for (Path scratch : scratchFiles) {
        java.nio.file.Files.deleteIfExists(scratch);
      }
    }
  }

  /** A single level goes to its place at once: its directories are as long as its values are many. */
  private void writeOnly(Path temporary, Job job) throws IOException {
    try (FileChannel out = FileChannel.open(
        temporary,
        StandardOpenOption.CREATE,
        StandardOpenOption.TRUNCATE_EXISTING,
        StandardOpenOption.WRITE)) {
      TiffLevel only = new TiffLevel(raster.grid(), 0, bands, out);
      levels.add(only);
      long most = (long) only.across * only.down * FILE_TILE * FILE_TILE * bands * type.bytes();
      boolean big = most > MOST_BYTES;
      TiffDirectories directories = new TiffDirectories(big);
      directories.add(heads.of(only, 0, big));
      if (masked) {
        directories.add(
            heads.ofMask(only, 0, bands, new long[only.offsets.length], only.lengths, big));
      }
      long data = directories.end();
      out.position(data);
      only.written = data;
      for (int row = 0; row < only.down; row++) {
        writeRow(only, row, job);
      }
      TiffDirectories found = new TiffDirectories(big);
      found.add(heads.of(only, 0, big));
      if (only.holes.isNeeded()) {
        found.add(heads.withMask(only, 0, out, only.holes.differs(), big));
      }
      out.position(0);
      found.write(out);
    }
  }

  private void writeRow(TiffLevel full, int row, Job job) throws IOException {
    boolean reduce = levels.size() > 1;
    TiffLevel.Row tiles = full.row(row, samples::done);
    Parallel.run(full.across, job, column -> {
      Window tile = new Window(column * FILE_TILE, row * FILE_TILE, FILE_TILE, FILE_TILE);
      float[][] planes = tilePlanes.take();
      compute(tile, planes, job);
      if (reduce) {
        halveInto(levels.get(1), planes, column, row & 1);
      }
      if (masked) {
        full.holes.add(row * full.across + column, column, row, planes);
      }
      byte[] packed = numbers.isPresent()
          ? samples.pack(numbersOf(numbers.get(), tile, planes[0]))
          : samples.pack(planes);
      tilePlanes.give(planes);
      tiles.append(column, packed);
    });
    job.progress("Writing", row + 1L, full.down);
    if (reduce) {
      levels.get(1).rowsHeld++;
      if (levels.get(1).rowsHeld == 2) {
        flush(1, job);
      }
    }
  }

  /** Numbers as they are, and the one set aside for no-data where the plane has none. */
  private int[] numbersOf(LabelRaster exact, Window tile, float[] plane) {
    int[] values = new int[tile.area()];
    exact.read(tile, values);
    double noData = raster.bands().getFirst().noData();
    int hole = Double.isNaN(noData) ? 0 : (int) (long) noData;
    for (int i = 0; i < values.length; i++) {
      values[i] = Float.isNaN(plane[i]) ? hole : values[i];
    }
    return values;
  }

  private void compute(Window tile, float[][] planes, Job job) {
    int step = job.tileSize();
    if (step >= FILE_TILE) {
      for (float[] plane : planes) {
        Arrays.fill(plane, 0);
      }
      raster.read(0, tile, planes, job.request());
      return;
    }
    for (int y = 0; y < FILE_TILE; y += step) {
      for (int x = 0; x < FILE_TILE; x += step) {
        Window part = new Window(tile.x() + x, tile.y() + y, step, step).intersect(tile);
        float[][] some = raster.read(0, part, job.request());
        for (int b = 0; b < bands; b++) {
          Planes.copy(some[b], part, planes[b], tile);
        }
      }
    }
  }

  /** Puts the means of a tile's 2 x 2 pixels into the quarter of a reduced level's strip where they belong. */
  private void halveInto(TiffLevel below, float[][] planes, int column, int half) {
    int side = FILE_TILE / 2;
    float[] reduced = new float[side * side];
    int stripWidth = below.across * FILE_TILE;
    for (int b = 0; b < bands; b++) {
      Planes.halve(planes[b], reduced, side, side);
      for (int y = 0; y < side; y++) {
        System.arraycopy(
            reduced,
            y * side,
            below.strip[b],
            (half * side + y) * stripWidth + column * side,
            side);
      }
    }
  }

  /** Packs the strip of a reduced level, hands its halves on, and empties it. */
  private void flush(int index, Job job) throws IOException {
    TiffLevel level = levels.get(index);
    if (level.rowsHeld == 0) {
      return;
    }
    TiffLevel.Row tiles = level.row(level.tileRow, samples::done);
    boolean reduce = index + 1 < levels.size();
    int stripWidth = level.across * FILE_TILE;
    Parallel.run(level.across, job, column -> {
      float[][] planes = new float[bands][FILE_TILE * FILE_TILE];
      for (int b = 0; b < bands; b++) {
        for (int y = 0; y < FILE_TILE; y++) {
          System.arraycopy(
              level.strip[b],
              y * stripWidth + column * FILE_TILE,
              planes[b],
              y * FILE_TILE,
              FILE_TILE);
        }
      }
      if (reduce) {
        halveInto(levels.get(index + 1), planes, column, level.tileRow & 1);
      }
      for (int b = 0; b < bands; b++) {
        raster.bands().get(b).quantise(planes[b], 0, planes[b].length);
      }
      if (masked) {
        level.holes.add(level.tileRow * level.across + column, column, level.tileRow, planes);
      }
      tiles.append(column, samples.pack(planes));
    });
    level.tileRow++;
    level.clear();
    if (reduce) {
      TiffLevel next = levels.get(index + 1);
      next.rowsHeld++;
      if (next.rowsHeld == 2) {
        flush(index + 1, job);
      }
    }
  }

  private void assemble(Path temporary) throws IOException {
    long pixels = 0;
    boolean holes = false;
    boolean differ = false;
    for (TiffLevel level : levels) {
      pixels += level.written;
      holes |= level.holes.isNeeded();
      differ |= level.holes.differs();
    }
    boolean big = pixels > MOST_BYTES;
    TiffDirectories sizes = new TiffDirectories(big);
    for (int i = 0; i < levels.size(); i++) {
      sizes.add(heads.of(levels.get(i), i, big));
      if (holes) {
        TiffLevel level = levels.get(i);
        long[] none = new long[level.offsets.length];
        sizes.add(heads.ofMask(level, i, differ ? bands : 1, none, none, big));
      }
    }
    long data = sizes.end();
    for (int i = levels.size() - 1; i >= 0; i--) {
      TiffLevel level = levels.get(i);
      for (int k = 0; k < level.offsets.length; k++) {
        level.offsets[k] += data;
      }
      data += level.written;
    }
    try (FileChannel out = FileChannel.open(
        temporary,
        StandardOpenOption.CREATE,
        StandardOpenOption.TRUNCATE_EXISTING,
        StandardOpenOption.WRITE)) {
      out.position(sizes.end());
      for (int i = levels.size() - 1; i >= 0; i--) {
        AtomicFile.transferAll(levels.get(i).scratch, levels.get(i).written, out);
      }
      TiffDirectories found = new TiffDirectories(big);
      for (int i = 0; i < levels.size(); i++) {
        found.add(heads.of(levels.get(i), i, big));
        if (holes) {
          found.add(heads.withMask(levels.get(i), i, out, differ, big));
        }
      }
      out.position(0);
      found.write(out);
    }
  }
}
