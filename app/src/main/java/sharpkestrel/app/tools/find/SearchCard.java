package sharpkestrel.app.tools.find;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.HistogramBox;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.FindObjects;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.everysize.FinderFile;
import sharpkestrel.extract.everysize.Search;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.segment.Cut;

/** All nodes scored once; the least score is then dragged along the histogram of what is found, and the picture follows. */
final class SearchCard extends VBox implements InHand {

  private static final String START =
      "All nodes of the tree are scored once; then drag the least score, and what is found follows.";
  private static final double WIDTH = 330;
  private static final int ALPHA = 0x66;

  /** Scores from which on nodes are in the histogram. */
  private static final double FROM = 0.05;

  private static final double HUNDRED = 100;

  private final Workspace workspace;
  private final Desk desk;
  private final StepPanel panel;
  private final HistogramBox box = new HistogramBox(WIDTH - 24, 76);
  private final Label found = new Label();
  private final Label note = new Label(START);
  private final Button score = new Button("Score all nodes");
  private Search search;
  private Result tree;
  private double[] values = new double[0];
  private boolean inHand;

  SearchCard(Desk desk, StepPanel panel) {
    this.desk = desk;
    workspace = desk.workspace();
    this.panel = panel;
    getStyleClass().add("card");
    setSpacing(6);
    setPrefWidth(WIDTH);
    setMinWidth(WIDTH);
    score.setId("find-objects-score");
    score.setOnAction(e -> score());
    box.setId("find-objects-histogram");
    box.onMoved((low, high) -> {
      double least = Double.isInfinite(low) ? 0 : Math.rint(HUNDRED * low) / HUNDRED;
      panel.settings().set("least-score", Cql2.number(least));
    });
    found.getStyleClass().add("mono");
    found.setId("find-objects-found");
    found.setWrapText(true);
    found.setMinHeight(USE_PREF_SIZE);
    note.getStyleClass().add("soft");
    note.setWrapText(true);
    note.setMinHeight(USE_PREF_SIZE);
    getChildren().addAll(score, box, found, note);
    panel.onSettings(this::choose);
    panel.inputs().onChange(this::forgetOthers);
  }

  /** Only in hand it works and paints. */
  @Override
  public void setInHand(boolean now) {
    inHand = now;
    if (now) {
      choose();
    } else {
      workspace.lanes().trial().drop(this);
      workspace.lanes().trial().drop(box);
    }
  }

  private void forgetOthers() {
    if (search != null && panel.inputs().results().get("tree") != tree) {
      search = null;
      values = new double[0];
      found.setText("");
    }
  }

  private void score() {
    Map<String, Result> results = panel.inputs().results();
    Map<String, String> files = panel.inputs().files();
    Result of = results.get("tree");
    if (of == null || !(of.value() instanceof Cut cut)) {
      workspace.messages().warn("Choose a tree of this project: segment the scene first.");
      return;
    }
    note.setText("Scoring\u2026");
    Map<String, String> texts = panel.settingTexts();
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Scoring all nodes",
            job -> {
              var step = StepCatalogue.get("find-objects");
              FindObjects made =
                  (FindObjects) step.make(ResultMaker.values(step, results, files), texts);
              return Search.of(
                  made.model().orElseGet(FinderFile::ofRoofs),
                  cut,
                  made.scene(),
                  made.models(),
                  job);
            },
            now -> {
              search = now;
              tree = of;
              note.setText("Bars: what is found without a least score.");
              workspace.display().show(of);
              choose();
            },
            failure -> {
              note.setText(START);
              workspace.messages().tell(failure.getMessage());
            });
  }

  /** What is found and what would be without a least score. */
  private record Found(ObjectSet set, double[] all, double least) {}

  private void choose() {
    Search now = search;
    if (now == null || !inHand) {
      return;
    }
    Map<String, String> texts = panel.settingTexts();
    workspace.ask(
        box,
        job -> {
          boolean[] wanted =
              now.wanted(Stream.of(texts.getOrDefault("classes", "auto").split(","))
                  .map(String::strip)
                  .filter(each -> !each.isEmpty() && !each.equals("auto"))
                  .toList());
          double sure = number(texts, "least-probability");
          double area = texts.containsKey("least-area") ? number(texts, "least-area") : 0;
          double least = number(texts, "least-score");
          ObjectSet set = now.choose(wanted, least, sure, area);
          ObjectSet all = now.choose(wanted, FROM, sure, area);
          return new Found(
              set,
              all.table().values("score"),
              Double.isNaN(least) ? now.finder().usualScore() : least);
        },
        this::show);
  }

  private static double number(Map<String, String> texts, String name) {
    String text = texts.getOrDefault(name, "auto");
    return text.equals("auto") ? Double.NaN : Double.parseDouble(text);
  }

  private void show(Found now) {
    values = now.all;
    int[] passing = new int[values.length];
    Arrays.fill(passing, Integer.MAX_VALUE);
    box.show(values, passing, 0, 0, 1, "", now.least, Double.POSITIVE_INFINITY);
    found.setText(
        Result.grouped(now.set.count()) + " found, at " + Cql2.number(now.least) + counts(now.set));
    if (workspace.display().paneAProperty().get() == tree) {
      paint(now.set);
    }
  }

  private static String counts(ObjectSet set) {
    Table.Column classes = set.table().column(ClassMap.CLASS);
    StringBuilder text = new StringBuilder();
    for (int k = 0; k < classes.categories().size(); k++) {
      double place = k;
      long count = Arrays.stream(classes.values()).filter(v -> v == place).count();
      text.append(k == 0 ? ": " : ", ")
          .append(count)
          .append(' ')
          .append(classes.categories().get(k));
    }
    return text.toString();
  }

  private void paint(ObjectSet set) {
    Table.Column classes = set.table().column(ClassMap.CLASS);
    List<Color> colours =
        ClassMap.colours(search.finder().classes()).stream().map(Color::web).toList();
    int[] fill = new int[set.count()];
    boolean[] bordered = new boolean[fill.length];
    Arrays.fill(bordered, true);
    for (int row = 0; row < fill.length; row++) {
      int place = search.finder().classes().indexOf(classes.text(row));
      fill[row] = Palette.argb(ALPHA, colours.get(place));
    }
    desk.picture().paint(ObjectPaint.of(set).coloured(fill, bordered));
  }
}
