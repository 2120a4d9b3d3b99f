package sharpkestrel.app.tools.tie;

import java.io.File;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.step.StepSettings;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.Rpc;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Stage;

/**
 * Tie points between pane A and pane B: what each model makes of them beside what it errs at points left out, their
 * residuals, how they cover the scene, and which model is advised.
 */
final class TiePanel extends HBox {

  /** Longer advice may be cut off and is told in full under the mouse. */
  private static final int SHORT = 150;

  private final Workspace workspace;
  private final TieModel model;
  private final PictureView picture;
  private final ModelBars bars;
  private final ResidualList residuals;
  private final GridPane cells = new GridPane(3, 3);
  private final Label covered = new Label();
  private final Label advice = new Label();
  private final Label rms = new Label("\u2013");
  private final Label rmsNote = new Label();
  private final TieHeights heights;
  private final CheckBox lattice = new CheckBox("show the warp");
  private final TextField limit = new TextField("0.6");
  private final Button find = new Button("Find points");
  private final ToggleButton how = new ToggleButton("How");
  private final StepSettings finding;
  private final Button run = new Button("Run all");
  private Set<Result> known;

  TiePanel(Desk desk, Watch watch, TieModel model, TieMarks marks) {
    super(10);
    workspace = desk.workspace();
    picture = desk.picture();
    this.model = model;
    finding = new StepSettings(
        workspace, StepCatalogue.get("tiepoints"), option -> !option.ofPlace(), false);
    heights = new TieHeights(workspace, model);
    bars = new ModelBars(kind -> model.kindProperty().set(kind));
    residuals = new ResidualList(model);
    getChildren().addAll(models(marks), points(), coverage(), actions());
    watch.on(workspace.display().paneAProperty(), now -> take());
    watch.on(workspace.display().paneBProperty(), now -> take());
    known = Set.copyOf(workspace.results());
    watch.on(workspace.results(), this::adoptFound);
    model.stateProperty().addListener((p, before, now) -> show());
    model.pointsProperty().addListener((p, before, now) -> show());
    model.pendingProperty().addListener((p, before, now) -> picture.repaint());
    model.expectedProperty().addListener((p, before, now) -> {
      if (now != null) {
        picture.reveal(now.side() == TieModel.Side.REFERENCE, now.col(), now.row());
      }
      picture.repaint();
    });
    model.selectedProperty().addListener((p, before, now) -> reveal(now));
    take();
    show();
  }

  private Node models(TieMarks marks) {
    lattice.setId("tie-lattice");
    lattice.selectedProperty().addListener((p, before, now) -> {
      marks.showLattice(now);
      picture.repaint();
    });
    VBox card = new VBox(5, bars, heights);
    card.getStyleClass().add("card");
    card.setMinWidth(396);
    card.setPrefWidth(396);
    VBox.setVgrow(bars, Priority.ALWAYS);
    return card;
  }

  private Node points() {
    ScrollPane scroll = new ScrollPane(residuals);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    limit.setId("tie-limit");
    limit.setPrefWidth(48);
    Button drop = new Button("Drop worst");
    drop.setId("tie-drop");
    drop.setOnAction(e -> dropWorst());
    drop.setMinWidth(USE_PREF_SIZE);
    HBox line = new HBox(6, drop, soft("until RMS <"), limit, soft("px"));
    line.setAlignment(Pos.CENTER_LEFT);
    VBox card = new VBox(5, residuals.head(), scroll, new SurveyedPlace(workspace, model), line);
    card.getStyleClass().add("card");
    card.setMinWidth(268);
    card.setPrefWidth(268);
    return card;
  }

  private Node coverage() {
    cells.setId("tie-cells");
    covered.getStyleClass().add("soft");
    advice.getStyleClass().add("soft");
    advice.setId("tie-advice");
    advice.setWrapText(true);
    advice.setMaxHeight(Double.MAX_VALUE);
    advice.setAlignment(Pos.TOP_LEFT);
    VBox.setVgrow(advice, Priority.ALWAYS);
    for (int k = 0; k < TiePoints.CELLS * TiePoints.CELLS; k++) {
      Region cell = new Region();
      cell.setMinSize(26, 17);
      cell.setPrefSize(26, 17);
      cells.add(cell, k % TiePoints.CELLS, k / TiePoints.CELLS);
    }
    VBox box = new VBox(5, covered, cells, advice, lattice);
    FlowPane fields = new FlowPane(8, 4);
    fields.getChildren().addAll(finding.fields().values());
    finding.setWidth(100);
    ScrollPane settings = new ScrollPane(fields);
    settings.setFitToWidth(true);
    settings.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    settings.visibleProperty().bind(how.selectedProperty());
    box.visibleProperty().bind(how.selectedProperty().not());
    StackPane either = new StackPane(box, settings);
    HBox.setHgrow(either, Priority.ALWAYS);
    either.setMinWidth(120);
    return either;
  }

  private Node actions() {
    rms.getStyleClass().add("big");
    rms.setId("tie-rms");
    rmsNote.getStyleClass().add("soft");
    rmsNote.setWrapText(true);
    rmsNote.setId("tie-note");
    find.setId("tie-find");
    find.setMaxWidth(Double.MAX_VALUE);
    find.setOnAction(e -> find());
    HBox.setHgrow(find, Priority.ALWAYS);
    how.setId("tie-how");
    how.setMinWidth(USE_PREF_SIZE);
    how.setTooltip(new Tooltip(
        "Which bands are looked at, how many points, how far, how many are kept for checking."));
    run.setId("tiepoints-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setOnAction(e -> run());
    Button save = new Button("Save");
    save.setId("tie-save");
    save.setOnAction(e -> save());
    Button load = new Button("Load");
    load.setId("tie-load");
    load.setOnAction(e -> load());
    for (Button button : List.of(save, load)) {
      button.setMaxWidth(Double.MAX_VALUE);
      HBox.setHgrow(button, Priority.ALWAYS);
    }
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    VBox box = new VBox(3, rms, rmsNote, gap, new HBox(6, find, how), new HBox(6, load, save), run);
    box.setMinWidth(168);
    box.setPrefWidth(168);
    return box;
  }

  private static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    label.setMinWidth(USE_PREF_SIZE);
    return label;
  }

  private void take() {
    if (workspace.display().stageProperty().get() == Stage.PLACE) {
      model.take(
          sceneOf(workspace.display().paneAProperty().get()),
          workspace.display().paneBProperty().get());
    }
    heights.take();
    show();
  }

  /** A set of points stands for its scene. */
  private static Result sceneOf(Result shown) {
    return shown != null && shown.value() instanceof TiePoints
        ? shown.inputs().get("scene")
        : shown;
  }

  /** Points that a run has found for the scene in hand are taken up. */
  private void adoptFound() {
    for (Result result : workspace.results()) {
      if (!known.contains(result)
          && result.value() instanceof TiePoints found
          && result.inputs().get("scene") == model.scene()
          && model.isReady()) {
        model.use("found tie points", found);
      }
    }
    known = Set.copyOf(workspace.results());
  }

  private void show() {
    TieState state = model.stateProperty().get();
    bars.show(state.advice(), state.chosen());
    residuals.show(model.pointsProperty().get(), state.chosen());
    boolean ready = model.isReady() && model.pointsProperty().get() != null;
    find.setDisable(!ready);
    run.setDisable(state.chosen().isEmpty() || state.chosen().get().kind() == ModelKind.UNCHANGED);
    String said = !ready
        ? "Show the scene in pane A and a placed raster in pane B, side by side (S)."
        : state.advice().map(a -> a.reason()).orElse(state.trouble());
    advice.setText(said);
    advice.setTooltip(said.length() > SHORT ? new Tooltip(said) : null);
    int count = 0;
    for (int k = 0; k < TiePoints.CELLS * TiePoints.CELLS; k++) {
      boolean on = ready && model.pointsProperty().get().coverage().contains(k);
      count += on ? 1 : 0;
      cells.getChildren().get(k).getStyleClass().setAll(on ? "cell-on" : "cell-off");
    }
    covered.setText(
        "points cover " + count + " of " + TiePoints.CELLS * TiePoints.CELLS + " cells");
    showError(state.chosen());
    picture.repaint();
  }

  private void showError(Optional<Fit> chosen) {
    if (chosen.isEmpty()) {
      rms.setText("\u2013");
      rmsNote.setText("px RMS");
      return;
    }
    Fit fit = chosen.get();
    int checks = model.pointsProperty().get().of(Use.CHECK).size();
    boolean checked = checks > 0;
    double shown = checked ? fit.rms(Use.CHECK) : fit.leftOut();
    boolean known = !Double.isNaN(shown);
    rms.setText(String.format(Locale.ROOT, "%.2f", known ? shown : fit.rms()));
    double metres = Fit.circularError90(known ? shown : fit.rms())
        * GroundSize.of((Raster) model.reference().value()).mean();
    rmsNote.setText(String.format(
        Locale.ROOT,
        "px RMS %s, CE90 %.2f m; arrows \u00d7%.0f",
        checked ? "of " + checks + " check points" : known ? "at points left out" : "of the fit",
        metres,
        TieMarks.exaggeration(fit)));
  }

  private void reveal(int id) {
    residuals.select(id);
    TiePoints points = model.pointsProperty().get();
    if (points != null) {
      points.points().stream().filter(p -> p.id() == id).findFirst().ifPresent(p -> {
        for (TieModel.Side side : TieModel.Side.values()) {
          double[] place = model.place(p, side);
          picture.reveal(side == TieModel.Side.REFERENCE, place[0], place[1]);
        }
      });
    }
    picture.repaint();
  }

  private void dropWorst() {
    try {
      model.dropWorst(Double.parseDouble(limit.getText().strip()));
    } catch (NumberFormatException notANumber) {
      workspace
          .messages()
          .tell("The limit is '" + limit.getText()
              + "'; it should be a number of pixels, such as 0.6.");
    }
  }

  private Map<String, Result> inputs(String... names) {
    Map<String, Result> inputs = new LinkedHashMap<>();
    for (String name : names) {
      inputs.put(name, name.equals("scene") ? model.scene() : model.reference());
    }
    return inputs;
  }

  private Map<String, String> heightsAsFile() {
    Map<String, String> files = new HashMap<>();
    if (!model.heightsFile().isEmpty()) {
      files.put("heights", model.heightsFile());
    }
    return files;
  }

  private Map<String, String> settings(StepSpec step) {
    Map<String, String> settings = new LinkedHashMap<>();
    for (StepSpec.Option option : step.options()) {
      if (!option.initial().isEmpty()) {
        settings.put(option.name(), option.initial());
      }
    }
    if (settings.containsKey("undulation") && !Double.isNaN(model.undulation())) {
      settings.put("undulation", SettingValues.plain(model.undulation()));
    }
    return settings;
  }

  private void find() {
    StepSpec step = StepCatalogue.get("tiepoints");
    Map<String, String> settings = settings(step);
    settings.putAll(finding.texts());
    workspace.run(
        step,
        "Points of " + model.scene().title(),
        inputs("scene", "reference"),
        heightsAsFile(),
        settings);
  }

  /** Refines the scene's own model where it has one and a correction in the image will do, else warps it. */
  private void run() {
    Fit fit = model.stateProperty().get().chosen().orElseThrow();
    Raster scene = (Raster) model.scene().value();
    boolean refine = scene.attachments().get(Rpc.class).isPresent()
        && (fit.kind() == ModelKind.SHIFT || fit.kind() == ModelKind.AFFINE);
    StepSpec step = StepCatalogue.get(refine ? "refine" : "warp");
    Map<String, String> settings = settings(step);
    String kind = fit.kind().name().toLowerCase(Locale.ROOT);
    settings.put(refine ? "correction" : "model", kind);
    Map<String, String> files = refine ? new HashMap<>() : heightsAsFile();
    files.put("points", model.file().toString());
    workspace.run(
        step,
        model.scene().title() + (refine ? ", refined" : ", placed"),
        refine ? inputs("scene") : inputs("scene", "reference"),
        files,
        settings);
  }

  private void save() {
    choose(true).ifPresent(path -> {
      try {
        TiePointFile.write(model.pointsProperty().get(), path);
      } catch (RasterException failed) {
        workspace.messages().tell(failed.getMessage());
      }
    });
  }

  private void load() {
    choose(false).ifPresent(path -> {
      try {
        TiePoints loaded = TiePointFile.read(path);
        TiePoints now = model.pointsProperty().get();
        if (!loaded.crs().equals(now.crs())) {
          throw new RasterException("The points of " + path + " are in " + loaded.crs()
              + ", the reference in " + now.crs() + ". Choose a reference in the points' system.");
        }
        model.use("loaded tie points", loaded.scaledTo(now.width(), now.height()));
      } catch (RasterException failed) {
        workspace.messages().tell(failed.getMessage());
      }
    });
  }

  private Optional<Path> choose(boolean save) {
    FileChooser chooser = new FileChooser();
    chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Points", "*.geojson"));
    chooser.setInitialFileName("tie-points.geojson");
    File chosen = save
        ? chooser.showSaveDialog(getScene().getWindow())
        : chooser.showOpenDialog(getScene().getWindow());
    return Optional.ofNullable(chosen).map(File::toPath);
  }
}
