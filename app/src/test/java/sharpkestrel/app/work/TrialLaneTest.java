package sharpkestrel.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.raster.RasterException;

class TrialLaneTest {

  private final List<String> log = Collections.synchronizedList(new ArrayList<>());
  private final TrialLane lane = new TrialLane(warning -> log.add("warned"), 2);

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  private static void onInterface(Runnable act) {
    Platform.runLater(act);
    WaitForAsyncUtils.waitForFxEvents();
  }

  private void until(String line) throws Exception {
    WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, () -> log.contains(line));
    WaitForAsyncUtils.waitForFxEvents();
  }

  /** A question that goes on until it is cancelled, and says so. */
  private void endless(String kind, CountDownLatch begun) {
    onInterface(() -> lane.ask(
        kind,
        "endless " + kind,
        job -> {
          begun.countDown();
          try {
            while (true) {
              job.cancellation().check();
              Thread.onSpinWait();
            }
          } finally {
            log.add("stopped " + kind);
          }
        },
        answer -> log.add("answered"),
        failure -> log.add("failed")));
  }

  private void ask(String kind, String answer) {
    onInterface(() -> lane.ask(
        kind, kind, job -> answer, told -> log.add("told " + told), f -> log.add("failed")));
  }

  @Test
  void theNewestOfAKindCancelsTheOneThatRunsAtOnceAndIsAnswered() throws Exception {
    CountDownLatch begun = new CountDownLatch(1);
    endless("patch", begun);
    assertThat(begun.await(20, TimeUnit.SECONDS)).isTrue();

    ask("patch", "new");
    until("told new");
    until("stopped patch");

    assertThat(log).doesNotContain("answered", "failed");
    assertThat(lane.shown().runningProperty().get()).isFalse();
  }

  @Test
  void anotherKindGoesOnBesideIt() throws Exception {
    CountDownLatch begun = new CountDownLatch(1);
    endless("patch", begun);
    assertThat(begun.await(20, TimeUnit.SECONDS)).isTrue();

    ask("plot", "dots");
    until("told dots");

    assertThat(log).doesNotContain("stopped patch");
    onInterface(() -> lane.drop("patch"));
    until("stopped patch");
  }

  /** An answer that was made in time, but that nobody waits for any more, is not told. */
  @Test
  void anAnswerThatComesAfterItsQuestionWasDroppedIsNotTold() throws Exception {
    CountDownLatch go = new CountDownLatch(1);
    onInterface(() -> lane.ask(
        "plot",
        "",
        job -> {
          try {
            go.await(20, TimeUnit.SECONDS);
          } catch (InterruptedException stop) {
            throw new AssertionError(stop);
          }
          log.add("worked it out");
          return "late";
        },
        told -> log.add("told " + told),
        failure -> log.add("failed")));
    onInterface(() -> lane.drop("plot"));
    go.countDown();
    until("worked it out");

    ask("plot", "new");
    until("told new");
    assertThat(log).doesNotContain("told late");
  }

  @Test
  void aFailureIsToldAndCancellingTellsNobody() throws Exception {
    onInterface(() -> lane.ask(
        "patch",
        "patch",
        job -> {
          throw new RasterException("no scene");
        },
        told -> log.add("told"),
        failure -> log.add("failed: " + failure.getMessage())));
    until("failed: no scene");

    CountDownLatch begun = new CountDownLatch(1);
    endless("patch", begun);
    assertThat(begun.await(20, TimeUnit.SECONDS)).isTrue();
    assertThat(lane.shown().titleProperty().get()).isEqualTo("endless patch");
    onInterface(lane::cancel);
    until("stopped patch");
    assertThat(log).doesNotContain("answered", "failed");
    assertThat(lane.shown().runningProperty().get()).isFalse();
  }
}
