package sharpkestrel.app.tools.samples;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import javafx.util.StringConverter;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.extract.learner.Method;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.RasterException;

/** Classes with their samples, what they are worth, the question in hand, and the button that runs it all. */
final class SamplesPanel extends HBox {

  private static final int LEAST_ALPHA = 0x38;
  private static final int MORE_ALPHA = 0x80;
  private static final double BAR = 120;
  private static final int SHOWN = 4;

  private final Workspace workspace;
  private final Desk desk;
  private final SamplesModel model;
  private final GridPane classes = new GridPane(8, 5);
  private final TextField name = new TextField();
  private final Label right = new Label();
  private final VBox worth = new VBox(4);
  private final VBox question = new VBox(6);
  private final Button ask = new Button("Ask me");
  private final Button run = new Button("Classify all");
  private final TextField title = new TextField("Classes");

  SamplesPanel(Desk desk, Watch watch, SamplesModel model) {
    super(10);
    this.desk = desk;
    this.model = model;
    workspace = desk.workspace();
    getChildren().addAll(classCard(), worthCard(), questionCard(), runCard());
    model.classesProperty().addListener((p, before, now) -> refresh());
    model.samplesProperty().addListener((p, before, now) -> refresh());
    model.currentProperty().addListener((p, before, now) -> refresh());
    model.unreadProperty().addListener((p, before, now) -> refresh());
    model.answerProperty().addListener((p, before, now) -> {
      refresh();
      paint();
    });
    model.questionProperty().addListener((p, before, now) -> {
      refresh();
      if (now != null) {
        desk.picture()
            .centreOn(
                now.bounds().x() + now.bounds().width() / 2.0,
                now.bounds().y() + now.bounds().height() / 2.0);
      }
      desk.picture().repaint();
    });
    watch.on(workspace.display().paneAProperty(), now -> refresh());
    refresh();
  }

  private VBox classCard() {
    Label heading = new Label("Classes");
    heading.getStyleClass().add("title");
    name.setId("class-name");
    name.setPromptText("new class");
    name.setOnAction(e -> add());
    Button add = new Button("Add");
    add.setId("class-add");
    add.setMinWidth(USE_PREF_SIZE);
    add.setOnAction(e -> add());
    HBox row = new HBox(6, name, add);
    HBox.setHgrow(name, Priority.ALWAYS);
    ScrollPane scroll = new ScrollPane(classes);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    scroll.setMinHeight(0);
    Card card = new Card(6, heading, row, scroll);
    card.setMinWidth(270);
    card.setPrefWidth(270);
    return card;
  }

  private VBox worthCard() {
    Label heading = new Label("What it is worth");
    heading.getStyleClass().add("title");
    right.getStyleClass().add("big");
    right.setId("samples-right");
    Card card = new Card(6, heading, right, worth);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(260);
    return card;
  }

  private VBox questionCard() {
    Label heading = new Label("Being asked");
    heading.getStyleClass().add("title");
    ask.setId("samples-ask");
    ask.setOnAction(e -> model.askNext());
    Card card = new Card(6, heading, question);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(280);
    return card;
  }

  private VBox runCard() {
    ComboBox<Method> method = new ComboBox<>();
    method.setId("samples-method");
    method.getItems().setAll(Method.values());
    method.setConverter(new StringConverter<>() {
      @Override
      public String toString(Method each) {
        return each == null ? "" : each.title();
      }

      @Override
      public Method fromString(String text) {
        throw new UnsupportedOperationException();
      }
    });
    method.valueProperty().bindBidirectional(model.methodProperty());
    method.setMaxWidth(Double.MAX_VALUE);
    title.setId("samples-title");
    run.setId("classify-objects-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setOnAction(e -> run());
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    VBox box = new VBox(6, soft("Method"), method, gap, soft("Result"), title, run);
    box.setMinWidth(176);
    box.setPrefWidth(176);
    return box;
  }

  private static Label soft(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("soft");
    label.setWrapText(true);
    return label;
  }

  private void add() {
    String wanted = name.getText().strip();
    if (wanted.isEmpty()) {
      return;
    }
    try {
      model.addClass(wanted);
      name.clear();
      // digits mean classes again, not text
      desk.picture().requestFocus();
    } catch (RasterException taken) {
      workspace.messages().tell(taken.getMessage());
    }
  }

  private void run() {
    Result shown = workspace.display().paneAProperty().get();
    workspace.run(
        StepCatalogue.get("classify-objects"),
        title.getText(),
        Map.of("objects", shown),
        Map.of("samples", model.path().toString()),
        Map.of("method", model.methodProperty().get().name().toLowerCase(Locale.ROOT)));
  }

  private void refresh() {
    refreshClasses();
    refreshWorth();
    refreshQuestion();
    boolean ready = model.answerProperty().get() != null;
    run.setDisable(!ready);
  }

  private void refreshClasses() {
    classes.getChildren().clear();
    Answer answer = model.answerProperty().get();
    int row = 0;
    for (ClassList.Entry each : model.classesProperty().get().classes()) {
      long count =
          model.here().stream().filter(s -> s.ofClass().equals(each.name())).count();
      Label digit = new Label(each.digit() == 0 ? "" : String.valueOf(each.digit()));
      digit.getStyleClass().addAll("mono", "soft");
      Label label = new Label(each.name());
      label.setId("class-" + row);
      boolean now = each.name().equals(model.currentProperty().get());
      label.getStyleClass().add(now ? "model-chosen" : "model");
      label.setMaxWidth(Double.MAX_VALUE);
      label.setTooltip(new Tooltip("Clicks in the picture give this class"));
      label.setOnMouseClicked(e -> model.currentProperty().set(each.name()));
      GridPane.setHgrow(label, Priority.ALWAYS);
      Label samples = new Label(count == 1 ? "1 sample" : count + " samples");
      samples.getStyleClass().add("soft");
      samples.setMinWidth(USE_PREF_SIZE);
      Button drop = new Button("\u00d7");
      drop.setStyle("-fx-padding: 0 5 0 5;");
      drop.setTooltip(new Tooltip("Takes the class away with its samples"));
      drop.setOnAction(e -> model.removeClass(each.name()));
      classes.addRow(row++, digit, new Circle(5, Color.web(each.colour())), label, samples, drop);
    }
    if (row == 0) {
      Label hint = soft(
          "Name what you want to tell apart, such as roof, ground and shadow, then click objects of each in the picture.");
      classes.add(hint, 0, 0);
    }
  }

  private void refreshWorth() {
    worth.getChildren().clear();
    right.setText("");
    right.setManaged(false);
    Answer answer = model.answerProperty().get();
    if (answer == null) {
      String why = !model.hasObjects()
          ? "Click measured objects in the trail: samples are given to objects."
          : model.here().isEmpty()
              ? "Label a few objects of each class: all others are told at once."
              : model.unreadProperty().get();
      worth.getChildren().add(soft(why));
      return;
    }
    Optional<Confusion> kept = answer.kept();
    if (kept.isPresent()) {
      Confusion confusion = kept.get();
      double[] within = Confusion.interval(confusion.accuracy(), confusion.count());
      right.setManaged(true);
      right.setText(String.format(Locale.ROOT, "%.0f %% right", 100 * confusion.accuracy()));
      worth
          .getChildren()
          .add(soft(String.format(
              Locale.ROOT,
              "of %.0f on kept-back blocks; %.0f to %.0f %% if they were drawn",
              confusion.count(),
              100 * within[0],
              100 * within[1])));
      mistake(confusion).ifPresent(text -> worth.getChildren().add(soft(text)));
    } else {
      worth.getChildren().add(soft("Checking on kept-back blocks\u2026"));
    }
    int[] counts = answer.counts();
    GridPane grid = new GridPane(10, 3);
    for (int k = 0; k < counts.length; k++) {
      String ofClass = answer.classes().get(k);
      Label count = new Label(Result.grouped(counts[k]));
      count.getStyleClass().add("mono");
      String f1 = kept.map(c -> Double.isNaN(c.f1(places(c, ofClass)))
              ? ""
              : String.format(Locale.ROOT, "F1 %.2f", c.f1(places(c, ofClass))))
          .orElse("");
      Label worthOf = new Label(f1);
      worthOf.getStyleClass().add("mono");
      grid.addRow(k, new Circle(5, colour(ofClass)), new Label(ofClass), count, worthOf);
    }
    worth.getChildren().add(grid);
  }

  private static int places(Confusion confusion, String ofClass) {
    return confusion.classes().indexOf(ofClass);
  }

  /** The commonest mistake, in words. */
  private static Optional<String> mistake(Confusion confusion) {
    double most = 0;
    String text = null;
    for (int k = 0; k < confusion.counts().length; k++) {
      for (int j = 0; j < confusion.counts().length; j++) {
        if (k != j && confusion.counts()[k][j] > most) {
          most = confusion.counts()[k][j];
          text = String.format(
              Locale.ROOT,
              "most often wrong: %s taken for %s, %.0f times",
              confusion.classes().get(k),
              confusion.classes().get(j),
              most);
        }
      }
    }
    return Optional.ofNullable(text);
  }

  private void refreshQuestion() {
    question.getChildren().clear();
    Answer answer = model.answerProperty().get();
    SamplesModel.Question open = model.questionProperty().get();
    ask.setDisable(answer == null);
    if (open == null || answer == null) {
      Label hint = soft(
          "The object whose answer would teach most is shown: one in doubt, of a kind that is common, unlike those before. Its"
              + " class by a digit; 0 passes over it.");
      question.getChildren().addAll(hint, ask);
      return;
    }
    question.getChildren().add(new Label("What is this?"));
    List<Integer> order = new ArrayList<>();
    for (int k = 0; k < answer.classes().size(); k++) {
      order.add(k);
    }
    order.sort((a, b) -> Float.compare(answer.share(open.row(), b), answer.share(open.row(), a)));
    GridPane grid = new GridPane(8, 4);
    for (int i = 0; i < Math.min(SHOWN, order.size()); i++) {
      int k = order.get(i);
      String ofClass = answer.classes().get(k);
      Optional<ClassList.Entry> entry = model.classesProperty().get().of(ofClass);
      Button button = new Button(entry.map(e -> e.digit() + "  ").orElse("") + ofClass);
      button.setId("answer-" + i);
      button.setMaxWidth(Double.MAX_VALUE);
      button.setOnAction(e -> entry.ifPresent(of -> model.digit(of.digit())));
      Region bar = new Region();
      bar.setStyle("-fx-background-color: " + entry.map(ClassList.Entry::colour).orElse("#999999")
          + "; -fx-background-radius: 2;");
      bar.setMinSize(Math.max(2, BAR * answer.share(open.row(), k)), 8);
      bar.setMaxSize(Math.max(2, BAR * answer.share(open.row(), k)), 8);
      Label share =
          new Label(String.format(Locale.ROOT, "%.0f %%", 100 * answer.share(open.row(), k)));
      share.getStyleClass().add("mono");
      grid.addRow(i, button, bar, share);
    }
    Button pass = new Button("0  Pass");
    pass.setId("samples-pass");
    pass.setOnAction(e -> model.pass());
    HBox rest = new HBox(8, pass);
    rest.setAlignment(Pos.CENTER_LEFT);
    question.getChildren().addAll(grid, rest);
  }

  private Color colour(String ofClass) {
    return Color.web(
        model.classesProperty().get().of(ofClass).map(ClassList.Entry::colour).orElse("#999999"));
  }

  /** Colours all objects by what the samples say; the surer, the stronger. */
  void paint() {
    Answer answer = model.answerProperty().get();
    if (answer == null) {
      desk.paintChoice();
      return;
    }
    int[] fill = new int[answer.objects().count()];
    Color[] colours = answer.classes().stream().map(this::colour).toArray(Color[]::new);
    for (int row = 0; row < fill.length; row++) {
      int most = answer.most(row);
      if (most >= 0) {
        int alpha = (int) (LEAST_ALPHA + MORE_ALPHA * (1 - answer.doubt(row)));
        fill[row] = Palette.argb(alpha, colours[most]);
      }
    }
    desk.picture().paint(ObjectPaint.of(answer.objects()).coloured(fill, new boolean[fill.length]));
  }
}
