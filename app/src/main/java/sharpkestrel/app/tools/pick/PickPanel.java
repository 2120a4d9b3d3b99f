package sharpkestrel.app.tools.pick;

import java.util.Locale;
import java.util.Map;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.GroundSize;

/** Picking objects by clicks: the rungs of the branch in hand, and the list of what was accepted. */
final class PickPanel extends HBox {

  private static final double PLOT_WIDTH = 470;
  private static final double PLOT_HEIGHT = 164;
  private static final GroundSize NO_GROUND = new GroundSize(1, 1, true);

  private final Workspace workspace;
  private final PickModel model;
  private final RungPlot plot;
  private final Label size = new Label();
  private final Label hint = new Label();
  private final Label count = new Label();
  private final Button accept = new Button("Accept");
  private final Button make = new Button("Make object set");
  private final Button back = new Button("Take back last");
  private final Button clear = new Button("All");
  private final TextField title = new TextField("Picked");

  PickPanel(Desk desk, Watch watch, PickModel model) {
    super(10);
    workspace = desk.workspace();
    PictureView picture = desk.picture();
    this.model = model;
    plot = new RungPlot(PLOT_WIDTH, PLOT_HEIGHT, model::take);
    size.getStyleClass().add("big");
    size.setId("pick-size");
    hint.getStyleClass().add("soft");
    hint.setWrapText(true);
    accept.setId("pick-accept");
    accept.setOnAction(e -> model.accept());
    back.setId("pick-back");
    back.setOnAction(e -> model.takeBackLast());
    clear.setId("pick-clear");
    clear.setOnAction(e -> model.takeBackAll());
    make.setId("pick-make");
    make.getStyleClass().add("primary");
    make.setOnAction(e -> make());
    title.setId("pick-title");
    count.setId("pick-count");
    getChildren().addAll(branchCard(), acceptedCard());
    model.pickedProperty().addListener((p, before, now) -> {
      refresh();
      picture.repaint();
    });
    model.accepted().addListener((ListChangeListener<PickModel.Picked>) change -> {
      refresh();
      picture.repaint();
    });
    watch.on(workspace.display().paneAProperty(), now -> refresh());
    model.readyProperty().addListener((p, before, now) -> {
      refresh();
      picture.repaint();
    });
    refresh();
  }

  private VBox branchCard() {
    Label heading = new Label("Rungs of the branch");
    heading.getStyleClass().add("title");
    HBox row = new HBox(16, size, accept);
    row.setAlignment(Pos.CENTER_LEFT);
    VBox beside = new VBox(8, row, hint);
    beside.setPrefWidth(250);
    HBox.setHgrow(beside, Priority.ALWAYS);
    HBox both = new HBox(16, plot, beside);
    Card card = new Card(6, heading, both);
    HBox.setHgrow(card, Priority.ALWAYS);
    return card;
  }

  private VBox acceptedCard() {
    Label heading = new Label("Accepted");
    heading.getStyleClass().add("title");
    Label name = new Label("Result");
    name.getStyleClass().add("soft");
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    clear.setMinWidth(Region.USE_PREF_SIZE);
    HBox takeBack = new HBox(6, back, clear);
    HBox.setHgrow(back, Priority.ALWAYS);
    Card card = new Card(6, heading, count, takeBack, gap, name, title, make);
    card.setMinWidth(200);
    card.setPrefWidth(200);
    for (Button button : new Button[] {back, clear, make}) {
      button.setMaxWidth(Double.MAX_VALUE);
    }
    return card;
  }

  private void refresh() {
    PickModel.Picked picked = model.pickedProperty().get();
    boolean tree = model.hasTree();
    plot.show(
        model.clicked().orElse(null),
        picked == null ? -1 : model.rung(),
        tree ? model.ground() : NO_GROUND);
    size.setText(
        picked == null
            ? ""
            : String.format(
                Locale.ROOT,
                picked.area() < 100 ? "%.1f %s" : "%,.0f %s",
                picked.area(),
                tree ? model.ground().areaUnit() : "m²"));
    hint.setText(
        !tree
            ? "Run the segmentation, or click a segmented result in the trail: objects are picked out of its tree."
            : picked == null
                ? "Click on a thing in the picture. It lights up at the size at which it is most a thing of its own."
                : "[ and ] or a click on a bar take another size. Shift and click: this is part of it too. Alt and click: this"
                    + " is not. Enter accepts, Esc begins anew.");
    accept.setVisible(picked != null);
    count.setText(
        model.accepted().isEmpty()
            ? "none yet"
            : Result.grouped(model.accepted().size())
                + (model.accepted().size() == 1 ? " object" : " objects"));
    for (Button button : new Button[] {back, clear, make}) {
      button.setDisable(model.accepted().isEmpty() || !tree);
    }
  }

  private void make() {
    workspace.run(
        StepCatalogue.get("pick-objects"),
        title.getText().isBlank() ? "Picked" : title.getText().strip(),
        Map.of("tree", workspace.display().paneAProperty().get()),
        Map.of(),
        Map.of("places", model.places()));
  }
}
