package sharpkestrel.demo.truth;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.demo.Scheme;
import sharpkestrel.demo.Sky;
import sharpkestrel.demo.WorldReport;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;

/** On seeds that may be tuned on: no band and no ratio tells roofs apart, in any region. */
class RoofsByOneNumberTest {

  @ParameterizedTest
  @EnumSource(Region.class)
  void noOneNumberTellsRoofsApart(Region region) {
    RoofsByOneNumber.Best best = WorldReport.roofsByOneNumber(
        2, 1024, new Scheme(region, Season.LEAF_ON, Instrument.SIX_BANDS, Sky.PLAIN));

    assertThat(best.share()).isBetween(0.005, 0.6);
    // better than calling everything roof, and far from the truth
    assertThat(best.f1())
        .isGreaterThan(2 * best.share() / (1 + best.share()) - 1e-9)
        .isLessThan(region == Region.OLD_TOWN ? 0.85 : 0.7);
  }
}
