package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.locationtech.jts.geom.Geometry;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Clusters named by mouse and keys, and the chain from drawn areas over pixels to outlines. */
@ExtendWith(ApplicationExtension.class)
class ClassesWindowTest extends TownWindow {

  @Start
  void start(Stage stage) {
    begin(stage);
  }

  private String label(String id) {
    return ((Label) window.scene().lookup(id)).getText();
  }

  private Object newest() {
    return workspace().results().getLast().value();
  }

  private String classAt(ObjectSet set, int col, int row) {
    int[] label = new int[1];
    set.labels().read(new Window(col, row, 1, 1), label);
    Table.Column classes = set.table().column("class");
    return set.rowOf()[label[0]] < 0 ? "" : classes.text(set.rowOf()[label[0]]);
  }

  private void click(FxRobot robot, int col, int row) {
    robot.clickOn(window.onScreen(COARSE, COARSE, col + 0.5, row + 0.5));
    settle(robot);
    robot.sleep(500);
  }

  @Test
  void clustersAreSeenAloneAndCalledByNames(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-extract").clickOn("#family-clusters");
    robot.clickOn("#cluster-run");
    window.waiting().results(3);
    settle(robot);
    ObjectSet clusters = (ObjectSet) newest();
    assertThat(clusters.count()).isBetween(4, 10);
    hideAndShow(robot, clusters);
    robot.clickOn("#family-classes");
    settle(robot);
    // the tool's own list says what is seen
    assertThat(window.scene().lookup("#class-legend").isVisible()).isFalse();
    assertThat(window.scene().lookup("#classes-ellipses").isVisible()).isTrue();

    // the one under the water is chosen by a click in the picture, and called
    click(robot, 20, 100);
    Waiting.type(robot, "#classes-name", "water\n");
    assertThat(label("#given-0")).isEqualTo("1  water");
    click(robot, 20, 20);
    Waiting.type(robot, "#classes-name", "wood\n");
    assertThat(label("#given-1")).isEqualTo("2  wood");
    // taken back by name, and called by its digit
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    assertThat(window.scene().lookup("#given-1")).isNull();
    click(robot, 20, 20);
    robot.type(KeyCode.DIGIT1);
    settle(robot);
    robot.clickOn("#name-classes-run");
    window.waiting().results(4);

    ObjectSet named = (ObjectSet) newest();
    assertThat(classAt(named, 20, 100)).isEqualTo("water");
    assertThat(classAt(named, 20, 20)).isEqualTo("water");
    assertThat(named.count()).isEqualTo(clusters.count() - 1);
  }

  /** A class that is hidden in the legend leaves the picture as it is; a click on a name shows that class alone. */
  private void hideAndShow(FxRobot robot, ObjectSet clusters) {
    int count = clusters.table().column("class").categories().size();
    robot.clickOn("#class-shown-0");
    assertThat(workspace().display().hiddenClassesProperty().get()).containsExactly("cluster 1");
    robot.clickOn("#class-name-1");
    assertThat(workspace().display().hiddenClassesProperty().get())
        .hasSize(count - 1)
        .doesNotContain("cluster 2");
    robot.clickOn("#class-name-1");
    assertThat(workspace().display().hiddenClassesProperty().get()).isEmpty();
    robot.clickOn("#class-legend-fold");
    assertThat(window.scene().lookup("#class-legend").getBoundsInParent().getHeight())
        .isLessThan(60);
    robot.clickOn("#class-legend-fold");
  }

  @Test
  void rulesAreTriedAsTheyAreWrittenAndSayWhy(FxRobot robot) {
    measure(robot);
    robot.clickOn("#stage-extract").clickOn("#family-tests").clickOn("#tool-rules");
    robot.clickOn("#rules-text").write("wood: near_infrared_mean > 600\nwater: ");
    window
        .waiting()
        .until(
            "a word on what is not written yet", () -> label("#rules-trouble").contains("Rule 2"));
    robot.write("blue_mean < 200\nedge: border('water') > 0.1");
    window
        .waiting()
        .until("all rules are counted", () -> window.scene().lookup("#rules-count-2") != null);
    int wood = Integer.parseInt(label("#rules-count-0").replaceAll("\\D", ""));
    int water = Integer.parseInt(label("#rules-count-1").replaceAll("\\D", ""));
    assertThat(wood).isGreaterThan(3);
    assertThat(water).isGreaterThan(3);
    robot.clickOn(window.onScreen(COARSE, COARSE, 30.5, 30.5));
    window
        .waiting()
        .until("why it is wood", () -> label("#rules-why").startsWith("wood, by rule 1"));

    robot.clickOn("#rules-run");
    window.waiting().results(5);

    ObjectSet told = (ObjectSet) newest();
    assertThat(classAt(told, 30, 30)).isEqualTo("wood");
    assertThat(classAt(told, 30, 90)).isEqualTo("water");
    Table.Column classes = told.table().column("class");
    int counted = 0;
    for (int row = 0; row < told.count(); row++) {
      counted += classes.text(row).equals("wood") ? 1 : 0;
    }
    assertThat(counted).as("what was seen is what is run").isEqualTo(wood);

    // what is like a wood: clicked, the most alike accepted and the next one not, and taken
    robot.interact(() -> workspace().display().show(workspace().named("measure").orElseThrow()));
    robot.clickOn("#tool-rank-alike");
    click(robot, 30, 30);
    window.waiting().until("small pictures", () -> window.scene().lookup("#alike-0") != null);
    robot.type(KeyCode.DIGIT1);
    window.waiting().until("two picks", () -> label("#alike-said").startsWith("2 picked, 0 rej"));
    robot.type(KeyCode.DIGIT2);
    window.waiting().until("one not", () -> label("#alike-said").startsWith("2 picked, 1 rej"));
    robot.clickOn("#rank-alike-run");
    window.waiting().results(6);
    ObjectSet alike = (ObjectSet) newest();
    assertThat(alike.table().values("likeness")[0]).isGreaterThan(0.9);
    assertThat(alike.count()).isBetween(2, told.count() - 1);
  }

  private void area(FxRobot robot, int[]... corners) {
    for (int[] corner : corners) {
      click(robot, corner[0], corner[1]);
    }
    robot.type(KeyCode.ENTER);
    settle(robot);
  }

  @Test
  void drawnAreasTellAllPixelsAndTheChainGoesOnToOutlines(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-extract").clickOn("#family-pixels").clickOn("#tool-classify-pixels");
    Waiting.type(robot, "#class-name", "water\n");
    Waiting.type(robot, "#class-name", "land\n");
    robot.type(KeyCode.DIGIT1);
    area(robot, new int[] {10, 80}, new int[] {40, 80}, new int[] {40, 110}, new int[] {10, 110});
    robot.type(KeyCode.DIGIT2);
    area(robot, new int[] {10, 10}, new int[] {40, 10}, new int[] {40, 40}, new int[] {10, 40});
    // one drawn by hand, and one that is taken back
    robot.moveTo(window.onScreen(COARSE, COARSE, 70, 20)).press(MouseButton.PRIMARY);
    for (int[] to : new int[][] {{100, 20}, {110, 60}, {100, 100}, {75, 60}}) {
      robot.moveTo(window.onScreen(COARSE, COARSE, to[0], to[1]));
    }
    robot.release(MouseButton.PRIMARY);
    settle(robot);
    click(robot, 50, 100);
    robot.type(KeyCode.ENTER);
    settle(robot);
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    settle(robot);
    workspace().lanes().save().flush(java.time.Duration.ofSeconds(10));
    assertThat(GeoPackage.read(folder.resolve("project/hand/samples-epsg-32630.gpkg"), "")
            .size())
        .isEqualTo(3);

    // a box and a stroke of the brush, both taken back
    for (String stroke : List.of("box", "brush")) {
      robot.clickOn("#stroke-" + stroke);
      robot.moveTo(window.onScreen(COARSE, COARSE, 70, 20)).press(MouseButton.PRIMARY);
      robot.moveTo(window.onScreen(COARSE, COARSE, 90, 20));
      robot.moveTo(window.onScreen(COARSE, COARSE, 100, 50)).release(MouseButton.PRIMARY);
      settle(robot);
      workspace().lanes().save().flush(java.time.Duration.ofSeconds(10));
      Geometry drawn = GeoPackage.read(folder.resolve("project/hand/samples-epsg-32630.gpkg"), "")
          .geometries()
          .getLast();
      double width =
          drawn.getEnvelopeInternal().getWidth() / drawn.getEnvelopeInternal().getHeight();
      if (stroke.equals("box")) {
        assertThat(drawn.getNumPoints()).isEqualTo(5);
        assertThat(width).isCloseTo(1, org.assertj.core.api.Assertions.within(0.1));
      } else {
        // a band about two lines, 12 pixels across
        assertThat(drawn.getNumPoints()).isGreaterThan(10);
        assertThat(drawn.getArea()).isLessThan(drawn.getEnvelope().getArea());
      }
      robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
      settle(robot);
    }

    robot.clickOn("#classify-pixels-run");
    window.waiting().results(3);
    Raster probabilities = (Raster) newest();
    float[] water = probabilities.read(0, new Window(20, 95, 1, 1), Request.BACKGROUND)[1];
    assertThat(probabilities.bands().get(1).name()).isEqualTo("water");
    assertThat(water[0]).isGreaterThan(0.9f);
    // the line under the picture leads along the chain
    settle(robot);
    robot.clickOn("#next-act");
    assertThat(window.scene().lookup("#class-map-run").isVisible()).isTrue();
    for (String step : List.of("class-map", "absorb", "class-objects", "outline")) {
      settle(robot);
      String family =
          step.equals("class-map") ? "pixels" : step.equals("outline") ? "outlines" : "classes";
      robot.clickOn("#family-" + family);
      if (!step.equals("outline")) {
        robot.clickOn("#tool-" + step);
      }
      int before = workspace().results().size();
      robot.clickOn("#" + step + "-run");
      window.waiting().results(before + 1);
    }

    OutlineSet outlines = (OutlineSet) newest();
    double most = 0;
    for (int i = 0; i < outlines.count(); i++) {
      most = Math.max(most, outlines.outlines().get(i).getArea());
    }
    // three quarters of the town, in squares of 2 m
    assertThat(most).isBetween(0.6 * COARSE * COARSE * 4, 0.85 * COARSE * COARSE * 4);
  }
}
