package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.demo.DemoData;
import sharpkestrel.raster.RasterException;

class DemoOptionsTest {

  @Test
  void withoutOptionsItIsTheFirstSurveyAtItsFullSize() {
    assertThat(DemoOptions.of(List.of("demo")))
        .isEqualTo(new DemoOptions(1, DemoData.DEFAULT_SIZE));
  }

  @Test
  void valuesComeAfterABlankOrAnEqualsSign() {
    DemoOptions wanted = new DemoOptions(103, 2048);

    assertThat(DemoOptions.of(List.of("demo", "--seed", "103", "--size", "2048")))
        .isEqualTo(wanted);
    assertThat(DemoOptions.of(List.of("demo", "--size=2048", "--seed=103"))).isEqualTo(wanted);
    assertThat(DemoOptions.of(List.of("demo", "--seed=103"), 2048)).isEqualTo(wanted);
  }

  @ParameterizedTest
  @ValueSource(strings = {"--size=100", "--size=99999", "--seed=one", "--size=2k"})
  void whatCannotBeIsRefusedByItsName(String option) {
    assertThatThrownBy(() -> DemoOptions.of(List.of("demo", option)))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining(option.substring(0, 6))
        .hasMessageContaining(option.substring(7));
  }
}
