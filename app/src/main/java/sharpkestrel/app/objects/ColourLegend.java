package sharpkestrel.app.objects;

import java.util.Locale;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.HBox;
import javafx.scene.shape.Circle;
import sharpkestrel.app.tools.ChoicePainter;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.app.viewer.Ramp;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.Table;

/**
 * The colours of a feature: a ramp with both its ends, or the classes of a column of texts, a click on one of which chooses
 * it. Hidden while nothing is coloured.
 */
final class ColourLegend extends HBox {

  private static final int WIDTH = 110;
  private static final int HEIGHT = 10;
  private static final int MOST_CLASSES = 5;
  private static final double WIDEST_CLASS = 84;

  private final Label low = new Label();
  private final Label high = new Label();
  private final ImageView ramp;
  private final Consumer<String> chosen;

  /**
   * @param chosen told the test that a class passes when it is clicked
   */
  ColourLegend(Consumer<String> chosen) {
    super(6);
    this.chosen = chosen;
    setAlignment(Pos.CENTER_LEFT);
    setId("colour-legend");
    low.getStyleClass().add("mono");
    high.getStyleClass().add("mono");
    low.setMinWidth(USE_PREF_SIZE);
    high.setMinWidth(USE_PREF_SIZE);
    WritableImage image = new WritableImage(WIDTH, HEIGHT);
    for (int x = 0; x < WIDTH; x++) {
      for (int y = 0; y < HEIGHT; y++) {
        image.getPixelWriter().setArgb(x, y, Ramp.colour(x / (WIDTH - 1.0)));
      }
    }
    ramp = new ImageView(image);
    hide();
  }

  void show(Table table, Table.Column column) {
    if (column.isText()) {
      getChildren().clear();
      int shown = Math.min(MOST_CLASSES, column.categories().size());
      for (int k = 0; k < shown; k++) {
        getChildren().add(classLabel(column, k));
      }
      if (shown < column.categories().size()) {
        Label more = new Label("+" + (column.categories().size() - shown));
        more.getStyleClass().add("soft");
        more.setMinWidth(USE_PREF_SIZE);
        getChildren().add(more);
      }
    } else {
      double from = table.quantile(column.name(), ChoicePainter.TAIL);
      double to = table.quantile(column.name(), 1 - ChoicePainter.TAIL);
      low.setText(String.format(Locale.ROOT, "\u2264 %.4g", from));
      high.setText(
          String.format(Locale.ROOT, "\u2265 %.4g %s", to, column.unit()).strip());
      getChildren().setAll(low, ramp, high);
    }
    setVisible(true);
    setManaged(true);
  }

  private Label classLabel(Table.Column column, int category) {
    String text = column.categories().get(category);
    Label label = new Label(text, new Circle(5, Palette.of(category)));
    label.setCursor(Cursor.HAND);
    label.setMinWidth(0);
    label.setMaxWidth(WIDEST_CLASS);
    label.setTooltip(new Tooltip(text + ": click to choose these only"));
    label.setOnMouseClicked(e -> chosen.accept(test(column, text)));
    return label;
  }

  private static String test(Table.Column column, String text) {
    return new Expression.Comparison(
            "=", new Expression.Property(column.name()), new Expression.Text(text))
        .toText();
  }

  void hide() {
    setVisible(false);
    setManaged(false);
  }
}
