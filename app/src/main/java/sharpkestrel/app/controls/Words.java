package sharpkestrel.app.controls;

import javafx.scene.control.Label;

/** Small parts that panels share. */
public final class Words {

  private Words() {}

  /** A line of explanation, in as many lines as it takes. */
  public static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    label.setWrapText(true);
    return label;
  }

  public static Label number(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("mono");
    return label;
  }

  /** What stands over a card. */
  public static Label heading(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("title");
    return label;
  }
}
