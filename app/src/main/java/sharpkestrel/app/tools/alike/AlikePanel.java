package sharpkestrel.app.tools.alike;

import java.util.Arrays;
import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import sharpkestrel.app.controls.Card;
import sharpkestrel.app.controls.RunColumn;
import sharpkestrel.app.controls.Scroll;
import sharpkestrel.app.controls.Words;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.plot.HistogramBox;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.viewer.ObjectPaint;
import sharpkestrel.app.viewer.Ramp;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/** The most alike as small pictures, likeness with its handle, and the button that takes them. */
final class AlikePanel extends HBox implements InHand {

  private static final double WIDTH = 300;
  private static final int ALPHA = 0x90;
  private static final int PICKED = 0xc08fb56a;
  private static final int REJECTED = 0xc0a33a3a;
  private static final double HUNDRED = 100;

  private final Desk desk;
  private final AlikeModel model;
  private final Label said = new Label();
  private final HistogramBox box = new HistogramBox(WIDTH - 24, 66);
  private final ComboBox<String> ofClass = new ComboBox<>();
  private final Button keep = new Button("Keep as samples");
  private final FlowPane pictures = new FlowPane(8, 6);
  private final RunColumn actions;
  private boolean inHand;

  AlikePanel(Desk desk, AlikeModel model) {
    super(10);
    this.desk = desk;
    this.model = model;
    actions = new RunColumn("rank-alike", "Take them", "Alike", model::run);
    getChildren().addAll(likeness(), next(), actions);
    model.answerProperty().addListener((p, before, now) -> {
      refresh();
      paint();
    });
    model.leastProperty().addListener((p, before, now) -> {
      refresh();
      paint();
    });
    refresh();
  }

  private Card likeness() {
    Label heading = Words.heading("More like this");
    said.getStyleClass().add("soft");
    said.setId("alike-said");
    said.setWrapText(true);
    said.setMinHeight(Region.USE_PREF_SIZE);
    box.setId("alike-histogram");
    box.onMoved((low, high) ->
        model.leastProperty().set(Double.isInfinite(low) ? 0 : Math.rint(HUNDRED * low) / HUNDRED));
    ofClass.setId("alike-class");
    ofClass.setEditable(true);
    ofClass.setPromptText("class");
    ofClass.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(ofClass, Priority.ALWAYS);
    keep.setId("alike-keep");
    keep.setMinWidth(Region.USE_PREF_SIZE);
    keep.setTooltip(
        new Tooltip("What was picked becomes samples of this class, what was rejected of 'other'"));
    keep.setOnAction(e -> keep());
    Card card = new Card(6, heading, box, said, new HBox(6, ofClass, keep));
    card.setMinWidth(WIDTH);
    card.setPrefWidth(WIDTH);
    return card;
  }

  private void keep() {
    String name = ofClass.getEditor().getText().strip();
    if (name.isEmpty()) {
      desk.workspace().messages().warn("Say of which class they are first.");
      return;
    }
    try {
      model.keep(name);
      // digits mean verdicts again, not text
      desk.picture().requestFocus();
    } catch (RasterException refused) {
      desk.workspace().messages().tell(refused.getMessage());
    }
  }

  private Card next() {
    Label heading = Words.heading("Most alike, the best first: 1 is wanted, 2 is not");
    ScrollPane scroll = Scroll.down(pictures);
    Card card = new Card(6, heading, scroll);
    HBox.setHgrow(card, Priority.ALWAYS);
    card.setMinWidth(340);
    return card;
  }

  private void refresh() {
    AlikeModel.Answer answer = model.answerProperty().get();
    actions.setReady(answer != null);
    keep.setDisable(answer == null);
    ofClass
        .getItems()
        .setAll(model.book().classesProperty().get().classes().stream()
            .map(ClassList.Entry::name)
            .toList());
    pictures.getChildren().clear();
    if (answer == null) {
      said.setText(
          model.hasObjects()
              ? "Click one to five objects in the picture: all others are ranked by how alike they are."
              : "Show measured objects in pane A: click them in the trail.");
      box.show(new double[0], new int[0], 0, 0, 1, "", 0, Double.POSITIVE_INFINITY);
      return;
    }
    double[] values = new double[answer.likeness().length];
    int seen = 0;
    for (float likeness : answer.likeness()) {
      if (likeness > 0.05) {
        values[seen++] = likeness;
      }
    }
    values = Arrays.copyOf(values, seen);
    int[] passing = new int[seen];
    Arrays.fill(passing, Integer.MAX_VALUE);
    box.show(values, passing, 0, 0, 1, "", model.leastProperty().get(), Double.POSITIVE_INFINITY);
    said.setText(String.format(
        Locale.ROOT,
        "%d picked, %d rejected; %s objects are as alike as %.2f",
        model.count(true),
        model.count(false),
        Result.grouped(model.taken()),
        model.leastProperty().get()));
    for (int i = 0; i < answer.next().size(); i++) {
      pictures.getChildren().add(small(answer, i));
    }
  }

  private VBox small(AlikeModel.Answer answer, int place) {
    int side = AlikeModel.SMALL;
    WritableImage image = new WritableImage(side, side);
    image
        .getPixelWriter()
        .setPixels(
            0,
            0,
            side,
            side,
            PixelFormat.getIntArgbInstance(),
            answer.pictures().get(place),
            0,
            side);
    Label likeness = new Label(
        String.format(Locale.ROOT, "%.2f", answer.likeness()[answer.next().get(place)]));
    likeness.getStyleClass().add("mono");
    VBox box = new VBox(2, new ImageView(image), likeness);
    box.setId("alike-" + place);
    box.setOnMouseClicked(e -> {
      Window at = answer.places().get(place);
      desk.picture().centreOn(at.x() + at.width() / 2.0, at.y() + at.height() / 2.0);
    });
    return box;
  }

  /** Only in hand it paints. */
  @Override
  public void setInHand(boolean now) {
    inHand = now;
    paint();
  }

  private void paint() {
    if (!inHand) {
      return;
    }
    AlikeModel.Answer answer = model.answerProperty().get();
    if (answer == null) {
      desk.paintChoice();
      return;
    }
    int[] fill = new int[answer.likeness().length];
    for (int row = 0; row < fill.length; row++) {
      boolean taken = answer.likeness()[row] >= model.leastProperty().get();
      int ramp = Ramp.colour(answer.likeness()[row]) & 0xffffff | ALPHA << 24;
      fill[row] =
          model.verdict(row).map(wanted -> wanted ? PICKED : REJECTED).orElse(taken ? ramp : 0);
    }
    desk.picture().paint(ObjectPaint.of(answer.objects()).coloured(fill, new boolean[fill.length]));
  }
}
