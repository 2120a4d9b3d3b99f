package sharpkestrel.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

class SaveLaneTest {

  private static final Duration LONG = Duration.ofSeconds(20);

  private final List<String> log = Collections.synchronizedList(new ArrayList<>());
  private final SaveLane lane = new SaveLane(log::add);

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  private CountDownLatch held(String file) {
    CountDownLatch held = new CountDownLatch(1);
    lane.write(file, () -> {
      try {
        assertThat(held.await(20, TimeUnit.SECONDS)).isTrue();
      } catch (InterruptedException stop) {
        throw new IOException(stop);
      }
      log.add("held");
    });
    return held;
  }

  @Test
  void ofSeveralWritesToAFileThatWaitTheLastIsDone() {
    CountDownLatch held = held("other");
    for (int i = 0; i < 50; i++) {
      String text = "a" + i;
      lane.write("a", () -> log.add(text));
    }
    lane.write("b", () -> log.add("b"));
    held.countDown();

    assertThat(lane.flush(LONG)).isTrue();
    assertThat(log).containsExactly("held", "a49", "b");
  }

  @Test
  void flushSaysWhetherAllIsWritten() {
    CountDownLatch held = held("slow");
    lane.write("next", () -> log.add("next"));

    assertThat(lane.flush(Duration.ofMillis(50))).isFalse();
    assertThat(log).isEmpty();
    held.countDown();
    assertThat(lane.flush(LONG)).isTrue();
    assertThat(log).containsExactly("held", "next");
  }

  @Test
  void whatCannotBeWrittenIsToldWithItsFileAndTheNextIsWritten() {
    lane.write("project.json", () -> {
      throw new IOException("the disk is full");
    });
    lane.write("points.geojson", () -> log.add("points"));
    assertThat(lane.flush(LONG)).isTrue();
    WaitForAsyncUtils.waitForFxEvents();

    assertThat(log)
        .containsExactlyInAnyOrder("project.json could not be written: the disk is full", "points");
  }
}
