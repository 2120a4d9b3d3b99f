package sharpkestrel.app.viewer;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Executor;
import java.util.function.BiFunction;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.util.Duration;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.StretchRule;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.CrsException;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * The layers of panes A and B. They are made away from the interface thread whenever a pane gets another result or the
 * look changes, and taken only if the pane still wants them.
 */
final class Panes {

  private final Workspace workspace;
  private final Executor background;
  private final BiFunction<Raster, Look, Window> stretchWindow;
  private final Runnable changed;
  private Consumer<PaneLayer> shownInA = layer -> {};
  private PaneLayer a;
  private PaneLayer b;
  private CrsName systemOfB = CrsName.NONE;
  private ObjectPaint wantedPaint;
  private final PauseTransition rested = new PauseTransition(Duration.millis(200));
  private final List<Runnable> restretched = new ArrayList<>();

  /** Frames follow tiles; what could not be drawn is said once, with a way to try again. */
  private final TileNews news = new TileNews() {
    @Override
    public void arrived() {
      Platform.runLater(changed);
    }

    @Override
    public void failed(Tiles<?> layer, String why) {
      Platform.runLater(() -> workspace
          .messages()
          .tell(
              "Part of the picture could not be drawn and is hatched: " + why,
              "Try again",
              layer::tryAgain));
    }
  };

  /**
   * @param stretchWindow the full-size pixels of a raster from which a look takes its stretch
   * @param changed told when something is to be drawn anew
   */
  Panes(
      Workspace workspace,
      Executor background,
      BiFunction<Raster, Look, Window> stretchWindow,
      Runnable changed) {
    this.workspace = workspace;
    this.background = background;
    this.stretchWindow = stretchWindow;
    this.changed = changed;
    rested.setOnFinished(e -> followView());
    workspace.display().paneAProperty().addListener((p, before, now) -> {
      wantedPaint = null;
      prepare(true);
    });
    workspace.display().paneBProperty().addListener((p, before, now) -> prepare(false));
    workspace.display().bothPanesHeldProperty().addListener((p, before, now) -> follow());
    workspace.display().lookProperty().addListener((p, before, now) -> {
      look(true, before, now);
      look(false, before, now);
    });
    workspace.display().hiddenClassesProperty().addListener((p, before, now) -> hideClasses(now));
    workspace.display().selectedRowProperty().addListener((p, before, now) -> {
      if (a != null && a.paint != null) {
        a.paint = a.paint.withSelected(now);
        changed.run();
      }
    });
  }

  /** What pane A shows; null before the first result. */
  PaneLayer a() {
    return a;
  }

  /** What pane B shows; null for nothing. */
  PaneLayer b() {
    return b;
  }

  /** Told of a layer that is about to be taken into pane A, while the one before is still there. */
  void onShownInA(Consumer<PaneLayer> listener) {
    shownInA = listener;
  }

  /** Whether pane A shows the result that it is to show. */
  boolean isCurrent() {
    return a != null && a.result == workspace.display().paneAProperty().get();
  }

  /** Draws objects of pane A another way: at once, or as soon as the layer that is being made for it is there. */
  void paint(ObjectPaint paint) {
    wantedPaint = paint;
    if (isCurrent()) {
      a.paint = paint.withSelected(workspace.display().selectedRowProperty().get());
      changed.run();
    }
  }

  /** Draws objects of pane A as they are drawn when they are first shown. */
  void paintAsFirst() {
    wantedPaint = null;
    if (isCurrent() && a.paint != null) {
      a.paint =
          a.firstPaint().withSelected(workspace.display().selectedRowProperty().get());
      changed.run();
    }
  }

  private void hideClasses(Set<String> hidden) {
    for (PaneLayer layer : new PaneLayer[] {a, b}) {
      if (layer != null) {
        layer.hide(hidden);
      }
    }
    changed.run();
  }

  private Result wanted(boolean inA) {
    return inA
        ? workspace.display().paneAProperty().get()
        : workspace.display().paneBProperty().get();
  }

  /** Shows another look: at once where it colours the same bands from the same sample. */
  private void look(boolean inA, Look before, Look now) {
    PaneLayer layer = inA ? a : b;
    boolean current = layer != null && layer.result == wanted(inA) && layer.showsBandsOf(now);
    if (!current) {
      prepare(inA);
      return;
    }
    boolean sameSample = before.stretch().fromView() == now.stretch().fromView();
    if (sameSample || now.stretch().kind() == StretchRule.Kind.BY_HAND) {
      layer.restretch(layer.sample(), now);
      restretched.forEach(Runnable::run);
      changed.run();
      return;
    }
    resample(layer);
  }

  /** Stretches by what is in view once it rests, where the look asks for that. */
  void viewMoved() {
    rested.playFromStart();
  }

  private void followView() {
    StretchRule rule = workspace.display().lookProperty().get().stretch();
    if (!rule.fromView() || rule.kind() == StretchRule.Kind.BY_HAND) {
      return;
    }
    if (a != null) {
      resample(a);
    }
    if (b != null) {
      resample(b);
    }
  }

  private void resample(PaneLayer layer) {
    Window window =
        stretchWindow.apply(layer.raster, workspace.display().lookProperty().get());
    if (window.isEmpty()) {
      return;
    }
    background.execute(() -> {
      StretchSample sample = StretchSample.of(layer.raster, layer.tiles.bands(), window);
      Platform.runLater(() -> {
        layer.restretch(sample, workspace.display().lookProperty().get());
        restretched.forEach(Runnable::run);
        changed.run();
      });
    });
  }

  /** Told when pane A shows other bands or colours. */
  void onRestretched(Runnable listener) {
    restretched.add(listener);
  }

  private void prepare(boolean inA) {
    Result result = wanted(inA);
    if (result == null || result.backdrop() == null) {
      if (inA && result == null) {
        close(a, b);
        a = null;
      } else if (!inA) {
        close(b, a);
        b = null;
      }
      changed.run();
      return;
    }
    Raster raster = result.backdrop();
    Look look = workspace.display().lookProperty().get();
    Window window = stretchWindow.apply(raster, look);
    systemOfB = inA ? systemOfB : systemOfA();
    CrsName system = inA ? CrsName.NONE : systemOfB;
    make(
        () -> true,
        () -> in(system, PaneLayer.of(result, raster, look, window, news), look),
        made -> take(made, inA));
  }

  /** The coordinates that pane B is shown in, so that both move together; unknown where it keeps its own. */
  private CrsName systemOfA() {
    boolean locked = a != null && !workspace.display().bothPanesHeldProperty().get();
    return locked ? a.raster.grid().crs() : CrsName.NONE;
  }

  private PaneLayer in(CrsName system, PaneLayer made, Look look) {
    if (!system.isKnown()
        || !made.isPlaced()
        || system.equals(made.raster.grid().crs())) {
      return made;
    }
    try {
      return made.in(Crs.of(system), look, news);
    } catch (CrsException apart) {
      Platform.runLater(
          () -> workspace.messages().warn("Pane B is shown by itself: " + apart.getMessage()));
      return made;
    }
  }

  /** Lays pane B out anew where pane A's place, or a tool that holds both, wants it in another system. */
  private void follow() {
    if (b != null && !systemOfA().equals(systemOfB)) {
      prepare(false);
    }
  }

  /**
   * Makes the layer of a trial.
   *
   * @param window of the backdrop's full-size pixels in which it is tried
   * @param alike stretched as pane A is where both hold the same kind of numbers, so that they compare; else by itself
   * @param wanted asked before it is made, on another thread: whether no other trial has taken its place
   */
  void tried(
      Object value,
      Raster backdrop,
      Window window,
      boolean alike,
      BooleanSupplier wanted,
      Consumer<PaneLayer> ready) {
    Look look = workspace.display().lookProperty().get();
    PaneLayer like = a;
    make(
        wanted,
        () -> alike && like != null && like.holdsLike(backdrop, look)
            ? PaneLayer.ofTrial(value, backdrop, look, like, news)
            : PaneLayer.ofTrial(value, backdrop, look, window, news),
        ready);
  }

  private void make(BooleanSupplier wanted, Supplier<PaneLayer> maker, Consumer<PaneLayer> ready) {
    background.execute(() -> {
      if (!wanted.getAsBoolean()) {
        return;
      }
      try {
        PaneLayer made = maker.get();
        Platform.runLater(() -> ready.accept(made));
      } catch (RuntimeException failed) {
        Platform.runLater(() -> workspace.messages().tell(failed.getMessage()));
      }
    });
  }

  private static void close(PaneLayer layer, PaneLayer other) {
    if (layer != null && layer != other) {
      layer.close(other);
    }
  }

  private void take(PaneLayer made, boolean inA) {
    if (made.result != wanted(inA)) {
      return;
    }
    Set<String> hidden = workspace.display().hiddenClassesProperty().get();
    if (!hidden.isEmpty()) {
      made.hide(hidden);
    }
    if (inA) {
      shownInA.accept(made);
      close(a, b);
      a = made;
      restretched.forEach(Runnable::run);
      follow();
      if (wantedPaint != null && made.paint != null) {
        made.paint =
            wantedPaint.withSelected(workspace.display().selectedRowProperty().get());
      }
    } else {
      close(b, a);
      b = made;
      follow();
    }
    changed.run();
  }
}
