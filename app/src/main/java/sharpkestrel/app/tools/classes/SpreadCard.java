package sharpkestrel.app.tools.classes;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.paint.Color;
import sharpkestrel.app.controls.Card;
import sharpkestrel.extract.classmap.BandSpread;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/** The classes as ellipses in two bands of the scene, which are chosen over it. */
final class SpreadCard {

  private final ClassesModel model;
  private final ComboBox<String> bandX = new ComboBox<>();
  private final ComboBox<String> bandY = new ComboBox<>();
  private final EllipsePlot plot;
  private final Card card;
  private Raster offered;
  private ObjectSet asked;

  SpreadCard(ClassesModel model, double width, double height) {
    this.model = model;
    plot = new EllipsePlot(width - 20, height, model::select);
    bandX.setId("classes-band-x");
    bandX.setTooltip(new Tooltip("The band to the right"));
    bandY.setId("classes-band-y");
    bandY.setTooltip(new Tooltip("The band upwards"));
    for (ComboBox<String> box : List.of(bandX, bandY)) {
      box.setPrefWidth((width - 26) / 2);
      box.valueProperty().addListener((p, before, now) -> ask());
    }
    card = new Card(4, new HBox(6, bandX, bandY), plot);
    card.setMinWidth(width);
    card.setMaxWidth(width);
    model.onChange(this::refresh);
    model.spreadsProperty().addListener((p, before, now) -> draw());
    refresh();
  }

  Card card() {
    return card;
  }

  private void refresh() {
    Raster scene = model.scene().orElse(null);
    boolean two = scene != null && scene.bands().size() > 1;
    card.setVisible(two);
    card.setManaged(two);
    if (two && scene != offered) {
      offered = null;
      List<String> names = scene.bands().stream().map(Band::name).toList();
      bandX.getItems().setAll(names);
      bandY.getItems().setAll(names);
      // red beside near infrared parts most that grows from what does not
      int red = scene.bandOf(BandRole.RED).orElse(0);
      int infrared = scene.bandOf(BandRole.NEAR_INFRARED).orElse(red == 1 ? 0 : 1);
      bandX.getSelectionModel().select(red);
      bandY.getSelectionModel().select(infrared);
      offered = scene;
      asked = null;
    }
    // other classes on the same scene lie elsewhere in its bands
    if (two && model.set() != asked) {
      ask();
    }
    draw();
  }

  private void ask() {
    int x = bandX.getSelectionModel().getSelectedIndex();
    int y = bandY.getSelectionModel().getSelectedIndex();
    if (offered != null && x >= 0 && y >= 0) {
      asked = model.set();
      model.spread(x, y);
    }
  }

  private void draw() {
    List<BandSpread> spreads = model.spreadsProperty().get();
    List<String> classes = model.classes();
    List<EllipsePlot.Entry> entries = new ArrayList<>();
    boolean all = model.selected().isEmpty();
    for (int k = 0; k < classes.size() && k < spreads.size(); k++) {
      String name = classes.get(k);
      entries.add(new EllipsePlot.Entry(
          name,
          model.nameOf(name),
          Color.web(model.colourOf(name)),
          spreads.get(k),
          all || model.isSelected(name)));
    }
    plot.show(entries, unit(bandX), unit(bandY));
  }

  private String unit(ComboBox<String> box) {
    int at = box.getSelectionModel().getSelectedIndex();
    return offered == null || at < 0 ? "" : offered.bands().get(at).unit();
  }
}
