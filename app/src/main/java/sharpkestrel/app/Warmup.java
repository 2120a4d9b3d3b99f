package sharpkestrel.app;

import javafx.animation.AnimationTimer;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Slider;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;
import sharpkestrel.app.bench.HistogramBox;
import sharpkestrel.app.model.Background;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.viewer.ViewerWarmup;

/**
 * Loads the classes and styles of the controls that panels are made of, in the background once the first picture is
 * there, so that the first click on a tool does not wait a quarter of a second for them. The controls are never shown.
 */
final class Warmup {

  private static final int ROUNDS = 4;

  private Warmup() {}

  static void afterFirstPicture(Scene scene) {
    new AnimationTimer() {
      @Override
      public void handle(long now) {
        if (((Shell) scene.getRoot()).picture().isComplete()) {
          stop();
          Background.threads("kestrel-warmup").newThread(() -> warm(scene)).start();
        }
      }
    }.start();
  }

  private static void warm(Scene like) {
    ViewerWarmup.run();
    for (int i = 0; i < ROUNDS; i++) {
      makeControls(like);
    }
  }

  private static void makeControls(Scene like) {
    ComboBox<String> box = new ComboBox<>(FXCollections.observableArrayList("one", "two"));
    box.setValue("one");
    ScrollPane scroll = new ScrollPane(new VBox(new Label("text"), new TextField("text")));
    Button button = new Button("text");
    button.setTooltip(new Tooltip("text"));
    HistogramBox histogram = new HistogramBox(196, 74);
    double[] values = new double[1000];
    for (int i = 0; i < values.length; i++) {
      values[i] = i % 37;
    }
    for (int i = 0; i < 10; i++) {
      histogram.show(values, new int[values.length], 0, 0, 37, 5, 20);
    }
    Node[] controls = {
      histogram,
      box,
      scroll,
      button,
      new ToggleButton("text"),
      new Slider(),
      new ScrollBar(),
      new TextArea("text"),
      new ListView<>(FXCollections.observableArrayList("one", "two"))
    };
    VBox root = new VBox(controls);
    Scene scene = new Scene(root, 400, 400);
    scene.getStylesheets().setAll(like.getStylesheets());
    root.applyCss();
    root.layout();
  }
}
