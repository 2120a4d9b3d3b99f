package sharpkestrel.segment.learn;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.learn.Network.Layer;

class TrainerTest {

  @Test
  void aNetworkSaysWhatItsFormulaSays() {
    Layer first = new Layer(2, 2, new float[] {1, -2, 3, 0.5f}, new float[] {0.25f, -1});
    Layer last = new Layer(2, 1, new float[] {2, -4}, new float[] {0.5f});
    Network network = new Network(new float[] {10, 0}, new float[] {0.5f, 1}, List.of(first, last));

    float said = network.new Work().logOdds(new float[] {14, 1});

    // features become 2 and 1; the layer 2 + 3 + 0.25 and -4 + 0.5 - 1, of which the second leaks
    double expected = 2 * 5.25 - 4 * (0.05 * -4.5) + 0.5;
    assertThat((double) said).isCloseTo(expected, org.assertj.core.api.Assertions.within(1e-5));
  }

  @Test
  void whatWasNeverSeenIsTakenForTheFarthestSeen() {
    Layer only = new Layer(1, 1, new float[] {1}, new float[] {0});
    Network network = new Network(new float[] {0}, new float[] {1}, List.of(only));

    assertThat(network.new Work().logOdds(new float[] {1e9f})).isEqualTo(5);
  }

  /** Pairs that are one inside a ring, which no weighing of the features alone can tell. */
  private static Lessons ring(int count, long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    Lessons lessons = new Lessons(3);
    for (int i = 0; i < count; i++) {
      float x = (float) random.nextGaussian();
      float y = (float) random.nextGaussian();
      double r = Math.hypot(x, y);
      lessons.add(
          new float[] {100 + 30 * x, y, (float) random.nextGaussian()}, r > 0.7 && r < 1.6, 1);
    }
    return lessons;
  }

  @Test
  void aRingIsLearnedAndToldOnPairsNotSeenBefore() {
    Network network = Trainer.train(ring(6_000, 1), 60, Job.QUIET);

    Lessons unseen = ring(2_000, 2);
    Network.Work work = network.new Work();
    int right = 0;
    for (int i = 0; i < unseen.count(); i++) {
      right += work.logOdds(unseen.row(i)) > 0 == unseen.isOne(i) ? 1 : 0;
    }
    assertThat(unseen.ones()).isBetween(800, 1_200);
    assertThat(right / 2_000.0).isGreaterThan(0.95);
  }

  @Test
  void theSameLessonsGiveTheSameNetwork() {
    Network one = Trainer.train(ring(500, 3), 2, Job.QUIET);
    Network again = Trainer.train(ring(500, 3), 2, Job.QUIET);

    assertThat(again).isEqualTo(one);
    assertThat(Trainer.train(ring(500, 4), 2, Job.QUIET)).isNotEqualTo(one);
  }

  @Test
  void whatCountsMoreWinsWhereLessonsContradict() {
    Lessons lessons = new Lessons(1);
    for (int i = 0; i < 400; i++) {
      lessons.add(new float[] {i % 2}, i % 4 < 2, i % 4 < 2 ? 3 : 1);
    }

    Network network = Trainer.train(lessons, 30, Job.QUIET);

    // three to one
    assertThat((double) network.new Work().logOdds(new float[] {0}))
        .isCloseTo(Math.log(3), org.assertj.core.api.Assertions.within(0.1));
  }
}
