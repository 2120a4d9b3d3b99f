package sharpkestrel.app.tools.mosaic;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.place.mosaic.Mosaic;
import sharpkestrel.raster.Job;

/** A mosaic: its scenes and rules, its seams with how much they show, and the tools that change them on the picture. */
final class MosaicPanel extends HBox {

  private static final String HINT =
      "Find the seams, then drag their corners, or draw around what a scene should show.";

  private final Workspace workspace;
  private final PictureView picture;
  private final SeamModel model;
  private final SeamMarks marks;
  private final StepSpec step = StepCatalogue.get("mosaic");
  private final StepPanel panel;
  private final Label shows = new Label("\u2013");
  private final Label note = new Label(HINT);
  private final ComboBox<Integer> scene = new ComboBox<>();
  private final ToggleButton give = new ToggleButton("Give it to");
  private final ToggleButton leave = new ToggleButton("Leave it out");
  private final ToggleButton cut = new ToggleButton("Cut to it");
  private final Button again = new Button("Drawn before");
  private List<Object> scenes = List.of();

  MosaicPanel(Desk desk, Watch watch, SeamModel model, SeamMarks marks) {
    super(10);
    workspace = desk.workspace();
    picture = desk.picture();
    this.model = model;
    this.marks = marks;
    panel = new StepPanel(desk, watch, step);
    HBox.setHgrow(panel, Priority.ALWAYS);
    getChildren().addAll(card(), panel);
    panel.inputs().onChange(this::takeScenes);
    model.stateProperty().addListener((p, before, now) -> show(before, now));
    model.leftOutProperty().addListener((p, before, now) -> {
      panel.inputs().choose("left-out", now == null ? "" : model.leftOutFile().toString());
      find();
    });
    model
        .interestProperty()
        .addListener((p, before, now) -> panel
            .inputs()
            .choose("area-of-interest", now == null ? "" : model.interestFile().toString()));
    takeScenes();
    show(null, model.stateProperty().get());
  }

  private VBox card() {
    Label title = new Label("Seams");
    title.getStyleClass().add("title");
    shows.getStyleClass().add("big");
    shows.setId("seam-visibility");
    note.getStyleClass().add("soft");
    note.setWrapText(true);
    note.setMinHeight(Region.USE_PREF_SIZE);
    Button find = new Button("Find seams");
    find.setId("mosaic-find");
    find.setOnAction(e -> find());
    find.setMinWidth(USE_PREF_SIZE);
    give.setId("mosaic-give");
    leave.setId("mosaic-leave");
    ToggleGroup drawing = new ToggleGroup();
    give.setToggleGroup(drawing);
    leave.setToggleGroup(drawing);
    cut.setId("mosaic-cut");
    cut.setToggleGroup(drawing);
    drawing.selectedToggleProperty().addListener((p, before, now) -> takeInHand());
    scene.setId("mosaic-scene");
    scene.valueProperty().addListener((p, before, now) -> takeInHand());
    scene.setConverter(new javafx.util.StringConverter<>() {
      @Override
      public String toString(Integer number) {
        return number == null || number > scenes.size()
            ? "scene"
            : number + "  " + titleOf(scenes.get(number - 1));
      }

      @Override
      public Integer fromString(String text) {
        return null;
      }
    });
    scene.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(scene, Priority.ALWAYS);
    Label drawn = new Label("Draw:");
    drawn.getStyleClass().add("soft");
    HBox leaving = new HBox(6, drawn, leave, cut);
    leaving.setAlignment(Pos.CENTER_LEFT);
    HBox giving = new HBox(6, give, scene);
    give.setMinWidth(USE_PREF_SIZE);
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    Region between = new Region();
    HBox.setHgrow(between, Priority.ALWAYS);
    again.setId("mosaic-again");
    again.setMinWidth(USE_PREF_SIZE);
    again.managedProperty().bind(again.visibleProperty());
    again.setVisible(false);
    again.setOnAction(e -> begin(model::takeUp));
    HBox head = new HBox(8, title, between, again, find);
    head.setAlignment(Pos.CENTER_LEFT);
    VBox card = new VBox(4, head, shows, note, gap, leaving, giving);
    card.getStyleClass().add("card");
    card.setMinWidth(270);
    card.setPrefWidth(270);
    return card;
  }

  private static String keyOf(Object chosen) {
    return chosen instanceof Result result ? result.name() : chosen.toString();
  }

  private static String titleOf(Object chosen) {
    return chosen instanceof Result result
        ? result.title()
        : String.valueOf(((java.nio.file.Path) chosen).getFileName());
  }

  /** Puts the lasso in hand, or away. */
  void takeInHand() {
    int number = scene.getValue() == null ? 1 : scene.getValue();
    if (give.isSelected()) {
      marks.draw(area -> drawn(() -> model.give(area, number)));
    } else if (leave.isSelected()) {
      marks.draw(area -> drawn(() -> model.leaveOut(area)));
    } else if (cut.isSelected()) {
      marks.draw(area -> drawn(() -> model.cutTo(area)));
    } else {
      marks.draw(null);
    }
    picture.repaint();
  }

  private void drawn(Runnable change) {
    if (model.stateProperty().get() == null) {
      workspace.messages().tell("Find the seams first; then areas can be drawn over them.");
    } else {
      change.run();
    }
  }

  /** Seams belong to the scenes they were found for, in their order. */
  private void takeScenes() {
    List<Object> now = panel.inputs().chosen("scenes");
    if (now.equals(scenes)) {
      return;
    }
    scenes = now;
    Integer before = scene.getValue();
    scene
        .getItems()
        .setAll(java.util.stream.IntStream.rangeClosed(1, now.size()).boxed().toList());
    scene.setValue(before != null && before <= now.size() ? before : now.isEmpty() ? null : 1);
    model.take(now.stream().map(MosaicPanel::keyOf).toList());
    again.setVisible(model.hasKept());
  }

  private void find() {
    begin(model::find);
  }

  private void begin(Consumer<Function<Job, Mosaic>> how) {
    if (scenes.isEmpty()) {
      workspace.messages().tell("Choose the scenes to lay together first.");
      return;
    }
    Map<String, Result> results = panel.inputs().results();
    Map<String, String> files = panel.inputs().files();
    files.remove("seam-areas");
    Map<String, String> settings = panel.settingTexts();
    settings.remove("overlap");
    workspace.messages().clear();
    how.accept(job -> (Mosaic) step.make(ResultMaker.values(step, results, files), settings));
  }

  private void show(SeamModel.State before, SeamModel.State now) {
    if (now == null) {
      shows.setText("\u2013");
      note.setText(HINT);
      panel.inputs().choose("seam-areas", "");
    } else {
      if (before == null) {
        picture.fitNext();
      }
      if (before == null || before.areas() != now.areas()) {
        panel.inputs().choose("seam-areas", model.areasFile().toString());
      }
      shows.setText(now.visibility()
          .map(v -> String.format(Locale.ROOT, "%.2f %%", v.after()))
          .orElse("\u2026"));
      note.setText(now.visibility().map(MosaicPanel::words).orElse("Measuring the seams."));
    }
    picture.repaint();
  }

  private static String words(SeamVisibility v) {
    if (v.blocks() == 0) {
      return "No seam: the scenes do not overlap, or one shows all.";
    }
    return String.format(
        Locale.ROOT,
        "of the range between the scenes along the seams, %.1f %% before; %d blocks of %.0f m",
        v.before(),
        v.blocks(),
        v.metres());
  }
}
