package sharpkestrel.io;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.TileCache;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * A GeoTIFF on disk as a raster (TIFF 6.0, BigTIFF, OGC GeoTIFF 1.1). Blocks are decoded when asked for and kept in
 * the shared tile cache; levels that neither the file nor one beside it holds as overviews are made by halving and cached
 * likewise. Masks and transparency become no-data at every level.
 */
public final class GeoTiff implements Raster {

  private final TiffFile file;
  private final TiffPyramid pyramid;
  private final Grid grid;
  private final List<Band> bands;
  private final int[] places;
  private final Attachments attachments;
  private final double noData;
  private final Description described;
  private final long id = TileCache.newRasterId();
  private final CachedRaster derivedLevels;

  private GeoTiff(TiffFile file, int image) {
    this.file = file;
    pyramid = TiffPyramid.of(file, image);
    TiffAbout about = TiffAbout.of(file, pyramid);
    grid = about.grid();
    bands = about.bands();
    places = IntStream.range(0, pyramid.full().samples)
        .filter(sample -> sample != pyramid.transparency())
        .toArray();
    attachments = about.attachments();
    noData = about.noData();
    described = about.described();
    derivedLevels = new CachedRaster(new Halving(), 256, TileCache.shared());
  }

  /**
   * @throws FileFormatException where the file cannot be read
   */
  public static GeoTiff open(Path path) {
    return open(path, 1);
  }

  /**
   * @param image which of the file's images, from 1; overviews and masks are not counted
   * @throws FileFormatException where the file cannot be read, or has no such image
   */
  public static GeoTiff open(Path path, int image) {
    TiffFile file = TiffFile.open(path);
    try {
      return new GeoTiff(file, image);
    } catch (RasterException clear) {
      throw clear;
    } catch (RuntimeException unclear) {
      throw new FileFormatException(
          path
              + " cannot be read as GeoTIFF: its directory makes no sense ("
              + unclear.getMessage()
              + "). Fetch or export the file again.",
          unclear);
    }
  }

  /** What the file says of its numbers that is not applied to them here. */
  Description described() {
    return described;
  }

  TiffDirectory directory() {
    return pyramid.directory();
  }

  @Override
  public Grid grid() {
    return grid;
  }

  @Override
  public List<Band> bands() {
    return bands;
  }

  @Override
  public Attachments attachments() {
    return attachments;
  }

  @Override
  public void read(int level, Window window, float[][] target, Request request) {
    request.cancellation().check();
    TiffImage image = pyramid.levels().get(level);
    if (image == null) {
      derivedLevels.read(level, window, target, request);
      return;
    }
    Window inside = window.intersect(new Window(0, 0, image.width, image.height));
    if (!inside.equals(window)) {
      Planes.fillNaN(target);
    }
    if (inside.isEmpty()) {
      return;
    }
    for (int by = inside.y() / image.blockHeight; by * image.blockHeight < inside.bottom(); by++) {
      for (int bx = inside.x() / image.blockWidth; bx * image.blockWidth < inside.right(); bx++) {
        request.cancellation().check();
        Window block = image.blockWindow(bx, by);
        // who goes through plain samples block by block does not come back soon
        boolean keep = request.urgent()
            || image.interleaved
            || !image.packing.isPlain()
            || !window.equals(block);
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            float[] plane = plane(image, level, bx, by, b, keep, request);
            if (plane != null) {
              Planes.copy(plane, block, target[b], window);
            } else {
              Planes.fillNaN(target[b], window, block);
            }
          }
        }
      }
    }
  }

  private float[] plane(
      TiffImage image, int level, int bx, int by, int band, boolean keep, Request request) {
    TileCache cache = TileCache.shared();
    TileCache.Key key = new TileCache.Key(id, level, bx, by, band);
    float[] held = cache.get(key).orElse(null);
    if (held != null) {
      return held;
    }
    float[][] decoded = image.decode(bx, by, places[band], noData);
    if (decoded == null) {
      return null;
    }
    float[][] planes = image.interleaved
        ? IntStream.of(places).mapToObj(p -> decoded[p]).toArray(float[][]::new)
        : decoded;
    if (pyramid.transparency() >= 0) {
      hideClear(image, bx, by, decoded, planes);
    }
    Raster valid = pyramid.valid(grid).orElse(null);
    if (valid != null) {
      int first = image.interleaved ? 0 : band;
      ValidityRaster.apply(valid, level, image.blockWindow(bx, by), planes, first, request);
    }
    if (!image.interleaved) {
      if (keep) {
        cache.put(key, planes[0]);
      }
      return planes[0];
    }
    for (int b = 0; b < planes.length; b++) {
      cache.put(new TileCache.Key(id, level, bx, by, b), planes[b]);
    }
    return planes[band];
  }

  /** What is wholly transparent is no-data. */
  private void hideClear(TiffImage image, int bx, int by, float[][] decoded, float[][] planes) {
    float[][] own =
        image.interleaved ? decoded : image.decode(bx, by, pyramid.transparency(), Double.NaN);
    float[] opacity = own == null ? null : own[image.interleaved ? pyramid.transparency() : 0];
    for (float[] plane : planes) {
      for (int i = 0; i < plane.length; i++) {
        if (opacity == null || !(opacity[i] > 0)) {
          plane[i] = Float.NaN;
        }
      }
    }
  }

  @Override
  public Optional<LabelRaster> wholeNumbers() {
    TiffImage image = pyramid.full();
    boolean large = image.samples == 1
        && (image.format.type() == SampleType.UINT32 || image.format.type() == SampleType.INT32);
    return large
        ? Optional.of(new TiffNumbers(grid, image, Double.NaN, Optional.empty()))
        : Optional.empty();
  }

  /**
   * The only band as object numbers.
   *
   * @throws FileFormatException where there are more bands, or floats
   */
  public LabelRaster labels() {
    TiffImage image = pyramid.full();
    if (image.samples != 1 || image.format.isFloat()) {
      throw file.unsupported(
          "it holds " + image.samples + " band(s) of " + image.format.type().label()
              + ", not object numbers",
          "Choose a raster with one band of whole numbers.");
    }
    return new TiffNumbers(grid, image, noData, pyramid.valid(grid));
  }

  /** Levels the file does not hold, each the mean of the one below. */
  private final class Halving extends DerivedRaster {

    Halving() {
      super(GeoTiff.this.grid, GeoTiff.this.bands, Attachments.NONE, Zoom.POINTWISE);
    }

    @Override
    protected void compute(int level, Window window, float[][] target, Request request) {
      Planes.readByHalving(GeoTiff.this, level, window, target, request);
    }
  }
}
