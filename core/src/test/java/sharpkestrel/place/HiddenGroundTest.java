package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.FrameCamera;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** A block of 20 m on flat ground, seen aslant: what it hides is known in closed form. */
class HiddenGroundTest {

  private static final CrsName UTM = CrsName.epsg(32630);
  private static final int SIDE = 240;
  private static final double WEST = 512_000;
  private static final double NORTH = 6_702_000;
  private static final int TALL = 20;
  private static final Grid SURFACE = new Grid(SIDE, SIDE, Affine.northUp(WEST, NORTH, 1), UTM);

  private static Heights surface() {
    MemoryRaster model = Made.on(
        SURFACE,
        SampleType.FLOAT32,
        (b, col, row) -> col >= 100 && col < 140 && row >= 90 && row < 150 ? 5 + TALL : 5,
        BandRole.HEIGHT);
    return new Heights(model, 47, 50, 75);
  }

  /** A sensor so far away that all rays are parallel: one metre up moves by (east, north) towards it. */
  private record Parallel(double east, double north) implements ImageModel {
    @Override
    public CrsName crs() {
      return UTM;
    }

    @Override
    public boolean usesHeights() {
      return true;
    }

    @Override
    public void toImage(double x, double y, double height, double[] image) {
      image[0] = (x - WEST - east * height) / 0.5;
      image[1] = (NORTH - y + north * height) / 0.5;
    }
  }

  private static boolean[] hidden(ImageModel model, Grid grid, Window window) {
    return new HiddenGround(model, surface(), Crs.of(UTM), grid).in(0, window, Request.BACKGROUND);
  }

  @ParameterizedTest
  @CsvSource({"0.4, 0", "-0.6, 0", "0, 0.5", "0.3, -0.3"})
  void groundBehindABlockIsHiddenAsFarAsItsHeightReaches(double east, double north) {
    boolean[] hidden = hidden(new Parallel(east, north), SURFACE, SURFACE.window());
    int wrong = 0;
    int truly = 0;
    for (int i = 0; i < hidden.length; i++) {
      double x = i % SIDE + 0.5;
      double y = i / SIDE + 0.5;
      boolean onBlock = x > 100 && x < 140 && y > 90 && y < 150;
      boolean behind = false;
      for (double up = 0; up < TALL && !onBlock; up += 0.05) {
        double rx = x + east * up;
        double ry = y - north * up;
        behind |= rx > 100 && rx < 140 && ry > 90 && ry < 150;
      }
      truly += behind ? 1 : 0;
      wrong += behind != hidden[i] ? 1 : 0;
    }
    assertThat(truly).isGreaterThan(300);
    // the walls lean over a pixel of the model, and half a metre of roughness is forgiven
    assertThat(wrong).isLessThan(2 * (40 + 60) * 6 / 10);
  }

  @Test
  void nothingIsHiddenFromAbove() {
    assertThat(hidden(new Parallel(0, 0), SURFACE, SURFACE.window())).doesNotContain(true);
  }

  @Test
  void aCameraHidesOutwards() {
    FrameCamera camera =
        new FrameCamera(UTM, 900, 900, WEST + 20, NORTH - 120, 500, 0, 0, 0, 1200, 0, 0, 0);
    boolean[] hidden = hidden(camera, SURFACE, SURFACE.window());
    assertThat(hidden[120 * SIDE + 143])
        .as("behind the block, away from the camera")
        .isTrue();
    // the ray over the eaves comes down 5.9 m behind the wall: 20 m times 120 - 5.9 over 450 - 20
    assertThat(hidden[120 * SIDE + 147]).isFalse();
    assertThat(hidden[120 * SIDE + 96]).as("before the block").isFalse();
  }

  @Test
  void isTheSameThroughAnyWindowAndOnAnotherGrid() {
    Grid fine = new Grid(300, 260, Affine.northUp(WEST + 40, NORTH - 60, 0.5), UTM);
    Parallel model = new Parallel(0.4, 0.1);
    boolean[] whole = hidden(model, fine, fine.window());
    Window part = new Window(77, 50, 130, 141);
    boolean[] some = hidden(model, fine, part);
    int count = 0;
    for (int i = 0; i < some.length; i++) {
      assertThat(some[i]).isEqualTo(whole[(50 + i / 130) * 300 + 77 + i % 130]);
      count += some[i] ? 1 : 0;
    }
    assertThat(count).isGreaterThan(500);
  }
}
