package sharpkestrel.app.tools.samples;

import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.plot.CurvePlot;
import sharpkestrel.extract.learner.Confusion;

/** What the samples are worth on ground that was kept back, the commonest mistake, and how many objects each class has. */
final class WorthCard {

  private static final double CURVE_WIDTH = 260;
  private static final double CURVE_HEIGHT = 62;

  private final SamplesModel model;
  private final Label right = new Label();
  private final Label range = Words.soft("");
  private final CurvePlot curve = new CurvePlot(CURVE_WIDTH, CURVE_HEIGHT);
  private final VBox lines = new VBox(4);
  private final Card card;

  WorthCard(SamplesModel model) {
    this.model = model;
    Label heading = Words.heading("What it is worth");
    right.getStyleClass().add("big");
    right.setId("samples-right");
    right.setMinWidth(Label.USE_PREF_SIZE);
    curve.setVisible(false);
    curve.managedProperty().bind(curve.visibleProperty());
    HBox figure = new HBox(10, right, range);
    figure.setAlignment(Pos.CENTER_LEFT);
    figure.managedProperty().bind(right.textProperty().isNotEmpty());
    figure.visibleProperty().bind(figure.managedProperty());
    ScrollPane scroll = Scroll.down(lines);
    card = new Card(6, heading, figure, curve, scroll);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(290);
  }

  Card card() {
    return card;
  }

  void refresh() {
    lines.getChildren().clear();
    right.setText("");
    range.setText("");
    Progress progress = model.progress();
    curve.setVisible(progress.points().size() > 1);
    curve.show(progress.points());
    Answer answer = model.answerProperty().get();
    if (answer == null) {
      lines.getChildren().add(Words.soft(why()));
      return;
    }
    Optional<Confusion> kept = answer.kept();
    if (kept.isPresent()) {
      show(kept.get());
    } else {
      lines
          .getChildren()
          .add(Words.soft(
              answer.isWeighed()
                  ? "Too few samples on too little ground to keep some back: label more, farther apart."
                  : "Checking on kept-back ground\u2026"));
    }
    progress.gained().ifPresent(text -> lines.getChildren().add(Words.soft(text)));
    lines.getChildren().add(counts(answer));
  }

  private String why() {
    return !model.hasObjects()
        ? "Click measured objects in the trail: samples are given to objects."
        : model.here().isEmpty()
            ? "Label a few objects of each class: all others are told at once."
            : model.isFound()
                ? "These were found among all nodes: click what is wrong as something else, take the class that is looked for in hand again, and learn to find it once more."
                : model.unreadProperty().get();
  }

  private void show(Confusion confusion) {
    double[] ends = Confusion.interval(confusion.accuracy(), confusion.count());
    right.setText(String.format(Locale.ROOT, "%.0f %% right", 100 * confusion.accuracy()));
    range.setText(String.format(
        Locale.ROOT,
        "of %.0f kept back,%nby lot %.0f to %.0f %%",
        confusion.count(),
        100 * ends[0],
        100 * ends[1]));
    mistake(confusion).ifPresent(text -> lines.getChildren().add(Words.soft(text)));
  }

  private GridPane counts(Answer answer) {
    int[] counts = answer.counts();
    GridPane grid = new GridPane(10, 3);
    for (int k = 0; k < counts.length; k++) {
      String ofClass = answer.classes().get(k);
      Label count = Words.number(Result.grouped(counts[k]));
      count.setId("class-count-" + k);
      Color colour = model.book().colourOf(ofClass);
      Label f1 =
          Words.number(answer.kept().map(confusion -> f1(confusion, ofClass)).orElse(""));
      grid.addRow(k, new Circle(5, colour), new Label(ofClass), count, f1);
    }
    return grid;
  }

  static String f1(Confusion confusion, String ofClass) {
    double f1 = confusion.f1(confusion.classes().indexOf(ofClass));
    return Double.isNaN(f1) ? "" : String.format(Locale.ROOT, "F1 %.2f", f1);
  }

  /** The commonest mistake, in words. */
  static Optional<String> mistake(Confusion confusion) {
    double most = 0;
    String text = null;
    for (int k = 0; k < confusion.counts().length; k++) {
      for (int j = 0; j < confusion.counts().length; j++) {
        double times = confusion.counts()[k][j];
        if (k != j && times > most) {
          most = times;
          text = "most often wrong: " + confusion.classes().get(k) + " taken for "
              + confusion.classes().get(j) + ", "
              + (times == 1 ? "once" : String.format(Locale.ROOT, "%.0f times", times));
        }
      }
    }
    return Optional.ofNullable(text);
  }
}
