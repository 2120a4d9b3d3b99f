package sharpkestrel.app.tools.tie;

import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.place.fit.Advice;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.ModelKind;

/**
 * The models with two bars each: the error of the fit, and beneath it the error at points left out, which grows where a
 * model bends. A click chooses one.
 */
final class ModelBars extends GridPane {

  private static final double LONGEST = 110;
  /** With more rows than fit the bench they stand closer. */
  private static final int MOST_ROWS = 10;

  private final Consumer<ModelKind> chosen;

  ModelBars(Consumer<ModelKind> chosen) {
    super(8, 0);
    this.chosen = chosen;
    setId("tie-models");
    getColumnConstraints().setAll(width(138), width(LONGEST + 6), width(46), width(56));
    show(Optional.empty(), Optional.empty());
  }

  private static javafx.scene.layout.ColumnConstraints width(double width) {
    var column = new javafx.scene.layout.ColumnConstraints(width);
    column.setHgrow(Priority.NEVER);
    return column;
  }

  void show(Optional<Advice> advice, Optional<Fit> fit) {
    getChildren().clear();
    addRow(0, soft("Model"), soft("RMS in pixels"), soft("fit"), soft("left out"));
    double largest = advice.stream()
        .flatMap(a -> a.fits().stream())
        .filter(f -> f.kind() != ModelKind.SHIFT && f.kind() != ModelKind.UNCHANGED)
        .mapToDouble(f -> Double.isNaN(f.leftOut()) ? f.rms() : Math.max(f.rms(), f.leftOut()))
        .max()
        .orElse(1);
    int row = 1;
    for (ModelKind kind : ModelKind.values()) {
      Optional<Fit> of =
          advice.flatMap(a -> a.fits().stream().filter(f -> f.kind() == kind).findFirst());
      boolean placed =
          advice.isPresent() && advice.get().fits().getFirst().kind() == ModelKind.UNCHANGED;
      if (of.isEmpty() && (kind == ModelKind.UNCHANGED || kind == ModelKind.CAMERA && placed)) {
        continue;
      }
      Label name = new Label(kind.label());
      name.setId("tie-model-" + kind.name().toLowerCase(Locale.ROOT));
      boolean now = fit.isPresent() && fit.get().kind() == kind;
      boolean advised = advice.isPresent() && advice.get().fit().kind() == kind;
      name.getStyleClass().add(now ? "model-chosen" : of.isPresent() ? "model" : "soft");
      name.setMaxWidth(Double.MAX_VALUE);
      if (advised) {
        name.setText(kind.label() + " \u2022");
      }
      VBox bars = new VBox(1);
      bars.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
      of.ifPresent(f -> {
        bars.getChildren().add(bar(f.rms(), largest, "bar-fit"));
        if (!Double.isNaN(f.leftOut())) {
          double bends = f.leftOut() / Math.max(f.rms(), 1e-9);
          boolean bad = f.leftOut() > 1.1 * advice.get().fit().leftOut() && bends > 1.25;
          bars.getChildren().add(bar(f.leftOut(), largest, bad ? "bar-bends" : "bar-left-out"));
        }
      });
      add(name, 0, row);
      add(bars, 1, row);
      add(number(of.map(Fit::rms)), 2, row);
      add(number(of.map(Fit::leftOut)), 3, row);
      if (of.isPresent()) {
        for (var node :
            getChildren().subList(getChildren().size() - 4, getChildren().size())) {
          node.setOnMouseClicked(e -> chosen.accept(kind));
        }
      }
      row++;
    }
    getStyleClass().remove("dense");
    if (row > MOST_ROWS) {
      getStyleClass().add("dense");
    }
  }

  private static Region bar(double value, double largest, String style) {
    Region bar = new Region();
    bar.getStyleClass().add(style);
    double width = Math.max(2, LONGEST * Math.min(1, value / largest));
    bar.setMinSize(width, 5);
    bar.setMaxSize(width, 5);
    return bar;
  }

  private static Label number(Optional<Double> value) {
    boolean known = value.isPresent() && !Double.isNaN(value.get());
    Label label = new Label(
        known
            ? String.format(Locale.ROOT, value.get() < 99.95 ? "%.2f" : "%.0f", value.get())
            : "\u2013");
    label.getStyleClass().add("mono");
    return label;
  }

  private static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    return label;
  }
}
