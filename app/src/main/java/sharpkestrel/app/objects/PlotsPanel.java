package sharpkestrel.app.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.FeatureBox;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.model.ObjectChoice;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.HistogramBox;
import sharpkestrel.app.plot.ScatterPlot;
import sharpkestrel.app.plot.ScatterSample;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.objects.FeatureRanking;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.objects.Selection;

/**
 * Features of objects as plots that are linked to the picture: one feature as a histogram with handles, two as a scatter
 * plot to draw in, and which features tell two selections apart.
 */
final class PlotsPanel extends VBox implements InHand {

  private static final int RANKED = 30;
  private static final double HISTOGRAM_WIDTH = 300;
  private static final double HISTOGRAM_HEIGHT = 112;
  private static final int SCATTER_SIDE = 150;

  /** From this height on the scatter plot stands as large as it can beside the other two. */
  private static final double TALL = 330;

  /** What a card has around what it holds, on both sides together. */
  private static final double AROUND = 20;
  /** Share of the values at either end that the axis leaves out. */
  private static final double TAIL = 0.005;

  /** What the axes of the scatter plot take beside and under it. */
  private static final double AXIS = 48;

  private static final double FOOT = 21;

  private static final int PLOTTED = 60_000;

  private final ObjectChoice choice;
  private final FeatureBox feature = new FeatureBox("", c -> !c.isText());
  private final FeatureBox upwards = new FeatureBox("", c -> !c.isText());
  private final HistogramBox histogram = new HistogramBox(HISTOGRAM_WIDTH, HISTOGRAM_HEIGHT);
  private final Label ends = new Label();
  private final ScatterPlot scatter = new ScatterPlot(SCATTER_SIDE + AXIS, SCATTER_SIDE + FOOT);
  private final GridPane ranking = new GridPane(8, 2);
  private final Label[] counts = {new Label(), new Label()};
  private final Button drop = new Button("Clear");
  private ObjectSet plotted;
  private List<Object> scattered = List.of();
  private List<Object> axisOf = List.of();
  private double[] axis = {0, 1};
  private boolean offering;
  private boolean inHand;

  PlotsPanel(Workspace workspace, ObjectChoice choice) {
    super(6);
    this.choice = choice;
    FilterRow filter = new FilterRow(workspace, choice, "plots");
    VBox ofOne = histogramCard();
    VBox ofTwo = scatterCard();
    VBox compared = compareCard();
    HBox cards = new HBox(10);
    VBox.setVgrow(cards, Priority.ALWAYS);
    getChildren().addAll(filter, cards);
    VBox column = new VBox(10);
    // a long ranking scrolls, and leaves the histogram over it whole
    ofOne.setMinHeight(USE_PREF_SIZE);
    compared.setMinHeight(0);
    cards.heightProperty().addListener((p, before, now) -> {
      boolean tall = now.doubleValue() >= TALL;
      double side =
          tall ? Math.min(now.doubleValue() - AROUND - FOOT, getWidth() / 2) : SCATTER_SIDE;
      scatter.setSize(side + AXIS, side + FOOT);
      if (tall != column.getChildren().isEmpty()) {
        return;
      }
      // a node has one parent at a time
      cards.getChildren().clear();
      column.getChildren().clear();
      if (tall) {
        column.getChildren().addAll(ofOne, compared);
        cards.getChildren().addAll(column, ofTwo);
      } else {
        cards.getChildren().addAll(ofOne, ofTwo, compared);
        histogram.setSize(HISTOGRAM_WIDTH, HISTOGRAM_HEIGHT);
      }
    });
    column
        .widthProperty()
        .addListener(
            (p, before, now) -> histogram.setSize(now.doubleValue() - AROUND, HISTOGRAM_HEIGHT));
    HBox.setHgrow(column, Priority.ALWAYS);
    VBox.setVgrow(compared, Priority.ALWAYS);
    cards.getChildren().addAll(ofOne, ofTwo, compared);
    choice.onChange(this::refresh);
  }

  /** Whether what is drawn follows what is chosen. */
  @Override
  public void setInHand(boolean now) {
    inHand = now;
    refresh();
  }

  private VBox histogramCard() {
    feature.setId("plots-x");
    feature.setMaxWidth(Double.MAX_VALUE);
    feature.valueProperty().addListener((p, before, now) -> refreshUnlessOffering());
    histogram.setId("plots-histogram");
    histogram.onMoved((low, high) ->
        feature.chosen().ifPresent(c -> choice.range(new RangeTest(c.name(), low, high))));
    ends.getStyleClass().add("mono");
    ends.setId("plots-ends");
    Card card = new Card(5, feature, histogram, ends);
    card.setMinWidth(HISTOGRAM_WIDTH + 20);
    return card;
  }

  private VBox scatterCard() {
    upwards.setId("plots-y");
    upwards.setPrefWidth(150);
    upwards.valueProperty().addListener((p, before, now) -> refreshUnlessOffering());
    scatter.onDrawn((xs, ys) -> {
      if (feature.chosen().isPresent() && upwards.chosen().isPresent()) {
        choice.area(feature.getValue(), upwards.getValue(), xs, ys);
      }
    });
    Label hint = new Label(
        "To the right: the feature of\nthe histogram.\nDraw in the plot to choose\nobjects, click it for all.");
    hint.getStyleClass().addAll("soft", "small");
    hint.setMinWidth(USE_PREF_SIZE);
    Label up = new Label("Upwards");
    up.getStyleClass().add("soft");
    Card card = new Card(5, new HBox(8, scatter, new VBox(5, up, upwards, hint)));
    card.setMinWidth(USE_PREF_SIZE);
    return card;
  }

  private VBox compareCard() {
    HBox row = new HBox(8);
    row.setAlignment(Pos.CENTER_LEFT);
    for (int k = 0; k < counts.length; k++) {
      int number = k;
      Button keep = new Button(k == 0 ? "Keep as first" : "as second");
      keep.setId("plots-keep-" + k);
      keep.setMinWidth(USE_PREF_SIZE);
      keep.setTooltip(new Tooltip(
          k == 0
              ? "The objects that are chosen now become the first selection; the second is all others until another is"
                  + " kept"
              : "The objects that are chosen now become the second selection"));
      keep.setOnAction(e -> choice.keep(number));
      counts[k].getStyleClass().add("mono");
      counts[k].setMinWidth(USE_PREF_SIZE);
      counts[k].setId("plots-selection-" + k);
      row.getChildren().addAll(new Circle(5, Palette.of(k)), keep, counts[k]);
    }
    drop.setId("plots-drop");
    drop.setMinWidth(USE_PREF_SIZE);
    drop.setOnAction(e -> choice.dropSelections());
    row.getChildren().add(drop);
    ranking.setId("plots-ranking");
    ScrollPane scroll = Scroll.down(ranking);
    Card card = new Card(5, row, scroll);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(0);
    return card;
  }

  private void refreshUnlessOffering() {
    if (!offering) {
      refresh();
    }
  }

  private void refresh() {
    if (!inHand) {
      return;
    }
    ObjectSet set = choice.objects().orElse(null);
    setDisable(set == null);
    if (set != plotted) {
      plotted = set;
      offer(set);
    }
    showHistogram();
    showScatter();
    showRanking();
  }

  private void offer(ObjectSet set) {
    offering = true;
    Table table = set == null ? new Table(0, List.of()) : set.table();
    String other = upwards.getValue();
    feature.offer(table);
    upwards.offer(table);
    if (other == null && upwards.getItems().size() > 1) {
      upwards.setValue(upwards.getItems().get(1));
    }
    offering = false;
  }

  private void showHistogram() {
    Table.Column column = feature.chosen().orElse(null);
    if (column == null) {
      histogram.show(new double[0], new int[0], 0, 0, 1, "", 0, 1);
      histogram.over(List.of());
      ends.setText("");
      return;
    }
    RangeTest range = choice.range(column.name());
    // Those that fail the filter are left out; the others are coloured where they are chosen.
    int[] failedAt = new int[choice.passing().length];
    for (int i = 0; i < failedAt.length; i++) {
      failedAt[i] = choice.passing()[i] ? 1 : 0;
    }
    double[] axis = axis(column);
    double low = axis[0];
    double high = axis[1];
    histogram.show(
        column.values(), failedAt, 1, low, high, TableGrid.unit(column), range.low(), range.high());
    List<boolean[]> groups = new ArrayList<>();
    choice.selection(0).ifPresent(groups::add);
    choice.selection(1).ifPresent(groups::add);
    histogram.over(groups);
    String unit = TableGrid.unit(column);
    ends.setText((TableGrid.text(low) + " to " + TableGrid.text(high) + " " + unit).strip());
  }

  /** The ends between which nearly all values lie of those that pass the filter; worked out once for a filter. */
  private double[] axis(Table.Column column) {
    List<Object> of = List.of(column.name(), plotted, choice.filter());
    if (!of.equals(axisOf)) {
      axisOf = of;
      boolean[] passing = choice.passing();
      double[] values = IntStream.range(0, passing.length)
          .filter(i -> passing[i] && !Double.isNaN(column.values()[i]))
          .mapToDouble(i -> column.values()[i])
          .sorted()
          .toArray();
      int last = values.length - 1;
      axis = values.length == 0
          ? new double[] {0, 1}
          : new double[] {values[(int) (TAIL * last)], values[(int) ((1 - TAIL) * last)]};
    }
    return axis;
  }

  private void showScatter() {
    Optional<Table.Column> x = feature.chosen();
    Optional<Table.Column> y = upwards.chosen();
    if (x.isEmpty() || y.isEmpty()) {
      scatter.show(null, new int[0], 0, "", "");
      scattered = List.of();
      return;
    }
    List<Object> now = new ArrayList<>(List.of(x.get().name(), y.get().name(), plotted));
    now.add(choice.filter());
    choice.selection(0).ifPresent(now::add);
    if (now.equals(scattered) && choice.hasArea()) {
      return;
    }
    scattered = now;
    List<float[][]> groups = new ArrayList<>();
    // the first last, as it is the smaller one as a rule
    choice.selection(1).ifPresent(rows -> groups.add(both(x.get(), y.get(), rows)));
    choice.selection(0).ifPresent(rows -> groups.add(both(x.get(), y.get(), rows)));
    int[] colours = {1, 0};
    float[][] all = both(x.get(), y.get(), choice.passing());
    scatter.show(
        new ScatterSample(all[0], all[1], groups),
        colours,
        TAIL,
        TableGrid.unit(x.get()),
        TableGrid.unit(y.get()));
  }

  /** Both values of rows, every so manieth where there are many. */
  private static float[][] both(Table.Column x, Table.Column y, boolean[] rows) {
    int every = Math.max(1, Selection.count(rows) / PLOTTED);
    float[][] values = new float[2][rows.length];
    int n = 0;
    int seen = 0;
    for (int i = 0; i < rows.length; i++) {
      if (rows[i] && seen++ % every == 0) {
        values[0][n] = (float) x.values()[i];
        values[1][n++] = (float) y.values()[i];
      }
    }
    return new float[][] {Arrays.copyOf(values[0], n), Arrays.copyOf(values[1], n)};
  }

  private void showRanking() {
    for (int k = 0; k < counts.length; k++) {
      counts[k].setText(
          choice.selection(k).map(rows -> Result.grouped(Selection.count(rows))).orElse("\u2013"));
    }
    drop.setDisable(choice.selection(0).isEmpty() && choice.selection(1).isEmpty());
    ranking.getChildren().clear();
    FeatureRanking found = choice.ranking().orElse(null);
    if (found == null) {
      Label hint = new Label(
          "Choose objects by a filter, the handles or the plot and keep them as the first selection, others as the second:"
              + " the features that tell them apart are ranked here.");
      hint.getStyleClass().add("soft");
      hint.setWrapText(true);
      hint.setPrefWidth(330);
      ranking.add(hint, 0, 0);
      return;
    }
    int row = 0;
    for (FeatureRanking.Entry entry :
        found.entries().subList(0, Math.min(RANKED, found.entries().size()))) {
      Label name = new Label(entry.feature().title());
      name.getStyleClass().add("link");
      name.setId("ranked-" + row);
      name.setTooltip(new Tooltip("Click to plot it"));
      name.setOnMouseClicked(e -> feature.choose(entry.feature().name()));
      ProgressBar bar = new ProgressBar(entry.apart());
      bar.setPrefWidth(70);
      bar.setMinWidth(70);
      bar.setMaxHeight(10);
      Label apart = new Label(String.format(Locale.ROOT, "%.2f", entry.apart()));
      apart.getStyleClass().add("mono");
      apart.setMinWidth(USE_PREF_SIZE);
      Label cut = new Label(cut(entry));
      cut.getStyleClass().add("mono");
      cut.setMinWidth(USE_PREF_SIZE);
      cut.setTooltip(new Tooltip(String.format(
          Locale.ROOT,
          "The value that parts them best: %.0f %% are on their side of it",
          100 * entry.right())));
      GridPane.setHgrow(name, Priority.ALWAYS);
      ranking.addRow(row++, name, bar, apart, cut);
    }
  }

  private static String cut(FeatureRanking.Entry entry) {
    return Double.isNaN(entry.cut())
        ? ""
        : String.format(
                Locale.ROOT,
                "%s %.4g %s",
                entry.larger() >= 0.5 ? ">" : "<",
                entry.cut(),
                TableGrid.unit(entry.feature()))
            .strip();
  }
}
