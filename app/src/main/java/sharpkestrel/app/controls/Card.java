package sharpkestrel.app.controls;

import javafx.scene.Node;
import javafx.scene.layout.VBox;

/** Parts of a panel that belong together, one above the other, on ground of their own; shrinks where it must. */
public final class Card extends VBox {

  public Card(double spacing, Node... parts) {
    super(spacing, parts);
    getStyleClass().add("card");
    setMinHeight(0);
  }
}
