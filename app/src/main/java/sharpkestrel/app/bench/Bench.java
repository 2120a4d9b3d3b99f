package sharpkestrel.app.bench;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.PickModel;
import sharpkestrel.app.model.ProfileModel;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.SeamModel;
import sharpkestrel.app.model.TieModel;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.app.viewer.PickMarks;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.app.viewer.ProfileMarks;
import sharpkestrel.app.viewer.Ramp;
import sharpkestrel.app.viewer.SeamMarks;
import sharpkestrel.app.viewer.TieMarks;
import sharpkestrel.check.Scores;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Json;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.pan.PanModel;
import sharpkestrel.step.Stage;

/** The panel under the picture: tools of the stage at its head, then tool, table or run sheet of what is shown. */
public final class Bench extends VBox {

  /** Steps that are used from within the panel of another. */
  private static final Set<String> WITHIN_OTHERS = Set.of("rate-sharpening");

  private static final double OPEN = 272;
  private static final double FOLDED = 32;
  private static final double LIFTED = 560;

  private final Workspace workspace;
  private final PictureView picture;
  private final HBox head = new HBox(14);
  private final StackPane content = new StackPane();
  private final Map<String, Node> panels = new HashMap<>();
  private final TableGrid table = new TableGrid();
  private final ComboBox<String> colourBy = new ComboBox<>();
  private final RampLegend legend = new RampLegend();
  private final VBox tablePanel;
  private GrainPanel grain;
  private final TieModel ties;
  private final TieMarks marks;
  private final SeamModel seams;
  private final SeamMarks seamMarks;
  private ProfileModel profiles;
  private ProfileMarks profileMarks;
  private PickModel picks;
  private PickMarks pickMarks;
  private String view = "Tool";
  private String tool = "";
  private boolean toolChosen;
  private final ReadOnlyDoubleWrapper restingHeight = new ReadOnlyDoubleWrapper(OPEN);
  private boolean folded;
  private boolean lifted;
  private ObjectGeometry geometry;

  public Bench(Workspace workspace, PictureView picture) {
    this.workspace = workspace;
    this.picture = picture;
    ties = new TieModel(workspace);
    marks = new TieMarks(workspace, ties);
    seams = new SeamModel(workspace);
    seamMarks = new SeamMarks(workspace, seams);
    getStyleClass().add("bench");
    setSpacing(8);
    head.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    VBox.setVgrow(content, Priority.ALWAYS);
    getChildren().addAll(head, content);
    setFolded(false);
    colourBy.setId("colour-by");
    colourBy.setPromptText("outlines only");
    colourBy.valueProperty().addListener((p, before, now) -> colour());
    Label by = new Label("Colour objects by");
    by.getStyleClass().add("soft");
    HBox row = new HBox(8, by, colourBy, legend);
    row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    tablePanel = new VBox(6, row, table);
    VBox.setVgrow(table, Priority.ALWAYS);
    table.onChosen(chosen -> {
      workspace.selectedRowProperty().set(chosen);
      bringIntoView(chosen);
    });
    workspace.selectedRowProperty().addListener((p, before, now) -> table.select(now, false));
    workspace.stageProperty().addListener((p, before, now) -> {
      tool = "";
      toolChosen = false;
      view = "Tool";
      rebuild();
    });
    workspace.results().addListener((javafx.collections.ListChangeListener<Result>) change -> {
      if (!toolChosen && workspace.stageProperty().get() == Stage.GATHER) {
        tool = "";
        rebuild();
      }
    });
    workspace.paneAProperty().addListener((p, before, now) -> fillTable(now));
    rebuild();
  }

  /** One line, or open. */
  public void setFolded(boolean fold) {
    folded = fold;
    lifted = false;
    content.setVisible(!fold);
    content.setManaged(!fold);
    setStyle(fold ? "-fx-padding: 0 12 0 12;" : "");
    restingHeight.set(fold ? FOLDED : OPEN);
    setHeightTo(restingHeight.get());
    rebuild();
  }

  /** Up over the picture, for tables and histograms that want more room; the picture stays as it is below. */
  public void setLifted(boolean lift) {
    if (lift && folded) {
      setFolded(false);
    }
    lifted = lift;
    setHeightTo(lift ? LIFTED : restingHeight.get());
  }

  public boolean isLifted() {
    return lifted;
  }

  /** The height it has when it is not lifted. */
  public ReadOnlyDoubleProperty restingHeightProperty() {
    return restingHeight.getReadOnlyProperty();
  }

  private void setHeightTo(double height) {
    setMinHeight(height);
    setPrefHeight(height);
    setMaxHeight(height);
  }

  /** Runs the tool in hand, as its button does. */
  public void runAll() {
    if (view.equals("Tool") && content.lookup("#" + tool + "-run") instanceof Button run) {
      run.fire();
    }
  }

  public void toggleFold() {
    setFolded(!folded);
  }

  /** Steps the grain, where its slider is in hand. */
  public void stepGrain(int direction) {
    if (isPicking()) {
      picks.climb(direction);
    } else if (grain != null) {
      grain.step(direction);
    }
  }

  private boolean isPicking() {
    return view.equals("Tool") && tool.equals("pick-objects");
  }

  /** Gives up what is picked from a tree. */
  public void dropPicked() {
    if (isPicking()) {
      picks.drop();
    }
  }

  private void rebuild() {
    head.getChildren().clear();
    Stage stage = workspace.stageProperty().get();
    List<StepSpec> steps = StepCatalogue.of(stage);
    if (tool.isEmpty() && !steps.isEmpty()) {
      // What comes next: with scenes at hand, calibrating them rather than assembling more.
      boolean gathered = stage == Stage.GATHER && !workspace.of(stage).isEmpty();
      tool = gathered ? "calibrate" : steps.getFirst().id();
    }
    for (StepSpec step : steps) {
      if (WITHIN_OTHERS.contains(step.id())) {
        continue;
      }
      Button tab = tab(step.title(), view.equals("Tool") && step.id().equals(tool));
      tab.setId("tool-" + step.id());
      tab.setOnAction(e -> {
        picture.trials().clearTrial();
        tool = step.id();
        toolChosen = true;
        view = "Tool";
        rebuild();
      });
      head.getChildren().add(tab);
    }
    Region bar = new Region();
    bar.setStyle(
        "-fx-background-color: -k-line; -fx-min-width: 1; -fx-pref-width: 1; -fx-max-height: 16;");
    head.getChildren().add(bar);
    for (String name : List.of("Table", "Run sheet")) {
      Button tab = tab(name, view.equals(name));
      tab.setId("view-" + name.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'));
      tab.setOnAction(e -> {
        view = name;
        rebuild();
      });
      head.getChildren().add(tab);
    }
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    Button fold = tab(folded ? "Open" : "Fold", false);
    fold.setId("fold");
    fold.setOnAction(e -> toggleFold());
    head.getChildren().addAll(gap, fold);
    content.getChildren().setAll(body());
    boolean tying = view.equals("Tool") && tool.equals("tiepoints");
    workspace.bothPanesHeldProperty().set(tying);
    boolean laying = view.equals("Tool") && tool.equals("mosaic");
    boolean profiling = view.equals("Tool") && tool.equals("profiles");
    if (!profiling && !(view.equals("Tool") && tool.equals("builtup"))) {
      picture.clearOver();
    }
    PaneTool used = laying ? seamMarks : profiling ? profileMarks : isPicking() ? pickMarks : null;
    picture.setTool(tying ? marks : used);
    if (tying && workspace.paneBProperty().get() != null) {
      workspace.compareProperty().set(Workspace.Compare.SIDE_BY_SIDE);
    }
  }

  /** Places of spectral profiles; null before their tool was first in hand. */
  public ProfileModel profiles() {
    return profiles;
  }

  /** What is picked from a tree; null before its tool was first in hand. */
  public PickModel picks() {
    return picks;
  }

  /** Sets the other half of a tie point where it is expected, or accepts the picked object. */
  public void takeExpected() {
    if (isPicking()) {
      picks.accept();
    } else {
      ties.takeExpected();
    }
  }

  /** Switches the tie point that is picked off. */
  public void switchPointOff() {
    if (ties.selectedProperty().get() >= 0) {
      ties.switchOff(ties.selectedProperty().get());
    }
  }

  /** Gives up the tie point that is half set. */
  public void dropPending() {
    ties.dropPending();
  }

  private static Button tab(String text, boolean chosen) {
    Button tab = new Button(text);
    tab.getStyleClass().add("tool-tab");
    if (chosen) {
      tab.getStyleClass().add("chosen");
    }
    tab.setMinWidth(Region.USE_PREF_SIZE);
    return tab;
  }

  private Node body() {
    return switch (view) {
      case "Table" -> tablePanel;
      case "Run sheet" -> runSheet();
      default -> panels.computeIfAbsent(tool, this::panel);
    };
  }

  private Node panel(String id) {
    StepSpec step = StepCatalogue.get(id);
    return switch (id) {
      case "winnow" -> new WinnowPanel(workspace, picture);
      case "pick-objects" -> {
        picks = new PickModel(workspace);
        pickMarks = new PickMarks(workspace, picks);
        yield new PickPanel(workspace, picture, picks);
      }
      case "segment" -> {
        grain = new GrainPanel(workspace, picture);
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        HBox.setHgrow(panel, Priority.ALWAYS);
        grain.setPrefWidth(280);
        grain.setMinWidth(280);
        yield new HBox(10, grain, panel);
      }
      case "tiepoints" -> new TiePanel(workspace, picture, ties, marks);
      case "mosaic" -> new MosaicPanel(workspace, picture, seams, seamMarks);
      case "stack" -> new StackPanel(workspace, step);
      case "profiles" -> {
        profiles = new ProfileModel(workspace);
        profileMarks = new ProfileMarks(workspace, profiles);
        profiles.places().addListener((javafx.collections.ListChangeListener<ProfileModel.Place>)
            change -> picture.repaint());
        yield new ProfilePanel(workspace, picture, profiles);
      }
      case "texture" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, new TextureCard(workspace, picture, panel), panel);
      }
      case "builtup" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, new ThresholdCard(workspace, picture, panel), panel);
      }
      case "pansharpen" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        RatingCard ratings = new RatingCard(workspace, picture, panel);
        ratings.choose("adaptive");
        panel.onSettings(
            () -> ratings.choose(panel.settingTexts().getOrDefault("method", "adaptive")));
        panel.onTried(sharp -> sharp
            .attachments()
            .get(PanModel.class)
            .ifPresent(model -> panel
                .settings()
                .hint(
                    "weights",
                    model.weightsText().isEmpty() ? "none" : "auto " + model.weightsText())));
        panel.onRanking(setting -> setting.equals("method") ? ratings.ranking() : List.of());
        ratings.onTaken(method -> {
          panel.settings().set("method", method);
          panel.tryHere();
        });
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, ratings, panel);
      }
      case "compare" -> {
        StepPanel panel = new StepPanel(workspace, picture, step);
        ScoresPanel scores = new ScoresPanel(workspace);
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, scores, panel);
      }
      default -> new StepPanel(workspace, picture, step);
    };
  }

  private Node runSheet() {
    Result result = workspace.paneAProperty().get();
    TextArea text =
        new TextArea(result == null ? "" : Json.pretty(workspace.sheetOf(result).toJson()));
    text.setId("run-sheet");
    text.setEditable(false);
    text.setStyle(
        "-fx-font-family: 'IBM Plex Mono'; -fx-font-size: 12px; -fx-control-inner-background: -k-card; -fx-text-fill: -k-text;");
    return text;
  }

  private void fillTable(Result result) {
    if (view.equals("Run sheet")) {
      rebuild();
    }
    geometry = null;
    colourBy.getItems().clear();
    legend.hide();
    if (result == null) {
      return;
    }
    switch (result.value()) {
      case ObjectSet set -> {
        table.show(set.table(), set.ids());
        colourBy
            .getItems()
            .setAll(set.table().columns().stream().map(Table.Column::title).toList());
      }
      case OutlineSet outlines -> {
        int[] ids = new int[outlines.count()];
        java.util.Arrays.setAll(ids, i -> i + 1);
        table.show(outlines.table(), ids);
      }
      case Scores scores -> {}
      default -> {}
    }
  }

  private void colour() {
    Result result = workspace.paneAProperty().get();
    String title = colourBy.getValue();
    if (result == null || !(result.value() instanceof ObjectSet set) || title == null) {
      return;
    }
    Table.Column column = set.table().columns().stream()
        .filter(c -> c.title().equals(title))
        .findFirst()
        .orElseThrow();
    double low = set.table().quantile(column.name(), 0.02);
    double high = set.table().quantile(column.name(), 0.98);
    legend.show(low, high, column.unit());
    int[] fill = new int[set.count()];
    for (int i = 0; i < fill.length; i++) {
      double v = column.values()[i];
      fill[i] = Double.isNaN(v)
          ? 0
          : Ramp.colour((v - low) / Math.max(1e-12, high - low)) & 0x00ffffff | 0xd0000000;
    }
    picture.paint(ObjectPaint.of(set).coloured(fill, new boolean[set.count()]));
  }

  private void bringIntoView(int row) {
    Result result = workspace.paneAProperty().get();
    if (result == null || !(result.value() instanceof ObjectSet set) || row < 0) {
      return;
    }
    workspace
        .tasks()
        .run(
            "Finding object",
            job -> geometry == null ? ObjectGeometry.of(set) : geometry,
            found -> {
              geometry = found;
              Window at = found.bounds(row);
              picture.centreOn(at.x() + at.width() / 2.0, at.y() + at.height() / 2.0);
            },
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }
}
