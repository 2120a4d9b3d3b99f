package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import javafx.application.Platform;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.io.Json;
import sharpkestrel.place.fit.TiePointFile;

/**
 * A window that is killed at any moment loses nothing that was done: a few times here, more often with
 * {@code ./kestrel test -Dtest=KillTest -Dkestrel.kills=30}.
 */
class KillTest {

  private static final int KILLS = Integer.getInteger("kestrel.kills", 3);

  /** Moments are drawn from so long after the window is ready. */
  private static final int MILLIS = 6000;

  @TempDir
  static Path folder;

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  private static Process window(Path project, Path scene, int seed) throws IOException {
    List<String> command = new ArrayList<>();
    ProcessHandle.Info own = ProcessHandle.current().info();
    command.add(own.command().orElseThrow());
    command.addAll(List.of(
        "-Xmx512m",
        "--add-opens=java.base/java.nio=ALL-UNNAMED",
        "--sun-misc-unsafe-memory-access=allow",
        "--enable-native-access=ALL-UNNAMED",
        "-Dglass.platform=Headless",
        "-Dprism.order=sw",
        "-Djava.awt.headless=true",
        "-Dkestrel.settings=" + System.getProperty("kestrel.settings"),
        "-cp",
        System.getProperty("java.class.path"),
        KilledJob.class.getName(),
        project.toString(),
        scene.toString(),
        Integer.toString(seed)));
    return new ProcessBuilder(command)
        .redirectError(ProcessBuilder.Redirect.DISCARD)
        .start();
  }

  /** What a window said that it had done when it was killed. */
  private static List<String> killedAfter(Path project, Path scene, int kill) throws Exception {
    Process process = window(project, scene, kill);
    List<String> said = new ArrayList<>();
    try (BufferedReader lines = process.inputReader()) {
      String line = lines.readLine();
      while (line != null && !line.equals("ready")) {
        said.add(line);
        line = lines.readLine();
      }
      assertThat(line).as("the window is ready").isEqualTo("ready");
      Thread killer = Thread.ofPlatform().start(() -> {
        try {
          Thread.sleep(new Random(kill).nextInt(MILLIS));
        } catch (InterruptedException stop) {
          Thread.currentThread().interrupt();
        }
        process.destroyForcibly();
      });
      while ((line = lines.readLine()) != null) {
        said.add(line);
      }
      killer.join();
    }
    process.waitFor();
    return said;
  }

  @Test
  void aWindowThatIsKilledLosesNothingThatWasDone() throws Exception {
    Path scene = folder.resolve("scene.tif");
    SmallScene.write(scene, 0.5, 1);
    int things = 0;
    for (int kill = 0; kill < KILLS; kill++) {
      Path project = folder.resolve("project-" + kill);
      List<String> said = killedAfter(project, scene, kill);
      things += said.size();
      check(project, said);
    }
    assertThat(things).as("things done in all").isGreaterThan(4 * KILLS);
  }

  private static void check(Path project, List<String> said) throws Exception {
    Json.read(project.resolve("project.json"));
    Workspace workspace = new Workspace();
    Platform.runLater(() -> ProjectFile.open(workspace, project));
    boolean[] open = {false};
    Platform.runLater(() -> workspace.lanes().run().afterAll(() -> open[0] = true));
    new Waiting(workspace, 60).until("the project", () -> open[0]);
    List<String> titles = workspace.results().stream().map(Result::title).toList();
    List<String> looks = workspace.display().ownLooks().stream().map(Look::name).toList();
    int picks = 0;
    int points = 0;
    for (String line : said) {
      String what = line.substring(line.indexOf(' ') + 1);
      switch (line.substring(0, line.indexOf(' '))) {
        case "result" -> assertThat(titles).contains(what);
        case "look" -> assertThat(looks).contains(what);
        case "picks" -> picks = Integer.parseInt(what);
        case "points" -> points = Integer.parseInt(what);
        default -> throw new AssertionError(line);
      }
    }
    if (picks > 0) {
      assertThat(new HandLog(workspace, "picked-segment").read().orElseThrow().size())
          .isGreaterThanOrEqualTo(picks);
    }
    if (points > 0) {
      Path file = project.resolve("hand").resolve("tie-points-open.geojson");
      assertThat(TiePointFile.read(file).points()).hasSizeGreaterThanOrEqualTo(points);
    }
    assertThat(workspace.notOpen()).isEmpty();
    WaitForAsyncUtils.asyncFx(workspace::close).get();
    boolean[] rest = {false};
    workspace.lanes().keeping().afterAll(() -> rest[0] = true);
    new Waiting(workspace, 60).until("rest", () -> rest[0]);
    assertThat(workspace.lanes().save().flush(java.time.Duration.ofSeconds(30))).isTrue();
    try (var left = Files.walk(project)) {
      assertThat(left.filter(path -> path.toString().endsWith(".part"))).isEmpty();
    }
  }
}
