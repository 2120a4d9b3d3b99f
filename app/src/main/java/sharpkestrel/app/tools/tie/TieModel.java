package sharpkestrel.app.tools.tie;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.ImageInverse;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.place.Bases;
import sharpkestrel.place.GroundHeights;
import sharpkestrel.place.Heights;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.place.fit.WorstFirst;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/**
 * The tie points in hand, between the scene of pane A and the placed reference of pane B, and what the models make of
 * them. Every change is fitted away from the interface thread, the newest change first, and written to the project's
 * {@code hand} folder; every change can be undone.
 */
public final class TieModel {

  /** Which picture a place is in. */
  public enum Side {
    SCENE,
    REFERENCE
  }

  /** A place that waits for its other half. */
  public record Half(Side side, double col, double row) {}

  /** With more points than this fitting takes long enough to be told of. */
  private static final int MANY = 60;

  private static final String HEIGHTS = "heights under tie points";

  private final Workspace workspace;
  private final ObjectProperty<TiePoints> points = new SimpleObjectProperty<>();
  private final ObjectProperty<ModelKind> kind = new SimpleObjectProperty<>();
  private final ReadOnlyObjectWrapper<TieState> state =
      new ReadOnlyObjectWrapper<>(TieState.without(""));
  private final ObjectProperty<Integer> selected = new SimpleObjectProperty<>(-1);
  private final ReadOnlyObjectWrapper<Half> pending = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Half> expected = new ReadOnlyObjectWrapper<>();
  private Result scene;
  private Result reference;

  /** What was changed since the project was opened, by the scene's name. */
  private final Map<String, TiePoints> ofScenes = new HashMap<>();

  private final KeptTies keptTies;

  private String heightsFile = "";
  private double undulation = Double.NaN;
  private Optional<Heights> heights = Optional.empty();
  private String heightsTrouble = "";

  public TieModel(Workspace workspace) {
    this.workspace = workspace;
    keptTies = new KeptTies(workspace);
    kind.addListener((p, before, now) -> refit());
  }

  public ObjectProperty<TiePoints> pointsProperty() {
    return points;
  }

  /** The model that is chosen; null takes the advice. */
  public ObjectProperty<ModelKind> kindProperty() {
    return kind;
  }

  public ReadOnlyObjectProperty<TieState> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** The id of the point that is picked; -1 for none. */
  public ObjectProperty<Integer> selectedProperty() {
    return selected;
  }

  /** The half of a new point that is set; null for none. */
  public ReadOnlyObjectProperty<Half> pendingProperty() {
    return pending.getReadOnlyProperty();
  }

  /** Where the other half of the new point is expected; null where no model tells. */
  public ReadOnlyObjectProperty<Half> expectedProperty() {
    return expected.getReadOnlyProperty();
  }

  public Result scene() {
    return scene;
  }

  public Result reference() {
    return reference;
  }

  public String heightsFile() {
    return heightsFile;
  }

  public double undulation() {
    return undulation;
  }

  /** Where the points in hand are kept. */
  public Path file() {
    return keptTies.file(scene.name());
  }

  /** Takes what the panes show, where pane B is placed; the points of before come with a scene that had some. */
  public void take(Result newScene, Result newReference) {
    boolean same = newScene == scene && newReference == reference;
    if (same || newScene == null || newReference == null) {
      return;
    }
    boolean placed =
        newReference.value() instanceof Raster raster && raster.grid().crs().isKnown();
    if (!placed || !(newScene.value() instanceof Raster) || newScene == newReference) {
      return;
    }
    boolean otherScene = newScene != scene;
    scene = newScene;
    reference = newReference;
    pending.set(null);
    expected.set(null);
    if (otherScene
        || points.get() == null
        || !points.get().crs().equals(referenceGrid().crs())) {
      points.set(kept());
      selected.set(-1);
    }
    refit();
  }

  private TiePoints kept() {
    Grid grid = ((Raster) scene.value()).grid();
    TiePoints none = new TiePoints(referenceGrid().crs(), grid.width(), grid.height(), List.of());
    try {
      Optional<TiePoints> before =
          Optional.ofNullable(ofScenes.get(scene.name())).or(() -> keptTies.read(scene.name()));
      if (before.isPresent() && before.get().crs().equals(none.crs())) {
        return before.get().scaledTo(grid.width(), grid.height());
      }
    } catch (RasterException unreadable) {
      workspace.messages().tell(unreadable.getMessage());
    }
    return none;
  }

  private Grid referenceGrid() {
    return ((Raster) reference.value()).grid();
  }

  public boolean isReady() {
    return scene != null && reference != null;
  }

  /** Heights under the points; those of all points are looked up again. */
  public void setHeights(String file, double newUndulation) {
    if (file.equals(heightsFile) && Double.compare(newUndulation, undulation) == 0) {
      return;
    }
    heightsFile = file;
    undulation = newUndulation;
    if (file.isEmpty()) {
      take(Optional.empty(), "");
      return;
    }
    workspace
        .lanes()
        .trial()
        .ask(
            HEIGHTS,
            "Opening heights",
            job ->
                Heights.of(RasterFiles.open(Path.of(file)), newUndulation, Optional.empty(), job),
            opened -> take(Optional.of(opened), ""),
            failure -> take(Optional.empty(), failure.getMessage()));
  }

  private void take(Optional<Heights> newHeights, String trouble) {
    heights = newHeights;
    heightsTrouble = trouble;
    if (isReady() && points.get() != null) {
      GroundHeights ground = groundHeights();
      points.set(points.get().each(p -> p.on(p.x(), p.y(), ground.at(p.x(), p.y()))));
    }
    refit();
  }

  private GroundHeights groundHeights() {
    return new GroundHeights(heights, referenceGrid().crs());
  }

  /** Puts other points in the place of those in hand. */
  public void use(String what, TiePoints others) {
    TiePoints before = points.get();
    String of = scene.name();
    workspace.undo().change(what, () -> put(of, others), () -> put(of, before));
  }

  /** The points of a scene are others from now on, whichever scene is in hand. */
  private void put(String ofScene, TiePoints now) {
    ofScenes.put(ofScene, now);
    boolean inHand = scene != null
        && scene.name().equals(ofScene)
        && now.crs().equals(referenceGrid().crs());
    if (inHand) {
      points.set(now);
      refit();
    } else {
      workspace
          .messages()
          .warn("The points of another scene were changed: "
              + workspace.named(ofScene).map(Result::title).orElse(ofScene) + ".");
    }
    keptTies.write(ofScene, now);
  }

  private void change(String what, int id, UnaryOperator<TiePoint> change) {
    use(what, points.get().each(p -> p.id() == id ? change.apply(p) : p));
  }

  /** On, for checking, off, and on again. */
  public void cycle(int id) {
    change(
        "use of tie point " + id,
        id,
        p -> p.as(
            switch (p.use()) {
              case CONTROL -> Use.CHECK;
              case CHECK -> Use.OFF;
              case OFF -> Use.CONTROL;
            }));
  }

  /** Switches the picked point off, where one is. */
  public void switchPickedOff() {
    if (selected.get() >= 0) {
      switchOff(selected.get());
    }
  }

  public void switchOff(int id) {
    change("switch tie point " + id + " off", id, p -> p.as(Use.OFF));
  }

  /** Sets half of a point; with the other half set already, the point. */
  public void click(Side side, double col, double row) {
    Half other = pending.get();
    if (other == null || other.side() == side) {
      pending.set(new Half(side, col, row));
      expected.set(expect(pending.get()));
      return;
    }
    Half here = new Half(side, col, row);
    add(side == Side.SCENE ? here : other, side == Side.SCENE ? other : here);
  }

  /** Sets the other half where it is expected. */
  public void takeExpected() {
    if (expected.get() != null) {
      click(expected.get().side(), expected.get().col(), expected.get().row());
    }
  }

  public void dropPending() {
    pending.set(null);
    expected.set(null);
  }

  private void add(Half inScene, Half inReference) {
    dropPending();
    int id = points.get().points().stream().mapToInt(TiePoint::id).max().orElse(0) + 1;
    Affine affine = referenceGrid().affine();
    double x = affine.x(inReference.col(), inReference.row());
    double y = affine.y(inReference.col(), inReference.row());
    List<TiePoint> more = new ArrayList<>(points.get().points());
    more.add(new TiePoint(
        id, inScene.col(), inScene.row(), x, y, groundHeights().at(x, y), Use.CONTROL, Double.NaN));
    use("tie point " + id, points.get().with(more));
    selected.set(id);
  }

  /** Moves a point in one of the pictures. */
  public void move(int id, Side side, double col, double row) {
    Affine affine = referenceGrid().affine();
    change("move tie point " + id, id, p -> {
      if (side == Side.SCENE) {
        return p.seenAt(col, row);
      }
      double x = affine.x(col, row);
      double y = affine.y(col, row);
      return p.on(x, y, groundHeights().at(x, y));
    });
  }

  /** Puts a point where surveyors know it, heights above the ellipsoid. */
  public void survey(int id, double x, double y, double height) {
    change("survey tie point " + id, id, p -> p.on(x, y, height));
  }

  /** Column and row of a point in one of the pictures. */
  public double[] place(TiePoint point, Side side) {
    if (side == Side.SCENE) {
      return new double[] {point.col(), point.row()};
    }
    Affine toPixel = referenceGrid().affine().inverse();
    return new double[] {toPixel.x(point.x(), point.y()), toPixel.y(point.x(), point.y())};
  }

  /** Switches the worst points off until the RMS of the chosen model is under a limit. */
  public void dropWorst(double limit) {
    state.get().chosen().ifPresent(fit -> {
      try {
        use("drop the worst tie points", WorstFirst.drop(points.get(), base(), fit.kind(), limit));
      } catch (RasterException refused) {
        workspace.messages().tell(refused.getMessage());
      }
    });
  }

  private ImageModel base() {
    Grid grid = referenceGrid();
    return Bases.of((Raster) scene.value(), grid.crs()).orElseGet(() -> GridModel.of(grid));
  }

  /** Where a model of three points and more puts the other half. */
  private Half expect(Half half) {
    Optional<Fit> fit = state.get().chosen();
    if (fit.isEmpty() || points.get().of(Use.CONTROL).size() < 3) {
      return null;
    }
    ImageModel model = fit.get().model();
    Grid grid = referenceGrid();
    GroundHeights ground = groundHeights();
    if (half.side() == Side.REFERENCE) {
      double x = grid.affine().x(half.col(), half.row());
      double y = grid.affine().y(half.col(), half.row());
      double[] image = new double[2];
      model.toImage(x, y, model.usesHeights() ? ground.at(x, y) : 0, image);
      return Double.isNaN(image[0]) ? null : new Half(Side.SCENE, image[0], image[1]);
    }
    TiePoint first = points.get().of(Use.CONTROL).getFirst();
    double[] place = {first.x(), first.y()};
    ImageInverse.toGround(
        model, ground::at, half.col(), half.row(), grid.affine().pixelWidth(), place);
    Affine toPixel = grid.affine().inverse();
    return Double.isNaN(place[0])
        ? null
        : new Half(Side.REFERENCE, toPixel.x(place[0], place[1]), toPixel.y(place[0], place[1]));
  }

  private void refit() {
    if (!isReady() || points.get() == null) {
      return;
    }
    TieState.Question question = new TieState.Question(
        points.get(),
        base(),
        Bases.of((Raster) scene.value(), referenceGrid().crs()).isPresent(),
        kind.get(),
        heights.isPresent(),
        heightsTrouble,
        referenceGrid(),
        groundHeights());
    if (points.get().points().size() > MANY) {
      state.set(TieState.without("Fitting the models\u2026"));
    }
    workspace.ask(this, job -> question.answer(), state::set);
  }
}
