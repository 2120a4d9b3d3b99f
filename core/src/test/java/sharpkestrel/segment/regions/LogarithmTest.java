package sharpkestrel.segment.regions;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class LogarithmTest {

  @Test
  void isThatOfTheLibraryToAMillionth() {
    double worst = 0;
    for (float v = 1e-7f; v < 1e7f; v *= 1.000_1f) {
      worst = Math.max(worst, Math.abs(Logarithm.of(v) - Math.log(v)));
    }

    assertThat(worst).isLessThan(2e-6);
    assertThat(Logarithm.of(1)).isBetween(-1e-7f, 1e-7f);
  }

  @Test
  void neverFallsByMoreThanItsErrorWhereValuesRise() {
    float before = Logarithm.of(0.9f);
    for (float v = 0.9f; v < 1.1f; v = Math.nextUp(v)) {
      float now = Logarithm.of(v);
      assertThat(now).isGreaterThan(before - 1.5e-7f);
      before = now;
    }
  }
}
