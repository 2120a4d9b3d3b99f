package sharpkestrel.app.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.application.Platform;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import sharpkestrel.app.Waiting;
import sharpkestrel.app.model.NotOpen;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Json;
import sharpkestrel.io.Layer;
import sharpkestrel.step.Stage;

/** What happens to a project that was moved, damaged, left behind by another version or another process: nothing is lost. */
class ProjectHarmTest extends ClosedProject {

  @Test
  void aProjectThatWasMovedWithItsSceneIsWholeAndNothingIsStale() throws Exception {
    Workspace before = made();
    close(before);
    assertThat(json().toString()).doesNotContain(folder.toString());
    Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
    Files.move(scene, elsewhere.resolve("scene.tif"));
    Files.move(project, elsewhere.resolve("project"));
    project = elsewhere.resolve("project");
    Set<String> kept = names("objects");

    Workspace after = opened();

    assertThat(after.results()).hasSize(5);
    assertThat(after.maker().stale()).isEmpty();
    assertThat(names("objects")).isEqualTo(kept);
    assertThat(after.named("segment").orElseThrow().files().get("scene"))
        .isEqualTo(elsewhere.resolve("scene.tif").toString());
  }

  @Test
  void anEntryThatCannotBeReadStaysAndTheOthersOpen() throws Exception {
    close(made());
    ObjectNode json = json();
    ArrayNode steps = (ArrayNode) json.get("steps");
    steps.insertObject(1).put("name", "later").put("title", "Of a later day").put("step", "divine");
    steps.insertObject(2).put("name", "after").put("step", "winnow").put("objects", "@later");
    Json.write(json, project.resolve("project.json"));

    Workspace workspace = opened();
    assertThat(workspace.results()).hasSize(5);
    assertThat(workspace.notOpen())
        .extracting(NotOpen::title, NotOpen::stage)
        .containsExactlyInAnyOrder(
            tuple("Of a later day", Stage.GATHER), tuple("after", Stage.EXTRACT));
    assertThat(workspace.notOpen().getFirst().why()).contains("divine");
    run(workspace, "outline", Map.of("objects", "winnow"), Map.of(), Map.of("form", "exact"));
    close(workspace);

    assertThat(json().get("steps").findValuesAsText("step")).contains("divine").hasSize(8);
    assertThat(json().get("steps").toString()).contains("\"objects\":\"@later\"");
    Workspace again = opened();
    assertThat(again.results()).hasSize(6);
    assertThat(again.notOpen()).hasSize(2);
  }

  /** Files of the first form had no version, and relative paths were of the folder the application was started in. */
  @Test
  void aProjectOfTheFirstFormIsBroughtUpAndOneOfALaterFormIsLeftAlone() throws Exception {
    close(made());
    ObjectNode json = json();
    json.remove(List.of("version", "waiting"));
    Path here = Path.of("").toAbsolutePath();
    ((ObjectNode) json.get("steps").get(0)).put("scene", here.relativize(scene).toString());
    ((ObjectNode) json.get("steps").get(1)).put("scene", scene.toString());
    Json.write(json, project.resolve("project.json"));

    Workspace workspace = opened();
    assertThat(workspace.results()).hasSize(5);
    assertThat(workspace.named("segment").orElseThrow().files())
        .containsEntry("scene", scene.toString());
    close(workspace);
    assertThat(json().get("version").asInt()).isEqualTo(2);
    assertThat(json().get("steps").get(0).get("scene").asText()).isEqualTo("../scene.tif");

    json = json();
    json.put("version", 99);
    Json.write(json, project.resolve("project.json"));
    String later = Files.readString(project.resolve("project.json"));
    assertThatThrownBy(() -> ProjectFile.open(new Workspace(), project))
        .hasMessageContaining("later Sharp Kestrel")
        .hasMessageContaining("99");
    assertThat(project.resolve("project.json")).hasContent(later);
  }

  @Test
  void whileAnotherProcessHasItAProjectIsLookedOnAndNothingIsWritten() throws Exception {
    close(made());
    String before = Files.readString(project.resolve("project.json"));
    Process other = new ProcessBuilder(
            ProcessHandle.current().info().command().orElseThrow(),
            "-cp",
            System.getProperty("java.class.path"),
            LockHolder.class.getName(),
            project.toString())
        .redirectErrorStream(true)
        .start();
    try (java.io.BufferedReader said = other.inputReader()) {
      assertThat(said.readLine()).isEqualTo("held");

      Workspace workspace = opened();
      assertThat(workspace.isLookingOn()).isTrue();
      assertThat(workspace.messages().textProperty().get())
          .contains("has been open")
          .contains(System.getProperty("user.name"));
      assertThat(workspace.results()).hasSize(5);
      run(workspace, "outline", Map.of("objects", "winnow"), Map.of(), Map.of("form", "exact"));
      new HandLog(workspace, "picked-segment")
          .write(new Layer(
              "none",
              sharpkestrel.raster.CrsName.NONE,
              List.of(),
              new Table(0, List.of()),
              Map.of()));
      close(workspace);

      assertThat(project.resolve("project.json")).hasContent(before);
      assertThat(project.resolve("hand")).doesNotExist();
    } finally {
      other.destroyForcibly().waitFor();
    }
    assertThat(opened().isLookingOn()).as("once the other is gone").isFalse();
  }

  @Test
  void aRunThatHadNotEndedIsOfferedAgain() throws Exception {
    Workspace workspace = made();
    java.util.concurrent.CountDownLatch held = new java.util.concurrent.CountDownLatch(1);
    Platform.runLater(() -> {
      workspace
          .lanes()
          .run()
          .run(
              "Something long",
              job -> {
                try {
                  return held.await(30, java.util.concurrent.TimeUnit.SECONDS);
                } catch (InterruptedException stop) {
                  throw new AssertionError(stop);
                }
              },
              done -> {},
              failure -> {});
      workspace.run(
          StepCatalogue.get("outline"),
          "Exact outlines",
          Map.of("objects", workspace.named("winnow").orElseThrow()),
          Map.of(),
          Map.of("form", "exact"));
    });
    WaitForAsyncUtils.waitForFxEvents();
    WaitForAsyncUtils.asyncFx(workspace::close).get();
    held.countDown();
    settle(workspace);

    Workspace after = opened();
    assertThat(after.results()).hasSize(5);
    assertThat(after.messages().textProperty().get()).contains("Exact outlines");
    Platform.runLater(after.messages().remedyProperty().get().act());
    new Waiting(after, 30).until("the run", () -> after.results().size() == 6);
    assertThat(after.results().getLast().title()).isEqualTo("Exact outlines");
    assertThat(after.results().getLast().settings()).containsEntry("form", "exact");
    settle(after);
  }
}
