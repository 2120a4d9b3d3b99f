package sharpkestrel.app.tools.samples;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.RunColumn;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.extract.learner.ClassesApart;
import sharpkestrel.extract.learner.SampleEvidence;

/** The classes with how far they are apart and how much ground they have, and a list of all samples with what speaks against them. */
final class EvidencePanel extends HBox {

  private static final double CLASSES_WIDTH = 360;
  private static final double LONGEST_NAME = 90;

  /** Classes that are nearer than this, of 2, are mixed up now and then. */
  private static final double WELL_APART = 1.8;

  private final Desk desk;
  private final EvidenceModel model;
  private final GridPane classes = new GridPane(10, 4);
  private final TableView<Line> list = new TableView<>();
  private final CheckBox doubtfulOnly = new CheckBox("only doubtful ones");
  private final Label said = Words.soft("");
  private final Button remove = new Button("Take away");
  private final RunColumn actions;
  private boolean following;

  /** A sample with what is said of it. */
  private record Line(Sample sample, double own, String remark) {

    String share() {
      return Double.isNaN(own) ? "" : String.format(Locale.ROOT, "%.0f %%", 100 * own);
    }
  }

  EvidencePanel(Desk desk, EvidenceModel model) {
    super(10);
    this.desk = desk;
    this.model = model;
    actions = new RunColumn("weigh-samples", "Keep the list", "Samples, weighed", model::run);
    getChildren().addAll(classCard(), listCard(), actions);
    model.evidenceProperty().addListener((p, before, now) -> refresh());
    model.whyProperty().addListener((p, before, now) -> refresh());
    model.pickedProperty().addListener((p, before, now) -> followPicked());
    refresh();
  }

  private Card classCard() {
    ScrollPane scroll = Scroll.down(classes);
    Card card = new Card(6, Words.heading("Classes"), scroll);
    card.setMinWidth(CLASSES_WIDTH);
    card.setPrefWidth(CLASSES_WIDTH);
    return card;
  }

  private Card listCard() {
    doubtfulOnly.setId("evidence-doubtful");
    doubtfulOnly.setSelected(false);
    doubtfulOnly.setOnAction(e -> refresh());
    remove.setId("evidence-remove");
    remove.setOnAction(e -> model.removePicked());
    Region gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    said.setId("evidence-said");
    HBox head = new HBox(10, Words.heading("Samples"), said, gap, doubtfulOnly, remove);
    head.setAlignment(Pos.CENTER_LEFT);
    head.getChildren().forEach(each -> ((Region) each).setMinWidth(Region.USE_PREF_SIZE));
    gap.setMinWidth(0);
    said.setWrapText(false);
    list.setTooltip(
        new Tooltip("A line shows its place; a digit gives what is picked out another class"));
    list.setId("evidence-list");
    list.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
    list.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
    list.setPlaceholder(Words.soft("No samples to list."));
    column(
        "Class",
        110,
        Comparator.comparing(line -> line.sample.ofClass()),
        line -> line.sample.ofClass(),
        line -> new Circle(5, model.book().colourOf(line.sample.ofClass())));
    column("Probability", 80, Comparator.comparingDouble(Line::own), Line::share, line -> null);
    column(
        "Speaks against it", 240, Comparator.comparing(Line::remark), Line::remark, line -> null);
    list.setMinHeight(0);
    VBox.setVgrow(list, Priority.ALWAYS);
    list.getSelectionModel().getSelectedItems().addListener((ListChangeListener<Line>)
        change -> selected());
    Card card = new Card(6, head, list);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(420);
    return card;
  }

  private void column(
      String title,
      double width,
      Comparator<Line> order,
      Function<Line, String> text,
      Function<Line, Node> mark) {
    TableColumn<Line, Line> column = new TableColumn<>(title);
    column.setPrefWidth(width);
    column.setMinWidth(width / 2);
    column.setCellValueFactory(cell -> new ReadOnlyObjectWrapper<>(cell.getValue()));
    column.setCellFactory(c -> new TableCell<>() {
      @Override
      protected void updateItem(Line line, boolean empty) {
        super.updateItem(line, empty);
        setText(empty ? "" : text.apply(line));
        setGraphic(empty ? null : mark.apply(line));
      }
    });
    column.setComparator(order);
    list.getColumns().add(column);
  }

  private void selected() {
    if (following) {
      return;
    }
    List<Sample> picked = list.getSelectionModel().getSelectedItems().stream()
        .filter(Objects::nonNull)
        .map(Line::sample)
        .toList();
    model.pick(picked);
    if (picked.size() == 1) {
      double[] at = model.middle(picked.getFirst());
      desk.picture().centreOn(at[0], at[1]);
    }
  }

  private void followPicked() {
    remove.setDisable(model.pickedProperty().get().isEmpty());
    following = true;
    Set<Sample> picked = new HashSet<>(model.pickedProperty().get());
    list.getSelectionModel().clearSelection();
    for (int i = 0; i < list.getItems().size(); i++) {
      if (picked.contains(list.getItems().get(i).sample)) {
        list.getSelectionModel().select(i);
        list.scrollTo(Math.max(0, i - 1));
      }
    }
    following = false;
    desk.picture().repaint();
  }

  private void refresh() {
    SampleEvidence evidence = model.evidenceProperty().get();
    actions.setReady(evidence != null);
    classes.getChildren().clear();
    if (evidence == null) {
      list.getItems().clear();
      said.setText("");
      classes.add(Words.soft(model.whyProperty().get()), 0, 0);
      remove.setDisable(true);
      return;
    }
    List<Sample> here = model.here();
    if (here.size() != evidence.samples().count()) {
      // an answer to samples that have changed since; the next is under way
      return;
    }
    showClasses(evidence);
    List<Line> lines = IntStream.range(0, here.size())
        .filter(i -> !doubtfulOnly.isSelected() || evidence.isDoubtful(i))
        .mapToObj(i -> new Line(here.get(i), evidence.own()[i], evidence.remark(i)))
        .sorted(Comparator.comparing((Line line) -> line.remark.isEmpty())
            .thenComparingDouble(line -> Double.isNaN(line.own) ? 2 : line.own))
        .toList();
    long doubtful = IntStream.range(0, here.size()).filter(evidence::isDoubtful).count();
    said.setText(here.size() + ", " + doubtful + " doubtful");
    following = true;
    list.getItems().setAll(lines);
    following = false;
    followPicked();
  }

  private void showClasses(SampleEvidence evidence) {
    List<String> names = evidence.samples().classes();
    int[] counts = new int[names.size()];
    for (int ofClass : evidence.samples().classOf()) {
      counts[ofClass]++;
    }
    classes.addRow(
        0,
        new Label(),
        Words.soft(""),
        whole(Words.soft("samples")),
        whole(Words.soft("ground")),
        whole(Words.soft("apart from")));
    for (int k = 0; k < names.size(); k++) {
      Label ground = Words.number(
          evidence.allCells() == 0 ? "" : evidence.cells()[k] + " of " + evidence.allCells());
      Tooltip.install(
          ground,
          new Tooltip(
              "parts of the scene that have a sample of it; what is learned in a few may not hold in the others"));
      classes.addRow(
          k + 1,
          new Circle(5, model.book().colourOf(names.get(k))),
          name(names.get(k)),
          whole(Words.number(String.valueOf(counts[k]))),
          whole(ground),
          whole(apart(evidence, k)));
    }
    if (!evidence.why().isEmpty()) {
      Label why = Words.soft(evidence.why());
      classes.add(why, 0, names.size() + 1, 5, 1);
    }
  }

  /** A label that is never cut; names of classes are, where they are long. */
  private static Label whole(Label label) {
    label.setWrapText(false);
    label.setMinWidth(Region.USE_PREF_SIZE);
    return label;
  }

  private static Label name(String ofClass) {
    Label name = new Label(ofClass);
    name.setMaxWidth(LONGEST_NAME);
    name.setTooltip(new Tooltip(ofClass));
    return name;
  }

  private static Label apart(SampleEvidence evidence, int ofClass) {
    ClassesApart apart = evidence.apart().orElse(null);
    int nearest = apart == null ? -1 : apart.nearest(ofClass);
    if (nearest < 0) {
      return new Label();
    }
    double distance = apart.distance()[ofClass][nearest];
    Label label = new Label(String.format(
        Locale.ROOT, "%.2f  %s", distance, evidence.samples().classes().get(nearest)));
    if (distance < WELL_APART) {
      label.getStyleClass().add("attention");
    }
    Tooltip.install(
        label,
        new Tooltip("Jeffries-Matusita distance, 2 at the most, by "
            + String.join(", ", apart.by()[ofClass][nearest])));
    return label;
  }
}
