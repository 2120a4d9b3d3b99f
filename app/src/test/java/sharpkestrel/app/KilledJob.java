package sharpkestrel.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.tools.pick.PickModel;
import sharpkestrel.app.tools.pick.PickTool;
import sharpkestrel.app.tools.tie.TieModel;
import sharpkestrel.app.tools.tie.TieTool;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.raster.BandRole;
import sharpkestrel.step.Stage;

/**
 * Another process with a window, in which somebody works on without a rest: picks objects, keeps looks, sets tie points, runs
 * steps. It says on its output what has been done as soon as that was written, until it is killed.
 */
final class KilledJob {

  private final Workspace workspace = new Workspace();
  private final Random random;
  private Bench bench;
  private int counter;

  private KilledJob(long seed) {
    random = new Random(seed);
  }

  public static void main(String[] args) throws Exception {
    CountDownLatch up = new CountDownLatch(1);
    Platform.startup(up::countDown);
    up.await();
    KilledJob job = new KilledJob(Long.parseLong(args[2]));
    job.begin(Path.of(args[0]), Path.of(args[1]));
    while (true) {
      job.work();
    }
  }

  private static void on(Runnable act) throws InterruptedException {
    CountDownLatch done = new CountDownLatch(1);
    Platform.runLater(() -> {
      try {
        act.run();
      } finally {
        done.countDown();
      }
    });
    done.await(60, TimeUnit.SECONDS);
  }

  private void until(BooleanSupplier holds) throws InterruptedException {
    boolean[] held = {false};
    long end = System.nanoTime() + 60_000_000_000L;
    while (!held[0] && System.nanoTime() < end) {
      on(() -> held[0] = holds.getAsBoolean());
      Thread.sleep(5);
    }
  }

  /** Says what was done, once it is on the disk. */
  private void done(String what) {
    if (workspace.lanes().save().flush(Duration.ofSeconds(30))) {
      System.out.println(what);
    }
  }

  private void begin(Path project, Path scene) throws InterruptedException {
    on(() -> {
      var shown = KestrelApp.scene(workspace);
      javafx.stage.Stage stage = new javafx.stage.Stage();
      stage.setScene(shown);
      stage.show();
      bench = ((Shell) shown.getRoot()).bench();
      ProjectFile.begin(workspace, project);
    });
    run("open", "Scene", Map.of(), Map.of("file", scene.toString()));
    run("segment", "Objects", Map.of("scene", "open"), Map.of("grain", "10"));
    System.out.println("ready");
  }

  private void run(
      String step, String title, Map<String, String> inputs, Map<String, String> settings)
      throws InterruptedException {
    int before = workspace.results().size();
    on(() -> {
      Map<String, Result> results = new java.util.HashMap<>();
      inputs.forEach((name, of) -> results.put(name, workspace.named(of).orElseThrow()));
      workspace.run(StepCatalogue.get(step), title, results, Map.of(), settings);
    });
    until(() -> workspace.results().size() > before);
    done("result " + title);
  }

  private void work() throws InterruptedException {
    int n = ++counter;
    switch (random.nextInt(4)) {
      case 0 -> run("outline", "Outlines " + n, Map.of("objects", "segment"), Map.of());
      case 1 -> {
        on(() -> workspace
            .display()
            .keepLook(Look.of("Look " + n, BandRole.RED, BandRole.RED, BandRole.NEAR_INFRARED)));
        done("look Look " + n);
      }
      case 2 -> pick();
      default -> tie(n);
    }
  }

  private void pick() throws InterruptedException {
    on(() -> {
      workspace.display().stageProperty().set(Stage.SEGMENT);
      workspace.display().show(workspace.named("segment").orElseThrow());
      bench.takeFor(StepCatalogue.get("pick-objects"));
    });
    PickModel picks = bench.tool(PickTool.class).model();
    until(picks::hasTree);
    on(() -> picks.pick(4 + random.nextInt(100), 4 + random.nextInt(80)));
    until(() -> !picks.isFinding());
    int[] count = {0};
    on(() -> {
      picks.accept();
      count[0] = picks.accepted().size();
    });
    done("picks " + count[0]);
  }

  private void tie(int n) throws InterruptedException {
    TieModel ties = bench.tool(TieTool.class).model();
    on(() -> {
      Result scene = workspace.named("open").orElseThrow();
      Result reference = workspace.results().stream()
          .filter(result -> result.value() instanceof sharpkestrel.raster.Raster && result != scene)
          .findFirst()
          .orElse(null);
      ties.take(scene, reference);
    });
    if (!ties.isReady()) {
      run("clip", "Reference", Map.of("scene", "open"), Map.of());
      return;
    }
    int[] count = {0};
    on(() -> {
      List<TiePoint> more = new ArrayList<>(ties.pointsProperty().get().points());
      more.add(new TiePoint(
          n, n, 2.0 * n, 512_000 + n, 6_701_900 - n, Double.NaN, TiePoint.Use.CONTROL, Double.NaN));
      ties.use("tie point " + n, ties.pointsProperty().get().with(more));
      count[0] = more.size();
    });
    done("points " + count[0]);
  }
}
