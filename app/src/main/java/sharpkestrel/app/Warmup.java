package sharpkestrel.app;

import java.util.List;
import java.util.Map;
import javafx.animation.AnimationTimer;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.app.viewer.ViewerWarmup;
import sharpkestrel.app.work.Background;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.step.Stage;

/**
 * Rehearses the bench in the background once the first picture is there: every panel is built over a scene of a few
 * pixels, unseen, so that the first click on a tool does not wait for its classes. Styles are left to the thread of the
 * window: JavaFX keeps converted values in one map for all that is not made for two threads, and a map that two have
 * written to can hold the window for ever.
 */
final class Warmup {

  private static final int ROUNDS = 3;
  private static final int SIDE = 48;

  /** Enough for the compiler to notice what a trial of local contrast is made by: the first would take twice as long. */
  private static final int TRIALS = 40;

  private static final int TRIAL_SIDE = 256;

  private Warmup() {}

  static void afterFirstPicture(Scene scene) {
    new AnimationTimer() {
      @Override
      public void handle(long now) {
        if (((Shell) scene.getRoot()).picture().isComplete()) {
          stop();
          Background.threads("kestrel-warmup").newThread(() -> warm(scene)).start();
        }
      }
    }.start();
  }

  private static void warm(Scene like) {
    ViewerWarmup.run();
    try {
      for (int i = 0; i < ROUNDS && isOpen(like); i++) {
        rehearse();
      }
      for (int i = 0; i < TRIALS && isOpen(like); i++) {
        tryContrast(i);
      }
    } catch (RuntimeException cutOff) {
      // A window that is closed takes the toolkit away from under the rehearsal.
      if (isOpen(like)) {
        throw cutOff;
      }
    }
  }

  private static boolean isOpen(Scene scene) {
    return scene.getWindow() != null && scene.getWindow().isShowing();
  }

  private static void tryContrast(int turn) {
    Map<String, String> settings =
        Map.of("neighbourhood", "16", "limit", "" + (2 + turn), "lift", "0." + turn % 3);
    Object tried = StepCatalogue.get("local-contrast")
        .make(Map.of("scene", scene(TRIAL_SIDE)), settings)
        .run(Job.QUIET);
    PictureView.readAhead((Raster) ResultMaker.cached(tried), Look.NATURAL);
  }

  private static void rehearse() {
    Workspace workspace = new Workspace();
    Result scene = add(workspace, "clip", Map.of(), scene(SIDE));
    Result objects = make(workspace, "segment", Map.of("scene", scene), Map.of("grain", "20"));
    Result measured =
        make(workspace, "measure", Map.of("objects", objects, "scene", scene), Map.of());
    workspace.suggestions().all().put("winnow:tests", "area >= 1 AND red_mean >= 0.1");
    workspace.display().paneAProperty().set(measured);
    Bench bench = new Bench(workspace, new PictureView(workspace));
    for (Stage stage : Stage.values()) {
      workspace.display().stageProperty().set(stage);
      for (String tab : tabs(bench)) {
        // of a family that has been taken meanwhile the others' tools are not at the head
        if (bench.lookup("#" + tab) instanceof Button button) {
          button.fire();
        }
      }
    }
  }

  private static List<String> tabs(Bench bench) {
    return bench.lookupAll(".tool-tab").stream()
        .map(tab -> tab.getId())
        .filter(id -> !id.equals("fold"))
        .toList();
  }

  private static MemoryRaster scene(int side) {
    float[][] planes = new float[2][side * side];
    for (int i = 0; i < planes[0].length; i++) {
      planes[0][i] = 0.1f + 0.3f * (i % side / 12 % 2) + 0.01f * (i % 5);
      planes[1][i] = 0.2f + 0.2f * (i / side / 12 % 2) + 0.01f * (i % 7);
    }
    return new MemoryRaster(
        new Grid(side, side, Affine.northUp(0, 0, 0.5), CrsName.epsg(32630)),
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
  }

  private static Result make(
      Workspace workspace, String step, Map<String, Result> inputs, Map<String, String> settings) {
    return add(
        workspace,
        step,
        inputs,
        workspace
            .maker()
            .make(StepCatalogue.get(step), inputs, Map.of(), settings, Job.QUIET)
            .value());
  }

  private static Result add(
      Workspace workspace, String step, Map<String, Result> inputs, Object value) {
    Result result = new Result(
        step,
        step,
        StepCatalogue.get(step),
        inputs,
        Map.of(),
        Map.of(),
        value,
        new Origin.Fingerprint(step, step));
    workspace.results().add(result);
    return result;
  }
}
