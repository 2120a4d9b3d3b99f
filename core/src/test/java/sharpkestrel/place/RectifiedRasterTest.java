package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.geo.FrameCamera;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

class RectifiedRasterTest {

  private static final CrsName UTM = CrsName.epsg(32630);
  private static final Grid GROUND =
      new Grid(700, 600, Affine.northUp(499_920, 6_702_000, 1.5), UTM);
  /** Low over the hills, so that relief matters much. */
  private static final FrameCamera CAMERA = new FrameCamera(
      UTM, 900, 900, 500_500, 6_701_550, 1500, 0.04, -0.03, 0.4, 1200, 0.03, 0.004, 0.002);

  private static final Grid HEIGHTS =
      new Grid(220, 190, Affine.northUp(499_900, 6_702_050, 5), UTM);

  private static double hills(double x, double y) {
    return 200 + 200 * Math.sin((x - 500_000) / 170) * Math.cos((y - 6_701_000) / 210);
  }

  private static Raster hills() {
    return Made.on(
        HEIGHTS,
        SampleType.FLOAT32,
        (b, col, row) -> hills(
            HEIGHTS.affine().x(col + 0.5, row + 0.5), HEIGHTS.affine().y(col + 0.5, row + 0.5)),
        BandRole.HEIGHT);
  }

  private static Raster photo() {
    return Made.on(
        Grid.ofPixels(900, 900),
        SampleType.FLOAT32,
        (b, col, row) -> Math.sin(col / 9.0) + Math.cos(row / 7.0),
        BandRole.PAN);
  }

  private static RectifiedRaster laid(ImageModel model) {
    Optional<Heights> heights = model.usesHeights()
        ? Optional.of(Heights.of(hills(), 0, Optional.empty(), Job.QUIET))
        : Optional.empty();
    return new RectifiedRaster(photo(), model, heights, GROUND, Attachments.NONE, Resampling.CUBIC);
  }

  /** At levels of the pyramid, too, where nodes lie farther apart on the ground. */
  @ParameterizedTest
  @ValueSource(ints = {0, 1, 2})
  void overReliefACameraIsFollowedToAHundredthOfAPixel(int level) {
    RectifiedRaster laid = laid(CAMERA);
    Grid at = GROUND.atLevel(level);
    Window window = at.window();
    double[] cols = new double[window.area()];
    double[] rows = new double[window.area()];
    laid.toImage(level, window, cols, rows, Request.BACKGROUND);

    double[] image = new double[2];
    double worst = 0;
    GroundHeights ground =
        new GroundHeights(Optional.of(Heights.of(hills(), 0, Optional.empty(), Job.QUIET)), UTM);
    for (int i = 0; i < cols.length; i += 37) {
      double x = at.affine().x(i % at.width() + 0.5, 0);
      double y = at.affine().y(0, i / at.width() + 0.5);
      CAMERA.toImage(x, y, ground.at(x, y), image);
      worst = Math.max(worst, Math.hypot(cols[i] - image[0], rows[i] - image[1]));
    }
    assertThat(worst).isLessThan(0.02 * (1 << level));
  }

  /** Along the edge of two triangles a model bends at once; no lattice follows it. */
  @Test
  void aModelThatBendsAtOnceIsAskedEverywhere() {
    ImageModel bent = new ImageModel() {
      @Override
      public CrsName crs() {
        return UTM;
      }

      @Override
      public boolean usesHeights() {
        return false;
      }

      @Override
      public boolean isSmooth() {
        return false;
      }

      @Override
      public void toImage(double x, double y, double height, double[] image) {
        double u = (x - 499_920) / 1.5;
        image[0] = u + 0.3 * Math.abs(u - 333.3) + 0.2 * Math.abs(u - 101.7);
        image[1] = (6_702_000 - y) / 1.5;
      }
    };
    double[] cols = new double[700];
    double[] rows = new double[700];
    laid(bent).toImage(0, new Window(0, 10, 700, 1), cols, rows, Request.BACKGROUND);

    double[] image = new double[2];
    for (int i = 0; i < 700; i++) {
      bent.toImage(499_920 + 1.5 * (i + 0.5), 6_702_000 - 1.5 * 10.5, 0, image);
      assertThat(cols[i]).isCloseTo(image[0], within(0.02));
      assertThat(rows[i]).isCloseTo(image[1], within(0.02));
    }
  }

  @Test
  void tilesAgreeToTheLastBit() {
    RectifiedRaster laid = laid(CAMERA);
    float[] whole = laid.read(0, GROUND.window(), Request.BACKGROUND)[0];
    for (int[] corner : new int[][] {{0, 0}, {131, 77}, {333, 251}, {601, 523}}) {
      Window window = new Window(corner[0], corner[1], 61, 43);
      float[] part = laid.read(0, window, Request.BACKGROUND)[0];
      for (int i = 0; i < part.length; i++) {
        int at = (corner[1] + i / 61) * GROUND.width() + corner[0] + i % 61;
        assertThat(Float.floatToIntBits(part[i])).isEqualTo(Float.floatToIntBits(whole[at]));
      }
    }
  }

  @Test
  void beyondTheHeightsAndInTheirHolesThereIsNoData() {
    MemoryRaster hills = (MemoryRaster) hills();
    float[] plane = Made.samples(hills)[0].clone();
    for (int row = 80; row < 90; row++) {
      for (int col = 100; col < 110; col++) {
        plane[row * HEIGHTS.width() + col] = Float.NaN;
      }
    }
    Raster holed =
        new MemoryRaster(HEIGHTS, hills.bands(), Attachments.NONE, new float[][] {plane});
    Grid wide = new Grid(900, 600, Affine.northUp(500_000, 6_702_000, 1.5), UTM);
    RectifiedRaster laid = new RectifiedRaster(
        photo(),
        CAMERA,
        Optional.of(Heights.of(holed, 0, Optional.empty(), Job.QUIET)),
        wide,
        Attachments.NONE,
        Resampling.NEAREST);
    float[] values = laid.read(0, wide.window(), Request.BACKGROUND)[0];

    // the heights end at easting 501,000, 666.7 pixels from the west
    assertThat(values[300 * 900 + 660]).isNotNaN();
    assertThat(values[300 * 900 + 680]).isNaN();
    // and have a hole about easting 500,425, northing 6,701,625
    assertThat(values[250 * 900 + 283]).isNaN();
    assertThat(values[250 * 900 + 240]).isNotNaN();
  }

  @Test
  void aPlacedRasterLaidOntoItsOwnGridIsItself() {
    Grid own = new Grid(900, 900, Affine.northUp(500_000, 6_702_000, 1), UTM);
    Raster photo = photo();
    RectifiedRaster laid = new RectifiedRaster(
        photo, GridModel.of(own), Optional.empty(), own, Attachments.NONE, Resampling.CUBIC);

    float[] same = laid.read(0, own.window(), Request.BACKGROUND)[0];
    float[] before = photo.read(0, own.window(), Request.BACKGROUND)[0];
    for (int i = 0; i < same.length; i += 97) {
      assertThat(same[i]).isCloseTo(before[i], within(1e-5f));
    }
  }
}
