package sharpkestrel.app.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.testfx.api.FxToolkit;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;

class HandLogTest {

  private static final GeometryFactory SHAPES = new GeometryFactory();

  private Workspace workspace;

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  @BeforeEach
  void project(@TempDir Path folder) {
    workspace = new Workspace();
    workspace.setFolder(folder.resolve("project"), false);
  }

  /** Places named by letters, each at its own coordinates, which are no round numbers. */
  private static Layer layer(String... names) {
    List<Geometry> places = Arrays.stream(names)
        .map(name -> (Geometry)
            SHAPES.createPoint(new Coordinate(512000 + name.hashCode() / 7.0, 6.7e6 / 3)))
        .toList();
    double[] areas = Arrays.stream(names)
        .mapToDouble(name -> name.equals("none") ? Double.NaN : name.length() / 3.0)
        .toArray();
    return new Layer(
        "places",
        CrsName.epsg(32630),
        places,
        new Table(
            names.length,
            List.of(
                Table.Column.ofTexts("name", "Name", List.of(names)),
                new Table.Column("area", "Area", "m²", areas))),
        Map.of());
  }

  private HandLog log() {
    return new HandLog(workspace, "picked-a, b");
  }

  private void write(HandLog log, String... names) {
    log.write(layer(names));
    assertThat(workspace.lanes().save().flush(Duration.ofSeconds(20))).isTrue();
  }

  private static List<String> names(HandLog log) {
    return log.read()
        .map(layer -> java.util.stream.IntStream.range(0, layer.size())
            .mapToObj(layer.table().column("name")::text)
            .toList())
        .orElse(List.of());
  }

  @Test
  void whatIsWrittenIsReadBackToTheLastDigit() {
    write(log(), "a", "none", "c\"d\ne");

    Layer back = log().read().orElseThrow();
    Layer made = layer("a", "none", "c\"d\ne");

    assertThat(back.crs()).isEqualTo(made.crs());
    assertThat(back.geometries()).isEqualTo(made.geometries());
    assertThat(back.table().values("area")).containsExactly(made.table().values("area"));
    assertThat(back.table().column("area").unit()).isEqualTo("m²");
    assertThat(names(log())).containsExactly("a", "none", "c\"d\ne");
  }

  @Test
  void everyChangeAddsLinesAndTakesNoneAwayAndTheOrderStays() throws IOException {
    HandLog log = log();
    String before = "";
    String[][] states = {
      {"a", "b", "c"},
      {"a", "c"},
      {"c", "a"},
      {"x", "c", "y", "a", "z"},
      {},
      {"a", "a2", "a"},
      {"b"}
    };
    for (String[] state : states) {
      write(log, state);
      String now = Files.readString(log.path());
      assertThat(now).startsWith(before);
      before = now;
      assertThat(names(log())).as("read afresh").containsExactly(state);
      assertThat(names(log)).as("as held").containsExactly(state);
    }
  }

  @Test
  void whatIsTheSameIsNotWrittenAgain() throws IOException {
    HandLog log = log();
    write(log, "a", "b");
    long size = Files.size(log.path());

    write(log, "a", "b");
    write(log(), "a", "b");

    assertThat(Files.size(log.path())).isEqualTo(size);
  }

  /** A process that is killed within a line leaves a part of it; all before is there, and what comes after is, too. */
  @Test
  void aLineThatWasCutShortIsPassedOver() throws IOException {
    write(log(), "a", "b", "c");
    byte[] whole = Files.readAllBytes(log().path());
    int lastLine = new String(whole, java.nio.charset.StandardCharsets.UTF_8)
            .lastIndexOf('\n', whole.length - 2)
        + 1;
    for (int length : new int[] {lastLine + 1, lastLine + 20, whole.length - 1}) {
      Files.write(log().path(), Arrays.copyOf(whole, length), StandardOpenOption.TRUNCATE_EXISTING);
      List<String> left = names(log());
      assertThat(left).startsWith("a", "b").hasSizeBetween(2, 3);

      write(log(), "a", "b", "d");
      assertThat(names(log())).containsExactly("a", "b", "d");
    }
  }
}
