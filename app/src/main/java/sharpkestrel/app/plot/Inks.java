package sharpkestrel.app.plot;

import java.util.LinkedHashMap;
import java.util.Map;
import javafx.scene.Group;
import javafx.scene.control.Label;
import javafx.scene.paint.Color;

/**
 * Colours of the style sheet for what is drawn on a canvas, so that no colour is written in code and a change of theme
 * reaches drawings too. Each ink is a label nobody sees, whose text colour the rule {@code .ink-NAME} sets.
 */
public final class Inks extends Group {

  private final Map<String, Label> labels = new LinkedHashMap<>();

  /**
   * @param changed told when the style sheet gives other colours
   */
  public Inks(Runnable changed, String... names) {
    setManaged(false);
    setMouseTransparent(true);
    setOpacity(0);
    for (String name : names) {
      Label label = new Label();
      label.getStyleClass().add("ink-" + name);
      label.textFillProperty().addListener((p, before, now) -> changed.run());
      labels.put(name, label);
      getChildren().add(label);
    }
  }

  public Color of(String name) {
    return (Color) labels.get(name).getTextFill();
  }
}
