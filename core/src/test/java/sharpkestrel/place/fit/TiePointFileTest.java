package sharpkestrel.place.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.raster.CrsName;

class TiePointFileTest {

  private static final TiePoints POINTS = new TiePoints(
      CrsName.epsg(32630),
      4096,
      2048,
      List.of(
          new TiePoint(1, 10.25, 20.125, 511_777.3, 6_702_380.7, 75.5, TiePoint.Use.CONTROL, 0.9),
          new TiePoint(4, 4000, 3, 511_999, 6_702_111, Double.NaN, TiePoint.Use.CHECK, Double.NaN),
          new TiePoint(7, 1.5, 2047, 512_000.5, 6_701_000, 3, TiePoint.Use.OFF, 0.4)));

  @TempDir
  Path folder;

  @Test
  void whatIsWrittenIsReadAgain() {
    Path file = folder.resolve("points.geojson");
    TiePointFile.write(POINTS, file);

    assertThat(TiePointFile.read(file)).isEqualTo(POINTS);
  }

  @Test
  void otherSoftwareSeesPointsInDegrees() {
    Path file = folder.resolve("points.geojson");
    TiePointFile.write(POINTS, file);
    JsonNode first = Json.read(file).path("features").path(0);

    assertThat(first.path("geometry").path("type").asText()).isEqualTo("Point");
    // easting 511,777 is 11.8 km east of the zone's meridian, 3 degrees west
    double longitude = first.path("geometry").path("coordinates").path(0).asDouble();
    double latitude = first.path("geometry").path("coordinates").path(1).asDouble();
    assertThat(latitude).isCloseTo(60.45, within(0.02));
    double metres = Math.toRadians(longitude + 3) * 6_378_137 * Math.cos(Math.toRadians(latitude));
    assertThat(metres).isCloseTo(11_777, within(60.0));
  }

  @Test
  void pointsServeAnImageWithLargerPixels() {
    TiePoint small = POINTS.scaledTo(1024, 512).points().getFirst();

    assertThat(small.col()).isEqualTo(10.25 / 4);
    assertThat(small.row()).isEqualTo(20.125 / 4);
    assertThat(small.x()).isEqualTo(511_777.3);
  }

  @Test
  void cellsWithControlPointsAreCounted() {
    // the check point and the one that is off do not count
    assertThat(POINTS.coverage()).containsExactly(0);
    assertThat(POINTS.each(p -> p.as(TiePoint.Use.CONTROL)).coverage()).containsExactly(0, 3, 12);
  }

  private void refuses(String text, String message) throws IOException {
    Path file = folder.resolve("bad.geojson");
    Files.writeString(file, text);

    assertThatThrownBy(() -> TiePointFile.read(file))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining(message);
  }

  @Test
  void filesThatHoldNoTiePointsAreRefused() throws IOException {
    refuses("{\"type\": \"FeatureCollection\", \"features\": []}", "holds no tie points");
    String head = "{\"type\": \"FeatureCollection\", \"crs\": \"EPSG:32630\", \"scene_width\": 10,"
        + " \"scene_height\": 10, \"features\": [";
    refuses(
        head + "{\"id\": 5, \"properties\": {\"column\": 1, \"row\": 2, \"x\": 3}}]}", "point 5");
    String point = "{\"id\": 5, \"properties\": {\"column\": 1, \"row\": 2, \"x\": 3, \"y\": 4}}";
    refuses(head + point + "," + point + "]}", "two points have the id 5");
    refuses(
        head + point.replace("\"y\": 4", "\"y\": 4, \"use\": \"maybe\"") + "]}",
        "it should be control, check or off");
  }
}
