package sharpkestrel.app.viewer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

class ViewerPartsTest {

  private static final Grid PLACED =
      new Grid(400, 300, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));

  @ParameterizedTest
  @CsvSource({"0.5,100,80", "2,640,10", "1.37,3,450"})
  void zoomingKeepsTheWorldUnderTheCursor(double factor, double x, double y) {
    Viewport view = Viewport.fit(PLACED, 1, 640, 480);

    Viewport zoomed = view.zoomed(factor, x, y);

    assertThat(zoomed.toPixels(PLACED, 1).x(x, y))
        .isCloseTo(view.toPixels(PLACED, 1).x(x, y), within(1e-6));
    assertThat(zoomed.toPixels(PLACED, 1).y(x, y))
        .isCloseTo(view.toPixels(PLACED, 1).y(x, y), within(1e-6));
    assertThat(zoomed.unitsPerPixel()).isCloseTo(view.unitsPerPixel() / factor, within(1e-12));
  }

  @Test
  void aFittedGridFillsOneDirectionAndIsCentredInTheOther() {
    Affine toPixels = Viewport.fit(PLACED, 1, 640, 480).toPixels(PLACED, 1);

    assertThat(toPixels.x(0, 0)).isCloseTo(0, within(1e-6));
    assertThat(toPixels.x(640, 0)).isCloseTo(400, within(1e-6));
    assertThat(toPixels.y(0, 240)).isCloseTo(150, within(1e-6));
  }

  @Test
  void aRawScenesWorldIsItsPixelsTimesTheirSize() {
    Grid raw = Grid.ofPixels(200, 100);
    Viewport view = new Viewport(0, 0, 0.25);

    assertThat(view.toPixels(raw, 0.5).x(40, 20)).isCloseTo(20, within(1e-12));
    assertThat(view.panned(-8, 0).toPixels(raw, 0.5).x(40, 20)).isCloseTo(24, within(1e-12));
  }

  @Test
  void theStretchEndsAtTheLooksPercentilesWithoutNoData() {
    float[] plane = new float[100 * 100];
    for (int i = 0; i < plane.length; i++) {
      plane[i] = i < 1000 ? Float.NaN : i;
    }
    MemoryRaster raster = new MemoryRaster(
        Grid.ofPixels(100, 100),
        List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[][] {plane});

    Stretch stretch = StretchSample.of(
            raster, new int[] {0, 0, 0}, raster.grid().window())
        .stretch(Look.GREY.with(StretchRule.percent(10, 90)));

    assertThat(stretch.low()[0]).isCloseTo(1000 + 900, within(1.0f));
    assertThat(stretch.high()[0]).isCloseTo(1000 + 8100, within(1.0f));
  }

  @Test
  void coloursRiseWithTheNumbersAndNoDataIsClear() {
    float[] plane = {0, 0.25f, 0.5f, 1, Float.NaN, 9};
    Stretch stretch = Stretch.of(new float[3], new float[] {1, 1, 1});
    int[] pixels = new int[6];

    stretch.colour(new float[][] {plane, plane, plane}, 6, 1, pixels, 6);

    assertThat(pixels[0]).isEqualTo(0xff000000);
    assertThat(pixels[3]).isEqualTo(0xffffffff);
    assertThat(pixels[5]).isEqualTo(0xffffffff);
    assertThat(pixels[4]).isZero();
    assertThat(pixels[1] & 0xff).isBetween(1, (pixels[2] & 0xff) - 1);
  }

  @Test
  void theRampRisesInLightness() {
    double before = -1;
    for (int i = 0; i <= 64; i++) {
      int argb = Ramp.colour(i / 64.0);
      double light = 0.2126 * linear(argb >> 16 & 255)
          + 0.7152 * linear(argb >> 8 & 255)
          + 0.0722 * linear(argb & 255);
      assertThat(light).as("step " + i).isGreaterThan(before);
      before = light;
    }
    assertThat(Ramp.colour(-3)).isEqualTo(Ramp.colour(0));
    assertThat(Ramp.colour(7)).isEqualTo(Ramp.colour(1));
  }

  private static double linear(int value) {
    return Math.pow(value / 255.0, 2.2);
  }

  @Test
  void anOutlineIsDrawnAlongItsSidesAndNowhereElse() {
    Compositor compositor = new Compositor();
    compositor.begin(60, 50);
    int[] before = compositor.pixels().clone();
    Geometry box = new GeometryFactory().toGeometry(new Envelope(10, 40, 12, 30));

    compositor.drawOutlines(List.of(box), Affine.IDENTITY, 0xff00ff00, 0, 0, 60, 50);

    int[] pixels = compositor.pixels();
    assertThat(pixels[12 * 60 + 25]).isEqualTo(0xff00ff00);
    assertThat(pixels[20 * 60 + 10]).isEqualTo(0xff00ff00);
    for (int i = 0; i < pixels.length; i++) {
      double x = i % 60;
      double y = i / 60;
      double away =
          new GeometryFactory().createPoint(new Coordinate(x, y)).distance(box.getBoundary());
      if (away > 3) {
        assertThat(pixels[i]).as(x + ", " + y).isEqualTo(before[i]);
      }
    }
  }

  @Test
  void anOutlineStaysInItsPartOfTheScreen() {
    Compositor compositor = new Compositor();
    compositor.begin(60, 50);
    int[] before = compositor.pixels().clone();
    Geometry box = new GeometryFactory().toGeometry(new Envelope(-20, 100, 12, 30));

    compositor.drawOutlines(List.of(box), Affine.IDENTITY, 0xff00ff00, 20, 0, 40, 50);

    int[] pixels = compositor.pixels();
    for (int y = 0; y < 50; y++) {
      assertThat(Arrays.copyOfRange(pixels, y * 60, y * 60 + 19))
          .isEqualTo(Arrays.copyOfRange(before, y * 60, y * 60 + 19));
      assertThat(Arrays.copyOfRange(pixels, y * 60 + 41, y * 60 + 60))
          .isEqualTo(Arrays.copyOfRange(before, y * 60 + 41, y * 60 + 60));
    }
  }

  @ParameterizedTest
  @CsvSource({"0.4,0", "1,0", "1.5,0", "1.6,1", "3.9,2", "70,4"})
  void theLevelDrawnHasPixelsAboutAsLargeAsTheScreens(double ratio, int level) {
    assertThat(Compositor.levelFor(ratio, 5)).isEqualTo(level);
  }

  private static PaneLayer layer(Grid grid) {
    MemoryRaster raster = new MemoryRaster(
        grid, List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)), Attachments.NONE, new float[][] {
          new float[grid.width() * grid.height()]
        });
    return PaneLayer.ofTrial(raster, raster, Look.GREY, grid.window(), () -> {});
  }

  @Test
  void aTrialPatchIsTheSameAreaFromWhicheverCornerItWasDrawn() {
    TrialPatch patch = new TrialPatch();
    assertThat(patch.on(layer(PLACED))).isEmpty();

    // The world runs downwards: ground coordinates with the northing negated.
    patch.between(512_050, -6_701_900, 512_020, -6_701_960);

    assertThat(patch.on(layer(PLACED)))
        .hasValue(new sharpkestrel.raster.Extent(512_020, 6_701_900, 512_050, 6_701_960));
    patch.clear();
    assertThat(patch.isSet()).isFalse();
  }

  @Test
  void aTrialPatchOnARawSceneIsInItsPixels() {
    TrialPatch patch = new TrialPatch();
    PaneLayer raw = layer(Grid.ofPixels(100, 100));

    patch.between(10 * raw.rawScale, 20 * raw.rawScale, 30 * raw.rawScale, 60 * raw.rawScale);

    assertThat(patch.on(raw)).hasValue(new sharpkestrel.raster.Extent(10, 20, 30, 60));
  }

  @Test
  void onlyTheFrameOfAnEmptyTrialPatchIsDrawn() {
    Compositor compositor = new Compositor();
    compositor.begin(80, 60);
    int[] before = compositor.pixels().clone();
    TrialPatch patch = new TrialPatch();
    patch.between(10, 10, 50, 40);

    boolean complete = patch.draw(compositor, new Viewport(0, 0, 1), layer(PLACED), 80, 60, true);

    assertThat(complete).isTrue();
    assertThat(compositor.pixels()).isNotEqualTo(before);
    assertThat(compositor.pixels()[25 * 80 + 30]).isEqualTo(before[25 * 80 + 30]);
    assertThat(compositor.pixels()[50 * 80 + 70]).isEqualTo(before[50 * 80 + 70]);
  }
}
