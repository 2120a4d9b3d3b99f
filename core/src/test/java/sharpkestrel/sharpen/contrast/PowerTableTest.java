package sharpkestrel.sharpen.contrast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PowerTableTest {

  @ParameterizedTest
  @ValueSource(doubles = {0.1, 0.35, 0.5, 0.97, 1})
  void itIsThePowerToWithinAFloatsRounding(double exponent) {
    PowerTable power = new PowerTable(exponent);
    Random random = new Random(7);

    assertThat(power.of(1)).isEqualTo(1);
    assertThat((double) power.of(0.25f))
        .isCloseTo(Math.pow(0.25, exponent), withinPercentage(1e-5));
    for (int k = 0; k < 100_000; k++) {
      float number = (float) Math.exp(-20 * random.nextDouble());
      assertThat((double) power.of(number))
          .isCloseTo(Math.pow(number, exponent), withinPercentage(3e-5));
    }
  }
}
