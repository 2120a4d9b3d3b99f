package sharpkestrel.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;

class Egm96Test {

  /** Expectations of an independent program over the same grid: {@code cs2cs} with {@code +geoidgrids}. */
  @ParameterizedTest
  @CsvSource({
    "-2.83, 60.41, 52.4511",
    "0, 0, 17.1616",
    "179.95, -16.5, 52.8468",
    "-179.99, 51.3, -1.9736",
    "86.925, 27.988, -28.8677",
    "-70.1, -33.4, 30.4393",
    "12.5, 41.9, 48.4810",
    "100.3, 13.7, -32.0731",
    "-157.8, 21.3, 15.0323",
    "35.2, -1.3, -15.9083",
    "-120.125, 89.1, 14.0902",
    "3.3, -89.9, -29.5441",
    "78.9, 5.1, -106.5934"
  })
  void theGeoidIsAsHighAsOtherSoftwareHasIt(double longitude, double latitude, double height) {
    Raster geoid = Egm96.raster();
    Grid grid = geoid.grid();
    Affine toPixel = grid.affine().inverse();
    double[] x = {toPixel.x(longitude, latitude)};
    double[] y = {toPixel.y(longitude, latitude)};
    Window around = Window.under(x, y, 1, 2, grid.window());
    float[] plane = geoid.read(0, around, Request.BACKGROUND)[0];
    x[0] -= around.x();
    y[0] -= around.y();
    float[][] out = {new float[1]};

    Resampling.BILINEAR.sample(
        List.of(plane).toArray(float[][]::new), around.width(), around.height(), x, y, 1, out);

    assertThat((double) out[0][0]).isCloseTo(height, within(0.002));
  }
}
