package sharpkestrel.app.tools.samples;

import javafx.scene.control.Label;

/** Small parts that the cards share. */
final class Words {

  private Words() {}

  /** A line of explanation, in as many lines as it takes. */
  static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    label.setWrapText(true);
    return label;
  }

  static Label number(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("mono");
    return label;
  }
}
