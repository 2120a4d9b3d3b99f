package sharpkestrel.app.tools.texture;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.TilePane;
import javafx.scene.layout.VBox;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.app.step.StepPanel;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.app.viewer.Trials;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.sharpen.texture.Measure;

/**
 * All measures of texture side by side on the trial patch, with how much one tells of another, so that those that tell nothing
 * new are seen and left out. What is ticked is measured.
 */
final class TextureCard extends VBox {

  private static final int MOST_SIDE = 420;
  private static final int WIDE = 108;
  private static final int HIGH = 58;
  private static final double CELL = 8;

  private final Workspace workspace;
  private final PictureView picture;
  private final StepPanel panel;
  private final Map<Measure, CheckBox> boxes = new EnumMap<>(Measure.class);
  private final Map<Measure, ImageView> pictures = new EnumMap<>(Measure.class);
  private final int count = Measure.values().length;
  private final Canvas matrix = new Canvas(count * CELL, count * CELL);
  private final Inks inks = new Inks(this::drawMatrix, "accent", "second", "card", "left-out");
  private final Label pair = new Label("");
  private TextureSamples samples;
  private boolean setting;

  TextureCard(Desk desk, Watch watch, StepPanel panel) {
    workspace = desk.workspace();
    picture = desk.picture();
    this.panel = panel;
    getStyleClass().add("card");
    setSpacing(6);
    setPrefWidth(574);
    setMinWidth(574);
    Button compare = new Button("Compare on the patch");
    compare.setId("texture-compare");
    compare.setOnAction(e -> compare());
    Button thin = new Button("Leave out what tells nothing new");
    thin.setId("texture-thin");
    thin.setOnAction(e -> leaveOut());
    ToggleButton grouping = new ToggleButton("Grey levels");
    grouping.setId("texture-levels");
    grouping.setTooltip(new Tooltip("How values are sorted into grey levels; cuts can be drawn"));
    HBox head = new HBox(8, compare, thin, grouping);
    head.setAlignment(Pos.CENTER_LEFT);
    TilePane tiles = new TilePane(8, 4);
    tiles.setPrefColumns(3);
    tiles.setPrefTileWidth(123);
    for (Measure measure : Measure.values()) {
      tiles.getChildren().add(tile(measure));
    }
    ScrollPane scroll = new ScrollPane(tiles);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    HBox.setHgrow(scroll, Priority.ALWAYS);
    pair.getStyleClass().addAll("soft", "small");
    pair.setWrapText(true);
    pair.setPrefWidth(count * CELL);
    pair.setMinHeight(0);
    pair.setMaxHeight(34);
    matrix.setOnMouseMoved(e -> name((int) (e.getY() / CELL), (int) (e.getX() / CELL)));
    VBox right = new VBox(4, new StackPane(matrix), pair, inks);
    right.setMinWidth(count * CELL);
    HBox body = new HBox(10, scroll, right);
    body.setMinHeight(0);
    scroll.setMinHeight(0);
    VBox.setVgrow(body, Priority.ALWAYS);
    LevelsCard levels = new LevelsCard(workspace, panel);
    levels.visibleProperty().bind(grouping.selectedProperty());
    levels.managedProperty().bind(levels.visibleProperty());
    body.visibleProperty().bind(grouping.selectedProperty().not());
    body.managedProperty().bind(body.visibleProperty());
    getChildren().addAll(head, levels, body);
    take(panel.settingTexts().getOrDefault("measures", "contrast,homogeneity,pair_entropy"));
    Runnable regroup = () -> {
      if (grouping.isSelected()) {
        levels.refresh();
      }
    };
    grouping.selectedProperty().addListener((p, before, now) -> regroup.run());
    watch.on(workspace.display().paneAProperty(), now -> regroup.run());
    panel.onSettings(() -> {
      take(panel.settingTexts().getOrDefault("measures", "contrast,homogeneity,pair_entropy"));
      regroup.run();
    });
  }

  private static String key(Measure measure) {
    return measure.name().toLowerCase(Locale.ROOT);
  }

  private VBox tile(Measure measure) {
    ImageView view = new ImageView();
    view.setFitWidth(WIDE);
    view.setFitHeight(HIGH);
    view.setManaged(false);
    view.setVisible(false);
    pictures.put(measure, view);
    String name = key(measure).replace('_', ' ');
    CheckBox box = new CheckBox(Character.toUpperCase(name.charAt(0)) + name.substring(1));
    box.setTooltip(new Tooltip(measure.title()));
    box.setId("measure-" + key(measure));
    box.getStyleClass().add("small");
    box.selectedProperty().addListener((p, before, now) -> put());
    boxes.put(measure, box);
    return new VBox(2, view, box);
  }

  /** Ticks what the setting names. */
  private void take(String text) {
    if (setting) {
      return;
    }
    setting = true;
    List<String> wanted = Arrays.stream(text.split(",")).map(String::strip).toList();
    boxes.forEach(
        (measure, box) -> box.setSelected(wanted.contains("all") || wanted.contains(key(measure))));
    setting = false;
  }

  private void put() {
    if (setting) {
      return;
    }
    setting = true;
    panel
        .settings()
        .set(
            "measures",
            boxes.entrySet().stream()
                .filter(e -> e.getValue().isSelected())
                .map(e -> key(e.getKey()))
                .collect(Collectors.joining(",")));
    setting = false;
  }

  private void compare() {
    Map<String, String> texts = new HashMap<>(panel.settingTexts());
    texts.put("measures", "all");
    var results = panel.inputs().results();
    var files = panel.inputs().files();
    picture.trials().ensure();
    Optional<Window> patch =
        panel.scene().map(raster -> picture.trials().window(raster, MOST_SIDE));
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Comparing measures",
            job -> {
              var step = StepCatalogue.get("texture");
              Raster made = (Raster)
                  step.make(ResultMaker.values(step, results, files), texts).run(job);
              Window middle = patch.orElseGet(() -> Trials.middle(made.grid().window(), MOST_SIDE));
              return TextureSamples.of(made, middle, job);
            },
            this::show,
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  private void show(TextureSamples made) {
    samples = made;
    for (Measure measure : Measure.values()) {
      ImageView view = pictures.get(measure);
      view.setImage(image(made, measure.ordinal()));
      view.setManaged(true);
      view.setVisible(true);
    }
    drawMatrix();
  }

  /** The part of a plane that fills a small picture, from its second to its ninety-eighth per cent. */
  private static WritableImage image(TextureSamples samples, int measure) {
    float[] plane = samples.planes()[measure];
    float[] sorted = plane.clone();
    Arrays.sort(sorted);
    int valid = sorted.length;
    while (valid > 0 && Float.isNaN(sorted[valid - 1])) {
      valid--;
    }
    float low = valid == 0 ? 0 : sorted[(int) (0.02 * (valid - 1))];
    float high = valid == 0 ? 1 : Math.max(low + 1e-9f, sorted[(int) (0.98 * (valid - 1))]);
    int wide = 2 * WIDE;
    int tall = 2 * HIGH;
    double step = Math.min((double) samples.width() / wide, (double) samples.height() / tall);
    int[] pixels = new int[wide * tall];
    for (int y = 0; y < tall; y++) {
      for (int x = 0; x < wide; x++) {
        int col = (int) ((samples.width() - step * wide) / 2 + (x + 0.5) * step);
        int row = (int) ((samples.height() - step * tall) / 2 + (y + 0.5) * step);
        float v = plane[row * samples.width() + col];
        int grey =
            Float.isNaN(v) ? 0 : (int) (255 * Math.max(0, Math.min(1, (v - low) / (high - low))));
        pixels[y * wide + x] = 0xff000000 | grey << 16 | grey << 8 | grey;
      }
    }
    WritableImage image = new WritableImage(wide, tall);
    image
        .getPixelWriter()
        .setPixels(0, 0, wide, tall, PixelFormat.getIntArgbInstance(), pixels, 0, wide);
    return image;
  }

  private void leaveOut() {
    if (samples == null) {
      workspace.messages().warn("Compare the measures on the patch first.");
      return;
    }
    List<Measure> independent = samples.independent();
    setting = true;
    boxes.forEach((measure, box) -> box.setSelected(independent.contains(measure)));
    setting = false;
    put();
  }

  private void drawMatrix() {
    GraphicsContext g = matrix.getGraphicsContext2D();
    g.clearRect(0, 0, matrix.getWidth(), matrix.getHeight());
    for (int a = 0; a < count; a++) {
      for (int b = 0; b < count; b++) {
        double r = samples == null ? Double.NaN : samples.correlation()[a][b];
        g.setFill(inks.of(Double.isNaN(r) ? "left-out" : r >= 0 ? "accent" : "second"));
        g.setGlobalAlpha(Double.isNaN(r) ? 0.25 : 0.06 + 0.94 * Math.abs(r));
        g.fillRect(b * CELL, a * CELL, CELL - 1, CELL - 1);
      }
    }
    g.setGlobalAlpha(1);
  }

  private void name(int a, int b) {
    if (samples == null || a < 0 || b < 0 || a >= count || b >= count) {
      return;
    }
    double r = samples.correlation()[a][b];
    pair.setText(Measure.values()[a].title() + " and "
        + Measure.values()[b].title().toLowerCase(Locale.ROOT) + ": "
        + (Double.isNaN(r) ? "one does not vary" : String.format(Locale.ROOT, "r = %+.2f", r)));
  }
}
