package sharpkestrel.io;

import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.IntStream;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CachedRaster;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Which pixels of a file are valid, by masks that lie in it or beside it: 1 or NaN. A mask has one band for all of the
 * image's, or one for each. Levels without a mask of their own are halved from the finer one, a pixel being valid where any
 * of its four is.
 */
final class ValidityRaster extends DerivedRaster {

  private final TreeMap<Integer, TiffImage> masks;

  private ValidityRaster(Grid grid, TreeMap<Integer, TiffImage> masks) {
    super(grid, bands(masks.get(0).samples), Attachments.NONE, Zoom.POINTWISE);
    this.masks = masks;
  }

  private static List<Band> bands(int count) {
    return IntStream.range(0, count)
        .mapToObj(b -> new Band("valid", BandRole.OTHER, "", SampleType.UINT8, 0))
        .toList();
  }

  /**
   * @param masks by level, the full one among them
   */
  static Raster of(Grid grid, TreeMap<Integer, TiffImage> masks) {
    return CachedRaster.of(new ValidityRaster(grid, masks));
  }

  /** Leaves pixels without data that a mask hides. */
  static void apply(
      Raster valid, int level, Window window, float[][] planes, int firstBand, Request request) {
    boolean common = valid.bands().size() == 1;
    float[][] flags = new float[valid.bands().size()][];
    for (int b = 0; b < planes.length; b++) {
      if (planes[b] != null) {
        flags[common ? 0 : firstBand + b] = new float[window.area()];
      }
    }
    valid.read(level, window, flags, request);
    for (int b = 0; b < planes.length; b++) {
      for (int i = 0; planes[b] != null && i < planes[b].length; i++) {
        planes[b][i] *= flags[common ? 0 : firstBand + b][i];
      }
    }
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    TiffImage mask = masks.get(level);
    if (mask == null) {
      Planes.readByHalving(this, level, window, target, request);
      return;
    }
    for (int by = window.y() / mask.blockHeight; by * mask.blockHeight < window.bottom(); by++) {
      for (int bx = window.x() / mask.blockWidth; bx * mask.blockWidth < window.right(); bx++) {
        Window block = mask.blockWindow(bx, by);
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            float[][] flags = mask.decode(bx, by, b, 0);
            Planes.copy(
                asOnes(flags, mask.interleaved ? b : 0, block.area()), block, target[b], window);
          }
        }
      }
    }
  }

  /** A block that was never written hides all. */
  private static float[] asOnes(float[][] flags, int band, int area) {
    float[] ones = new float[area];
    if (flags == null) {
      Arrays.fill(ones, Float.NaN);
      return ones;
    }
    for (int i = 0; i < area; i++) {
      ones[i] = Float.isNaN(flags[band][i]) ? Float.NaN : 1;
    }
    return ones;
  }
}
