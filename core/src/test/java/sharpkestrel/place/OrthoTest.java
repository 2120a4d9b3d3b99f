package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** A scene whose columns are longitudes, two thirds of a pixel further for each metre of height. */
class OrthoTest {

  private static final double LONGITUDE = -3;
  private static final double LATITUDE = 60;
  private static final double DEGREE = 5e-6;
  private static final int SIDE = 400;

  private static Raster scene() {
    Rpc rpc = RpcFit.of(
            (col, row, height, degrees) -> {
              degrees[0] = LONGITUDE + 2 * DEGREE * (col - 200 - height / 1.5);
              degrees[1] = LATITUDE - DEGREE * (row - 200);
            },
            SIDE,
            SIDE,
            0,
            100)
        .rpc();
    return new MemoryRaster(
        Grid.ofPixels(SIDE, SIDE),
        List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
        Attachments.NONE.with(Rpc.class, rpc),
        Made.samples(Made.on(
            Grid.ofPixels(SIDE, SIDE), SampleType.FLOAT32, (b, c, r) -> c + 0.5, BandRole.PAN)));
  }

  private static Raster heights(double west, int columns, Made.Sample sample) {
    Raster model = Made.on(
        new Grid(columns, 60, Affine.northUp(west, LATITUDE + 0.0015, 5e-5), CrsName.epsg(4326)),
        SampleType.FLOAT32,
        sample,
        BandRole.HEIGHT);
    return new MemoryRaster(
        model.grid(),
        model.bands(),
        Attachments.NONE.with(VerticalDatum.class, VerticalDatum.ELLIPSOID),
        Made.samples(model));
  }

  private static Ortho ortho(Optional<Raster> heights, Optional<Raster> surface, double height) {
    return new Ortho(
        scene(),
        new Relief(heights, Optional.empty(), Double.NaN),
        surface,
        height,
        new ResultGrid(CrsName.epsg(4326), Optional.empty(), DEGREE, Resampling.BILINEAR));
  }

  /** The column of the raw scene that is shown at a longitude. */
  private static float shown(Raster ortho, double longitude) {
    Affine toPixel = ortho.grid().affine().inverse();
    Window pixel = new Window(
        (int) toPixel.x(longitude, LATITUDE), (int) toPixel.y(longitude, LATITUDE), 1, 1);
    return ortho.read(0, pixel, Request.BACKGROUND)[0][0];
  }

  @Test
  void overOneHeightThingsLieWhereThatHeightPutsThem() {
    Raster flat = ortho(Optional.empty(), Optional.empty(), 30).run(Job.QUIET);
    // 200 plus 20 columns for 30 m, to the centre of the pixel a longitude falls in
    assertThat(shown(flat, LONGITUDE)).isCloseTo(220, within(0.6f));
    Raster high = ortho(Optional.empty(), Optional.empty(), 60).run(Job.QUIET);
    assertThat(shown(high, LONGITUDE)).isCloseTo(240, within(0.6f));
  }

  @Test
  void whatLiesBeyondTheModelAndInItsVoidsIsSaid() {
    List<String> warnings = new ArrayList<>();
    Raster half = heights(LONGITUDE - 0.003, 60, (b, c, r) -> c < 30 && r < 30 ? Double.NaN : 30);
    Raster ortho =
        ortho(Optional.of(half), Optional.empty(), Double.NaN).run(Jobs.warning(warnings));
    assertThat(warnings)
        .anyMatch(w -> w.contains("25 % of the height model has no heights"))
        .anyMatch(w -> w.contains("beyond the edge of the height model"));
    assertThat(shown(ortho, LONGITUDE - 0.0005)).isFinite();
    assertThat(ortho.grid().extent().east()).isLessThan(LONGITUDE + 0.0002);
  }

  @Test
  void aModelThatDoesNotReachTheSceneIsRefused() {
    Raster far = heights(LONGITUDE + 1, 60, (b, c, r) -> 30);
    assertThatThrownBy(
            () -> ortho(Optional.of(far), Optional.empty(), Double.NaN).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("does not reach the scene");
  }

  @Test
  void theModelOfAnotherImageIsDoubted() {
    Rpc rpc = scene().attachments().get(Rpc.class).orElseThrow();
    assertThat(rpc.doubt(SIDE, SIDE)).isEmpty();
    assertThat(rpc.doubt(60, 50)).as("a part of the image").isEmpty();
    assertThat(rpc.doubt(4 * SIDE, 4 * SIDE))
        .get()
        .asString()
        .contains("1600 x 1600")
        .contains("another image");
    assertThat(rpc.shifted(300, 0).doubt(SIDE, SIDE)).isPresent();
  }

  @Test
  void heightsAreNeededAndOnlyOnce() {
    assertThatThrownBy(
            () -> ortho(Optional.empty(), Optional.empty(), Double.NaN).run(Job.QUIET))
        .hasMessageContaining("Heights are needed");
    Raster model = heights(LONGITUDE - 0.003, 120, (b, c, r) -> 30);
    assertThatThrownBy(() -> ortho(Optional.of(model), Optional.empty(), 30).run(Job.QUIET))
        .hasMessageContaining("not both");
  }

  @Test
  void aTrueOrthoLeavesOutWhatIsHidden() {
    // a wall of 40 m along a meridian; the sensor looks from the west, so that 27 columns behind it
    // are hidden
    Raster surface = heights(LONGITUDE - 0.003, 120, (b, c, r) -> c == 60 || c == 61 ? 40 : 0);
    Raster terrain = heights(LONGITUDE - 0.003, 120, (b, c, r) -> 0);
    Raster plain = ortho(Optional.of(terrain), Optional.empty(), Double.NaN).run(Job.QUIET);
    Raster truly = ortho(Optional.of(terrain), Optional.of(surface), Double.NaN).run(Job.QUIET);
    assertThat(truly.grid().crs()).isEqualTo(plain.grid().crs());
    // a ray goes west by two thirds of a column, of a hundred-thousandth of a degree, for each
    // metre up
    double behind = LONGITUDE + 1e-4 + 40 / 1.5 * 2 * DEGREE / 2;
    double beyond = LONGITUDE + 1e-4 + 40 / 1.5 * 2 * DEGREE * 1.2;
    assertThat(shown(plain, behind)).isFinite();
    assertThat(shown(truly, behind)).isNaN();
    assertThat(shown(truly, beyond)).isFinite();
    assertThat(shown(truly, LONGITUDE - 2e-4)).as("before the wall").isFinite();
  }
}
