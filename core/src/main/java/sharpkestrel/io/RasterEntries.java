package sharpkestrel.io;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/** What the directory of a TIFF file says of a raster: its size, its samples, its place and where it came from. */
final class RasterEntries {

  private static final int TRANSPARENCY_MASK = 4;

  private RasterEntries() {}

  static void size(TiffEntries entries, Grid grid, int tile) {
    entries.ints(TiffTags.WIDTH, grid.width());
    entries.ints(TiffTags.HEIGHT, grid.height());
    entries.ints(TiffTags.TILE_WIDTH, tile);
    entries.ints(TiffTags.TILE_HEIGHT, tile);
  }

  static void samples(TiffEntries entries, Raster raster) {
    int bands = raster.bands().size();
    SampleType type = raster.bands().get(0).type();
    entries.shorts(TiffTags.BITS, filled(bands, 8 * type.bytes()));
    entries.shorts(TiffTags.PHOTOMETRIC, 1);
    entries.shorts(TiffTags.SAMPLES, bands);
    entries.shorts(TiffTags.PLANAR, 1);
    if (bands > 1) {
      entries.shorts(TiffTags.EXTRA_SAMPLES, filled(bands - 1, 0));
    }
    int format = type == SampleType.FLOAT32 ? 3 : type.min() < 0 ? 2 : 1;
    entries.shorts(TiffTags.SAMPLE_FORMAT, filled(bands, format));
    double noData = noData(raster.bands());
    if (!Double.isNaN(noData) || type == SampleType.FLOAT32) {
      entries.ascii(TiffTags.NO_DATA, text(noData, type));
    }
  }

  private static String text(double noData, SampleType type) {
    if (Double.isNaN(noData)) {
      return "nan";
    }
    return type.isWhole() ? Long.toString((long) noData) : Float.toString((float) noData);
  }

  /**
   * The number that means no-data in a file, which has one for all bands: NaN where bands differ or have none. Floats then
   * have NaN itself, whole numbers a mask.
   */
  static double noData(List<Band> bands) {
    double first = bands.getFirst().noData();
    return bands.stream().allMatch(band -> band.noData() == first) ? first : Double.NaN;
  }

  /** A mask that goes with an image, of one bit for each of so many samples. */
  static void mask(TiffEntries entries, int samples) {
    entries.shorts(TiffTags.BITS, filled(samples, 1));
    entries.shorts(TiffTags.PHOTOMETRIC, TRANSPARENCY_MASK);
    entries.shorts(TiffTags.SAMPLES, samples);
    entries.shorts(TiffTags.PLANAR, 1);
    entries.shorts(TiffTags.SAMPLE_FORMAT, filled(samples, 1));
    if (samples > 1) {
      entries.shorts(TiffTags.EXTRA_SAMPLES, filled(samples - 1, 0));
    }
    entries.shorts(TiffTags.COMPRESSION, Compression.DEFLATE.code());
  }

  static void place(TiffEntries entries, Raster raster) {
    VerticalDatum vertical =
        raster.attachments().get(VerticalDatum.class).orElse(VerticalDatum.UNKNOWN);
    ItemsXml items = new ItemsXml();
    GeoKeys.write(entries, items, raster.grid().affine(), raster.grid().crs(), vertical);
    raster
        .attachments()
        .get(Rpc.class)
        .ifPresent(rpc -> entries.doubles(TiffTags.RPC, rpc.toTag()));
    for (int b = 0; b < raster.bands().size(); b++) {
      Band band = raster.bands().get(b);
      items.put(b, "DESCRIPTION", band.name());
      items.put(b, "role", band.role().label());
      if (band.roleGuessed()) {
        items.put(b, "role_guessed", "yes");
      }
      if (!band.unit().isEmpty()) {
        items.put(b, "UNITTYPE", band.unit());
      }
    }
    raster
        .attachments()
        .get(Acquisition.class)
        .ifPresent(acquisition -> AcquisitionItems.write(items, acquisition, raster.bands()));
    raster
        .attachments()
        .get(Placement.class)
        .ifPresent(placement -> PlacementItems.write(items, placement));
    raster
        .attachments()
        .get(SeamVisibility.class)
        .ifPresent(seams -> SeamItems.write(items, seams));
    entries.ascii(TiffTags.ITEMS, items.toXml());
  }

  private static int[] filled(int count, int value) {
    int[] values = new int[count];
    Arrays.fill(values, value);
    return values;
  }
}
