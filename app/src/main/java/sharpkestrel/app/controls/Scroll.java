package sharpkestrel.app.controls;

import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** What scrolls in a card. */
public final class Scroll {

  private Scroll() {}

  /** Scrolls up and down where there is too little room, is as wide as its card, and takes what height there is. */
  public static ScrollPane down(Node what) {
    ScrollPane scroll = new ScrollPane(what);
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    return scroll;
  }
}
