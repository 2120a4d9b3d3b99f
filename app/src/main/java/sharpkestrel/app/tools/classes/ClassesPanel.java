package sharpkestrel.app.tools.classes;

import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.NaturalOrder;
import sharpkestrel.app.controls.RunColumn;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.raster.RasterException;

/** Classes with their colours, shares and names; one or several chosen are seen alone and called by one name. */
final class ClassesPanel extends HBox implements InHand {

  private static final int ALPHA = 0xa0;
  private static final int ALONE = 0xd8;
  private static final double SWATCH = 14;
  private static final double NAMES_WIDTH = 200;
  private static final double PLOT_WIDTH = 250;
  private static final double PLOT_HEIGHT = 168;

  private final Desk desk;
  private final ClassesModel model;
  private final GridPane rows = new GridPane(12, 4);
  private final TextField name = new TextField();
  private final Label chosen = new Label();
  private final VBox given = new VBox(4);
  private final RunColumn actions;
  private boolean inHand;

  ClassesPanel(Desk desk, ClassesModel model) {
    super(10);
    this.desk = desk;
    this.model = model;
    actions = new RunColumn("name-classes", "Make classes", "Classes", model::run);
    getChildren()
        .addAll(list(), new SpreadCard(model, PLOT_WIDTH, PLOT_HEIGHT).card(), names(), actions);
    model.onChange(this::refresh);
    refresh();
  }

  private Card list() {
    for (int column = 0; column < 5; column++) {
      ColumnConstraints width = new ColumnConstraints();
      width.setHgrow(column == 1 ? Priority.ALWAYS : Priority.NEVER);
      rows.getColumnConstraints().add(width);
    }
    ScrollPane scroll = Scroll.down(rows);
    Label heading = Words.heading("Classes of what is shown");
    Card card = new Card(6, heading, scroll);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(330);
    return card;
  }

  private Card names() {
    Label heading = Words.heading("Call what is chosen");
    name.setId("classes-name");
    name.setPromptText("name, then Enter");
    name.setOnAction(e -> call());
    chosen.getStyleClass().add("soft");
    chosen.setWrapText(true);
    ScrollPane scroll = new ScrollPane(given);
    scroll.setFitToWidth(true);
    scroll.setMinHeight(0);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    Card card = new Card(6, heading, name, chosen, scroll);
    card.setMinWidth(NAMES_WIDTH);
    card.setPrefWidth(NAMES_WIDTH);
    return card;
  }

  private void call() {
    try {
      model.call(name.getText().strip());
      name.clear();
      // digits mean names again, not text
      desk.picture().requestFocus();
    } catch (RasterException refused) {
      desk.workspace().messages().tell(refused.getMessage());
    }
  }

  private void refresh() {
    rows.getChildren().clear();
    actions.setReady(model.isNamed());
    name.setDisable(!model.hasClasses());
    if (!model.hasClasses()) {
      Label hint = new Label(
          "Show clusters, a class map or classified objects in pane A: click them in the trail.");
      hint.getStyleClass().add("soft");
      hint.setWrapText(true);
      rows.add(hint, 0, 0, 5, 1);
      chosen.setText("");
      given.getChildren().clear();
      return;
    }
    addHeads();
    int row = 1;
    for (int place : NaturalOrder.places(model.classes())) {
      add(model.classes().get(place), row++);
    }
    int count = model.selected().size();
    chosen.setText(
        count == 0
            ? "Click classes in the list or in the picture; with Shift several. What is chosen is seen alone."
            : count == 1 ? "1 class is chosen." : count + " classes are chosen.");
    given.getChildren().clear();
    List<String> names = model.given();
    for (int k = 0; k < names.size(); k++) {
      Label label = new Label(
          (k < 9 ? (k + 1) + "  " : "") + (names.get(k).isEmpty() ? "(none)" : names.get(k)));
      label.setId("given-" + k);
      given.getChildren().add(label);
    }
    paint();
  }

  private void addHeads() {
    String[] heads = {"", "class", "share", "how sure", "nearest other"};
    for (int column = 0; column < heads.length; column++) {
      Label head = new Label(heads[column]);
      head.getStyleClass().add("soft");
      head.setMinWidth(Region.USE_PREF_SIZE);
      rows.add(head, column, 0);
    }
  }

  private void add(String ofClass, int row) {
    Rectangle swatch = new Rectangle(SWATCH, SWATCH, Color.web(model.colourOf(ofClass)));
    String now = model.nameOf(ofClass);
    Label label = new Label(
        now.equals(ofClass) ? ofClass : ofClass + "  \u2192  " + (now.isEmpty() ? "(none)" : now));
    label.setId("classes-row-" + (row - 1));
    label.getStyleClass().add(model.isSelected(ofClass) ? "model-chosen" : "model");
    label.setMaxWidth(Double.MAX_VALUE);
    label.setOnMouseClicked(e -> model.select(ofClass, e.isShiftDown() || e.isShortcutDown()));
    Label share = number(String.format(Locale.ROOT, "%.1f %%", model.share(ofClass)));
    double sure = model.sureness(ofClass);
    Label sureness = number(Double.isNaN(sure) ? "" : String.format(Locale.ROOT, "%.2f", sure));
    String nearest = model.nearest(ofClass);
    Label other = new Label(nearest.isEmpty() ? "" : model.nameOf(nearest));
    other.getStyleClass().add("soft");
    rows.addRow(row, swatch, label, share, sureness, other);
  }

  private static Label number(String text) {
    Label label = new Label(text);
    label.getStyleClass().add("mono");
    label.setMinWidth(Region.USE_PREF_SIZE);
    label.setAlignment(Pos.CENTER_RIGHT);
    label.setMaxWidth(Double.MAX_VALUE);
    return label;
  }

  /** Only in hand it paints. */
  @Override
  public void setInHand(boolean now) {
    inHand = now;
    paint();
  }

  private void paint() {
    if (!inHand || !model.hasClasses()) {
      return;
    }
    List<String> classes = model.classes();
    boolean all = model.selected().isEmpty();
    int[] ofClass = new int[classes.size()];
    for (int k = 0; k < ofClass.length; k++) {
      boolean seen = all || model.isSelected(classes.get(k));
      ofClass[k] =
          seen ? Palette.argb(all ? ALPHA : ALONE, Color.web(model.colourOf(classes.get(k)))) : 0;
    }
    int[] classOf = model.classOf();
    int[] fill = new int[classOf.length];
    for (int row = 0; row < fill.length; row++) {
      fill[row] = classOf[row] < 0 ? 0 : ofClass[classOf[row]];
    }
    desk.picture().paint(ObjectPaint.of(model.set()).coloured(fill, new boolean[fill.length]));
  }
}
