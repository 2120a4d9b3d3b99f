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

class RunLaneTest {

  private final List<String> log = Collections.synchronizedList(new ArrayList<>());
  private final RunLane lane = new RunLane("test-run", warning -> log.add("warned: " + warning), 2);

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  private void end() throws InterruptedException {
    CountDownLatch done = new CountDownLatch(1);
    lane.afterAll(done::countDown);
    assertThat(done.await(20, TimeUnit.SECONDS)).isTrue();
    WaitForAsyncUtils.waitForFxEvents();
  }

  private void run(String what) {
    lane.run(
        what,
        job -> {
          log.add("work " + what + (Platform.isFxApplicationThread() ? " on the interface" : ""));
          return what;
        },
        value -> log.add("done " + value + (Platform.isFxApplicationThread() ? "" : " elsewhere")),
        failure -> log.add("failed " + failure.getMessage()));
  }

  @Test
  void workRunsInOrderAwayFromTheInterfaceAndEndsOnIt() throws Exception {
    run("one");
    run("two");
    end();

    assertThat(log).contains("work one", "work two", "done one", "done two");
    assertThat(log.indexOf("work one")).isLessThan(log.indexOf("work two"));
    assertThat(log.indexOf("done one")).isLessThan(log.indexOf("done two"));
    assertThat(lane.shown().runningProperty().get()).isFalse();
  }

  @Test
  void aFailureIsHandedOnAndTheNextWorkRunsAllTheSame() throws Exception {
    lane.run(
        "bad",
        job -> {
          throw new RasterException("the file is damaged");
        },
        value -> log.add("done"),
        failure -> log.add("failed " + failure.getMessage()));
    run("two");
    end();

    // the next work may begin before the interface has come round to the failure
    assertThat(log)
        .containsExactlyInAnyOrder("failed the file is damaged", "work two", "done two")
        .containsSubsequence("failed the file is damaged", "done two");
  }

  @Test
  void memoryThatDoesNotSufficeIsToldWithHowToHaveMore() throws Exception {
    lane.run(
        "all",
        job -> new long[Integer.MAX_VALUE - 16][Integer.MAX_VALUE - 16],
        value -> log.add("done"),
        failure -> log.add("failed " + failure.getMessage()));
    run("two");
    end();

    assertThat(log).hasSize(3).contains("work two", "done two");
    assertThat(
            log.stream().filter(line -> line.startsWith("failed")).findFirst().orElseThrow())
        .contains("memory")
        .contains("KESTREL_HEAP=");
  }

  @Test
  void cancellingStopsOnlyWhatRunsAndTellsNobody() throws Exception {
    CountDownLatch begun = new CountDownLatch(1);
    lane.run(
        "long",
        job -> {
          begun.countDown();
          while (true) {
            job.cancellation().check();
            Thread.onSpinWait();
          }
        },
        value -> log.add("done"),
        failure -> log.add("failed"));
    run("two");
    assertThat(begun.await(20, TimeUnit.SECONDS)).isTrue();

    lane.cancel();
    end();

    assertThat(log).containsExactly("work two", "done two");
  }

  @Test
  void progressIsShownAsShareAndWords() throws Exception {
    CountDownLatch told = new CountDownLatch(1);
    CountDownLatch seen = new CountDownLatch(1);
    lane.run(
        "Writing",
        job -> {
          job.progress("Rows", 1, 4);
          told.countDown();
          try {
            assertThat(seen.await(20, TimeUnit.SECONDS)).isTrue();
          } catch (InterruptedException stop) {
            throw new AssertionError(stop);
          }
          return "";
        },
        value -> {},
        failure -> log.add("failed " + failure));
    assertThat(told.await(20, TimeUnit.SECONDS)).isTrue();
    WaitForAsyncUtils.waitForFxEvents();

    assertThat(lane.shown().runningProperty().get()).isTrue();
    assertThat(lane.shown().titleProperty().get()).isEqualTo("Writing");
    assertThat(lane.shown().shareProperty().get()).isEqualTo(0.25);
    assertThat(lane.shown().detailProperty().get()).startsWith("Rows");
    seen.countDown();
    end();
    assertThat(log).isEmpty();
  }

  @Test
  void warningsComeOnTheInterface() throws Exception {
    lane.run(
        "warn",
        job -> {
          job.warn("a part is missing");
          return job.threads();
        },
        threads -> log.add("threads " + threads),
        failure -> {});
    end();

    assertThat(log).containsExactly("warned: a part is missing", "threads 2");
  }

  @Test
  void quietWorkShowsNothingButItsFailure() throws Exception {
    lane.quietly(
        () -> {
          throw new RasterException("no room");
        },
        log::add);
    end();

    assertThat(log).containsExactly("no room");
    assertThat(lane.shown().titleProperty().get()).isEmpty();
  }

  /** Something that runs until it is let go. */
  private CountDownLatch hold(String what) {
    CountDownLatch held = new CountDownLatch(1);
    lane.run(
        what,
        job -> {
          try {
            return held.await(20, TimeUnit.SECONDS);
          } catch (InterruptedException stop) {
            throw new AssertionError(stop);
          }
        },
        value -> log.add("done " + what),
        failure -> log.add("failed"));
    return held;
  }

  private List<String> queued() {
    WaitForAsyncUtils.waitForFxEvents();
    return lane.queue().stream().map(RunLane.Run::title).toList();
  }

  @Test
  void whatWaitsIsSeenInItsOrderAndCanBeMovedUpButNotBeforeWhatRuns() throws Exception {
    CountDownLatch held = hold("first");
    run("two");
    lane.quietly(() -> {}, log::add);
    run("three");
    assertThat(queued()).containsExactly("first", "two", "three");

    lane.moveUp(lane.queue().get(2));
    assertThat(queued()).containsExactly("first", "three", "two");
    lane.moveUp(lane.queue().get(1));
    assertThat(queued()).containsExactly("first", "three", "two");

    held.countDown();
    end();
    assertThat(log.stream().filter(line -> line.startsWith("done")))
        .containsExactly("done first", "done three", "done two");
    assertThat(queued()).isEmpty();
  }

  @Test
  void aRunThatWaitsIsTakenBackWithoutAWordAndTheOthersRun() throws Exception {
    CountDownLatch held = hold("first");
    run("two");
    run("three");
    assertThat(queued()).hasSize(3);

    lane.cancel(lane.queue().get(1));
    assertThat(queued()).containsExactly("first", "three");
    held.countDown();
    end();

    assertThat(log).contains("done first", "done three").doesNotContain("work two", "done two");
  }
}
