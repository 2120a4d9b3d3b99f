package sharpkestrel.app.tools.samples;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import sharpkestrel.extract.learner.LearnersCompared.Point;

class ProgressTest {

  private static Progress of(double... right) {
    Progress progress = Progress.NONE;
    for (int i = 0; i < right.length; i++) {
      progress = progress.with(new Point(10 * (i + 1), right[i], right[i] - 0.1, right[i] + 0.1));
    }
    return progress;
  }

  @Test
  void whatTheLastLabelsGainedIsSaidOnceThereAreEnough() {
    assertThat(of().gained()).isEmpty();
    assertThat(of(0.5, 0.6).gained()).isEmpty();
    assertThat(of(0.5, 0.6, 0.68).gained()).hasValue("The last 20 labels gained 18 points.");
    assertThat(of(0.5, 0.6, 0.68, 0.685, 0.684).gained().orElseThrow())
        .contains("The last 20 labels gained nothing");
  }

  @Test
  void samplesThatAreTakenAwayTakeTheirPointsAlong() {
    Progress back = of(0.5, 0.6, 0.7).with(new Point(15, 0.55, 0.4, 0.7));
    assertThat(back.points()).extracting(Point::samples).containsExactly(10, 15);
  }
}
