package sharpkestrel.gather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;

class CalibrateTest {

  private static final Acquisition ACQUISITION = new Acquisition(
      Instant.parse("2031-04-03T12:00:00Z"),
      30,
      180,
      0,
      0,
      Map.of(
          BandRole.RED, new Acquisition.Calibration(0.2, 1, 1600),
          BandRole.BLUE, new Acquisition.Calibration(0.3, 0, 1900)));

  /** Numbers 100 to 1099 in red, twice that in blue, one row. */
  private static Raster ramp(Attachments attachments) {
    float[][] planes = new float[2][1000];
    for (int i = 0; i < 1000; i++) {
      planes[0][i] = 100 + i;
      planes[1][i] = 200 + 2 * i;
    }
    return new MemoryRaster(
        Grid.ofPixels(1000, 1),
        List.of(
            Band.of(BandRole.RED, SampleType.UINT16), Band.of(BandRole.BLUE, SampleType.UINT16)),
        attachments,
        planes);
  }

  private static float[][] all(Raster raster) {
    return raster.read(0, raster.grid().window(), Request.BACKGROUND);
  }

  @Test
  void numbersBecomeReflectanceByTheirBandsOwnGain() {
    Raster scene = ramp(Attachments.NONE.with(Acquisition.class, ACQUISITION));

    float[][] toa = all(new Calibrate(scene, Calibrate.Haze.NONE).run(Job.QUIET));

    double d = ACQUISITION.sunDistance();
    double k = Math.PI * d * d / Math.sin(Math.toRadians(30));
    assertThat(toa[0][400]).isCloseTo((float) (k * (0.2 * 500 + 1) / 1600), within(1e-5f));
    assertThat(toa[1][400]).isCloseTo((float) (k * 0.3 * 1000 / 1900), within(1e-5f));
  }

  @Test
  void hazeTakesTheDarkestPixelToNothingAndLeavesDifferencesAlone() {
    Raster scene = ramp(Attachments.NONE.with(Acquisition.class, ACQUISITION));
    float[][] with = all(new Calibrate(scene, Calibrate.Haze.NONE).run(Job.QUIET));

    float[][] without = all(new Calibrate(scene, Calibrate.Haze.DARKEST).run(Job.QUIET));

    for (int b = 0; b < 2; b++) {
      float step = with[b][1] - with[b][0];
      assertThat(without[b][0]).isCloseTo(0, within(step));
      assertThat(without[b][900] - without[b][100])
          .isCloseTo(with[b][900] - with[b][100], within(1e-6f));
    }
    // red and blue are in one ratio wherever the haze is gone
    assertThat(without[1][500] / without[0][500])
        .isCloseTo(without[1][50] / without[0][50], within(0.05f));
  }

  @Test
  void reflectanceIsNotCalibratedTwice() {
    Raster toa = new Calibrate(
            ramp(Attachments.NONE.with(Acquisition.class, ACQUISITION)), Calibrate.Haze.NONE)
        .run(Job.QUIET);

    assertThatThrownBy(() -> new Calibrate(toa, Calibrate.Haze.NONE).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("reflectance already");
  }

  @Test
  void aSceneThatSaysNothingOfItsAcquisitionIsRefusedWithWhatToDo() {
    assertThatThrownBy(
            () -> new Calibrate(ramp(Attachments.NONE), Calibrate.Haze.NONE).run(Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("STAC item");
  }
}
