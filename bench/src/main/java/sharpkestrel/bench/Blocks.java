package sharpkestrel.bench;

import java.util.stream.Stream;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/** A scene of four bands and any size, made as it is read: blocks of 7 to 12 pixels in one of many tones, with noise. */
final class Blocks extends DerivedRaster {

  Blocks(int size) {
    super(
        new Grid(size, size, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)),
        Stream.of(BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED)
            .map(role -> Band.of(role, SampleType.UINT16))
            .toList(),
        Attachments.NONE,
        Zoom.POINTWISE);
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    for (int b = 0; b < target.length; b++) {
      for (int i = 0; target[b] != null && i < target[b].length; i++) {
        int x = window.x() + i % window.width();
        int y = window.y() + i / window.width();
        target[b][i] = value(b, x, y);
      }
    }
  }

  private static float value(int band, int x, int y) {
    long block = (x + y / 5 % 3) / 9 * 73_856_093L ^ (y + x / 7 % 4) / 10 * 19_349_663L;
    block = (block ^ block >>> 13) * 0x5bd1e995L;
    long pixel = (x * 83_492_791L ^ y * 49_979_687L) + band * 7919L;
    pixel = (pixel ^ pixel >>> 13) * 0x5bd1e995L;
    return 200 + ((block >>> 7 + 3 * band) & 511) + ((pixel >>> 9) & 31);
  }
}
