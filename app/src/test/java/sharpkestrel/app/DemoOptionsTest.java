package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Survey;
import sharpkestrel.raster.RasterException;

class DemoOptionsTest {

  @Test
  void withoutOptionsItIsTheFirstSurveyAtItsFullSize() {
    assertThat(DemoOptions.order(List.of("demo")))
        .isEqualTo(new Survey.Order(1, DemoData.DEFAULT_SIZE));
  }

  @Test
  void valuesComeAfterABlankOrAnEqualsSign() {
    Survey.Order wanted = new Survey.Order(103, 2048);

    assertThat(DemoOptions.order(List.of("demo", "--seed", "103", "--size", "2048")))
        .isEqualTo(wanted);
    assertThat(DemoOptions.order(List.of("demo", "--size=2048", "--seed=103"))).isEqualTo(wanted);
    assertThat(DemoOptions.order(List.of("demo", "--seed=103"), 2048)).isEqualTo(wanted);
  }

  @Test
  void aScenarioIsAnotherSurvey() {
    Survey.Order order = DemoOptions.order(List.of("demo", "--scenario=harbour"));

    assertThat(order.scenario()).isEqualTo(Scenario.HARBOUR);
    assertThat(order.label()).isEqualTo("1-4096-harbour");
    assertThat(DemoData.text(order)).isEqualTo("demo:1:4096:harbour");
    assertThatThrownBy(() -> DemoOptions.order(List.of("demo", "--scenario", "lake")))
        .hasMessageContaining("whole, harbour, town or moor");
  }

  @ParameterizedTest
  @ValueSource(strings = {"--size=100", "--size=99999", "--seed=one", "--size=2k"})
  void whatCannotBeIsRefusedByItsName(String option) {
    assertThatThrownBy(() -> DemoOptions.order(List.of("demo", option)))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining(option.substring(0, 6))
        .hasMessageContaining(option.substring(7));
  }
}
