package sharpkestrel.app.tools.segment;

import java.util.LinkedHashMap;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.NaturalGrains;

/** The grain of the tree in pane A as a slider: every position is another cut, drawn at once. */
final class GrainPanel extends VBox {

  /** Pixels of the finest and of the coarsest grain. */
  private static final double LEAST_PIXELS = 8;

  private static final double MOST_PIXELS = 20_000;

  private static final String NATURAL = "natural grains";

  private final Label unit = new Label("m²");
  private double least = LEAST_PIXELS;
  private double most = MOST_PIXELS;

  private final Workspace workspace;
  private final PictureView picture;
  private final Slider slider = new Slider(0, 1, 0.5);
  private final TextField number = new TextField();
  private final Label count = new Label();
  private final Label note = new Label("Slide until the outlines follow the things you are after.");
  private final Button keep = new Button("Keep");
  private final GrainCurve curve;
  private NaturalGrains natural;
  private Cut shown;
  private boolean setting;
  private boolean cutting;
  private boolean keptAfter;

  GrainPanel(Desk desk, Watch watch) {
    workspace = desk.workspace();
    picture = desk.picture();
    getStyleClass().add("card");
    setSpacing(6);
    Label title = new Label("Grain");
    title.getStyleClass().add("title");
    count.getStyleClass().add("big");
    note.getStyleClass().add("soft");
    note.setWrapText(true);
    slider.setId("grain");
    slider.setBlockIncrement(0.02);
    number.setId("grain-number");
    number.setPrefWidth(64);
    number.setMinWidth(64);
    keep.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    unit.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    keep.setId("keep-grain");
    keep.getStyleClass().add("primary");
    HBox.setHgrow(slider, Priority.ALWAYS);
    HBox row = new HBox(8, slider, number, unit, keep);
    row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    curve = new GrainCurve(258, 68, this::slide);
    getChildren().addAll(title, row, curve, count, note);
    slider.valueProperty().addListener((p, before, now) -> slide(grainAt(now.doubleValue())));
    number.setOnAction(e -> {
      try {
        slide(Math.max(least, Math.min(most, Double.parseDouble(number.getText().strip()))));
      } catch (NumberFormatException notANumber) {
        note.setText("The grain is a number of "
            + ("px".equals(unit.getText()) ? "pixels" : "square metres") + ", e.g. 60.");
      }
    });
    keep.setOnAction(e -> keep());
    watch.on(workspace.display().paneAProperty(), now -> refresh());
    refresh();
  }

  private double grainAt(double share) {
    return least * Math.pow(most / least, share);
  }

  private Cut cut() {
    Result result = workspace.display().paneAProperty().get();
    return result != null && result.value() instanceof Cut cut ? cut : null;
  }

  private void refresh() {
    Cut cut = cut();
    setDisable(cut == null);
    shown = cut;
    natural = null;
    workspace.lanes().trial().drop(this);
    cutting = false;
    if (cut == null) {
      curve.show(null, least, least, most, unit.getText());
      count.setText("");
      note.setText("Run the segmentation, or click a segmented result in the trail.");
      return;
    }
    least = LEAST_PIXELS * cut.ground().area();
    most = MOST_PIXELS * cut.ground().area();
    unit.setText(cut.ground().areaUnit());
    show(cut);
    double from = least;
    double to = most;
    workspace
        .lanes()
        .trial()
        .ask(
            NATURAL,
            "",
            job -> NaturalGrains.of(cut, from, to),
            found -> {
              if (cut() == cut) {
                natural = found;
                show(shown);
              }
            },
            failure -> note.setText(failure.getMessage()));
  }

  private record Sliced(Cut cut, ObjectPaint paint) {}

  /** Cuts the tree at another grain, away from the interface thread; while a slider moves the newest counts. */
  private void slide(double grain) {
    Cut cut = cut();
    if (cut == null || setting) {
      return;
    }
    cutting = true;
    keptAfter = false;
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "",
            job -> {
              Cut other = cut.withGrain(grain);
              return new Sliced(other, ObjectPaint.of(other));
            },
            made -> {
              cutting = false;
              if (cut() == cut) {
                shown = made.cut();
                picture.paint(made.paint());
                show(shown);
                if (keptAfter) {
                  keep();
                }
              }
            },
            failure -> note.setText(failure.getMessage()));
  }

  /** Draws the grain that was slid to and not kept, where there is one. */
  void paint() {
    if (shown != null && shown != cut()) {
      picture.paint(ObjectPaint.of(shown));
    }
  }

  /** Draws the grain that is kept. */
  void paintAsKept() {
    if (shown != null && shown != cut()) {
      picture.paintAsFirst();
    }
  }

  /** Puts the cut that is shown in the place of the one that is kept; the same objects keep their numbers. */
  private void keep() {
    keptAfter = cutting;
    if (cutting) {
      // what was slid to is kept as soon as it is cut
      return;
    }
    Result result = workspace.display().paneAProperty().get();
    Map<String, String> settings = new LinkedHashMap<>(result.settings());
    settings.put("grain", SettingValues.plain(shown.grain()));
    settings.remove("height");
    workspace.change("grain " + number.getText(), result, settings, shown);
  }

  /** One step finer or coarser, for the keys. */
  public void step(int direction) {
    slider.setValue(slider.getValue() + 0.03 * direction);
  }

  private void show(Cut cut) {
    if (!slider.isValueChanging()) {
      setting = true;
      slider.setValue(Math.log(cut.grain() / least) / Math.log(most / least));
      setting = false;
    }
    curve.show(natural, cut.grain(), least, most, unit.getText());
    number.setText(
        String.format(java.util.Locale.ROOT, cut.grain() < 10 ? "%.1f" : "%.0f", cut.grain()));
    count.setText(Result.grouped(cut.objects()) + " objects");
    note.setText(
        natural == null || natural.natural().isEmpty()
            ? "Slide until the outlines follow the things you are after. [ and ] step."
            : "Slide, or click a natural grain: few things merge there.");
  }
}
