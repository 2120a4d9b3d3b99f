package sharpkestrel.app.shell;

import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import sharpkestrel.app.work.RunLane;

/** The runs that wait, in their order: each can be cancelled or moved before the one ahead of it. */
final class QueueCard extends VBox {

  private static final double WIDTH = 340;

  private final RunLane lane;
  private final VBox lines = new VBox(4);

  QueueCard(RunLane lane) {
    super(8);
    this.lane = lane;
    setId("queue");
    getStyleClass().add("card");
    setPrefWidth(WIDTH);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    Label head = new Label();
    head.getStyleClass().add("title");
    head.textProperty()
        .bind(Bindings.createStringBinding(
            () -> switch (lane.queue().size()) {
              case 0 -> "Nothing runs or waits";
              case 1 -> "1 run";
              default -> lane.queue().size() + " runs";
            },
            lane.queue()));
    getChildren().addAll(head, lines);
    lane.queue().addListener((ListChangeListener<RunLane.Run>) change -> fill());
    fill();
  }

  private void fill() {
    lines.getChildren().clear();
    List<RunLane.Run> runs = lane.queue();
    for (int i = 0; i < runs.size(); i++) {
      lines.getChildren().add(line(runs.get(i), i));
    }
  }

  private HBox line(RunLane.Run run, int place) {
    Label what = new Label(run.title());
    what.setMaxWidth(Double.MAX_VALUE);
    what.setMinWidth(0);
    HBox.setHgrow(what, Priority.ALWAYS);
    Label state = new Label(place == 0 ? "runs" : "waits");
    state.getStyleClass().add("soft");
    state.setMinWidth(USE_PREF_SIZE);
    Button up = new Button("Up");
    up.setId("queue-up-" + place);
    up.setTooltip(new Tooltip("Before the one that waits ahead of it"));
    up.setVisible(place > 1);
    up.setMinWidth(USE_PREF_SIZE);
    up.setOnAction(e -> lane.moveUp(run));
    Button cancel = new Button("Cancel");
    cancel.setId("queue-cancel-" + place);
    cancel.setMinWidth(USE_PREF_SIZE);
    cancel.setOnAction(e -> lane.cancel(run));
    HBox box = new HBox(8, what, state, up, cancel);
    box.setAlignment(Pos.CENTER_LEFT);
    return box;
  }
}
