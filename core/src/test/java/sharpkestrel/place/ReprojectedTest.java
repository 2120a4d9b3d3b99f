package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

class ReprojectedTest {

  private static final int WIDTH = 90;
  private static final int HEIGHT = 70;

  /** Every pixel another number. */
  private static Raster scene() {
    return Made.placed(WIDTH, HEIGHT, 2, (b, col, row) -> 1 + row * WIDTH + col, BandRole.PAN);
  }

  /** Column and row of the pixel of the scene under the middle of another grid's pixel. */
  private static double[] under(Grid there, int col, int row, CoordinateMap back) {
    double[] place = {there.affine().x(col + 0.5, row + 0.5), there.affine().y(col + 0.5, row + 0.5)
    };
    back.apply(place, 1);
    Affine toPixel = scene().grid().affine().inverse();
    return new double[] {toPixel.x(place[0], place[1]), toPixel.y(place[0], place[1])};
  }

  private static boolean nearASide(double[] at) {
    return Math.abs(at[0] - Math.rint(at[0])) < 0.02 || Math.abs(at[1] - Math.rint(at[1])) < 0.02;
  }

  private static float expected(double[] at) {
    int col = (int) Math.floor(at[0]);
    int row = (int) Math.floor(at[1]);
    boolean inside = col >= 0 && row >= 0 && col < WIDTH && row < HEIGHT;
    return inside ? 1 + row * WIDTH + col : Float.NaN;
  }

  @ParameterizedTest
  @ValueSource(ints = {32631, 32629, 3857, 4326})
  void everyPixelShowsTheOneUnderItsMiddle(int code) {
    Crs system = Crs.of(CrsName.epsg(code));
    Raster there = Reprojected.to(system, scene());
    CoordinateMap back = system.to(Crs.of(scene().grid().crs()));
    Grid grid = there.grid();

    float[] values = Made.samples(there)[0];

    assertThat(grid.crs()).isEqualTo(system.name());
    int seen = 0;
    for (int i = 0; i < values.length; i++) {
      double[] at = under(grid, i % grid.width(), i / grid.width(), back);
      if (!nearASide(at)) {
        assertThat(values[i]).isEqualTo(Float.valueOf(expected(at)));
        seen += Float.isNaN(values[i]) ? 0 : 1;
      }
    }
    assertThat(seen).isGreaterThan(WIDTH * HEIGHT / 2);
  }

  @Test
  void allOfTheSceneIsShownAtItsOwnSize() {
    Raster there = Reprojected.to(Crs.of(CrsName.epsg(32631)), scene());

    // beside the scale that far from the zone's middle: 1.0028
    assertThat(GroundSize.of(there).mean()).isCloseTo(2.0, within(0.02));
    CoordinateMap map = Crs.of(scene().grid().crs()).to(Crs.of(CrsName.epsg(32631)));
    for (int corner = 0; corner < 4; corner++) {
      double[] at = {
        scene().grid().affine().x(corner % 2 * WIDTH, corner / 2 * HEIGHT),
        scene().grid().affine().y(corner % 2 * WIDTH, corner / 2 * HEIGHT)
      };
      map.apply(at, 1);
      assertThat(at[0])
          .isBetween(there.grid().extent().west(), there.grid().extent().east());
      assertThat(at[1])
          .isBetween(there.grid().extent().south(), there.grid().extent().north());
    }
  }

  @Test
  void inItsOwnSystemItIsItself() {
    Raster scene = scene();

    assertThat(Reprojected.to(Crs.of(scene.grid().crs()), scene)).isSameAs(scene);
  }

  @Test
  void labelsLieWhereTheirPixelsDo() {
    Crs system = Crs.of(CrsName.epsg(32631));
    ScratchLabels own = new ScratchLabels(scene().grid());
    int[] values = new int[WIDTH * HEIGHT];
    for (int i = 0; i < values.length; i++) {
      values[i] = i + 1;
    }
    own.write(scene().grid().window(), values);
    own.setMaxLabel(values.length);
    Raster pixels = Reprojected.to(system, scene());

    LabelRaster there = Reprojected.labels(system, scene(), own);

    Window all = pixels.grid().window();
    int[] found = new int[all.area()];
    there.read(all, found);
    float[] shown = Made.samples(pixels)[0];
    for (int i = 0; i < found.length; i++) {
      assertThat(found[i]).isEqualTo(Float.isNaN(shown[i]) ? 0 : (int) shown[i]);
    }
    assertThat(there.maxLabel()).isEqualTo(values.length);
  }
}
