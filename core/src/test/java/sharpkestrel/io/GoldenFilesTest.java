package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;

/** Files of an independent writer, whose pixels follow formulas. */
class GoldenFilesTest {

  private static final int WIDTH = 37;
  private static final int HEIGHT = 29;

  private static float expected(int band, int x, int y) {
    return switch (band) {
      case 0 -> (x * 31 + y * 7) % 4096 + 1;
      case 1 -> (x * x + y) % 3000 + 1;
      default -> ((x ^ y) * 11) % 2048 + 1;
    };
  }

  private static Raster golden(String name) {
    return RasterFiles.open(Path.of("src/test/resources/golden", name));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "strip-none.tif", "tiled-lzw-2.tif", "tiled-deflate-band.tif", "strip-zstd-2.tif",
            "big-endian.tif",
        "bigtiff.tif", "float-3.tif", "int16.tif", "uint32.tif", "point.tif"
      })
  void everyPixelOfAnotherWritersFileIsRead(String name) {
    Raster raster = golden(name);

    float[][] planes = raster.read(0, raster.grid().window(), Request.BACKGROUND);

    assertThat(raster.grid().width()).isEqualTo(WIDTH);
    assertThat(raster.grid().height()).isEqualTo(HEIGHT);
    for (int b = 0; b < 3; b++) {
      for (int y = 0; y < HEIGHT; y++) {
        for (int x = 0; x < WIDTH; x++) {
          assertThat(planes[b][y * WIDTH + x]).isEqualTo(expected(b, x, y));
        }
      }
    }
  }

  @Test
  void placeBandsAndNoDataAreUnderstood() {
    Raster raster = golden("tiled-lzw-2.tif");

    assertThat(raster.grid().crs().text()).isEqualTo("EPSG:32630");
    assertThat(raster.grid().affine().c()).isEqualTo(512_000);
    assertThat(raster.grid().affine().f()).isEqualTo(6_702_000);
    assertThat(raster.grid().affine().a()).isEqualTo(0.5);
    assertThat(raster.bands().get(0).role()).isEqualTo(BandRole.BLUE);
    assertThat(raster.bands().get(2).role()).isEqualTo(BandRole.RED);
    assertThat(raster.bands().get(0).noData()).isEqualTo(0);
    assertThat(raster.bands().get(0).type()).isEqualTo(SampleType.UINT16);
  }

  @Test
  void aFileOfPointsLiesWhereItsAreaTwinLies() {
    Raster point = golden("point.tif");

    // The writer keeps the corner of the first pixel and notes its centre.
    assertThat(point.grid().affine().c()).isCloseTo(512_000, within(1e-9));
    assertThat(point.grid().affine().f()).isCloseTo(6_702_000, within(1e-9));
  }
}
