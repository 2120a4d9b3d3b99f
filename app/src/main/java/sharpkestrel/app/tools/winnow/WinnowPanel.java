package sharpkestrel.app.tools.winnow;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.HistogramBox;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.objects.ObjectSet;

/** Tests side by side as histograms with handles, read left to right as the objects fall through them. */
final class WinnowPanel extends VBox {

  private static final StepSpec MEASURE = StepCatalogue.get("measure");

  private final Workspace workspace;
  private final PictureView picture;
  private final WinnowModel model = new WinnowModel();
  private final HBox cards = new HBox(8);
  private final Label survivors = new Label("0");
  private final Label of = new Label();
  private final TextField text = new TextField();
  private final MenuButton add = new MenuButton("Add test");
  private final Button run = new Button("Run all");
  private final List<Card> shown = new ArrayList<>();
  private Result source;
  private boolean inHand;

  WinnowPanel(Desk desk, Watch watch) {
    workspace = desk.workspace();
    picture = desk.picture();
    setSpacing(8);
    survivors.getStyleClass().add("big");
    survivors.setId("survivors");
    of.getStyleClass().add("soft");
    of.setWrapText(true);
    text.setId("winnow-text");
    text.setPromptText("CQL2, e.g. area BETWEEN 25 AND 900 AND ndvi < 0.2");
    text.setOnAction(e -> readText());
    add.setId("add-test");
    add.setMaxWidth(Double.MAX_VALUE);
    run.setId("winnow-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setOnAction(e -> run());
    Label pass = new Label("pass all tests");
    pass.getStyleClass().add("soft");
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    VBox actions = new VBox(5, pass, survivors, of, gap, add, run);
    actions.setMinWidth(176);
    actions.setPrefWidth(176);
    ScrollPane scroll = new ScrollPane(cards);
    scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFitToHeight(true);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    Label cql = new Label("CQL2");
    cql.getStyleClass().add("soft");
    HBox.setHgrow(text, Priority.ALWAYS);
    HBox line = new HBox(8, cql, text);
    line.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    VBox tests = new VBox(8, scroll, line);
    tests.setMinWidth(0);
    HBox.setHgrow(tests, Priority.ALWAYS);
    HBox main = new HBox(10, tests, actions);
    VBox.setVgrow(main, Priority.ALWAYS);
    getChildren().add(main);
    model.onChange(this::show);
    watch.on(workspace.display().paneAProperty(), this::take);
    take(workspace.display().paneAProperty().get());
  }

  private void take(Result result) {
    Result measured = result;
    while (measured != null && !isMeasured(measured)) {
      measured = measured.inputs().get("objects");
    }
    if (measured == null) {
      measured = workspace.results().reversed().stream()
          .filter(WinnowPanel::isMeasured)
          .findFirst()
          .orElse(null);
    }
    source = measured;
    setDisable(measured == null);
    if (measured != null && model.objectsProperty().get() == null) {
      offerTestsOfBefore(((ObjectSet) measured.value()).table());
    }
    if (measured != null && model.objectsProperty().get() != measured.value()) {
      fillMenu((ObjectSet) measured.value());
      model.objectsProperty().set((ObjectSet) measured.value());
    }
    show();
  }

  /** The tests of a project's last winnow, where its features are still measured. */
  private void offerTestsOfBefore(Table table) {
    String tests = workspace.suggestions().all().getOrDefault("winnow:tests", "auto");
    if (!tests.equals("auto")) {
      List<RangeTest> before = RangeTest.parse(tests);
      if (before.stream().allMatch(test -> table.has(test.feature()))) {
        model.tests().setAll(before);
      }
    }
  }

  private static boolean isMeasured(Result result) {
    return result.value() instanceof ObjectSet && result.step() == MEASURE;
  }

  private void fillMenu(ObjectSet set) {
    add.getItems().clear();
    for (Table.Column column : set.table().columns()) {
      MenuItem item =
          new MenuItem(column.title() + (column.unit().isEmpty() ? "" : "  " + column.unit()));
      item.setId("add-" + column.name());
      item.setOnAction(e -> change(
          "add test",
          List.of(new RangeTest(column.name(), Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY)),
          true));
      add.getItems().add(item);
    }
  }

  private void change(String what, List<RangeTest> tests, boolean append) {
    List<RangeTest> before = List.copyOf(model.tests());
    List<RangeTest> after = new ArrayList<>(append ? before : List.of());
    after.addAll(tests);
    workspace.undo().change(what, () -> use(after), () -> use(before));
  }

  /** Takes tests, where the objects in hand have what they ask for. */
  private void use(List<RangeTest> tests) {
    Table table = model.objectsProperty().get().table();
    Optional<RangeTest> foreign =
        tests.stream().filter(test -> !table.has(test.feature())).findFirst();
    if (foreign.isPresent()) {
      workspace
          .messages()
          .warn("The objects in hand have no feature '" + foreign.get().feature()
              + "'. Show those that the tests were made for.");
    } else {
      model.tests().setAll(tests);
    }
  }

  private void readText() {
    try {
      List<RangeTest> tests = RangeTest.parse(text.getText());
      for (RangeTest test : tests) {
        model.objectsProperty().get().table().column(test.feature());
      }
      change("edit tests", tests, false);
    } catch (ExpressionException wrong) {
      workspace.messages().tell(wrong.getMessage());
    }
  }

  private void show() {
    ObjectSet set = model.objectsProperty().get();
    if (set == null) {
      of.setText("Measure objects first.");
      return;
    }
    boolean same = shown.size() == model.tests().size();
    for (int i = 0; same && i < shown.size(); i++) {
      same = shown.get(i).feature.equals(model.tests().get(i).feature());
    }
    if (!same) {
      cards.getChildren().clear();
      shown.clear();
      for (int i = 0; i < model.tests().size(); i++) {
        Card card = new Card(i, model.tests().get(i).feature());
        shown.add(card);
        cards.getChildren().add(card);
      }
    }
    if (shown.isEmpty()) {
      Label hint = new Label(
          "Every object passes. Add a test at the right and drag its handles, or type tests below and press Enter.");
      hint.getStyleClass().add("soft");
      hint.setWrapText(true);
      cards.getChildren().setAll(hint);
    }
    shown.forEach(Card::refresh);
    survivors.setText(Result.grouped(model.survivors()));
    of.setText("of " + Result.grouped(set.count()) + " objects, " + Result.grouped(model.doubtful())
        + " doubtful");
    if (!text.isFocused()) {
      text.setText(model.text());
    }
    Result a = workspace.display().paneAProperty().get();
    if (inHand
        && a != null
        && source != null
        && a.value() == source.value()
        && !model.tests().isEmpty()) {
      paint(set);
    }
  }

  /** Draws objects by what passes; called when the tool is taken in hand. */
  void paintAgain() {
    inHand = true;
    show();
  }

  /** Draws nothing any more. */
  void putAway() {
    inHand = false;
  }

  private void paint(ObjectSet set) {
    boolean[] passing = new boolean[set.count()];
    int[] fill = new int[set.count()];
    for (int i = 0; i < fill.length; i++) {
      passing[i] = model.passes(i);
      fill[i] = passing[i] ? ObjectPaint.PASSING : 0;
    }
    picture.paint(ObjectPaint.of(set).coloured(fill, passing));
  }

  private void run() {
    Map<String, Result> inputs = new LinkedHashMap<>();
    inputs.put("objects", source);
    workspace.run(
        StepCatalogue.get("winnow"),
        "Winnowed",
        inputs,
        Map.of(),
        new LinkedHashMap<>(Map.of("tests", model.text().isEmpty() ? "auto" : model.text())));
  }

  /** One test. */
  private final class Card extends VBox {
    private final int place;
    private final String feature;
    private final HistogramBox histogram = new HistogramBox(196, 82);
    private final TextField low = new TextField();
    private final TextField high = new TextField();
    private final Label flow = new Label();
    private double from = Double.POSITIVE_INFINITY;
    private double to = Double.NEGATIVE_INFINITY;
    private List<RangeTest> beforeDrag;

    Card(int place, String feature) {
      this.place = place;
      this.feature = feature;
      getStyleClass().add("card");
      setSpacing(4);
      setId("test-" + feature);
      Table.Column column = model.objectsProperty().get().table().column(feature);
      Label title = new Label(column.title());
      title.getStyleClass().add("title");
      Label unit = new Label(column.unit());
      unit.getStyleClass().add("soft");
      Region gap = new Region();
      HBox.setHgrow(gap, Priority.ALWAYS);
      Button drop = new Button("\u00d7");
      drop.setStyle("-fx-padding: 0 5 0 5;");
      drop.setId("drop-" + feature);
      drop.setOnAction(e -> {
        List<RangeTest> rest = new ArrayList<>(model.tests());
        rest.remove(place);
        change("drop test", rest, false);
      });
      HBox head = new HBox(6, title, unit, gap, drop);
      head.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
      for (TextField field : List.of(low, high)) {
        field.setPrefWidth(84);
        field.setOnAction(e -> typed());
      }
      histogram.setId("histogram-" + feature);
      low.setId("low-" + feature);
      high.setId("high-" + feature);
      high.setStyle("-fx-alignment: center-right;");
      Region between = new Region();
      HBox.setHgrow(between, Priority.ALWAYS);
      flow.getStyleClass().add("mono");
      histogram.onMoved((l, h) -> {
        if (beforeDrag == null) {
          beforeDrag = List.copyOf(model.tests());
        }
        model.tests().set(place, new RangeTest(feature, l, h));
      });
      histogram.onLetGo(() -> {
        if (beforeDrag != null) {
          List<RangeTest> before = beforeDrag;
          List<RangeTest> after = List.copyOf(model.tests());
          beforeDrag = null;
          workspace.undo().change("move handle", () -> use(after), () -> use(before));
        }
      });
      getChildren().addAll(head, histogram, new HBox(low, between, high), flow);
    }

    private void typed() {
      try {
        RangeTest test = new RangeTest(
            feature,
            number(low.getText(), Double.NEGATIVE_INFINITY),
            number(high.getText(), Double.POSITIVE_INFINITY));
        List<RangeTest> all = new ArrayList<>(model.tests());
        all.set(place, test);
        change("type an end", all, false);
      } catch (NumberFormatException notANumber) {
        workspace.messages().tell("An end of a test is a number, or empty for none.");
      }
    }

    /** The lesser of two numbers, infinite ones left out. */
    private static double least(double a, double b) {
      return !Double.isFinite(a) ? b : !Double.isFinite(b) ? a : Math.min(a, b);
    }

    private static double number(String text, double none) {
      String plain = text.strip().replace("\u2013", "");
      return plain.isEmpty() ? none : Double.parseDouble(plain);
    }

    void refresh() {
      RangeTest test = model.tests().get(place);
      Table table = model.objectsProperty().get().table();
      // The axis holds nearly all values and both ends, and grows but never shrinks under a drag.
      from = least(from, least(table.quantile(feature, 0.005), test.low()));
      to = -least(-to, least(-table.quantile(feature, 0.995), -test.high()));
      histogram.show(
          table.values(feature), model.failedAt(), place, from, to, "", test.low(), test.high());
      if (!low.isFocused()) {
        low.setText(Double.isInfinite(test.low()) ? "\u2013" : shortText(test.low()));
      }
      if (!high.isFocused()) {
        high.setText(Double.isInfinite(test.high()) ? "\u2013" : shortText(test.high()));
      }
      int came = place == 0 ? model.objectsProperty().get().count() : model.leftAfter(place - 1);
      flow.setText(Result.grouped(came) + "  \u2192  " + Result.grouped(model.leftAfter(place)));
    }
  }

  private static String shortText(double value) {
    return String.format(java.util.Locale.ROOT, "%.4g", value);
  }
}
