package sharpkestrel.app.tools.samples;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.flow.StepCatalogue;

/** Classes, what the drawn areas are worth, and the settings by which all other pixels are told. */
final class PixelsPanel extends HBox implements InHand {

  private static final double WORTH_WIDTH = 196;
  private static final String SAMPLES = "samples";

  private final Desk desk;
  private final AreasModel model;
  private final ClassCard classes;
  private final StepPanel panel;
  private final VBox lines = new VBox(4);
  private boolean inHand;
  private boolean tried;

  PixelsPanel(Desk desk, Watch watch, AreasModel model, AreaMarks marks) {
    super(10);
    this.desk = desk;
    this.model = model;
    classes = new ClassCard(desk, model);
    classes.card().getChildren().add(strokes(marks));
    panel = new StepPanel(desk, watch, StepCatalogue.get("classify-pixels")).brief();
    HBox.setHgrow(panel, Priority.ALWAYS);
    Label heading = Words.heading("What it is worth");
    Card worth = new Card(6, heading, lines);
    worth.setMinWidth(WORTH_WIDTH);
    worth.setPrefWidth(WORTH_WIDTH);
    getChildren().addAll(classes.card(), worth, panel);
    model.book().classesProperty().addListener((p, before, now) -> classes.refresh());
    model.currentProperty().addListener((p, before, now) -> classes.refresh());
    model.book().samplesProperty().addListener((p, before, now) -> changed());
    model.worthProperty().addListener((p, before, now) -> showWorth());
    model.whyProperty().addListener((p, before, now) -> showWorth());
    panel.onTried(raster -> tried = true);
    panel.onSettings(this::weigh);
    watch.on(desk.workspace().display().paneAProperty(), now -> {
      classes.refresh();
      takeSamples();
    });
    classes.refresh();
    showWorth();
  }

  /** What a drag draws, and how wide a brush is. */
  private static VBox strokes(AreaMarks marks) {
    Slider width = new Slider(3, 60, 12);
    width.setId("brush-width");
    Label says = Words.number("12 px");
    says.setMinWidth(Label.USE_PREF_SIZE);
    width.valueProperty().addListener((p, before, now) -> {
      marks.setBrush(now.doubleValue());
      says.setText(String.format(Locale.ROOT, "%.0f px", now.doubleValue()));
    });
    HBox brush = new HBox(6, width, says);
    HBox.setHgrow(width, Priority.ALWAYS);
    ToggleGroup group = new ToggleGroup();
    HBox row = new HBox(4);
    for (AreaMarks.Stroke each : AreaMarks.Stroke.values()) {
      ToggleButton button = new ToggleButton(each.title());
      button.setId("stroke-" + each.name().toLowerCase(Locale.ROOT));
      button.setToggleGroup(group);
      button.setMinWidth(Region.USE_PREF_SIZE);
      button.setSelected(each == AreaMarks.Stroke.HAND);
      button.setOnAction(e -> {
        // one of them always is
        button.setSelected(true);
        marks.setStroke(each);
        brush.setVisible(each == AreaMarks.Stroke.BRUSH);
      });
      row.getChildren().add(button);
    }
    brush.setVisible(false);
    brush.managedProperty().bind(brush.visibleProperty());
    return new VBox(4, row, brush);
  }

  @Override
  public void setInHand(boolean now) {
    inHand = now;
    if (now) {
      changed();
    } else {
      desk.workspace().lanes().trial().drop(model);
    }
  }

  /** Another sample: what it is worth is seen again, and what was tried is tried again. */
  private void changed() {
    classes.refresh();
    desk.picture().repaint();
    if (inHand) {
      takeSamples();
      weigh();
      if (tried && model.worthProperty().get().isEmpty()) {
        panel.tryHere();
      }
    }
  }

  private void takeSamples() {
    String file = model.file();
    boolean chosen = panel.inputs().results().containsKey(SAMPLES);
    if (!chosen && !file.equals(panel.inputs().files().getOrDefault(SAMPLES, ""))) {
      panel.inputs().choose(SAMPLES, file);
    }
  }

  private void weigh() {
    if (!inHand) {
      return;
    }
    Map<String, Result> results = new HashMap<>(panel.inputs().results());
    Map<String, String> files = new HashMap<>(panel.inputs().files());
    results.remove("model");
    files.remove("model");
    model.weigh(results, files, panel.settingTexts());
  }

  private void showWorth() {
    lines.getChildren().clear();
    if (model.worthProperty().get().isEmpty()) {
      lines
          .getChildren()
          .addAll(
              Words.soft(model.whyProperty().get()),
              Words.soft(
                  "Drag to draw, or click corners and press Enter; Alt and a click take a sample away."));
      return;
    }
    Confusion confusion = model.worthProperty().get().get();
    Label right =
        new Label(String.format(Locale.ROOT, "%.0f %% right", 100 * confusion.accuracy()));
    right.getStyleClass().add("big");
    right.setId("pixels-right");
    right.setMinWidth(Label.USE_PREF_SIZE);
    lines
        .getChildren()
        .addAll(
            right,
            Words.soft(String.format(
                Locale.ROOT, "of %.0f pixels on kept-back ground", confusion.count())));
    GridPane grid = new GridPane(10, 3);
    for (int k = 0; k < confusion.classes().size(); k++) {
      String ofClass = confusion.classes().get(k);
      grid.addRow(
          k,
          new Circle(5, model.book().colourOf(ofClass)),
          new Label(ofClass),
          Words.number(WorthCard.f1(confusion, ofClass)));
    }
    lines.getChildren().add(grid);
    WorthCard.mistake(confusion).ifPresent(text -> lines.getChildren().add(Words.soft(text)));
  }
}
