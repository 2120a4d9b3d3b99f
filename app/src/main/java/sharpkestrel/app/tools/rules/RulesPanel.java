package sharpkestrel.app.tools.rules;

import java.util.List;
import javafx.animation.PauseTransition;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import javafx.util.Duration;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.RunColumn;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.rules.Rule;

/** A line for each rule, how many objects it takes, and why the chosen object is what it is. */
final class RulesPanel extends HBox implements InHand {

  private static final String EXAMPLE =
      "water: near_infrared_mean < 0.05\nshore: border('water') > 0.2\nland: area > 0";
  private static final int LEAST_ALPHA = 0x38;
  private static final int MORE_ALPHA = 0x68;
  private static final double COUNTS_WIDTH = 300;
  private static final double REST = 250;

  private final Desk desk;
  private final RulesModel model;
  private final TextArea text = new TextArea();
  private final Label trouble = new Label();
  private final Label why = new Label();
  private final GridPane counts = new GridPane(10, 3);
  private final RunColumn actions;

  /** Rules are held against all objects once typing rests. */
  private final PauseTransition typed = new PauseTransition(Duration.millis(REST));

  private boolean inHand;

  RulesPanel(Desk desk, Watch watch, RulesModel model) {
    super(10);
    this.desk = desk;
    this.model = model;
    actions = new RunColumn("rules", "Run all", "Classes by rules", model::run);
    getChildren().addAll(sentences(), told(), actions);
    model.answerProperty().addListener((p, before, now) -> {
      refresh();
      paint();
    });
    model.troubleProperty().addListener((p, before, now) -> refresh());
    watch.on(desk.workspace().display().selectedRowProperty(), now -> refresh());
    watch.on(desk.workspace().display().paneAProperty(), now -> {
      refresh();
      paint();
    });
    refresh();
  }

  private Card sentences() {
    Label heading = Words.heading("Rules, the first that holds counts");
    text.setId("rules-text");
    text.getStyleClass().add("mono");
    text.setPromptText(EXAMPLE);
    text.setWrapText(true);
    VBox.setVgrow(text, Priority.ALWAYS);
    text.setMinHeight(0);
    text.textProperty().addListener((p, before, now) -> typed.playFromStart());
    typed.setOnFinished(e -> model.write(text.getText()));
    trouble.getStyleClass().add("error");
    trouble.setId("rules-trouble");
    trouble.setWrapText(true);
    trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
    Card card = new Card(6, heading, text, trouble);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(340);
    return card;
  }

  private Card told() {
    Label heading = Words.heading("What they take");
    ScrollPane scroll = new ScrollPane(counts);
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    why.getStyleClass().add("soft");
    why.setId("rules-why");
    why.setWrapText(true);
    why.setMinHeight(Region.USE_PREF_SIZE);
    Card card = new Card(6, heading, scroll, why);
    card.setMinWidth(COUNTS_WIDTH);
    card.setPrefWidth(COUNTS_WIDTH);
    return card;
  }

  private void refresh() {
    RulesModel.Answer answer = model.answerProperty().get();
    trouble.setText(model.troubleProperty().get());
    actions.setReady(answer != null);
    counts.getChildren().clear();
    if (answer == null) {
      Label hint = new Label(
          model.source().isEmpty()
              ? "Show measured objects in pane A: click them in the trail."
              : "Write a class, a colon and a test on each line.");
      hint.getStyleClass().add("soft");
      hint.setWrapText(true);
      counts.add(hint, 0, 0);
      why.setText("");
      return;
    }
    List<Color> colours = colours(answer);
    List<Rule> rules = answer.book().rules();
    for (int k = 0; k < rules.size(); k++) {
      Label count = Words.number(Result.grouped(answer.counts()[k]));
      count.setId("rules-count-" + k);
      Label name = new Label(rules.get(k).ofClass());
      int place = answer.book().classes().indexOf(rules.get(k).ofClass());
      counts.addRow(
          k, Words.number(String.valueOf(k + 1)), new Circle(5, colours.get(place)), name, count);
    }
    Label none = new Label("no rule");
    none.getStyleClass().add("soft");
    counts.addRow(
        rules.size(),
        new Label(),
        new Label(),
        none,
        Words.number(Result.grouped(answer.without())));
    int row = desk.workspace().display().selectedRowProperty().get();
    boolean shown = model
        .source()
        .filter(source -> source == desk.workspace().display().paneAProperty().get())
        .isPresent();
    why.setText(
        shown && row >= 0 && row < answer.objects().count()
            ? answer.why(row)
            : "Click an object to see which rule made it what it is.");
  }

  private static List<Color> colours(RulesModel.Answer answer) {
    return ClassMap.colours(answer.book().classes()).stream().map(Color::web).toList();
  }

  /** Only in hand it paints. */
  @Override
  public void setInHand(boolean now) {
    inHand = now;
    paint();
  }

  /** Colours objects by their classes, the clearer the stronger. */
  private void paint() {
    RulesModel.Answer answer = model.answerProperty().get();
    boolean shown = model
        .source()
        .filter(source -> source == desk.workspace().display().paneAProperty().get())
        .isPresent();
    if (!inHand || !shown) {
      return;
    }
    if (answer == null) {
      desk.paintChoice();
      return;
    }
    List<Color> colours = colours(answer);
    int[] classOf = RulesModel.classOf(answer);
    int[] fill = new int[classOf.length];
    for (int row = 0; row < fill.length; row++) {
      int alpha = (int) (LEAST_ALPHA + MORE_ALPHA * (1 - answer.said().doubt(row)));
      fill[row] = classOf[row] < 0 ? 0 : Palette.argb(alpha, colours.get(classOf[row]));
    }
    desk.picture().paint(ObjectPaint.of(answer.objects()).coloured(fill, new boolean[fill.length]));
  }
}
