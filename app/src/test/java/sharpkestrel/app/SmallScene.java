package sharpkestrel.app;

import java.nio.file.Path;
import java.util.List;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

/** A field with one bright roof of 12 m x 10 m in it, in red and near infrared. */
public final class SmallScene {

  public static final int WIDTH = 160;
  public static final int HEIGHT = 120;

  private SmallScene() {}

  /**
   * @param roof reflectance of the roof
   * @param times how many such fields there are along each side
   */
  public static void write(Path file, double roof, int times) {
    int width = WIDTH * times;
    int height = HEIGHT * times;
    float[][] planes = new float[2][width * height];
    for (int i = 0; i < planes[0].length; i++) {
      int col = i % width % WIDTH;
      int row = i / width % HEIGHT;
      boolean inside = col >= 60 && col < 84 && row >= 40 && row < 60;
      double light = 1 + 0.02 * ((7 * col + 13 * row) % 5 - 2);
      planes[0][i] = (float) (light * (inside ? roof : 0.05));
      planes[1][i] = (float) (light * (inside ? roof : 0.4));
    }
    Grid grid =
        new Grid(width, height, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    List<Band> bands = List.of(
        Band.of(BandRole.RED, SampleType.FLOAT32),
        Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32));
    GeoTiffWriter.write(
        new MemoryRaster(grid, bands, Attachments.NONE, planes),
        file,
        Compression.DEFLATE,
        Job.QUIET);
  }
}
