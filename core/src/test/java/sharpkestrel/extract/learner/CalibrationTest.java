package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class CalibrationTest {

  private static Examples ofTwo(int[] classOf) {
    return Examples.of(List.of("a"), new float[1][classOf.length], List.of("no", "yes"), classOf);
  }

  @Test
  void aLearnerThatIsTooSureIsBroughtToWhatIsTrue() {
    int n = 20_000;
    Random random = new Random(2);
    int[] classOf = new int[n];
    float[] kept = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double real = random.nextDouble();
      classOf[i] = random.nextDouble() < real ? 1 : 0;
      // odds taken to the third power are too sure
      double odds = Math.pow(real / (1 - real), 3);
      kept[2 * i + 1] = (float) (odds / (1 + odds));
      kept[2 * i] = 1 - kept[2 * i + 1];
    }

    Calibration calibration = Calibration.of(ofTwo(classOf), kept);

    for (double real : new double[] {0.1, 0.3, 0.5, 0.7, 0.9}) {
      double odds = Math.pow(real / (1 - real), 3);
      float said = (float) (odds / (1 + odds));
      float[] shares = {1 - said, said};
      calibration.apply(shares);
      assertThat((double) shares[1]).isCloseTo(real, within(0.05));
      assertThat(shares[0] + shares[1]).isCloseTo(1, within(1e-6f));
    }
  }

  @Test
  void poolingIsWhatTheGreatestOfTheLeastMeansSays() {
    Random random = new Random(4);
    int n = 40;
    int[] classOf = new int[n];
    float[] kept = new float[2 * n];
    for (int i = 0; i < n; i++) {
      classOf[i] = random.nextInt(3) * 20 < i ? 1 : 0;
      kept[2 * i + 1] = (i + 0.5f) / n;
    }

    Calibration calibration = Calibration.of(ofTwo(classOf), kept);

    for (int i = 0; i < n; i++) {
      double most = 0;
      for (int a = 0; a <= i; a++) {
        double least = 1;
        double sum = 0;
        for (int b = a; b < n; b++) {
          sum += classOf[b];
          least = b >= i ? Math.min(least, sum / (b - a + 1)) : least;
        }
        most = Math.max(most, least);
      }
      // half an example is added to each pool, and between pools it is a line
      float[] shares = {0, (i + 0.5f) / n};
      calibration.apply(shares);
      assertThat((double) shares[1]).isCloseTo(most, within(0.35));
    }
    double sum = 0;
    for (int i = 0; i < n; i++) {
      float[] shares = {0, (i + 0.5f) / n};
      calibration.apply(shares);
      sum += shares[1] - classOf[i];
    }
    assertThat(sum / n).as("right in the mean").isCloseTo(0, within(0.06));
  }

  @Test
  void fewExamplesLeaveProbabilitiesAsTheyAre() {
    Calibration calibration = Calibration.of(
        ofTwo(new int[] {0, 1, 1}), new float[] {0.8f, 0.2f, 0.4f, 0.6f, 0.1f, 0.9f});

    float[] shares = {0.7f, 0.3f};
    calibration.apply(shares);

    assertThat(shares[1]).isCloseTo(0.3f, within(1e-6f));
  }

  @Test
  void aConfusionIsCountedAndItsSharesHaveIntervals() {
    // rows: 3 water of which 2 said so, 2 land both said so
    Confusion confusion = Confusion.of(
        Examples.of(
            List.of("a"), new float[1][5], List.of("water", "land"), new int[] {0, 0, 0, 1, 1}),
        new float[] {0.9f, 0.1f, 0.6f, 0.4f, 0.2f, 0.8f, 0.1f, 0.9f, 0.3f, 0.7f});

    assertThat(confusion.accuracy()).isCloseTo(0.8, within(1e-9));
    assertThat(confusion.precision(1)).isCloseTo(2 / 3.0, within(1e-9));
    assertThat(confusion.recall(0)).isCloseTo(2 / 3.0, within(1e-9));
    assertThat(confusion.f1(0)).isCloseTo(0.8, within(1e-9));
    // Wilson's interval of none in ten and five in ten, from tables
    assertThat(Confusion.interval(0, 10)[1]).isCloseTo(0.2775, within(2e-4));
    assertThat(Confusion.interval(0.5, 10)[0]).isCloseTo(0.2366, within(2e-4));
  }
}
