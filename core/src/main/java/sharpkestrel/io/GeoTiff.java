package sharpkestrel.io;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.TreeMap;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
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
 * the shared tile cache; levels that the file does not hold as overviews are made by halving and cached likewise.
 */
public final class GeoTiff implements Raster {

  private final TiffFile file;
  private final Grid grid;
  private final boolean placed;
  private final List<Band> bands;
  private final Attachments attachments;
  private final TreeMap<Integer, TiffImage> images = new TreeMap<>();
  private final List<TiffImage> masks = new ArrayList<>();
  private final int overviews;
  private final OptionalDouble noData;
  private final long id = TileCache.newRasterId();
  private final CachedRaster derivedLevels;

  private GeoTiff(TiffFile file) {
    this.file = file;
    TiffDirectory first = file.directories().get(0);
    TiffImage full = new TiffImage(file, first);
    noData = noData(first.text(TiffTags.NO_DATA));
    GeoKeys.Reference reference = GeoKeys.read(file, first);
    placed = reference.placed();
    grid = new Grid(full.width, full.height, reference.affine(), reference.crs());
    images.put(0, full);
    int found = 0;
    for (TiffDirectory directory :
        file.directories().subList(1, file.directories().size())) {
      int kind = directory.integer(TiffTags.SUBFILE_TYPE, 0);
      if ((kind & 4) != 0) {
        TiffImage mask = new TiffImage(file, directory);
        if (mask.width == full.width && mask.height == full.height) {
          masks.add(mask);
        }
      } else if ((kind & 1) != 0) {
        found++;
        addOverview(new TiffImage(file, directory), full);
      }
    }
    overviews = found;
    ItemsXml items = ItemsXml.parse(first.text(TiffTags.ITEMS));
    bands = bands(full, items, first);
    Attachments all = Attachments.NONE;
    double[] rpc = first.doubles(TiffTags.RPC);
    if (rpc.length >= 92) {
      all = all.with(Rpc.class, model(rpc));
    }
    var acquisition = AcquisitionItems.read(items, bands);
    if (acquisition.isPresent()) {
      all = all.with(Acquisition.class, acquisition.get());
    }
    var placement = PlacementItems.read(items);
    if (placement.isPresent()) {
      all = all.with(Placement.class, placement.get());
    }
    var seams = SeamItems.read(items);
    if (seams.isPresent()) {
      all = all.with(SeamVisibility.class, seams.get());
    }
    if (reference.vertical() != VerticalDatum.UNKNOWN) {
      all = all.with(VerticalDatum.class, reference.vertical());
    }
    attachments = all;
    derivedLevels = new CachedRaster(new Halving(), 256, TileCache.shared());
  }

  /**
   * @throws FileFormatException where the file cannot be read
   */
  public static GeoTiff open(Path path) {
    TiffFile file = TiffFile.open(path);
    try {
      return new GeoTiff(file);
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

  private Rpc model(double[] tag) {
    try {
      return Rpc.ofTag(tag);
    } catch (IllegalArgumentException senseless) {
      throw file.broken("its sensor model makes no sense: " + senseless.getMessage());
    }
  }

  private void addOverview(TiffImage image, TiffImage full) {
    if (image.samples != full.samples || image.type != full.type) {
      return;
    }
    for (int level = 1; level < 31; level++) {
      if (Grid.sizeAt(full.width, level) == image.width
          && Grid.sizeAt(full.height, level) == image.height) {
        images.putIfAbsent(level, image);
        return;
      }
    }
  }

  private static OptionalDouble noData(String text) {
    try {
      return text.isBlank()
          ? OptionalDouble.empty()
          : OptionalDouble.of(Double.parseDouble(text.strip()));
    } catch (NumberFormatException unreadable) {
      return OptionalDouble.empty();
    }
  }

  private List<Band> bands(TiffImage full, ItemsXml items, TiffDirectory first) {
    List<Band> list = new ArrayList<>();
    boolean colour = first.integer(TiffTags.PHOTOMETRIC, 1) == 2;
    BandRole[] colours = {BandRole.RED, BandRole.GREEN, BandRole.BLUE};
    for (int b = 0; b < full.samples; b++) {
      String name = items.get(b, "DESCRIPTION").orElse("");
      BandRole role = items.get(b, "role").map(BandRole::guess).orElse(BandRole.guess(name));
      if (role == BandRole.OTHER && colour && b < 3) {
        role = colours[b];
      }
      if (name.isEmpty()) {
        name = role == BandRole.OTHER ? "band " + (b + 1) : role.label();
      }
      list.add(new Band(
          name, role, items.get(b, "UNITTYPE").orElse(""), full.type, noData.orElse(Double.NaN)));
    }
    return List.copyOf(list);
  }

  public Path path() {
    return file.path();
  }

  /** Whether the file says where its pixels lie. */
  public boolean isPlaced() {
    return placed;
  }

  public boolean isBigTiff() {
    return file.isBig();
  }

  /** Overviews in the file, usable ones or not. */
  public int overviews() {
    return overviews;
  }

  public Compression compression() {
    return images.get(0).compression;
  }

  /** How pixels are laid out, for people. */
  public String layout() {
    TiffImage full = images.get(0);
    return (full.tiled ? "tiles of " : "strips of ")
        + full.blockWidth
        + " x "
        + full.blockHeight
        + (full.samples == 1 ? "" : full.interleaved ? ", bands by pixel" : ", bands in planes");
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
    TiffImage image = images.get(level);
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
            || image.compression != Compression.NONE
            || !window.equals(block);
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            float[] plane = plane(image, level, bx, by, b, keep);
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

  private float[] plane(TiffImage image, int level, int bx, int by, int band, boolean keep) {
    TileCache cache = TileCache.shared();
    TileCache.Key key = new TileCache.Key(id, level, bx, by, band);
    float[] held = cache.get(key).orElse(null);
    if (held != null) {
      return held;
    }
    float[][] decoded = image.decode(bx, by, band, noData);
    if (decoded == null) {
      return null;
    }
    if (level == 0) {
      applyMasks(image.blockWindow(bx, by), decoded);
    }
    if (!image.interleaved) {
      if (keep) {
        cache.put(key, decoded[0]);
      }
      return decoded[0];
    }
    for (int b = 0; b < decoded.length; b++) {
      cache.put(new TileCache.Key(id, level, bx, by, b), decoded[b]);
    }
    return decoded[band];
  }

  private void applyMasks(Window window, float[][] planes) {
    for (TiffImage mask : masks) {
      for (int by = window.y() / mask.blockHeight; by * mask.blockHeight < window.bottom(); by++) {
        for (int bx = window.x() / mask.blockWidth; bx * mask.blockWidth < window.right(); bx++) {
          float[][] flags = mask.decode(bx, by, 0, OptionalDouble.empty());
          Window block = mask.blockWindow(bx, by);
          Window common = block.intersect(window);
          for (int y = common.y(); y < common.bottom(); y++) {
            for (int x = common.x(); x < common.right(); x++) {
              boolean hidden =
                  flags == null || flags[0][(y - block.y()) * block.width() + x - block.x()] == 0;
              if (hidden) {
                int at = (y - window.y()) * window.width() + x - window.x();
                for (float[] plane : planes) {
                  plane[at] = Float.NaN;
                }
              }
            }
          }
        }
      }
    }
  }

  /**
   * The only band as object numbers.
   *
   * @throws FileFormatException where there are more bands, or floats
   */
  public LabelRaster labels() {
    TiffImage image = images.get(0);
    if (image.samples != 1 || image.type == SampleType.FLOAT32) {
      throw file.unsupported(
          "it holds " + image.samples + " band(s) of " + image.type.label()
              + ", not object numbers",
          "Choose a raster with one band of whole numbers.");
    }
    return new LabelRaster() {
      @Override
      public Grid grid() {
        return grid;
      }

      @Override
      public void read(Window window, int[] target) {
        java.util.Arrays.fill(target, 0);
        Window inside = window.intersect(grid.window());
        for (int by = inside.y() / image.blockHeight;
            by * image.blockHeight < inside.bottom();
            by++) {
          for (int bx = inside.x() / image.blockWidth;
              bx * image.blockWidth < inside.right();
              bx++) {
            Window block = image.blockWindow(bx, by);
            int[] values = image.decodeInts(bx, by);
            Window common = block.intersect(inside);
            for (int y = common.y(); y < common.bottom(); y++) {
              System.arraycopy(
                  values,
                  (y - block.y()) * block.width() + common.x() - block.x(),
                  target,
                  (y - window.y()) * window.width() + common.x() - window.x(),
                  common.width());
            }
          }
        }
      }

      @Override
      public int maxLabel() {
        int max = 0;
        int rows = Math.max(1, Math.min(grid.height(), (4 << 20) / grid.width()));
        for (int y = 0; y < grid.height(); y += rows) {
          Window strip = new Window(0, y, grid.width(), rows).intersect(grid.window());
          int[] values = new int[strip.area()];
          read(strip, values);
          for (int value : values) {
            max = Math.max(max, value);
          }
        }
        return max;
      }
    };
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
