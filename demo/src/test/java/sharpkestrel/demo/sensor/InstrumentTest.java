package sharpkestrel.demo.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.RasterException;

class InstrumentTest {

  @ParameterizedTest
  @EnumSource(Instrument.class)
  void everyBandSeesAsMuchOfAGreyAsOfAnyOther(Instrument instrument) {
    Stream.concat(instrument.pan().stream(), instrument.bands().stream()).forEach(channel -> {
      double sum = 0;
      for (float share : channel.response()) {
        sum += share;
      }
      assertThat(sum).isCloseTo(1, within(1e-5));
      assertThat(channel.irradiance()).isBetween(900.0, 2000.0);
    });
  }

  @ParameterizedTest
  @EnumSource(Instrument.class)
  void rolesStandOnce(Instrument instrument) {
    List<BandRole> roles = instrument.bands().stream().map(Channel::role).toList();

    assertThat(roles).doesNotHaveDuplicates().contains(BandRole.RED, BandRole.GREEN, BandRole.BLUE);
  }

  /** Reading 1.5 and quanta 1/9 of the signal at 2,047: twice the numbers have twice the spread. */
  @Test
  void aDetectorOfMoreBitsHasTheSameNoiseInFinerNumbers() {
    double[] spread = new double[2];
    double[] full = {2047, 4094};
    for (int k = 0; k < 2; k++) {
      Detector detector = new Detector(5, 2, 300, full[k], 1);
      double exact = full[k] / 3;
      double squares = 0;
      for (int i = 0; i < 90_000; i++) {
        double off = detector.number(exact, i % 300, i / 300) - exact;
        squares += off * off / 90_000;
      }
      spread[k] = Math.sqrt(squares);
    }
    assertThat(spread[0]).isCloseTo(Detector.spread(2047 / 3.0), within(0.2));
    assertThat(spread[1] / spread[0]).isCloseTo(2, within(0.02));
  }

  @Test
  void aToneCurveBrightensTheDarkAndLeavesTheEnds() {
    Detector plain = new Detector(5, 2, 10, 255, 1);
    Detector curved = new Detector(5, 2, 10, 255, 1.8);

    assertThat(plain.curved(60)).isEqualTo(60);
    assertThat(curved.curved(60)).isCloseTo(255 * Math.pow(60 / 255.0, 1 / 1.8), within(1e-9));
    assertThat(curved.number(400, 1, 1)).isEqualTo(255);
    assertThat(curved.number(0, 1, 1)).isBetween(1f, 40f);
  }

  @Test
  void unknownOnesAreRefusedByName() {
    assertThat(Instrument.of("air-four")).isEqualTo(Instrument.AIR_FOUR);
    assertThatThrownBy(() -> Instrument.of("radar"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("six-bands, eight-bands");
  }
}
