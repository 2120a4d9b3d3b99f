package sharpkestrel.app.tools.learners;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.CurvePlot;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.LearnersCompared;

/** The newest comparison: each way with its share right and interval, how that grows with samples, and the features that are needed. */
final class LearnersCard extends HBox {

  private static final double WIDTH = 496;
  private static final double CURVE = 134;
  private static final int FEATURES = 6;

  private final VBox lines = new VBox(6);
  private final VBox needed = new VBox(3);
  private final CurvePlot curve = new CurvePlot(CURVE, 120);
  private final Label grows = Words.soft("");
  private final VBox right = new VBox(4, grows, curve);

  LearnersCard(Workspace workspace, Watch watch) {
    super(10);
    ScrollPane scroll = Scroll.down(new VBox(8, lines, needed));
    HBox body = new HBox(12, scroll, right);
    HBox.setHgrow(scroll, Priority.ALWAYS);
    right.setMinWidth(CURVE);
    right.setMaxWidth(CURVE);
    VBox.setVgrow(body, Priority.ALWAYS);
    body.setMinHeight(0);
    Card card = new Card(6, Words.heading("On ground that was kept back"), body);
    card.setId("learners");
    card.setMinWidth(WIDTH);
    card.setPrefWidth(WIDTH);
    getChildren().add(card);
    watch.on(workspace.results(), () -> show(workspace));
    watch.on(workspace.display().paneAProperty(), now -> show(workspace));
    show(workspace);
  }

  private static Optional<LearnersCompared> compared(Workspace workspace) {
    return Stream.concat(
            Stream.ofNullable(workspace.display().paneAProperty().get()),
            workspace.results().reversed().stream())
        .map(Result::value)
        .filter(LearnersCompared.class::isInstance)
        .map(LearnersCompared.class::cast)
        .findFirst();
  }

  private void show(Workspace workspace) {
    lines.getChildren().clear();
    needed.getChildren().clear();
    Optional<LearnersCompared> found = compared(workspace);
    right.setVisible(found.isPresent());
    right.setManaged(found.isPresent());
    if (found.isEmpty()) {
      lines
          .getChildren()
          .add(Words.soft(
              "Choose measured objects and samples, then run: each way to learn is seen on the same ground that was kept"
                  + " back, and with a scene its pixels beside the objects."));
      return;
    }
    LearnersCompared compared = found.get();
    GridPane grid = new GridPane(12, 3);
    List<Learner> methods = compared.entries().stream()
        .map(LearnersCompared.Entry::method)
        .distinct()
        .toList();
    for (LearnersCompared.Entry entry : compared.entries()) {
      int row = 1 + methods.indexOf(entry.method());
      int column = 1 + entry.unit().ordinal();
      put(grid, new Label(entry.method().title()), 0, row);
      put(grid, Words.soft(entry.unit().name().toLowerCase(Locale.ROOT)), column, 0);
      put(grid, share(entry, entry == compared.best()), column, row);
    }
    lines.getChildren().add(grid);
    compared.entries().stream()
        .filter(entry -> !Double.isNaN(entry.outOfBag()))
        .findFirst()
        .ifPresent(forest -> lines
            .getChildren()
            .add(Words.soft("Out of bag the forest seems " + per(forest.outOfBag())
                + " right: that is of samples whose neighbours it had seen.")));
    needed
        .getChildren()
        .add(Words.soft(compared.closer().title() + " needs most: "
            + String.join(
                ", ",
                compared.features().stream()
                    .limit(FEATURES)
                    .filter(each -> each.loss() > 0)
                    .map(each -> String.format(Locale.ROOT, "%s %.3f", each.feature(), each.loss()))
                    .toList())));
    grows.setText("right by samples: " + compared.closer().title().toLowerCase(Locale.ROOT));
    curve.show(compared.curve());
  }

  /** Puts a node where none stands yet. */
  private static void put(GridPane grid, Node node, int column, int row) {
    boolean there = grid.getChildren().stream()
        .anyMatch(
            each -> GridPane.getColumnIndex(each) == column && GridPane.getRowIndex(each) == row);
    if (!there) {
      grid.add(node, column, row);
    }
  }

  private static Label share(LearnersCompared.Entry entry, boolean best) {
    double[] ends = entry.interval();
    Label label = Words.number(String.format(
        Locale.ROOT,
        "%.0f %%  %.0f\u2013%.0f",
        100 * entry.kept().accuracy(),
        100 * ends[0],
        100 * ends[1]));
    if (best) {
      label.getStyleClass().add("good");
    }
    label.setMinWidth(Label.USE_PREF_SIZE);
    Tooltip.install(
        label,
        new Tooltip(String.format(
            Locale.ROOT,
            "Between what it lies by lot, of %d places; macro F1 %.2f; learned in %.1f s",
            entry.places(),
            entry.kept().macroF1(),
            entry.seconds())));
    return label;
  }

  private static String per(double share) {
    return String.format(Locale.ROOT, "%.0f %%", 100 * share);
  }
}
