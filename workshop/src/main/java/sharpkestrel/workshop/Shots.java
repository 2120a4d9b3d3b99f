package sharpkestrel.workshop;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.util.Duration;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.tools.pick.PickTool;
import sharpkestrel.app.tools.profile.ProfileTool;
import sharpkestrel.app.tools.samples.SamplesTool;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.step.Stage;

/** Drives the application to each main view on the demo data and writes a picture of each. */
final class Shots {

  /** Of a picture: those of the documentation are most of the repository. */
  /** Samples of each class. */
  private static final int LABELLED = 12;

  private static final int MOST_BYTES = 350_000;

  private final Workspace workspace;
  private final Scene scene;
  private final PictureView picture;
  private final Path folder;
  private final Deque<Runnable> acts = new ArrayDeque<>();
  private final Deque<BooleanSupplier> readiness = new ArrayDeque<>();

  private Shots(Workspace workspace, Scene scene, Path folder) {
    this.workspace = workspace;
    this.scene = scene;
    this.picture = ((Shell) scene.getRoot()).picture();
    this.folder = folder;
  }

  static void take(Workspace workspace, Scene scene) {
    Path folder = Path.of(System.getProperty("kestrel.shots", "docs/screenshots"));
    new Shots(workspace, scene, folder).plan();
  }

  private void plan() {
    step(() -> workspace.results().size() == 2, () -> show("pan"));
    shot("gather", () -> workspace.display().lookProperty().set(Look.GREY));
    run("calibrate", "Pan reflectance", Map.of("scene", "pan"), shipped("pan-toa"));
    run("calibrate", "Bands reflectance", Map.of("scene", "ms"), shipped("ms-toa"));
    ortho("Pan ortho", "calibrate", "0.5");
    ortho("Bands ortho", "calibrate-2", "2");
    shot("place", () -> {
      workspace.display().stageProperty().set(Stage.PLACE);
      workspace.display().lookProperty().set(Look.INFRARED);
    });
    run("open", "Air photo", Map.of(), Map.of("file", "photo"));
    step(this::idle, () -> {
      workspace.messages().clear();
      workspace.display().lookProperty().set(Look.GREY);
      workspace.display().stageProperty().set(Stage.PLACE);
      workspace.display().show(named("open"));
      workspace.display().paneBProperty().set(named("ortho"));
      click("#tool-tiepoints");
      var undulation = (javafx.scene.control.TextField) scene.lookup("#tie-undulation");
      undulation.setText("47");
      undulation.getOnAction().handle(null);
    });
    step(() -> idle() && picture.isComplete(), () -> click("#tie-find"));
    step(() -> workspace.named("tiepoints").isPresent(), () -> {});
    step(() -> !((Label) scene.lookup("#tie-rms")).getText().equals("\u2013"), () -> {});
    shot("tie-points", () -> picture.fit());
    step(this::idle, () -> {
      click("#tool-ortho");
      workspace.display().compareProperty().set(Display.Compare.ONE);
    });
    run("assemble", "Bands two, raw", Map.of(), Map.of("delivery", "two", "image", "ms"));
    run("calibrate", "Bands two reflectance", Map.of("scene", "assemble"), shipped("ms-toa"));
    ortho("Bands two ortho", "calibrate-3", "2");
    step(this::idle, () -> {
      workspace.display().lookProperty().set(Look.NATURAL);
      workspace.display().stageProperty().set(Stage.PLACE);
      click("#tool-mosaic");
      click("#mosaic-find");
    });
    step(() -> idle() && shown("mosaic-preview"), () -> {});
    shot("mosaic", () -> picture.fit());
    step(this::idle, () -> {
      click("#tool-ortho");
      workspace.display().show(named("ortho-2"));
    });
    run(
        "pansharpen",
        "Sharpened",
        Map.of("pan", "ortho", "multispectral", "ortho-2"),
        shipped("sharp"));
    step(this::idle, () -> workspace.display().lookProperty().set(Look.NATURAL));
    shot("sharpen", () -> {
      workspace.display().stageProperty().set(Stage.SHARPEN);
      workspace.display().paneBProperty().set(named("ortho-2"));
      workspace.display().compareProperty().set(Display.Compare.SWIPE);
      near();
    });
    planSharpening();
    run("segment", "Objects", Map.of("scene", "pansharpen"), shipped("objects"));
    step(this::idle, () -> {
      workspace.display().compareProperty().set(Display.Compare.ONE);
      workspace.display().stageProperty().set(Stage.SEGMENT);
    });
    shot("segment", () -> {
      click("#segment-as-made");
      near();
    });
    step(this::idle, () -> {
      click("#tool-pick-objects");
      near();
    });
    step(this::isSeen, this::pickRoofs);
    run("measure", "Measured", Map.of("objects", "segment", "scene", "pansharpen"), Map.of());
    shot("table", () -> {
      near();
      click("#view-table");
      choose("#colour-by", "blue_red");
    });
    step(this::idle, () -> {
      workspace.display().featureShownProperty().set("");
      click("#view-plots");
      type("#plots-filter", shipped("metal").get("tests"));
      click("#plots-keep-0");
      click("#plots-all");
    });
    shot("plots", () -> {
      choose("#plots-x", "blue_red");
    });
    step(this::idle, () -> click("#plots-drop"));
    shot("winnow", () -> {
      workspace.display().stageProperty().set(Stage.EXTRACT);
      typeTests();
    });
    step(this::idle, () -> {
      click("#family-examples");
      near();
    });
    step(this::idle, this::labelSome);
    step(this::idle, () -> {});
    shot("samples", () -> click("#samples-ask"));
    run("winnow", "Metal roofs", Map.of("objects", "measure"), shipped("metal"));
    run("outline", "Roof outlines", Map.of("objects", "winnow"), shipped("roofs"));
    step(
        this::idle,
        () -> workspace.run(
            StepCatalogue.get("compare"),
            "Scores",
            new LinkedHashMap<>(Map.of("outlines", named("outline"))),
            new LinkedHashMap<>(
                Map.of("truth", workspace.suggestions().all().get("compare:truth"))),
            new LinkedHashMap<>(shipped("check"))));
    shot("check", () -> {
      workspace.display().stageProperty().set(Stage.CHECK);
      near();
    });
    shot("dark", () -> {
      click("#theme");
      workspace.display().stageProperty().set(Stage.EXTRACT);
      workspace.display().show(named("measure"));
      click("#family-examples");
      click("#tool-weigh-samples");
    });
    step(this::idle, Platform::exit);
    Timeline clock = new Timeline(new KeyFrame(Duration.millis(250), e -> {
      if (!readiness.isEmpty() && readiness.peek().getAsBoolean()) {
        readiness.pop();
        acts.pop().run();
      }
    }));
    clock.setCycleCount(Timeline.INDEFINITE);
    clock.play();
    workspace.messages().textProperty().addListener((p, before, now) -> {
      if (!now.isEmpty()) {
        System.err.println("kestrel: " + now);
      }
    });
  }

  /** The tools of the stage Sharpen on the placed bands. */
  private void planSharpening() {
    step(this::idle, () -> {
      workspace.display().compareProperty().set(Display.Compare.ONE);
      workspace.display().show(named("ortho-2"));
      click("#tool-pansharpen");
    });
    // what pane A is to show has to be there before anything is done in it
    step(() -> idle() && picture.isComplete(), () -> {
      near();
      picture.trials().here();
      click("#pansharpen-rate");
    });
    step(() -> scene.lookup("#rating-laplacian") != null, () -> click("#pansharpen-try"));
    shot("methods", () -> {});
    step(this::isSeen, () -> {
      picture.trials().clear();
      toggleLook();
    });
    step(this::idle, () -> {
      toggleLook();
      click("#tool-texture");
      picture.trials().here();
      click("#texture-compare");
    });
    step(this::isSeen, () -> ((Shell) scene.getRoot()).bench().setLifted(true));
    step(this::idle, () -> {
      ((Shell) scene.getRoot()).bench().setLifted(false);
      picture.trials().clear();
      click("#tool-builtup");
      click("#builtup-show");
    });
    step(this::idle, () -> {
      click("#tool-profiles");
      // those of pictures taken before are kept with the project
      ((Shell) scene.getRoot()).bench().tool(ProfileTool.class).model().places().clear();
      place("Water", 511_458, 6_701_909, 511_558, 6_702_026);
      place("Wood", 512_425, 6_701_976, 512_492, 6_702_076);
      place("Sparse wood", 512_625, 6_702_209, 512_692, 6_702_259);
      place("Town", 512_225, 6_701_876, 512_325, 6_701_959);
    });
    shot("profiles", () -> {});
    step(this::idle, () -> {
      click("#tool-pansharpen");
      workspace.display().show(named("pansharpen"));
    });
  }

  @SuppressWarnings("unchecked")
  private void choose(String box, String value) {
    ((javafx.scene.control.ComboBox<String>) scene.lookup(box)).setValue(value);
  }

  private void toggleLook() {
    ((javafx.scene.control.ToggleButton) scene.lookup("#look")).fire();
  }

  private void place(String name, double west, double south, double east, double north) {
    var model = ((Shell) scene.getRoot()).bench().tool(ProfileTool.class).model();
    model.add(new GeometryFactory().toGeometry(new Envelope(west, east, south, north)), "place");
    int last = model.places().size() - 1;
    model.places().set(last, model.places().get(last).named(name));
  }

  /** Settings of a step of the shipped run sheet, so that the pictures show what it does. */
  private static Map<String, String> shipped(String name) {
    return RunSheet.read(Path.of("docs/examples/metal-roofs.json")).steps().stream()
        .filter(entry -> entry.name().equals(name))
        .findFirst()
        .orElseThrow()
        .settings();
  }

  /** The air photo of the survey whose heights are offered. */
  private String photo() {
    Path heights = Path.of(workspace.suggestions().all().get("heights"));
    return heights.getParent().resolveSibling("photo").resolve("air-photo.tif").toString();
  }

  /** The survey's second scene. */
  private String sceneTwo() {
    Path heights = Path.of(workspace.suggestions().all().get("heights"));
    return heights
        .getParent()
        .resolveSibling("scene-two")
        .resolve("scene-two.json")
        .toString();
  }

  private boolean shown(String name) {
    Result shown = workspace.display().paneAProperty().get();
    return shown != null && shown.name().equals(name);
  }

  private void typeTests() {
    type("#winnow-text", shipped("metal").get("tests"));
  }

  private void type(String id, String text) {
    var field = (javafx.scene.control.TextField) scene.lookup(id);
    field.setText(text);
    field.getOnAction().handle(null);
  }

  private void click(String id) {
    ((javafx.scene.control.Button) scene.lookup(id)).fire();
  }

  private Result named(String name) {
    return workspace.results().stream()
        .filter(r -> r.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  private void show(String name) {
    workspace.display().stageProperty().set(named(name).stage());
    workspace.display().show(named(name));
  }

  /** Closer to where the truth has most houses. */
  private void near() {
    var truth = sharpkestrel.io.GeoPackage.read(
        Path.of(workspace.suggestions().all().get("compare:truth")), "");
    double best = -1;
    double x = 0;
    double y = 0;
    for (var one : truth.geometries()) {
      double count = 0;
      for (var other : truth.geometries()) {
        count += one.distance(other) < 90 ? 1 : 0;
      }
      if (count > best) {
        best = count;
        x = one.getCentroid().getX();
        y = one.getCentroid().getY();
      }
    }
    var grid = workspace.display().paneAProperty().get().backdrop().grid();
    var toPixel = grid.affine().inverse();
    picture.oneToOne();
    picture.centreOn(toPixel.x(x, y), toPixel.y(x, y));
  }

  /** Picks large roofs, all but the last accepted. */
  private void pickRoofs() {
    var truth = sharpkestrel.io.GeoPackage.read(
        Path.of(workspace.suggestions().all().get("compare:truth")), "");
    double[] wanted = sharpkestrel.expr.Cql2.parseTest(
            "material = 'metal' AND area >= 90 AND whole = 1")
        .evaluate(truth.table());
    var toPixel =
        workspace.display().paneAProperty().get().backdrop().grid().affine().inverse();
    var picks = ((Shell) scene.getRoot()).bench().tool(PickTool.class).model();
    for (int i = 0; i < wanted.length; i++) {
      if (wanted[i] == 1) {
        picks.accept();
        var middle = truth.geometries().get(i).getInteriorPoint();
        picks.pick((int) toPixel.x(middle.getX(), middle.getY()), (int)
            toPixel.y(middle.getX(), middle.getY()));
      }
    }
  }

  /** Objects of what is easily told by a rule, as samples of five classes. */
  private void labelSome() {
    SamplesTool tool = ((Shell) scene.getRoot()).bench().tool(SamplesTool.class);
    Table table = ((ObjectSet) named("measure").value()).table();
    Map<String, String> rules = new LinkedHashMap<>();
    rules.put("metal roof", shipped("metal").get("tests"));
    rules.put("meadow", "ndvi > 0.45 AND area > 80");
    rules.put("water", "ndvi < 0 AND near_infrared_p90 < 0.05 AND area > 200");
    rules.put("road", "elongation > 3 AND ndvi < 0.2 AND area > 150");
    rules.put("shadow", "ndvi < 0.3 AND red_p90 < 0.03 AND area > 40");
    rules.forEach((name, test) -> {
      double[] passes = Cql2.parseTest(test).evaluate(table);
      int[] rows = IntStream.range(0, passes.length).filter(i -> passes[i] == 1).toArray();
      for (int k = 0; k < LABELLED && rows.length > 0; k++) {
        tool.label(rows[(int) ((long) k * rows.length / LABELLED)], name);
      }
    });
  }

  private boolean idle() {
    return !workspace.lanes().busyProperty().get()
        && workspace.lanes().trial().isAnswered()
        && !workspace.lanes().keeping().shown().runningProperty().get();
  }

  private void run(
      String step, String title, Map<String, String> inputs, Map<String, String> settings) {
    int[] before = new int[1];
    step(this::idle, () -> {
      Map<String, Result> results = new LinkedHashMap<>();
      inputs.forEach((name, result) -> results.put(name, named(result)));
      before[0] = workspace.results().size();
      Map<String, String> all = new LinkedHashMap<>(settings);
      all.computeIfPresent("file", (name, file) -> photo());
      all.computeIfPresent("delivery", (name, scene) -> sceneTwo());
      workspace.run(StepCatalogue.get(step), title, results, new LinkedHashMap<>(), all);
    });
    step(() -> workspace.results().size() > before[0], () -> {});
  }

  private void ortho(String title, String scene, String size) {
    int[] before = new int[1];
    step(this::idle, () -> {
      before[0] = workspace.results().size();
      workspace.run(
          StepCatalogue.get("ortho"),
          title,
          new LinkedHashMap<>(Map.of("scene", named(scene))),
          new LinkedHashMap<>(Map.of("heights", workspace.suggestions().all().get("heights"))),
          new LinkedHashMap<>(Map.of("undulation", "47", "pixel-size", size)));
    });
    step(() -> workspace.results().size() > before[0], () -> {});
  }

  private void step(BooleanSupplier ready, Runnable act) {
    readiness.add(ready);
    acts.add(act);
  }

  private boolean isSeen() {
    return idle() && picture.isComplete();
  }

  private void shot(String name, Runnable before) {
    long[] since = new long[1];
    // A view moved before its layer is there would be that of the layer before.
    step(this::isSeen, () -> {
      before.run();
      since[0] = System.nanoTime();
    });
    step(
        () -> System.nanoTime() - since[0] > 1_500_000_000L && picture.isComplete() && idle(),
        () -> save(name));
  }

  private void save(String name) {
    WritableImage image = scene.snapshot(null);
    int width = (int) image.getWidth();
    int height = (int) image.getHeight();
    int[] pixels = new int[width * height];
    PixelReader reader = image.getPixelReader();
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = reader.getArgb(i % width, i / width);
    }
    try {
      Files.createDirectories(folder);
      Files.write(folder.resolve(name + ".png"), PalettePicture.png(pixels, width, MOST_BYTES));
    } catch (IOException failed) {
      throw new java.io.UncheckedIOException(failed);
    }
  }
}
