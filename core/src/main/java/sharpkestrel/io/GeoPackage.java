package sharpkestrel.io;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ByteOrderValues;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.locationtech.jts.io.WKBWriter;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.CrsName;

/**
 * OGC GeoPackage 1.3 (OGC 12-128r18) with one feature table: the spatial index of annex F.3 with its triggers, and
 * remarks in the metadata tables of annex F.8.
 */
public final class GeoPackage {

  private static final int APPLICATION_ID = 0x47504B47;
  private static final int VERSION = 10300;
  private static final String GEOMETRY = "geom";

  private GeoPackage() {}

  /** Writes a layer whole or not at all. */
  public static void write(Layer layer, Path target) {
    AtomicFile.write(target, temporary -> {
      Files.deleteIfExists(temporary);
      try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + temporary)) {
        fill(db, layer);
      } catch (SQLException failed) {
        throw new IOException(failed.getMessage(), failed);
      }
    });
  }

  private static void fill(Connection db, Layer layer) throws SQLException {
    db.setAutoCommit(true);
    try (Statement s = db.createStatement()) {
      s.execute("PRAGMA application_id = " + APPLICATION_ID);
      s.execute("PRAGMA user_version = " + VERSION);
      s.execute("PRAGMA journal_mode = OFF");
      s.execute("PRAGMA synchronous = OFF");
    }
    db.setAutoCommit(false);
    int srs = createMetadata(db, layer);
    String table = quoted(layer.name());
    StringBuilder columns = new StringBuilder();
    StringBuilder marks = new StringBuilder();
    for (Table.Column column : layer.table().columns()) {
      columns
          .append(", ")
          .append(quoted(column.name()))
          .append(column.isText() ? " TEXT" : " REAL");
      marks.append(",?");
    }
    try (Statement s = db.createStatement()) {
      s.execute("CREATE TABLE " + table + " (fid INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, "
          + GEOMETRY + " GEOMETRY" + columns + ")");
      s.execute("CREATE VIRTUAL TABLE " + quoted(index(layer))
          + " USING rtree(id, minx, maxx, miny, maxy)");
    }
    WKBWriter wkb = new WKBWriter(2, ByteOrderValues.LITTLE_ENDIAN);
    try (PreparedStatement insert =
            db.prepareStatement("INSERT INTO " + table + " VALUES (?,?" + marks + ")");
        PreparedStatement place =
            db.prepareStatement("INSERT INTO " + quoted(index(layer)) + " VALUES (?,?,?,?,?)")) {
      for (int i = 0; i < layer.size(); i++) {
        Geometry geometry = layer.geometries().get(i);
        insert.setInt(1, i + 1);
        insert.setBytes(2, blob(geometry, srs, wkb));
        int k = 3;
        for (Table.Column column : layer.table().columns()) {
          double value = column.values()[i];
          if (Double.isNaN(value)) {
            insert.setNull(k++, java.sql.Types.REAL);
          } else if (column.isText()) {
            insert.setString(k++, column.text(i));
          } else {
            insert.setDouble(k++, value);
          }
        }
        insert.addBatch();
        if (!geometry.isEmpty()) {
          Envelope box = geometry.getEnvelopeInternal();
          place.setInt(1, i + 1);
          place.setDouble(2, box.getMinX());
          place.setDouble(3, box.getMaxX());
          place.setDouble(4, box.getMinY());
          place.setDouble(5, box.getMaxY());
          place.addBatch();
        }
        if ((i & 0xfff) == 0xfff) {
          insert.executeBatch();
          place.executeBatch();
        }
      }
      insert.executeBatch();
      place.executeBatch();
    }
    createTriggers(db, layer);
    db.commit();
  }

  private static int createMetadata(Connection db, Layer layer) throws SQLException {
    int code = layer.crs().epsgCode();
    int srs = !layer.crs().isKnown() ? -1 : code > 0 ? code : 100_000;
    try (Statement s = db.createStatement()) {
      s.execute(
          "CREATE TABLE gpkg_spatial_ref_sys (srs_name TEXT NOT NULL, srs_id INTEGER PRIMARY KEY,"
              + " organization TEXT NOT NULL, organization_coordsys_id INTEGER NOT NULL,"
              + " definition TEXT NOT NULL, description TEXT)");
      s.execute(
          "CREATE TABLE gpkg_contents (table_name TEXT NOT NULL PRIMARY KEY, data_type TEXT NOT NULL,"
              + " identifier TEXT UNIQUE, description TEXT DEFAULT '',"
              + " last_change DATETIME NOT NULL DEFAULT '2031-01-01T00:00:00.000Z',"
              + " min_x DOUBLE, min_y DOUBLE, max_x DOUBLE, max_y DOUBLE, srs_id INTEGER,"
              + " CONSTRAINT fk_gc_r_srs_id FOREIGN KEY (srs_id) REFERENCES gpkg_spatial_ref_sys(srs_id))");
      s.execute(
          "CREATE TABLE gpkg_geometry_columns (table_name TEXT NOT NULL, column_name TEXT NOT NULL,"
              + " geometry_type_name TEXT NOT NULL, srs_id INTEGER NOT NULL, z TINYINT NOT NULL,"
              + " m TINYINT NOT NULL, CONSTRAINT pk_geom_cols PRIMARY KEY (table_name, column_name))");
      s.execute(
          "CREATE TABLE gpkg_extensions (table_name TEXT, column_name TEXT, extension_name TEXT NOT NULL,"
              + " definition TEXT NOT NULL, scope TEXT NOT NULL,"
              + " CONSTRAINT ge_tce UNIQUE (table_name, column_name, extension_name))");
      s.execute("CREATE TABLE gpkg_metadata (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,"
          + " md_scope TEXT NOT NULL DEFAULT 'dataset', md_standard_uri TEXT NOT NULL,"
          + " mime_type TEXT NOT NULL DEFAULT 'text/xml', metadata TEXT NOT NULL DEFAULT '')");
      s.execute(
          "CREATE TABLE gpkg_metadata_reference (reference_scope TEXT NOT NULL, table_name TEXT,"
              + " column_name TEXT, row_id_value INTEGER,"
              + " timestamp DATETIME NOT NULL DEFAULT '2031-01-01T00:00:00.000Z',"
              + " md_file_id INTEGER NOT NULL, md_parent_id INTEGER)");
    }
    addSystem(db, "Undefined Cartesian", -1, "NONE", -1, "undefined");
    addSystem(db, "Undefined geographic", 0, "NONE", 0, "undefined");
    addSystem(db, "WGS 84", 4326, "EPSG", 4326, Crs.of(Crs.WGS84).wkt1());
    if (srs > 0 && srs != 4326) {
      Crs crs = Crs.of(layer.crs());
      addSystem(
          db, crs.title(), srs, code > 0 ? "EPSG" : "NONE", code > 0 ? code : srs, crs.wkt1());
    }
    Envelope all = new Envelope();
    layer.geometries().forEach(g -> all.expandToInclude(g.getEnvelopeInternal()));
    run(
        db,
        "INSERT INTO gpkg_contents (table_name, data_type, identifier, min_x, min_y, max_x, max_y, srs_id)"
            + " VALUES (?,'features',?,?,?,?,?,?)",
        layer.name(),
        layer.name(),
        all.isNull() ? null : all.getMinX(),
        all.isNull() ? null : all.getMinY(),
        all.isNull() ? null : all.getMaxX(),
        all.isNull() ? null : all.getMaxY(),
        srs);
    run(
        db,
        "INSERT INTO gpkg_geometry_columns VALUES (?,?,'GEOMETRY',?,0,0)",
        layer.name(),
        GEOMETRY,
        srs);
    run(
        db,
        "INSERT INTO gpkg_extensions VALUES (?,?,'gpkg_rtree_index',"
            + "'http://www.geopackage.org/spec130/#extension_rtree','write-only')",
        layer.name(),
        GEOMETRY);
    for (String table : List.of("gpkg_metadata", "gpkg_metadata_reference")) {
      run(
          db,
          "INSERT INTO gpkg_extensions VALUES (?,NULL,'gpkg_metadata',"
              + "'http://www.geopackage.org/spec130/#extension_metadata','read-write')",
          table);
    }
    ObjectNode remarks = Json.object();
    layer.remarks().forEach(remarks::put);
    run(
        db,
        "INSERT INTO gpkg_metadata VALUES (1,'dataset','urn:sharpkestrel:remarks','application/json',?)",
        remarks.toString());
    run(
        db,
        "INSERT INTO gpkg_metadata_reference (reference_scope, table_name, md_file_id) VALUES ('table',?,1)",
        layer.name());
    return srs;
  }

  private static void addSystem(
      Connection db, String name, int id, String organisation, int code, String definition)
      throws SQLException {
    run(
        db,
        "INSERT INTO gpkg_spatial_ref_sys VALUES (?,?,?,?,?,NULL)",
        name,
        id,
        organisation,
        code,
        definition);
  }

  /** The triggers that keep the index true when other software edits the features. */
  private static void createTriggers(Connection db, Layer layer) throws SQLException {
    String t = quoted(layer.name());
    String r = quoted(index(layer));
    String g = GEOMETRY;
    String enter = "INSERT OR REPLACE INTO " + r + " VALUES (NEW.fid, ST_MinX(NEW." + g
        + "), ST_MaxX(NEW." + g + "), ST_MinY(NEW." + g + "), ST_MaxY(NEW." + g + "));";
    String filled = "NEW." + g + " NOT NULL AND NOT ST_IsEmpty(NEW." + g + ")";
    String empty = "(NEW." + g + " IS NULL OR ST_IsEmpty(NEW." + g + "))";
    String name = index(layer);
    List<String> triggers = List.of(
        "_insert\" AFTER INSERT ON " + t + " WHEN (" + filled + ") BEGIN " + enter + " END",
        "_update1\" AFTER UPDATE OF " + g + " ON " + t + " WHEN OLD.fid = NEW.fid AND (" + filled
            + ") BEGIN " + enter + " END",
        "_update2\" AFTER UPDATE OF " + g + " ON " + t + " WHEN OLD.fid = NEW.fid AND " + empty
            + " BEGIN DELETE FROM " + r + " WHERE id = OLD.fid; END",
        "_update3\" AFTER UPDATE ON " + t + " WHEN OLD.fid != NEW.fid AND (" + filled
            + ") BEGIN DELETE FROM " + r + " WHERE id = OLD.fid; " + enter + " END",
        "_update4\" AFTER UPDATE ON " + t + " WHEN OLD.fid != NEW.fid AND " + empty
            + " BEGIN DELETE FROM " + r + " WHERE id IN (OLD.fid, NEW.fid); END",
        "_delete\" AFTER DELETE ON " + t + " WHEN old." + g + " NOT NULL BEGIN DELETE FROM " + r
            + " WHERE id = OLD.fid; END");
    try (Statement s = db.createStatement()) {
      for (String trigger : triggers) {
        s.execute("CREATE TRIGGER \"" + name.replace("\"", "\"\"") + trigger);
      }
    }
  }

  private static String index(Layer layer) {
    return "rtree_" + layer.name() + "_" + GEOMETRY;
  }

  private static void run(Connection db, String sql, Object... values) throws SQLException {
    try (PreparedStatement statement = db.prepareStatement(sql)) {
      for (int i = 0; i < values.length; i++) {
        statement.setObject(i + 1, values[i]);
      }
      statement.execute();
    }
  }

  private static String quoted(String name) {
    return '"' + name.replace("\"", "\"\"") + '"';
  }

  private static byte[] blob(Geometry geometry, int srs, WKBWriter wkb) {
    byte[] body = wkb.write(geometry);
    boolean empty = geometry.isEmpty();
    ByteBuffer out =
        ByteBuffer.allocate((empty ? 8 : 40) + body.length).order(ByteOrder.LITTLE_ENDIAN);
    out.put((byte) 'G').put((byte) 'P').put((byte) 0);
    out.put((byte) (empty ? 0b0001_0001 : 0b0000_0011)).putInt(srs);
    if (!empty) {
      Envelope box = geometry.getEnvelopeInternal();
      out.putDouble(box.getMinX()).putDouble(box.getMaxX());
      out.putDouble(box.getMinY()).putDouble(box.getMaxY());
    }
    return out.put(body).array();
  }

  /**
   * Reads the only feature table of a file, or the one named.
   *
   * @param name empty for the first
   * @throws FileFormatException that names the tables there are
   */
  public static Layer read(Path path, String name) {
    if (!Files.isRegularFile(path)) {
      throw new FileFormatException(path + " is not there. Check the name and the folder.");
    }
    try (Connection db =
        DriverManager.getConnection("jdbc:sqlite:file:" + path.toAbsolutePath() + "?mode=ro")) {
      List<String> tables = new ArrayList<>();
      try (Statement s = db.createStatement();
          ResultSet r =
              s.executeQuery("SELECT table_name FROM gpkg_contents WHERE data_type = 'features'")) {
        while (r.next()) {
          tables.add(r.getString(1));
        }
      }
      String table = name.isEmpty() && !tables.isEmpty() ? tables.get(0) : name;
      if (!tables.contains(table)) {
        throw new FileFormatException(
            path + " has no feature table '" + table + "'. It has: " + tables + ".");
      }
      return read(db, path, table);
    } catch (SQLException | ParseException unreadable) {
      throw new FileFormatException(
          path + " cannot be read as a GeoPackage: " + unreadable.getMessage(), unreadable);
    }
  }

  private static Layer read(Connection db, Path path, String table)
      throws SQLException, ParseException {
    String geometry;
    CrsName crs;
    try (PreparedStatement s = db.prepareStatement(
        "SELECT g.column_name, r.organization, r.organization_coordsys_id, r.definition"
            + " FROM gpkg_geometry_columns g JOIN gpkg_spatial_ref_sys r ON g.srs_id = r.srs_id"
            + " WHERE g.table_name = ?")) {
      s.setString(1, table);
      try (ResultSet r = s.executeQuery()) {
        if (!r.next()) {
          throw new FileFormatException(path + ": table '" + table + "' has no geometry column.");
        }
        geometry = r.getString(1);
        crs = "EPSG".equalsIgnoreCase(r.getString(2))
            ? CrsName.epsg(r.getInt(3))
            : "undefined".equals(r.getString(4)) ? CrsName.NONE : new CrsName(r.getString(4));
      }
    }
    List<Geometry> geometries = new ArrayList<>();
    Map<String, List<Object>> values = new java.util.LinkedHashMap<>();
    WKBReader wkb = new WKBReader();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT * FROM " + quoted(table))) {
      int count = r.getMetaData().getColumnCount();
      while (r.next()) {
        for (int c = 1; c <= count; c++) {
          String column = r.getMetaData().getColumnName(c);
          if (column.equals(geometry)) {
            geometries.add(geometry(r.getBytes(c), wkb));
          } else {
            values.computeIfAbsent(column, key -> new ArrayList<>()).add(r.getObject(c));
          }
        }
      }
    }
    List<Table.Column> columns = new ArrayList<>();
    values.forEach((name, list) -> columns.add(column(name, list)));
    return new Layer(table, crs, geometries, new Table(geometries.size(), columns), remarks(db));
  }

  private static Table.Column column(String name, List<Object> list) {
    boolean text = list.stream().anyMatch(v -> v instanceof String);
    if (text) {
      return Table.Column.ofTexts(
          name, name, list.stream().map(v -> v == null ? "" : v.toString()).toList());
    }
    double[] numbers = new double[list.size()];
    for (int i = 0; i < numbers.length; i++) {
      numbers[i] = list.get(i) instanceof Number n ? n.doubleValue() : Double.NaN;
    }
    return new Table.Column(name, name, "", numbers);
  }

  private static Geometry geometry(byte[] blob, WKBReader wkb) throws ParseException {
    if (blob == null || blob.length < 8 || blob[0] != 'G' || blob[1] != 'P') {
      throw new ParseException("a geometry does not begin with the marks of GeoPackage");
    }
    int[] envelopes = {0, 32, 48, 48, 64, 0, 0, 0};
    int header = 8 + envelopes[blob[3] >> 1 & 7];
    return wkb.read(java.util.Arrays.copyOfRange(blob, header, blob.length));
  }

  private static Map<String, String> remarks(Connection db) {
    Map<String, String> remarks = new HashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery(
            "SELECT metadata FROM gpkg_metadata WHERE md_standard_uri = 'urn:sharpkestrel:remarks'")) {
      if (r.next()) {
        JsonNode node = new ObjectMapper().readTree(r.getString(1));
        node.properties().forEach(e -> remarks.put(e.getKey(), e.getValue().asText()));
      }
    } catch (SQLException | IOException none) {
      // remarks are extra; files of other software have none
      return Map.of();
    }
    return remarks;
  }
}
