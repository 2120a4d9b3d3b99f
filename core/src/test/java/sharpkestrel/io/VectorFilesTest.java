package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.RasterException;

class VectorFilesTest {

  private static final GeometryFactory FACTORY = new GeometryFactory();

  @TempDir
  Path folder;

  /** Turned rectangles, every third with a hole, every seventh in two parts. */
  private static Layer layer(int count, long seed) {
    Random random = new Random(seed);
    List<Geometry> geometries = new ArrayList<>();
    double[] height = new double[count];
    List<String> kinds = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      double x = 512_000 + 5_000 * random.nextDouble();
      double y = 6_702_000 + 5_000 * random.nextDouble();
      Geometry box = FACTORY.toGeometry(new Envelope(x, x + 20, y, y + 12));
      if (i % 3 == 0) {
        box = box.difference(FACTORY.toGeometry(new Envelope(x + 5, x + 8, y + 4, y + 6)));
      }
      if (i % 7 == 0) {
        box = box.union(FACTORY.toGeometry(new Envelope(x + 40, x + 50, y, y + 5)));
      }
      geometries.add(box);
      height[i] = i % 5 == 0 ? Double.NaN : random.nextGaussian();
      kinds.add(i % 2 == 0 ? "slate" : "it's turf, with a \"quote\"");
    }
    Table table = new Table(
        count,
        List.of(
            new Table.Column("height", "Height", "m", height),
            Table.Column.ofTexts("kind", "Kind", kinds)));
    return new Layer("roofs", CrsName.epsg(32630), geometries, table, Map.of());
  }

  @Test
  void aGeoPackageReadsBackAsWritten() {
    Layer layer = layer(50, 1);
    Path file = folder.resolve("roofs.gpkg");

    GeoPackage.write(layer, file);
    Layer back = GeoPackage.read(file, "roofs");

    assertThat(back.crs()).isEqualTo(layer.crs());
    assertThat(back.size()).isEqualTo(50);
    for (int i = 0; i < 50; i++) {
      assertThat(back.geometries().get(i).equalsExact(layer.geometries().get(i).norm(), 0)
              || back.geometries().get(i).equalsTopo(layer.geometries().get(i)))
          .as("geometry " + i)
          .isTrue();
      assertThat(Double.valueOf(back.table().values("height")[i]))
          .isEqualTo(Double.valueOf(layer.table().values("height")[i]));
      assertThat(back.table().column("kind").text(i))
          .isEqualTo(layer.table().column("kind").text(i));
    }
  }

  @Test
  void theSpatialIndexHoldsEveryGeometrysBox() throws SQLException {
    Layer layer = layer(40, 2);
    Path file = folder.resolve("roofs.gpkg");

    GeoPackage.write(layer, file);

    try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        var rows = connection
            .createStatement()
            .executeQuery("SELECT id, minx, maxx, miny, maxy FROM rtree_roofs_geom ORDER BY id")) {
      int count = 0;
      while (rows.next()) {
        Envelope box = layer.geometries().get(count++).getEnvelopeInternal();
        // The index keeps 32-bit numbers, rounded outwards.
        assertThat(rows.getDouble(2)).isCloseTo(box.getMinX(), within(1.0));
        assertThat(rows.getDouble(3)).isCloseTo(box.getMaxX(), within(1.0));
        assertThat(rows.getDouble(4)).isCloseTo(box.getMinY(), within(1.0));
        assertThat(rows.getDouble(5)).isCloseTo(box.getMaxY(), within(1.0));
      }
      assertThat(count).isEqualTo(40);
    }
  }

  @Test
  void aLayerThatIsNotThereBringsThoseThatAre() {
    Path file = folder.resolve("roofs.gpkg");
    GeoPackage.write(layer(1, 3), file);

    assertThatThrownBy(() -> GeoPackage.read(file, "vessels"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("vessels")
        .hasMessageContaining("roofs");
  }

  @Test
  void aFileThatIsNoGeoPackageIsNamed() throws java.io.IOException {
    Path file = folder.resolve("notes.gpkg");
    Files.writeString(file, "not a database");

    assertThatThrownBy(() -> GeoPackage.read(file, ""))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("notes.gpkg");
  }

  @Test
  void geoJsonIsInDegreesWithOuterRingsAnticlockwise() {
    Path file = folder.resolve("roofs.geojson");

    GeoJson.write(layer(12, 4), file);

    JsonNode root = Json.read(file);
    assertThat(root.path("features").size()).isEqualTo(12);
    for (JsonNode feature : root.path("features")) {
      JsonNode geometry = feature.path("geometry");
      boolean single = geometry.path("type").asText().equals("Polygon");
      JsonNode rings =
          single ? geometry.path("coordinates") : geometry.path("coordinates").get(0);
      Coordinate[] outer = ring(rings.get(0));
      assertThat(Orientation.isCCW(outer)).isTrue();
      assertThat(outer[0].x).isBetween(-3.0, -2.5);
      assertThat(outer[0].y).isBetween(60.0, 61.0);
      for (int hole = 1; hole < rings.size(); hole++) {
        assertThat(Orientation.isCCW(ring(rings.get(hole)))).isFalse();
      }
    }
    assertThat(root.path("features").get(0).path("properties").path("height").isNull())
        .isTrue();
    assertThat(root.path("features").get(1).path("properties").path("kind").asText())
        .isEqualTo("it's turf, with a \"quote\"");
  }

  @Test
  void geoJsonIsReadAsItWasWritten() {
    Path file = folder.resolve("roofs.geojson");
    Layer written = layer(30, 5);
    GeoJson.write(written, file);

    Layer read = GeoJson.read(file);

    CoordinateMap toDegrees = Crs.of(written.crs()).to(Crs.of(Crs.WGS84));
    assertThat(read.crs()).isEqualTo(Crs.WGS84);
    for (int i = 0; i < written.size(); i++) {
      assertThat(read.geometries().get(i).norm())
          .isEqualTo(toDegrees.of(written.geometries().get(i)).norm());
      assertThat(read.table().column("kind").text(i))
          .isEqualTo(written.table().column("kind").text(i));
    }
    assertThat(read.table().values("height")).isEqualTo(written.table().values("height"));
  }

  @Test
  void geoJsonOfNoKnownPlaceKeepsItsNumbers() {
    Path file = folder.resolve("photo.geojson");
    Layer placed = layer(4, 6);
    GeoJson.write(
        new Layer("photo", CrsName.NONE, placed.geometries(), placed.table(), Map.of()), file);

    Layer read = GeoJson.read(file);

    assertThat(read.crs()).isEqualTo(CrsName.NONE);
    assertThat(read.geometries().get(1).norm())
        .isEqualTo(placed.geometries().get(1).norm());
  }

  @Test
  void geoJsonOfOthersIsReadWhateverItsShapes() throws Exception {
    Path file = folder.resolve("mixed.geojson");
    Files.writeString(file, """
        {"type": "FeatureCollection",
         "crs": {"type": "name", "properties": {"name": "urn:ogc:def:crs:EPSG::32735"}},
         "features": [
          {"type": "Feature", "properties": {"class": "boat", "long": 7},
           "geometry": {"type": "Point", "coordinates": [1, 2, 30]}},
          {"type": "Feature", "properties": null, "geometry": null},
          {"type": "Feature", "properties": {"seen": true, "class": "quay", "tags": ["a"]},
           "geometry": {"type": "MultiLineString", "coordinates": [[[0, 0], [3, 4]], [[5, 5], [5, 6]]]}},
          {"type": "Feature", "properties": {"class": null},
           "geometry": {"type": "GeometryCollection", "geometries": [
             {"type": "MultiPoint", "coordinates": [[1, 1], [2, 2]]},
             {"type": "LineString", "coordinates": [[0, 0], [1, 0]]}]}}]}
        """);

    Layer read = GeoJson.read(file);

    assertThat(read.crs()).isEqualTo(CrsName.epsg(32735));
    assertThat(read.geometries())
        .extracting(Geometry::toText)
        .containsExactly(
            "POINT (1 2)",
            "POLYGON EMPTY",
            "MULTILINESTRING ((0 0, 3 4), (5 5, 5 6))",
            "GEOMETRYCOLLECTION (MULTIPOINT ((1 1), (2 2)), LINESTRING (0 0, 1 0))");
    assertThat(read.table().values("long")).containsExactly(7, Double.NaN, Double.NaN, Double.NaN);
    assertThat(read.table().values("seen")).containsExactly(Double.NaN, Double.NaN, 1, Double.NaN);
    assertThat(read.table().column("class").text(2)).isEqualTo("quay");
    assertThat(read.table().column("class").text(3)).isEmpty();
    assertThat(read.table().column("tags").text(2)).isEqualTo("[\"a\"]");
    GeoJson.write(read, folder.resolve("again.geojson"));
    assertThat(GeoJson.read(folder.resolve("again.geojson")).geometries())
        .extracting(Geometry::getGeometryType)
        .containsExactly("Point", "Polygon", "MultiLineString", "GeometryCollection");
  }

  @Test
  void whatIsWrongInGeoJsonIsSaidWithItsPlace() throws Exception {
    assertThatThrownBy(() -> GeoJson.read(text("{\"type\": \"run sheet\"}")))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("neither features nor a shape");
    assertThatThrownBy(() -> GeoJson.read(feature("Polygon", "[[[0, 0], [1, 1]]]")))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("feature 1");
    assertThatThrownBy(() -> GeoJson.read(feature("Point", "[\"east\", 2]")))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("a position is two numbers or three, not [\"east\",2]");
    assertThatThrownBy(() -> GeoJson.read(feature("Circle", "[1, 2]")))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("'Circle' is no kind of shape");
    assertThatThrownBy(() -> GeoJson.read(feature("Point", "[512000, 6702000]")))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("names no coordinate system")
        .hasMessageContaining("512000");
  }

  private Path feature(String type, String coordinates) throws Exception {
    return text("{\"type\": \"Feature\", \"properties\": {}, \"geometry\": {\"type\": \"" + type
        + "\", \"coordinates\": " + coordinates + "}}");
  }

  private Path text(String json) throws Exception {
    return Files.writeString(folder.resolve("given.geojson"), json);
  }

  private static Coordinate[] ring(JsonNode positions) {
    Coordinate[] ring = new Coordinate[positions.size()];
    for (int i = 0; i < ring.length; i++) {
      ring[i] = new Coordinate(
          positions.get(i).get(0).asDouble(), positions.get(i).get(1).asDouble());
    }
    return ring;
  }

  @Test
  void aLayerWantsARowForEachGeometry() {
    Polygon box = (Polygon) FACTORY.toGeometry(new Envelope(0, 1, 0, 1));

    assertThatThrownBy(
            () -> new Layer("x", CrsName.NONE, List.of(box), new Table(2, List.of()), Map.of()))
        .hasMessageContaining("1 geometries for 2 rows");
  }

  private static void run(Path file, String... statements) throws SQLException {
    try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = db.createStatement()) {
      for (String statement : statements) {
        s.execute(statement);
      }
    }
  }

  @Test
  void aFeatureWithoutAShapeHasNone() throws SQLException {
    Path file = folder.resolve("roofs.gpkg");
    GeoPackage.write(layer(5, 1), file);
    run(
        file,
        "DROP TRIGGER IF EXISTS rtree_roofs_geom_update1",
        "DROP TRIGGER IF EXISTS rtree_roofs_geom_update2",
        "DROP TRIGGER IF EXISTS rtree_roofs_geom_update3",
        "DROP TRIGGER IF EXISTS rtree_roofs_geom_update4",
        "UPDATE roofs SET geom = NULL WHERE fid = 2");

    Layer back = GeoPackage.read(file, "");

    assertThat(back.size()).isEqualTo(5);
    assertThat(back.geometries().get(1).isEmpty()).isTrue();
  }

  @Test
  void aPathWithSignsOfAddressesIsOneFile() {
    Path file = folder.resolve("roofs #1 100%25 a?b.gpkg");

    GeoPackage.write(layer(5, 1), file);

    assertThat(GeoPackage.read(file, "").size()).isEqualTo(5);
    assertThat(folder.toFile().list()).containsExactly(file.getFileName().toString());
  }

  @Test
  void collectionsWithinCollectionsAreRefused() throws SQLException {
    Path file = folder.resolve("roofs.gpkg");
    GeoPackage.write(layer(1, 1), file);
    java.nio.ByteBuffer blob =
        java.nio.ByteBuffer.allocate(8 + 9 * 100_000).order(java.nio.ByteOrder.LITTLE_ENDIAN);
    blob.put((byte) 'G').put((byte) 'P').put((byte) 0).put((byte) 1).putInt(32630);
    for (int i = 0; i < 100_000; i++) {
      blob.put((byte) 1).putInt(7).putInt(1);
    }
    try (var db = DriverManager.getConnection("jdbc:sqlite:" + file)) {
      for (int k = 1; k <= 4; k++) {
        db.createStatement().execute("DROP TRIGGER IF EXISTS rtree_roofs_geom_update" + k);
      }
      var update = db.prepareStatement("UPDATE roofs SET geom = ?");
      update.setBytes(1, blob.array());
      update.execute();
    }

    assertThatThrownBy(() -> GeoPackage.read(file, ""))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("within each other");
  }

  @Test
  void aTableWithoutEndIsRefused() throws SQLException {
    Path file = folder.resolve("roofs.gpkg");
    GeoPackage.write(layer(1, 1), file);
    run(
        file,
        "ALTER TABLE roofs RENAME TO kept",
        "CREATE VIEW roofs AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n)"
            + " SELECT i AS fid, NULL AS geom FROM n WHERE i < 0");
    System.setProperty("kestrel.geopackage.seconds", "1");
    try {
      assertThatThrownBy(() -> GeoPackage.read(file, ""))
          .isInstanceOf(FileFormatException.class)
          .hasMessageContaining("took longer than 1 s");
    } finally {
      System.clearProperty("kestrel.geopackage.seconds");
    }
  }
}
