package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.raster.RasterException;

class MixtureTest {

  @Test
  void nothingIsLearnedFromWhatIsLeftOut() {
    List<Mixture.Part> learn = Mixture.learn();

    assertThat(learn).allMatch(part -> part.seed() >= 1 && part.seed() <= Mixture.SEEDS);
    assertThat(learn).noneMatch(Mixture.Part::leftOut);
    assertThat(regions(learn)).doesNotContain(Region.PLATEAU).hasSize(Region.values().length - 1);
    assertThat(learn).noneMatch(part -> part.scheme().season() == Season.SNOW);
    assertThat(learn).noneMatch(part -> part.scheme().instrument() == Instrument.FOUR_BANDS);
  }

  @Test
  void everythingIsReportedOnAndWhatIsLeftOutIsMarked() {
    List<Mixture.Part> report = Mixture.report(101);

    assertThat(regions(report)).containsExactlyInAnyOrder(Region.values());
    assertThat(report).extracting(part -> part.scheme().season()).contains(Season.values());
    assertThat(report).extracting(part -> part.scheme().instrument()).contains(Instrument.values());
    assertThat(report).extracting(part -> part.scheme().sky()).contains(Sky.values());
    assertThat(report.stream().filter(Mixture.Part::leftOut).map(Mixture.Part::title))
        .containsExactly(
            "plateau", "suburb, snow", "suburb, four-bands", "plateau, snow, four-bands");
  }

  private static Set<Region> regions(List<Mixture.Part> parts) {
    return parts.stream().map(part -> part.scheme().region()).collect(Collectors.toSet());
  }

  @Test
  void learningAndReportingKeepTheirSeedsApart() {
    assertThatThrownBy(() -> Mixture.report(9))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("is one to learn from");
    assertThatThrownBy(() -> Mixture.of(50))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("seeds 1 to 9 and from 101 on");
    OrderWords words = new OrderWords();
    words.take("mixed");
    assertThat(words.order(6, 512).scheme())
        .isEqualTo(new Scheme(Region.OLD_TOWN, Season.LEAF_OFF, Instrument.AIR_COLOUR, Sky.PLAIN));
  }
}
