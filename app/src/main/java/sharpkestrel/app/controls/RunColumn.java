package sharpkestrel.app.controls;

import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The right end of a panel: what its result is called, and the button that makes it, at the foot. */
public final class RunColumn extends VBox {

  private static final double WIDTH = 176;

  private final TextField title;
  private final Button run;

  /**
   * @param step id of the step that is run; the button's and the field's ids begin with it
   * @param does what stands on the button
   * @param result what the result is called until somebody says otherwise
   * @param act told that name
   */
  public RunColumn(
      String step, String does, String result, java.util.function.Consumer<String> act) {
    super(6);
    title = new TextField(result);
    title.setId(step + "-title");
    run = new Button(does);
    run.setId(step + "-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setOnAction(e -> act.accept(title.getText()));
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    getChildren().addAll(Words.soft("Result"), title, gap, run);
    setWidthTo(WIDTH);
  }

  /** With something more above the name. */
  public RunColumn below(Node... above) {
    getChildren().addAll(0, java.util.List.of(above));
    return this;
  }

  public void setWidthTo(double width) {
    setMinWidth(width);
    setPrefWidth(width);
  }

  /** Whether there is something to run. */
  public void setReady(boolean ready) {
    run.setDisable(!ready);
  }
}
