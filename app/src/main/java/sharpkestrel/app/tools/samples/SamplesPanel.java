package sharpkestrel.app.tools.samples;

import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.Selection;

/** Classes with their samples, what they are worth, the question in hand, and the button that runs it all. */
final class SamplesPanel extends HBox implements InHand {

  private static final int LEAST_ALPHA = 0x28;
  private static final int MORE_ALPHA = 0x60;
  private static final double RUN_WIDTH = 206;

  private final Workspace workspace;
  private final Desk desk;
  private final SamplesModel model;
  private final ClassCard classes;
  private final WorthCard worth;
  private final QuestionCard question;
  private final Button run = new Button("Classify all");
  private final Button find = new Button("Learn to find");
  private final Button chosen = new Button();
  private final TextField title = new TextField("Classes");
  private boolean inHand;

  SamplesPanel(Desk desk, Watch watch, SamplesModel model) {
    super(10);
    this.desk = desk;
    this.model = model;
    workspace = desk.workspace();
    classes = new ClassCard(desk, model);
    worth = new WorthCard(model);
    question = new QuestionCard(model);
    getChildren().addAll(classes.card(), worth.card(), question.card(), runCard());
    model.book().classesProperty().addListener((p, before, now) -> refresh());
    model.book().samplesProperty().addListener((p, before, now) -> {
      refresh();
      desk.picture().repaint();
    });
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
      paint();
    });
    model.whyProperty().addListener((p, before, now) -> question.refresh());
    desk.choice().onChange(this::refresh);
    watch.on(workspace.display().paneAProperty(), now -> refresh());
    refresh();
  }

  private VBox runCard() {
    ComboBox<String> learner = new ComboBox<>();
    learner.setId("samples-method");
    learner
        .getItems()
        .setAll(Arrays.stream(Learner.values()).map(Learner::title).toList());
    learner.getSelectionModel().select(model.learnerProperty().get().ordinal());
    learner
        .getSelectionModel()
        .selectedIndexProperty()
        .addListener(
            (p, before, now) -> model.learnerProperty().set(Learner.values()[now.intValue()]));
    learner.setMaxWidth(Double.MAX_VALUE);
    title.setId("samples-title");
    run.setId("classify-objects-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setOnAction(e -> run());
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    find.setId("samples-find");
    find.setMaxWidth(Double.MAX_VALUE);
    find.setTooltip(
        new Tooltip(
            "Learns the class in hand among all nodes of the tree, all other samples being something else; Find objects then looks for it"));
    find.setOnAction(e -> model.learnToFind());
    chosen.setId("samples-chosen");
    chosen.setMaxWidth(Double.MAX_VALUE);
    chosen.managedProperty().bind(chosen.visibleProperty());
    chosen.setOnAction(e -> labelChosen());
    VBox box = new VBox(
        6, Words.soft("Method"), learner, gap, chosen, find, Words.soft("Result"), title, run);
    box.setMinWidth(RUN_WIDTH);
    box.setPrefWidth(RUN_WIDTH);
    return box;
  }

  /** What is chosen in table or plots gets the class in hand. */
  void labelChosen() {
    if (desk.choice().isAll() || !model.hasObjects()) {
      workspace
          .messages()
          .warn(
              "Choose some objects first, in the table or the plots: they get the class in hand.");
    } else {
      model.labelAll(desk.choice().chosen());
    }
  }

  private void run() {
    workspace.run(
        StepCatalogue.get("classify-objects"),
        title.getText(),
        Map.of("objects", workspace.display().paneAProperty().get()),
        Map.of("samples", model.path().toString()),
        Map.of("method", model.learnerProperty().get().name().toLowerCase(Locale.ROOT)));
  }

  private void refresh() {
    classes.refresh();
    worth.refresh();
    question.refresh();
    run.setDisable(model.answerProperty().get() == null);
    boolean some = model.hasObjects() && !desk.choice().isAll();
    chosen.setVisible(some && !model.currentProperty().get().isEmpty());
    if (some) {
      chosen.setText(Result.grouped(Selection.count(desk.choice().chosen())) + " chosen are "
          + model.currentProperty().get());
    }
    find.setDisable(!model.canLearnToFind());
    find.setText(
        model.currentProperty().get().isEmpty()
            ? "Learn to find"
            : "Learn to find " + model.currentProperty().get());
  }

  /** Only in hand it paints. */
  @Override
  public void setInHand(boolean now) {
    inHand = now;
    paint();
  }

  /** Colours all objects by what the samples say, the surer the stronger; what is asked about is left to be seen. */
  private void paint() {
    if (!inHand) {
      return;
    }
    Answer answer = model.answerProperty().get();
    if (answer == null) {
      desk.paintChoice();
      return;
    }
    SamplesModel.Question asked = model.questionProperty().get();
    int[] fill = new int[answer.objects().count()];
    Color[] colours = answer.classes().stream().map(model.book()::colourOf).toArray(Color[]::new);
    for (int row = 0; row < fill.length; row++) {
      int most = answer.most(row);
      if (most >= 0 && (asked == null || asked.row() != row)) {
        int alpha = (int) (LEAST_ALPHA + MORE_ALPHA * (1 - answer.doubt(row)));
        fill[row] = Palette.argb(alpha, colours[most]);
      }
    }
    desk.picture().paint(ObjectPaint.of(answer.objects()).coloured(fill, new boolean[fill.length]));
  }
}
