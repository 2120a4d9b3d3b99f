package sharpkestrel.app.tools.tie;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.Fit.Residual;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.place.fit.TiePoints;

/** Residuals of all points, sorted by any column; a click on a line picks its point, one on its use changes that. */
final class ResidualList extends VBox {

  private static final double[] WIDTHS = {34, 52, 52, 52, 46};

  private final TieModel model;
  private final HBox head = new HBox();
  private final List<Residual> shown = new ArrayList<>();
  private Comparator<Residual> order =
      Comparator.comparingDouble(Residual::length).reversed();
  private TiePoints points;
  private Optional<Fit> fit = Optional.empty();

  ResidualList(TieModel model) {
    this.model = model;
    setId("tie-residuals");
    sorter("no.", 0, Comparator.comparingInt(r -> r.point().id()));
    sorter("x", 1, Comparator.comparingDouble((Residual r) -> Math.abs(r.dx())).reversed());
    sorter("y", 2, Comparator.comparingDouble((Residual r) -> Math.abs(r.dy())).reversed());
    sorter("px", 3, Comparator.comparingDouble(Residual::length).reversed());
    sorter("use", 4, Comparator.comparing(r -> r.point().use()));
  }

  private void sorter(String text, int column, Comparator<Residual> by) {
    Label label = cell(text, column, "soft");
    label.setId("tie-sort-" + text.replace(".", ""));
    label.setOnMouseClicked(e -> {
      order = by;
      show(points, fit);
    });
    head.getChildren().add(label);
  }

  /** The line of titles, to stand above what scrolls. */
  Node head() {
    return head;
  }

  private static Label cell(String text, int column, String style) {
    Label label = new Label(text);
    label.getStyleClass().add(style);
    label.setMinWidth(WIDTHS[column]);
    label.setPrefWidth(WIDTHS[column]);
    return label;
  }

  void show(TiePoints now, Optional<Fit> newFit) {
    points = now;
    fit = newFit;
    getChildren().clear();
    shown.clear();
    if (now == null) {
      return;
    }
    if (fit.isPresent() && fit.get().residuals().size() == now.points().size()) {
      shown.addAll(fit.get().residuals());
    } else {
      now.points().forEach(p -> shown.add(new Residual(p, Double.NaN, Double.NaN, Double.NaN)));
    }
    shown.sort(order);
    for (Residual residual : shown) {
      getChildren().add(line(residual));
    }
    select(model.selectedProperty().get());
  }

  private Node line(Residual residual) {
    int id = residual.point().id();
    boolean off = residual.point().use() == Use.OFF;
    boolean far = fit.isPresent() && !off && residual.length() > 3 * fit.get().rms();
    String style = off ? "mono-soft" : "mono";
    Label use = cell(
        switch (residual.point().use()) {
          case CONTROL -> "on";
          case CHECK -> "check";
          case OFF -> "off";
        },
        4,
        "link");
    use.setId("tie-use-" + id);
    use.setOnMouseClicked(e -> {
      model.cycle(id);
      e.consume();
    });
    HBox line = new HBox(
        cell(Integer.toString(id), 0, style),
        cell(signed(residual.dx()), 1, style),
        cell(signed(residual.dy()), 2, style),
        cell(
            Double.isNaN(residual.dx())
                ? "\u2013"
                : String.format(Locale.ROOT, "%.2f", residual.length()),
            3,
            far ? "mono-far" : style),
        use);
    line.setAlignment(Pos.CENTER_LEFT);
    line.setId("tie-line-" + id);
    line.getStyleClass().add("list-line");
    line.setOnMouseClicked(e -> model.selectedProperty().set(id));
    return line;
  }

  private static String signed(double value) {
    return Double.isNaN(value) ? "\u2013" : String.format(Locale.ROOT, "%+.2f", value);
  }

  void select(int id) {
    for (Node node : getChildren()) {
      node.getStyleClass().remove("chosen");
      if (node.getId().equals("tie-line-" + id)) {
        node.getStyleClass().add("chosen");
      }
    }
  }
}
