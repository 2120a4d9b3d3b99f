package sharpkestrel.app.tools.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.Axis;
import sharpkestrel.app.plot.ScatterPlot;
import sharpkestrel.app.plot.ScatterSample;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.profile.BandChoice;
import sharpkestrel.sharpen.profile.ProfileReport;

/** Spectral profiles of places, how well they are told apart, and a plot of two bands or indices that is linked to the picture. */
final class ProfilePanel extends HBox {

  private static final int MOST_SIDE = 600;
  private static final int BEST = 3;

  private final Workspace workspace;
  private final PictureView picture;
  private final ProfileModel model;
  private final VBox list = new VBox(2);
  private final SpectrumPlot spectrum = new SpectrumPlot(290, 196);
  private final GridPane apart = new GridPane(10, 2);
  private final VBox best = new VBox(1);
  private final ComboBox<String> axisX = new ComboBox<>();
  private final ComboBox<String> axisY = new ComboBox<>();
  private Map<String, Raster> axes = Map.of();
  private final ScatterPlot scatter = new ScatterPlot(184, 164);
  private boolean setting;

  ProfilePanel(Desk desk, Watch watch, ProfileModel model) {
    super(10);
    workspace = desk.workspace();
    picture = desk.picture();
    this.model = model;
    getChildren().addAll(places(), new Card(6, spectrum), separability(), plot());
    model.places().addListener((ListChangeListener<ProfileModel.Place>) change -> fillList());
    model.shownProperty().addListener((p, before, now) -> show(now));
    watch.on(workspace.display().paneAProperty(), now -> fillAxes());
    fillList();
    fillAxes();
    show(model.shownProperty().get());
  }

  private VBox places() {
    Label hint = new Label("Click a pixel or an object, or draw around a place in the picture.");
    hint.getStyleClass().add("soft");
    hint.setWrapText(true);
    hint.setMinHeight(USE_PREF_SIZE);
    ScrollPane scroll = Scroll.down(list);
    Card card = new Card(6, hint, scroll);
    card.setPrefWidth(236);
    card.setMinWidth(220);
    HBox.setHgrow(card, Priority.ALWAYS);
    return card;
  }

  private VBox separability() {
    Label title = new Label("Told apart, 0 to 2");
    title.getStyleClass().add("soft");
    title.setTooltip(
        new Tooltip(
            "Jeffries-Matusita distance by all bands; the transformed divergence stands in the hint of each number"));
    Label bands = new Label("Best three bands");
    bands.getStyleClass().add("soft");
    apart.setId("apart");
    best.setId("best-bands");
    ScrollPane scroll = new ScrollPane(apart);
    scroll.setMinHeight(0);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    Card card = new Card(6, title, scroll, bands, best);
    card.setPrefWidth(236);
    card.setMinWidth(236);
    return card;
  }

  private VBox plot() {
    for (ComboBox<String> box : List.of(axisX, axisY)) {
      box.setPrefWidth(126);
      box.valueProperty().addListener((p, before, now) -> fillScatter());
    }
    axisX.setId("scatter-x");
    axisY.setId("scatter-y");
    axisX.setTooltip(new Tooltip("To the right"));
    axisY.setTooltip(new Tooltip("Upwards"));
    HBox row = new HBox(6, axisY, axisX);
    row.setAlignment(Pos.CENTER_LEFT);
    scatter.onDrawn(this::light);
    Label hint = new Label("Draw in the plot:\nthose pixels light\nup in the picture.");
    hint.getStyleClass().addAll("soft", "small");
    hint.setMinWidth(USE_PREF_SIZE);
    Button view = new Button("From view");
    view.setId("scatter-view");
    view.setOnAction(e -> fillScatter());
    Card card = new Card(6, row, new HBox(8, scatter, new VBox(8, hint, view)));
    card.setMinWidth(280);
    return card;
  }

  private void fillList() {
    list.getChildren().clear();
    for (int k = 0; k < model.places().size(); k++) {
      list.getChildren().add(line(k, model.places().get(k)));
    }
  }

  private HBox line(int k, ProfileModel.Place place) {
    CheckBox shown = new CheckBox();
    shown.setId("profile-shown-" + k);
    shown.setSelected(place.shown());
    shown.setOnAction(e -> model.places().set(k, place.shown(shown.isSelected())));
    TextField name = new TextField(place.name());
    name.setId("profile-name-" + k);
    HBox.setHgrow(name, Priority.ALWAYS);
    Runnable take = () -> {
      String text = name.getText().strip();
      if (!text.isEmpty() && !text.equals(place.name())) {
        model.places().set(k, place.named(text));
      }
    };
    name.setOnAction(e -> take.run());
    name.focusedProperty().addListener((p, before, now) -> {
      if (!now) {
        take.run();
      }
    });
    Button gone = new Button("\u00d7");
    gone.setId("profile-remove-" + k);
    gone.setOnAction(e -> model.places().remove(k));
    HBox line = new HBox(6, shown, new Circle(5, Palette.of(place.colour())), name, gone);
    line.setAlignment(Pos.CENTER_LEFT);
    return line;
  }

  private void show(ProfileModel.Shown shown) {
    spectrum.show(shown);
    apart.getChildren().clear();
    best.getChildren().clear();
    if (shown != null && shown.report().profiles().size() > 1) {
      matrix(shown);
      choices(shown);
    }
    fillScatter();
  }

  private void matrix(ProfileModel.Shown shown) {
    ProfileReport report = shown.report();
    int n = report.profiles().size();
    for (int i = 0; i < n; i++) {
      apart.add(new Circle(5, Palette.of(shown.places().get(i).colour())), 0, i + 1);
      apart.add(new Circle(5, Palette.of(shown.places().get(i).colour())), i + 1, 0);
      for (int j = 0; j < i; j++) {
        double distance = report.jeffriesMatusita(i, j);
        Label value = new Label(String.format(Locale.ROOT, "%.2f", distance));
        value
            .getStyleClass()
            .addAll("mono", distance > 1.9 ? "good" : distance > 1.4 ? "attention" : "bad");
        value.setTooltip(new Tooltip(String.format(
            Locale.ROOT,
            "%s and %s: Jeffries-Matusita %.3f, transformed divergence %.3f",
            report.profiles().get(i).name(),
            report.profiles().get(j).name(),
            distance,
            report.transformedDivergence(i, j))));
        value.setMinWidth(USE_PREF_SIZE);
        apart.add(value, j + 1, i + 1);
      }
    }
  }

  private void choices(ProfileModel.Shown shown) {
    List<BandChoice> all = shown.report().choices();
    for (int k = 0; k < Math.min(BEST, all.size()); k++) {
      BandChoice choice = all.get(k);
      List<Band> bands = new ArrayList<>();
      for (int b : choice.bands()) {
        bands.add(shown.report().bands().get(b));
      }
      Label line = new Label(String.join(", ", bands.stream().map(Band::name).toList())
          + String.format(Locale.ROOT, "  %.2f", choice.worst()));
      line.getStyleClass().add("link");
      line.setId("best-" + k);
      line.setTooltip(new Tooltip(
          "Click to show these bands; the number is the distance of the two places least apart"));
      // the longest waves in red, as the eye expects
      line.setOnMouseClicked(e -> showBands(bands.reversed()));
      best.getChildren().add(line);
    }
  }

  private void showBands(List<Band> bands) {
    if (bands.stream().anyMatch(b -> b.role() == BandRole.OTHER)) {
      workspace
          .messages()
          .warn(
              "A look goes by what bands stand for, and one of these stands for nothing known. Give it a role with 'stack'.");
      return;
    }
    Look now = workspace.display().lookProperty().get();
    Look best3 = Look.of("Best three", bands.stream().map(Band::role).toArray(BandRole[]::new));
    workspace.display().lookProperty().set(now.changedTo(best3));
  }

  private void fillAxes() {
    Raster scene = model.scene();
    axes = scene == null ? Map.of() : ScatterSample.axes(scene, Job.QUIET);
    List<String> names = List.copyOf(axes.keySet());
    if (names.equals(axisX.getItems())) {
      fillScatter();
      return;
    }
    setting = true;
    for (ComboBox<String> box : List.of(axisX, axisY)) {
      box.setValue(null);
      box.getItems().setAll(names);
    }
    if (scene != null) {
      axisX.setValue(names.get(scene.bandOf(BandRole.RED).orElse(0)));
      int other = Math.min(1, scene.bands().size() - 1);
      axisY.setValue(names.get(scene.bandOf(BandRole.NEAR_INFRARED).orElse(other)));
    }
    setting = false;
    fillScatter();
  }

  private void fillScatter() {
    Raster x = axes.get(axisX.getValue());
    Raster y = axes.get(axisY.getValue());
    if (setting || x == null || y == null) {
      return;
    }
    ProfileModel.Shown shown = model.shownProperty().get();
    List<ProfileModel.Place> places = shown == null ? List.of() : shown.places();
    Window middle = picture.trials().window(x, MOST_SIDE);
    picture.clearOver();
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Plot",
            job -> ScatterSample.of(
                x, y, middle, places.stream().map(ProfileModel.Place::area).toList(), job),
            made -> scatter.show(
                made,
                places.stream().mapToInt(ProfileModel.Place::colour).toArray(),
                Axis.TAIL,
                "",
                ""),
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  private void light(double[] xs, double[] ys) {
    Raster x = axes.get(axisX.getValue());
    Raster y = axes.get(axisY.getValue());
    if (x == null || y == null || xs.length == 0) {
      picture.clearOver();
      return;
    }
    picture.showOver(ScatterSample.within(x, y, xs, ys), 0.5);
  }
}
