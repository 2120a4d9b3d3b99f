package sharpkestrel.sharpen.texture;

import java.util.Arrays;
import java.util.EnumSet;
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

/**
 * The lowest contrast of pairs over ten displacements of one and two pixels: high only where there are edges in every
 * direction, as among buildings, and not along a road or a shore (Pesaresi, Gerhardinger and Kayitakire 2008, IEEE JSTARS
 * 1(3), 180-192). Reduced levels are means of the full one.
 */
public final class BuiltUpRaster extends DerivedRaster {

  private static final List<Displacement> DISPLACEMENTS = List.of(
      new Displacement(1, 0),
      new Displacement(2, 0),
      new Displacement(0, 1),
      new Displacement(0, 2),
      new Displacement(1, 1),
      new Displacement(1, -1),
      new Displacement(1, 2),
      new Displacement(1, -2),
      new Displacement(2, 1),
      new Displacement(2, -1));

  private final Raster values;
  private final Levels levels;
  private final int radius;

  /**
   * @param values one band
   * @param side of the window in pixels, odd
   */
  public BuiltUpRaster(Raster values, Levels levels, int side) {
    super(
        values.grid(),
        List.of(new Band("built_up", BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN)),
        values.attachments(),
        Zoom.RESAMPLING.over(values.zoom()));
    this.values = values;
    this.levels = levels;
    this.radius = side / 2;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > 0) {
      // its values mean something at full size only, where a threshold is set by them
      Planes.readByHalving(this, level, window, target, request);
      return;
    }
    Window wide = window.grown(radius);
    float[] plane = values.read(0, wide, request)[0];
    LevelTile tile = LevelTile.of(plane, wide.width(), radius, levels);
    lowest(tile, target[0], request);
    Planes.leaveHoles(plane, radius, window.width(), target);
  }

  /**
   * @param out (output) for each pixel of the tile; NaN where a window holds no pair of some displacement
   */
  static void lowest(LevelTile tile, float[] out, Request request) {
    int width = tile.width();
    float[][] lowest = new float[tile.height()][width];
    for (float[] row : lowest) {
      Arrays.fill(row, Float.POSITIVE_INFINITY);
    }
    for (Displacement displacement : DISPLACEMENTS) {
      request.cancellation().check();
      PairSums sums = new PairSums(
          tile, displacement, EnumSet.of(PairSums.Term.ONE, PairSums.Term.SQUARED_DIFFERENCE));
      int[] pairs = sums.of(PairSums.Term.ONE);
      int[] squares = sums.of(PairSums.Term.SQUARED_DIFFERENCE);
      for (float[] row : lowest) {
        sums.next();
        if (tile.holes()) {
          lower(row, squares, pairs);
        } else {
          lower(row, squares, 1f / pairs[0]);
        }
      }
    }
    for (int y = 0; y < lowest.length; y++) {
      System.arraycopy(lowest[y], 0, out, y * width, width);
    }
  }

  private static void lower(float[] out, int[] squares, float scale) {
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.min(out[i], squares[i] * scale);
    }
  }

  /** Scaled alike, so that the same pairs give the same number whether a tile has holes or none. */
  private static void lower(float[] out, int[] squares, int[] pairs) {
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.min(out[i], pairs[i] == 0 ? Float.NaN : squares[i] * (1f / pairs[i]));
    }
  }
}
