package sharpkestrel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import sharpkestrel.app.bench.Bench;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.tools.pick.PickModel;
import sharpkestrel.app.tools.pick.PickTool;
import sharpkestrel.app.viewer.Trials;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;

/** Ways of segmenting and picking by clicks, in a real window. */
@ExtendWith(ApplicationExtension.class)
class SegmentWindowTest extends TownWindow {

  @Start
  void start(Stage stage) {
    begin(stage);
  }

  private void segment(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-segment").clickOn("#segment-run");
    window.waiting().results(3);
    settle(robot);
  }

  private String label(String id) {
    return ((Label) window.scene().lookup(id)).getText();
  }

  private PickModel picks() {
    return ((Shell) window.scene().getRoot()).bench().tool(PickTool.class).model();
  }

  private double area() {
    window
        .waiting()
        .until("what was clicked", () -> picks().hasTree() && !picks().isFinding());
    return Double.parseDouble(label("#pick-size").replaceAll("[^0-9.]", ""));
  }

  @Test
  void clicksPickObjectsThatBecomeASet(FxRobot robot) {
    segment(robot);
    robot.clickOn("#tool-pick-objects");
    window.waiting().until("the tree", () -> picks().hasTree());

    robot.clickOn(window.onScreen(COARSE, COARSE, 20, 90));
    double water = area();
    assertThat(water).isPositive();
    // as a click with Shift does, and one with Alt
    robot.interact(() -> picks().addInside(20, 20));
    double both = area();
    assertThat(both).isGreaterThan(water);
    robot.interact(() -> picks().addOutside(100, 20));
    assertThat(area()).isLessThanOrEqualTo(both);
    robot.type(KeyCode.ESCAPE);
    assertThat(label("#pick-size")).isEmpty();

    robot.clickOn(window.onScreen(COARSE, COARSE, 20, 90));
    double first = area();
    robot.type(KeyCode.ENTER);
    robot.clickOn(window.onScreen(COARSE, COARSE, 20, 20));
    assertThat(area()).isPositive();
    robot.clickOn("#pick-accept");
    window.waiting().until("both", () -> label("#pick-count").equals("2 objects"));
    robot.clickOn("#pick-back");
    assertThat(label("#pick-count")).isEqualTo("1 object");
    // a hand that is quicker than the search loses nothing
    robot.interact(() -> {
      for (int[] place : new int[][] {{20, 20}, {100, 20}, {20, 90}, {60, 60}}) {
        picks().pick(place[0], place[1]);
        picks().accept();
      }
    });
    window.waiting().until("all of them", () -> label("#pick-count").equals("5 objects"));
    for (int k = 0; k < 4; k++) {
      robot.clickOn("#pick-back");
    }
    assertThat(label("#pick-count")).isEqualTo("1 object");
    robot.clickOn("#pick-make");
    window.waiting().results(4);

    Result made = workspace().results().getLast();
    ObjectSet set = (ObjectSet) made.value();
    assertThat(set.count()).isEqualTo(1);
    assertThat(set.table().values("area")[0]).isBetween(first * 0.97, first * 1.03);
    assertThat(workspace().display().paneAProperty().get()).isSameAs(made);
    assertThat(made.backdrop()).isNotNull();
    assertThat(window.scene().lookup("#pick-make").isDisabled()).isTrue();

    // back at the tree what was accepted is still there
    robot.interact(() -> workspace().display().show(workspace().named("segment").orElseThrow()));
    assertThat(label("#pick-count")).isEqualTo("1 object");
    robot.clickOn("#pick-clear");
    assertThat(label("#pick-count")).isEqualTo("none yet");
  }

  @Test
  void featuresAreFilteredPlottedAndToldApart(FxRobot robot) {
    segment(robot);
    robot.clickOn("#tool-measure").clickOn("#measure-run");
    window.waiting().results(4);
    settle(robot);
    ObjectSet set = (ObjectSet) workspace().results().getLast().value();
    robot.clickOn("#view-table");
    assertThat(label("#table-count")).startsWith(Result.grouped(set.count()) + " of ");

    Waiting.type(robot, "#table-filter", "area > 400\n");
    int large =
        (int) Arrays.stream(set.table().values("area")).filter(a -> a > 400).count();
    assertThat(large).isBetween(1, set.count() - 1);
    assertThat(label("#table-count"))
        .isEqualTo(Result.grouped(large) + " of " + Result.grouped(set.count()));
    Waiting.type(robot, "#table-filter", "aera > 400\n");
    assertThat(workspace().messages().textProperty().get()).contains("aera").contains("area");
    assertThat(label("#table-count")).startsWith(Result.grouped(large) + " of ");

    robot.clickOn("#view-plots").clickOn("#plots-keep-0");
    window.waiting().until("ranking", () -> window.scene().lookup("#ranked-0") != null);
    // the selection was made by area, so nothing tells both apart better
    assertThat(label("#ranked-0")).isEqualTo("Area");
    assertThat(label("#plots-selection-0")).isEqualTo(Result.grouped(large));
    assertThat(label("#plots-selection-1")).isEqualTo(Result.grouped(set.count() - large));

    // lifted, with the long ranking under it, the histogram is still whole
    Bench bench = ((Shell) window.scene().getRoot()).bench();
    robot.interact(() -> bench.setLifted(true));
    settle(robot);
    Node shown = window.scene().lookup("#plots-histogram").getParent();
    assertThat(shown.getLayoutBounds().getHeight()).isGreaterThan(150);
    robot.interact(() -> bench.setLifted(false));
    settle(robot);

    robot.clickOn("#plots-all");
    Node histogram = window.scene().lookup("#plots-histogram");
    Bounds at = histogram.localToScreen(histogram.getBoundsInLocal());
    double row = at.getMinY() + 40;
    robot.drag(at.getMinX() + 7, row).dropTo(at.getCenterX(), row);
    int right = Integer.parseInt(label("#plots-count").split(" of ")[0].replaceAll("\\D", ""));
    assertThat(right).isBetween(1, set.count() - 1);
    robot.clickOn("#plots-make");
    window.waiting().results(5);
    assertThat(((ObjectSet) workspace().results().getLast().value()).count()).isEqualTo(right);
  }

  @Test
  void whatRefiningWouldDrawIsTriedInThePatchAlone(FxRobot robot) {
    segment(robot);
    robot.clickOn("#tool-refine-objects");
    robot.interact(() -> {
      ComboBox<String> operation = robot.lookup("#refine-objects-operation").queryComboBox();
      operation.setValue("dissolve");
    });
    Waiting.type(robot, "#refine-objects-area", "300");
    robot.clickOn("#refine-objects-try");
    Trials trials = ((Shell) window.scene().getRoot()).picture().trials();
    window.waiting().until("the trial", trials::isTried);
    assertThat(window.scene().getRoot().lookupAll(".error"))
        .allMatch(node -> ((Label) node).getText().isEmpty());
    assertThat(workspace().results()).hasSize(3);
  }

  @Test
  void aMethodShowsItsOwnSettingsAndItsRegionsAreTheObjects(FxRobot robot) {
    openBoth();
    settle(robot);
    robot.clickOn("#stage-segment");
    Node cell = window.scene().lookup("#segment-cell").getParent();
    while (cell.isVisible() && cell.getParent().getParent() != null && cell.isManaged()) {
      cell = cell.getParent();
    }
    assertThat(window.scene().lookup("#segment-superpixel").localToScreen(0, 0)).isNotNull();
    assertThat(cell.isVisible()).isFalse();

    robot.interact(() -> {
      ComboBox<String> method = robot.lookup("#segment-method").queryComboBox();
      method.setValue("grid");
    });
    assertThat(cell.isVisible()).isTrue();
    robot.clickOn("#segment-run");
    window.waiting().results(3);

    Cut cut = (Cut) workspace().results().getLast().value();
    // 240 m by 240 m in cells of 50 m
    assertThat(cut.objects()).isEqualTo(25);

    assertThat(window.scene().lookup("#segment-as-made").isVisible()).isFalse();
    // set otherwise, then as what is shown was made
    ComboBox<String> method = robot.lookup("#segment-method").queryComboBox();
    robot.interact(() -> method.setValue("merge_tree"));
    Waiting.type(robot, "#segment-grain", "9");
    robot.clickOn("#segment-as-made");
    assertThat(method.getValue()).isEqualTo("grid");
    assertThat(robot.lookup("#segment-grain").queryTextInputControl().getText()).isEmpty();
    robot.clickOn("#tool-measure");
    assertThat(window.scene().lookup("#measure-as-made").isVisible()).isFalse();
  }

  @Test
  void whatIsLearnedFromOutlinesIsOfferedToSegmentWith(FxRobot robot) {
    openBoth();
    settle(robot);
    List<Geometry> squares = new ArrayList<>();
    Result scene = workspace().results().stream()
        .filter(r -> r.value() instanceof Raster raster && raster.bands().size() > 1)
        .findFirst()
        .orElseThrow();
    Grid grid = ((Raster) scene.value()).grid();
    for (int i = 0; i < 60; i++) {
      double west = grid.affine().c() + grid.affine().a() * (62 + i % 6 * 9);
      double north = grid.affine().f() + grid.affine().e() * (5 + i / 6 * 11);
      squares.add(new GeometryFactory()
          .toGeometry(new Envelope(
              west, west + 8 * grid.affine().a(), north + 8 * grid.affine().e(), north)));
    }
    Path file = folder.resolve("squares.gpkg");
    OutlineSet outlines = new OutlineSet(grid.crs(), squares, new Table(squares.size(), List.of()));
    GeoPackage.write(Layer.of("squares", outlines), file);
    robot.interact(() -> workspace()
        .run(
            StepCatalogue.get("learn-merging"),
            "Squares",
            Map.of("scene", scene),
            Map.of("outlines", file.toString()),
            Map.of("rounds", "1")));
    window.waiting().results(3);
    Result model = workspace().results().getLast();
    assertThat(model.note()).isEqualTo("merging model");
    // shown over the scene it was learned in, if at all
    assertThat(model.backdrop()).isSameAs(scene.value());

    robot.interact(() -> workspace().display().show(scene));
    robot.clickOn("#stage-segment");
    Node box = window.scene().lookup("#segment-model");
    assertThat(isShown(box)).isFalse();
    Node asked = window.scene().lookup("#segment-criterion");
    Point2D before = asked.localToScreen(0, 0);
    robot.interact(() -> {
      ComboBox<String> criterion = robot.lookup("#segment-criterion").queryComboBox();
      criterion.setValue("learned");
    });
    assertThat(isShown(box)).isTrue();
    settle(robot);
    // what was chosen does not move from under the mouse
    assertThat(asked.localToScreen(0, 0)).isEqualTo(before);
    robot.interact(() -> {
      ComboBox<Object> models = robot.lookup("#segment-model").queryComboBox();
      models.setValue(models.getItems().stream()
          .filter(item -> item.toString().contains("Squares"))
          .findFirst()
          .orElseThrow());
    });
    robot.clickOn("#segment-run");
    window.waiting().results(4);

    Result made = workspace().results().getLast();
    assertThat(made.value()).isInstanceOf(Cut.class);
    assertThat(made.inputs().get("model")).isSameAs(model);
  }

  private static boolean isShown(Node node) {
    for (Node at = node; at != null; at = at.getParent()) {
      if (!at.isVisible()) {
        return false;
      }
    }
    return true;
  }
}
