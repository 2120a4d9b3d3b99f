package sharpkestrel.raster;

import java.util.Arrays;
import java.util.List;

/** Small rasters for tests, their samples given by a function of band, column and row. */
public final class Made {

  /** A sample of a band. */
  public interface Sample {
    double at(int band, int col, int row);
  }

  private Made() {}

  /** A placed scene with its upper left corner at E 512 000, N 6 702 000. */
  public static MemoryRaster placed(
      int width, int height, double pixelSize, Sample sample, BandRole... roles) {
    Grid grid =
        new Grid(width, height, Affine.northUp(512_000, 6_702_000, pixelSize), CrsName.epsg(32630));
    return on(grid, SampleType.FLOAT32, sample, roles);
  }

  public static MemoryRaster on(Grid grid, SampleType type, Sample sample, BandRole... roles) {
    float[][] planes = new float[roles.length][grid.width() * grid.height()];
    for (int b = 0; b < roles.length; b++) {
      for (int i = 0; i < planes[b].length; i++) {
        planes[b][i] = (float) sample.at(b, i % grid.width(), i / grid.width());
      }
    }
    List<Band> bands = Arrays.stream(roles).map(role -> Band.of(role, type)).toList();
    return new MemoryRaster(grid, bands, Attachments.NONE, planes);
  }

  /** All samples at full size. */
  public static float[][] samples(Raster raster) {
    return raster.read(0, raster.grid().window(), Request.BACKGROUND);
  }
}
