package sharpkestrel.io;

import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** The colours that a TIFF file's table gives to its numbers. Reduced levels are means of colours, not of numbers. */
final class PaletteColours extends DerivedRaster {

  private final Raster numbers;
  private final long[] table;
  private final int entries;

  private PaletteColours(GeoTiff tiff, long[] table) {
    super(
        tiff.grid(),
        List.of(BandRole.RED, BandRole.GREEN, BandRole.BLUE).stream()
            .map(role -> new Band(role.label(), role, "", SampleType.UINT8, Double.NaN))
            .toList(),
        tiff.attachments(),
        Zoom.POINTWISE);
    numbers = tiff;
    this.table = table;
    entries = table.length / 3;
  }

  /** The colours, or the raster itself where it has none. */
  static Raster of(GeoTiff tiff) {
    long[] table = tiff.directory().numbers(TiffTags.COLOUR_MAP);
    return table.length < 3 || tiff.bands().size() > 1 ? tiff : new PaletteColours(tiff, table);
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > 0) {
      Planes.readByHalving(this, level, window, target, request);
      return;
    }
    float[] read = numbers.read(0, window, request)[0];
    for (int b = 0; b < target.length; b++) {
      for (int i = 0; target[b] != null && i < read.length; i++) {
        boolean known = read[i] >= 0 && read[i] < entries;
        target[b][i] = known ? table[b * entries + (int) read[i]] >> 8 : Float.NaN;
      }
    }
  }
}
