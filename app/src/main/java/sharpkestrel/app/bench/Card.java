package sharpkestrel.app.bench;

import javafx.scene.Node;
import javafx.scene.layout.VBox;

/** Parts of a panel that belong together, one above the other, on ground of their own; shrinks where it must. */
final class Card extends VBox {

  Card(double spacing, Node... parts) {
    super(spacing, parts);
    getStyleClass().add("card");
    setMinHeight(0);
  }
}
