package sharpkestrel.app.tools.samples;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Words;
import sharpkestrel.extract.learner.ClassList;

/** The question in hand, with what it is thought to be. */
final class QuestionCard {

  private static final double BAR = 110;
  private static final double BAR_HEIGHT = 8;
  private static final int SHOWN = 3;

  private final SamplesModel model;
  private final Button ask = new Button("Ask me");
  private final Label heading = Words.heading("Being asked");
  private final VBox lines = new VBox(4);
  private final HBox buttons = new HBox();
  private final Card card;

  QuestionCard(SamplesModel model) {
    this.model = model;
    ask.setId("samples-ask");
    ask.setOnAction(e -> model.askNext());
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    HBox head = new HBox(8, heading, gap, buttons);
    head.setAlignment(Pos.CENTER_LEFT);
    card = new Card(5, head, lines);
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
    Why why = model.whyProperty().get();
    ask.setDisable(answer == null);
    if (answer == null || open == null && why == null) {
      heading.setText("Being asked");
      buttons.getChildren().setAll(ask);
      lines
          .getChildren()
          .add(
              Words.soft(
                  "The object whose answer would teach most is shown: one in doubt, of a kind that is common, unlike those before. Its"
                      + " class by a digit or a click; 0 passes over it. Under the mouse any object says why it is what it is."));
      return;
    }
    int row = open == null ? why.row() : open.row();
    heading.setText(open == null ? "Why it is told so" : "What is this?");
    buttons.getChildren().setAll(open == null ? ask : pass());
    lines.getChildren().add(likeliest(answer, row));
    if (why != null && why.row() == row) {
      lines.getChildren().addAll(reasons(why), alike(why));
    }
  }

  private Button pass() {
    Button pass = new Button("0  Pass");
    pass.setId("samples-pass");
    pass.setOnAction(e -> model.pass());
    return pass;
  }

  /** The features that spoke loudest, each with the object's value. */
  private static Label reasons(Why why) {
    String text = why.reasons().spoken().stream()
        .limit(SHOWN)
        .map(each -> String.format(
            Locale.ROOT,
            "%s %s %.4g",
            each.weight() > 0 ? "for it" : "against",
            each.feature(),
            each.value()))
        .collect(Collectors.joining("; "));
    Label label = Words.soft(text);
    label.setId("samples-why");
    label.setMinHeight(Region.USE_PREF_SIZE);
    return label;
  }

  /** The samples that are most like it. */
  private HBox alike(Why why) {
    Label head = Words.soft("most like");
    head.setMinWidth(Region.USE_PREF_SIZE);
    HBox box = new HBox(6, head);
    box.setAlignment(Pos.CENTER_LEFT);
    for (Why.AlikeSample each : why.alike()) {
      int side = Why.SMALL;
      WritableImage image = new WritableImage(side, side);
      image
          .getPixelWriter()
          .setPixels(0, 0, side, side, PixelFormat.getIntArgbInstance(), each.picture(), 0, side);
      ImageView view = new ImageView(image);
      StackPane framed = new StackPane(view);
      framed.setStyle(
          "-fx-border-width: 2; -fx-border-color: " + model.book().hexOf(each.ofClass()) + ";");
      Tooltip.install(framed, new Tooltip("a sample of " + each.ofClass()));
      box.getChildren().add(framed);
    }
    return box;
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
