package sharpkestrel.app.tools.samples;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Words;
import sharpkestrel.extract.learner.ClassList;

/** The question in hand, with what it is thought to be. */
final class QuestionCard {

  private static final double BAR = 110;
  private static final double BAR_HEIGHT = 8;
  private static final int SHOWN = 4;

  private final SamplesModel model;
  private final Button ask = new Button("Ask me");
  private final VBox lines = new VBox(5);
  private final Card card;

  QuestionCard(SamplesModel model) {
    this.model = model;
    Label heading = Words.heading("Being asked");
    ask.setId("samples-ask");
    ask.setOnAction(e -> model.askNext());
    card = new Card(6, heading, lines);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(270);
  }

  Card card() {
    return card;
  }

  void refresh() {
    lines.getChildren().clear();
    Answer answer = model.answerProperty().get();
    SamplesModel.Question open = model.questionProperty().get();
    ask.setDisable(answer == null);
    if (open == null || answer == null) {
      lines
          .getChildren()
          .addAll(
              Words.soft(
                  "The object whose answer would teach most is shown: one in doubt, of a kind that is common, unlike those before. Its"
                      + " class by a digit or a click; 0 passes over it."),
              ask);
      return;
    }
    Button pass = new Button("0  Pass");
    pass.setId("samples-pass");
    pass.setOnAction(e -> model.pass());
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    HBox head = new HBox(8, new Label("What is this?"), gap, pass);
    head.setAlignment(Pos.CENTER_LEFT);
    lines.getChildren().addAll(head, likeliest(answer, open.row()));
  }

  private GridPane likeliest(Answer answer, int row) {
    List<Integer> order = IntStream.range(0, answer.classes().size())
        .boxed()
        .sorted(Comparator.comparingDouble(k -> -answer.share(row, k)))
        .limit(SHOWN)
        .toList();
    GridPane grid = new GridPane(8, 3);
    for (int i = 0; i < order.size(); i++) {
      int k = order.get(i);
      String ofClass = answer.classes().get(k);
      Optional<ClassList.Entry> entry = model.book().classesProperty().get().of(ofClass);
      Button button =
          new Button(entry.map(e -> e.digit() == 0 ? "" : e.digit() + "  ").orElse("") + ofClass);
      button.setId("answer-" + i);
      button.setMaxWidth(Double.MAX_VALUE);
      button.setAlignment(Pos.CENTER_LEFT);
      button.setOnAction(e -> model.give(ofClass));
      Region bar = new Region();
      bar.setStyle(
          "-fx-background-color: " + model.book().hexOf(ofClass) + "; -fx-background-radius: 2;");
      double width = Math.max(2, BAR * answer.share(row, k));
      bar.setMinSize(width, BAR_HEIGHT);
      bar.setMaxSize(width, BAR_HEIGHT);
      Label share = Words.number(String.format(Locale.ROOT, "%.0f %%", 100 * answer.share(row, k)));
      grid.addRow(i, button, bar, share);
    }
    return grid;
  }
}
