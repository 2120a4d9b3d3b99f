package sharpkestrel.workshop;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;

/**
 * Measures how soon the window shows a change of the stretch, and of the settings of local contrast in the trial patch: from the
 * change to the frame that is whole and shows it. Changes come one after the other, each some time after the one before.
 */
final class HowSoon {

  private static final long REST = 150_000_000L;
  private static final long START = 3_000_000_000L;
  private static final int STRETCHES = 60;
  private static final int TRIALS = 20;

  /**
   * Changes of one kind.
   *
   * @param change makes one, by its number
   */
  private record Kind(String name, int count, IntConsumer change, List<Double> milliseconds) {}

  private final Workspace workspace;
  private final Scene scene;
  private final PictureView picture;
  private final Deque<Kind> kinds = new ArrayDeque<>();
  private BooleanSupplier shows = () -> false;
  private long frames;
  private long changed;
  private long restUntil;

  private HowSoon(Workspace workspace, Scene scene) {
    this.workspace = workspace;
    this.scene = scene;
    picture = ((Shell) scene.getRoot()).picture();
  }

  /** Opens a scene, measures, prints, and closes the window. */
  static void measure(Workspace workspace, Scene scene, String file) {
    new HowSoon(workspace, scene).plan(file);
  }

  private void plan(String file) {
    workspace.messages().textProperty().addListener((p, before, now) -> {
      if (!now.isEmpty()) {
        System.err.println("kestrel: " + now);
        System.exit(1);
      }
    });
    if (file.isEmpty()) {
      workspace.messages().tell("Name a scene of three bands: ./kestrel how-soon FILE");
    }
    workspace.run(StepCatalogue.get("open"), "Scene", Map.of(), Map.of(), Map.of("file", file));
    add("stretch", STRETCHES, k -> stretch(k % 2 == 0 ? 0.5 : 6 + 0.02 * k));
    kinds.add(new Kind("the first trial", 1, k -> tryContrast(), new ArrayList<>()));
    add("local contrast, limit", TRIALS, k -> set("limit", 2 + 0.1 * k));
    add("local contrast, shadow lift", TRIALS, k -> set("lift", 0.05 + 0.03 * k));
    add("local contrast, neighbourhood", TRIALS, k -> set("neighbourhood", 40 + 3 * k));
    add("local contrast, limit again", TRIALS, k -> set("limit", 2.05 + 0.1 * k));
    scene.addPostLayoutPulseListener(this::look);
    new AnimationTimer() {
      @Override
      public void handle(long now) {
        if (workspace.results().isEmpty() || !picture.isComplete()) {
          restUntil = System.nanoTime() + START;
        } else if (changed == 0 && System.nanoTime() > restUntil) {
          next();
        }
      }
    }.start();
  }

  private void add(String name, int count, IntConsumer change) {
    kinds.add(new Kind(name, count, change, new ArrayList<>()));
  }

  private void next() {
    Kind kind = kinds.peek();
    if (kind == null) {
      Platform.exit();
      return;
    }
    frames = picture.frames();
    changed = System.nanoTime();
    kind.change().accept(kind.milliseconds().size());
  }

  /** Before each frame goes to the screen. */
  private void look() {
    if (changed == 0
        || picture.frames() == frames
        || !picture.isComplete()
        || !shows.getAsBoolean()) {
      return;
    }
    long now = System.nanoTime();
    Kind kind = kinds.element();
    kind.milliseconds().add((now - changed) / 1e6);
    changed = 0;
    restUntil = now + REST;
    if (kind.milliseconds().size() == kind.count()) {
      tell(kinds.remove());
    }
  }

  private static void tell(Kind kind) {
    List<Double> sorted = new ArrayList<>(kind.milliseconds());
    Collections.sort(sorted);
    int count = sorted.size();
    System.out.printf(
        Locale.ROOT,
        "%-30s median %4.0f ms, nine of ten within %4.0f, the worst %4.0f; %d changes%n",
        kind.name(),
        sorted.get(count / 2),
        sorted.get((int) Math.ceil(0.9 * count) - 1),
        sorted.getLast(),
        count);
  }

  private void stretch(double percent) {
    double before = picture.ends().orElseThrow().high()[0];
    Look look = workspace.display().lookProperty().get();
    StretchRule rule = look.stretch();
    shows = () -> picture.ends().orElseThrow().high()[0] != before;
    workspace
        .display()
        .lookProperty()
        .set(new Look(
            look.name(),
            look.roles(),
            new StretchRule(
                StretchRule.Kind.PERCENT,
                percent,
                100 - percent,
                rule.fromView(),
                rule.linked(),
                rule.gamma(),
                rule.ends()),
            look.ramp()));
  }

  /** The first trial gathers the statistics of the scene. */
  private void tryContrast() {
    awaitTrial();
    workspace.display().stageProperty().set(sharpkestrel.step.Stage.SHARPEN);
    click("#tool-local-contrast");
    click("#local-contrast-try");
  }

  private void set(String setting, double value) {
    awaitTrial();
    TextField field = (TextField) scene.lookup("#local-contrast-" + setting);
    field.setText(String.format(Locale.ROOT, "%.2f", value));
  }

  private void awaitTrial() {
    int before = picture.trials().count();
    shows = () -> picture.trials().count() > before;
  }

  private void click(String id) {
    Node node = scene.lookup(id);
    ((Button) node).fire();
  }
}
