package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.model.Result;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** Objects labelled by mouse and digits, all others told at once, and being asked. */
@ExtendWith(ApplicationExtension.class)
class SamplesWindowTest extends TownWindow {

  @Start
  void start(Stage stage) {
    begin(stage);
  }

  private String label(String id) {
    return ((Label) window.scene().lookup(id)).getText();
  }

  /** What lies at a place: woods in the north-west, water in the south-west, a town in the east. */
  private static String truth(double x, double y) {
    return x > 60 ? "town" : y < 60 ? "wood" : "water";
  }

  /** For each class some objects that lie wholly in it, a pixel of each. */
  private static Map<String, List<int[]>> places(ObjectSet set) {
    int[] labels = new int[COARSE * COARSE];
    set.labels().read(new Window(0, 0, COARSE, COARSE), labels);
    Map<Integer, String> of = new LinkedHashMap<>();
    Map<Integer, List<Integer>> pixels = new LinkedHashMap<>();
    for (int i = 0; i < labels.length; i++) {
      int row = set.rowOf()[labels[i]];
      String here = truth(i % COARSE + 0.5, i / COARSE + 0.5);
      of.merge(row, here, (a, b) -> a.equals(b) ? a : "mixed");
      pixels.computeIfAbsent(row, r -> new ArrayList<>()).add(i);
    }
    Map<String, List<int[]>> places = new LinkedHashMap<>();
    of.forEach((row, name) -> {
      List<Integer> own = pixels.get(row);
      int middle = own.get(own.size() / 2);
      if (own.size() > 8) {
        places
            .computeIfAbsent(name, n -> new ArrayList<>())
            .add(new int[] {middle % COARSE, middle / COARSE});
      }
    });
    return places;
  }

  @Test
  void aFewClicksAndDigitsTellAllOthers(FxRobot robot) throws Exception {
    measure(robot);
    ObjectSet set = (ObjectSet) workspace().results().getLast().value();
    Map<String, List<int[]>> places = places(set);
    List<String> classes = List.of("wood", "water", "town");
    robot.clickOn("#stage-extract").clickOn("#family-examples");
    for (String name : classes) {
      Waiting.type(robot, "#class-name", name + "\n");
    }
    assertThat(label("#class-2")).isEqualTo("town");

    for (int k = 0; k < classes.size(); k++) {
      robot.type(KeyCode.getKeyCode(String.valueOf(k + 1)));
      List<int[]> there = places.get(classes.get(k));
      for (int i = 0; i < 3; i++) {
        int[] at = there.get(i * (there.size() - 1) / 2);
        robot.clickOn(window.onScreen(COARSE, COARSE, at[0] + 0.5, at[1] + 0.5));
      }
    }
    window
        .waiting()
        .until(
            "what the samples say",
            () -> !window.scene().lookup("#classify-objects-run").isDisabled());
    window.waiting().until("rest", () -> workspace().lanes().save().isAtRest());
    int labelled = GeoPackage.read(folder.resolve("project/hand/samples-epsg-32630.gpkg"), "")
        .size();
    assertThat(labelled).isEqualTo(9);
    assertThat(ClassList.read(folder.resolve("project/hand/classes.json")).classes())
        .extracting(ClassList.Entry::name)
        .isEqualTo(classes);

    robot.type(KeyCode.A);
    window.waiting().until("a question", () -> window.scene().lookup("#samples-pass") != null);
    robot.type(KeyCode.DIGIT1);
    window.waiting().until("the next question", () -> samples() == labelled + 1);
    robot.type(KeyCode.ESCAPE);
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    window.waiting().until("the answer taken back", () -> samples() == labelled);
    settle(robot);

    window.waiting().until("what it is worth", () -> isWeighed());
    int[] shown = counts();
    robot.clickOn("#classify-objects-run");
    window.waiting().results(5);
    ObjectSet told = (ObjectSet) workspace().results().getLast().value();
    assertThat(counts(told)).as("what was seen is what is run").isEqualTo(shown);
    assertThat(right(told)).isGreaterThan(0.9);
    assertThat(Arrays.stream(told.table().values("probability"))).allMatch(p -> p > 0.3 && p <= 1);
    assertThat(Files.isRegularFile(folder.resolve("project/hand/samples-epsg-32630.jsonl")))
        .isTrue();
  }

  private boolean isWeighed() {
    return window.scene().getRoot().lookupAll(".soft").stream()
        .noneMatch(node ->
            node instanceof Label label && label.getText().startsWith("Checking on kept-back"));
  }

  /** Objects of town, water and wood, as the panel tells them. */
  private int[] counts() {
    int[] counts = new int[3];
    for (int k = 0; k < counts.length; k++) {
      counts[k] = Integer.parseInt(label("#class-count-" + k).replaceAll("\\D", ""));
    }
    return counts;
  }

  private static int[] counts(ObjectSet told) {
    int[] counts = new int[3];
    Table.Column classes = told.table().column("class");
    for (int row = 0; row < told.count(); row++) {
      counts[classes.categories().indexOf(classes.text(row))]++;
    }
    return counts;
  }

  /** A photo of three bands and 8 bits that lies nowhere: bright squares on dark ground. */
  private void openPhoto(String name, int shift) {
    int side = 100;
    float[][] planes = new float[3][side * side];
    for (int i = 0; i < side * side; i++) {
      boolean bright = ((i % side + shift) / 20 + i / side / 20) % 2 == 0;
      for (int b = 0; b < 3; b++) {
        planes[b][i] = (bright ? 200 : 60) + 10 * b + (i * 7919 + b * 31) % 13;
      }
    }
    List<Band> bands = List.of(
        Band.of(BandRole.RED, SampleType.UINT8),
        Band.of(BandRole.GREEN, SampleType.UINT8),
        Band.of(BandRole.BLUE, SampleType.UINT8));
    Grid grid = new Grid(side, side, Affine.IDENTITY, CrsName.NONE);
    Path file = folder.resolve(name + ".tif");
    GeoTiffWriter.write(
        new MemoryRaster(grid, bands, Attachments.NONE, planes),
        file,
        Compression.DEFLATE,
        Job.QUIET);
    int before = workspace().results().size();
    workspaceRun(name, file);
    window.waiting().results(before + 1);
  }

  private void measureShown(FxRobot robot) {
    int before = workspace().results().size();
    settle(robot);
    robot.clickOn("#stage-segment").clickOn("#tool-segment").clickOn("#segment-run");
    window.waiting().results(before + 1);
    settle(robot);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    window.waiting().results(before + 2);
    settle(robot);
  }

  @Test
  void samplesOfAPhotoWithoutAPlaceAreItsOwn(FxRobot robot) {
    openPhoto("first", 0);
    measureShown(robot);
    robot.clickOn("#stage-extract").clickOn("#family-examples");
    Waiting.type(robot, "#class-name", "bright\n");
    Waiting.type(robot, "#class-name", "dark\n");
    robot.type(KeyCode.DIGIT1);
    robot.clickOn(window.onScreen(100, 100, 10, 10)).clickOn(window.onScreen(100, 100, 50, 10));
    robot.type(KeyCode.DIGIT2);
    robot.clickOn(window.onScreen(100, 100, 30, 10)).clickOn(window.onScreen(100, 100, 70, 10));
    window
        .waiting()
        .until(
            "what the samples say",
            () -> !window.scene().lookup("#classify-objects-run").isDisabled());
    assertThat(counted()).isEqualTo("4 samples");

    // a class called otherwise takes its samples along, and back
    robot.doubleClickOn("#class-0");
    Waiting.type(robot, "#class-rename", "light\n");
    assertThat(label("#class-0")).isEqualTo("light");
    assertThat(counted()).isEqualTo("4 samples");
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    assertThat(label("#class-0")).isEqualTo("bright");

    openPhoto("second", 10);
    measureShown(robot);
    robot.clickOn("#stage-extract").clickOn("#family-examples");
    assertThat(counted()).as("those of the first are not here").isEqualTo("0 samples");
    robot.interact(() -> workspace().display().show(workspace().named("measure").orElseThrow()));
    assertThat(counted()).isEqualTo("4 samples");
  }

  private void click(FxRobot robot, int[]... squares) {
    for (int[] at : squares) {
      robot.clickOn(window.onScreen(100, 100, at[0], at[1]));
    }
  }

  @Test
  void aSampleOfTheWrongClassIsFoundAndChosenObjectsAreLabelledAtOnce(FxRobot robot)
      throws Exception {
    openPhoto("first", 0);
    measureShown(robot);
    robot.clickOn("#stage-extract").clickOn("#family-examples");
    Waiting.type(robot, "#class-name", "bright\n");
    Waiting.type(robot, "#class-name", "dark\n");
    robot.type(KeyCode.DIGIT1);
    click(robot, new int[][] {{10, 10}, {50, 10}, {90, 10}, {30, 30}, {10, 50}, {90, 90}});
    // dark in truth
    click(robot, new int[] {70, 90});
    robot.type(KeyCode.DIGIT2);
    click(robot, new int[][] {{30, 10}, {70, 10}, {10, 30}, {50, 30}, {90, 30}, {30, 90}});
    window.waiting().until("all samples", () -> counted().equals("13 samples"));

    robot.moveTo(window.onScreen(100, 100, 50, 48)).moveTo(window.onScreen(100, 100, 50, 50));
    window
        .waiting()
        .until("why under the mouse", () -> window.scene().lookup("#samples-why") != null);
    assertThat(label("#samples-why")).contains("for it");
    assertThat(((Button) window.scene().lookup("#answer-0")).getText()).contains("bright");

    robot.clickOn("#tool-weigh-samples");
    TableView<?> list = (TableView<?>) window.scene().lookup("#evidence-list");
    window.waiting().until("the evidence", () -> list.getItems().size() == 13);
    assertThat(list.getItems().getFirst().toString()).contains("looks like 'dark'");
    robot.clickOn("#evidence-doubtful");
    int doubtful = list.getItems().size();
    assertThat(doubtful).isBetween(1, 4);
    robot.clickOn("#evidence-doubtful");
    click(robot, new int[] {70, 90});
    window
        .waiting()
        .until("the sample picked out", () -> list.getSelectionModel().getSelectedIndex() == 0);
    robot.type(KeyCode.DIGIT2);
    window
        .waiting()
        .until(
            "the right class",
            () ->
                list.getItems().stream().noneMatch(line -> line.toString().contains("looks like")));
    robot.type(KeyCode.DELETE);
    window.waiting().until("one taken away", () -> list.getItems().size() == 12);
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    window.waiting().until("it is back", () -> list.getItems().size() == 13);
    moveASample(robot, list);

    robot.clickOn("#tool-classify-objects");
    robot.interact(() -> ((Label) window.scene().lookup("#class-1"))
        .getContextMenu()
        .getItems()
        .getFirst()
        .fire());
    workspace().lanes().save().flush(java.time.Duration.ofSeconds(10));
    try (var files = Files.list(folder.resolve("project/hand"))) {
      Path kept =
          files.filter(file -> file.toString().endsWith(".gpkg")).findFirst().orElseThrow();
      assertThat(GeoPackage.read(kept, "").table().column("belongs_to").categories())
          .containsExactly("bright");
    }
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);

    robot.clickOn("#view-table");
    Waiting.type(robot, "#table-filter", "red_mean > 130\n");
    robot.clickOn("#stage-extract").clickOn("#family-examples");
    robot.type(KeyCode.DIGIT1).clickOn("#samples-chosen");
    window.waiting().until("all bright ones labelled", () -> counted().equals("20 samples"));
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    window.waiting().until("taken back at once", () -> counted().equals("13 samples"));

    findAmongAllNodes(robot);
  }

  /** A bright sample that is dragged onto a dark square contradicts the others, until that is undone. */
  private void moveASample(FxRobot robot, TableView<?> list) {
    click(robot, new int[] {90, 90});
    window
        .waiting()
        .until("it is picked out", () -> list.getSelectionModel().getSelectedIndex() >= 0);
    robot.drag(window.onScreen(100, 100, 90, 90)).dropTo(window.onScreen(100, 100, 90, 70));
    window
        .waiting()
        .until(
            "it lies on a dark one",
            () -> list.getItems().size() == 13
                && list.getItems().getFirst().toString().contains("looks like 'dark'"));
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    window
        .waiting()
        .until(
            "it is back on a bright one",
            () ->
                list.getItems().stream().noneMatch(line -> line.toString().contains("looks like")));
  }

  @Test
  void whatIsLikeOneIsAcceptedByKeysAndKeptAsSamples(FxRobot robot) {
    openPhoto("first", 0);
    measureShown(robot);
    robot.clickOn("#stage-extract").clickOn("#family-tests").clickOn("#tool-rank-alike");
    click(robot, new int[] {10, 10});
    window.waiting().until("what is like it", () -> window.scene().lookup("#alike-0") != null);
    assertThat(label("#alike-said")).startsWith("1 picked, 0 rejected");
    robot.type(KeyCode.DIGIT1);
    window
        .waiting()
        .until("one accepted", () -> label("#alike-said").startsWith("2 picked, 0 rejected"));
    robot.type(KeyCode.DIGIT2);
    window
        .waiting()
        .until("one rejected", () -> label("#alike-said").startsWith("2 picked, 1 rejected"));
    robot.clickOn("#alike-class").write("bright").clickOn("#alike-keep");
    settle(robot);

    robot.clickOn("#family-examples").clickOn("#tool-classify-objects");
    window.waiting().until("they are samples", () -> counted().equals("3 samples"));
    assertThat(label("#class-0")).isEqualTo("bright");
    assertThat(label("#class-1")).isEqualTo("other");
  }

  /** The bright ones are learned among all nodes, and the line of what comes next leads to finding them. */
  private void findAmongAllNodes(FxRobot robot) {
    int before = workspace().results().size();
    robot.type(KeyCode.DIGIT1);
    settle(robot);
    robot.clickOn("#samples-find");
    window.waiting().results(before + 1);
    settle(robot);
    window
        .waiting()
        .until("what comes next", () -> window.scene().lookup("#next").isVisible());
    robot.clickOn("#next-act");
    settle(robot);
    robot.clickOn("#find-objects-run");
    window.waiting().results(before + 2);
    Result found = workspace().results().getLast();
    assertThat(found.inputs().get("model")).isSameAs(workspace().results().get(before));
    // eight squares of bright ones were clicked, five more are like them
    assertThat(((ObjectSet) found.value()).count()).isBetween(8, 13);
  }

  /** How many samples the classes have together. */
  private String counted() {
    int all = window.scene().getRoot().lookupAll(".soft").stream()
        .filter(node -> node instanceof Label label && label.getText().matches("\\d+ samples?"))
        .mapToInt(node -> Integer.parseInt(((Label) node).getText().split(" ")[0]))
        .sum();
    return all + " samples";
  }

  private int samples() {
    workspace().lanes().save().flush(java.time.Duration.ofSeconds(10));
    return GeoPackage.read(folder.resolve("project/hand/samples-epsg-32630.gpkg"), "")
        .size();
  }

  /** Share of the objects that lie wholly in one class and are told to. */
  private static double right(ObjectSet told) {
    Table.Column classes = told.table().column("class");
    int right = 0;
    int all = 0;
    int[] labels = new int[COARSE * COARSE];
    told.labels().read(new Window(0, 0, COARSE, COARSE), labels);
    for (Map.Entry<String, List<int[]>> each : places(told).entrySet()) {
      for (int[] at : each.getValue()) {
        int row = told.rowOf()[labels[at[1] * COARSE + at[0]]];
        boolean counts = !each.getKey().equals("mixed");
        all += counts ? 1 : 0;
        right += counts && classes.text(row).equals(each.getKey()) ? 1 : 0;
      }
    }
    return (double) right / all;
  }
}
