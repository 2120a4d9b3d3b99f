package sharpkestrel.geo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/**
 * The geoid EGM96 (Lemoine et al. 1998, NASA/TP-1998-206861) as heights above the WGS 84 ellipsoid in metres, every 15
 * minutes, the whole earth around: between its nodes bilinear. Heights of other geoids differ from it by decimetres, in
 * mountains by a metre or two.
 */
public final class Egm96 {

  private static final String FILE = "egm96_15.gtx";

  /** Columns repeated on each side, so that the date line is no border. */
  private static final int WRAP = 2;

  private static volatile Raster whole;

  private Egm96() {}

  public static Raster raster() {
    Raster held = whole;
    if (held == null) {
      held = read();
      whole = held;
    }
    return held;
  }

  private static Raster read() {
    try (InputStream in = Egm96.class.getResourceAsStream(FILE)) {
      ByteBuffer file = ByteBuffer.wrap(in.readAllBytes()).order(ByteOrder.BIG_ENDIAN);
      double south = file.getDouble();
      double west = file.getDouble();
      double down = file.getDouble();
      double across = file.getDouble();
      int rows = file.getInt();
      int columns = file.getInt();
      int width = columns + 2 * WRAP;
      float[] plane = new float[width * rows];
      float[] row = new float[columns];
      for (int y = rows - 1; y >= 0; y--) {
        file.slice(file.capacity() - 4 * columns * (y + 1), 4 * columns)
            .order(ByteOrder.BIG_ENDIAN)
            .asFloatBuffer()
            .get(row);
        for (int x = 0; x < width; x++) {
          plane[y * width + x] = row[Math.floorMod(x - WRAP, columns)];
        }
      }
      double north = south + down * (rows - 1);
      Affine affine =
          new Affine(across, 0, west - across * (WRAP + 0.5), 0, -down, north + down / 2);
      Band band = new Band("undulation", BandRole.HEIGHT, "m", SampleType.FLOAT32, Double.NaN);
      return new MemoryRaster(
          new Grid(width, rows, affine, Crs.WGS84), List.of(band), Attachments.NONE, new float[][] {
            plane
          });
    } catch (IOException broken) {
      throw new IllegalStateException(FILE + " does not ship with the application", broken);
    }
  }
}
