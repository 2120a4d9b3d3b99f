package sharpkestrel.io;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Envelope;
import org.sqlite.ProgressHandler;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteOpenMode;
import sharpkestrel.geo.Crs;
import sharpkestrel.raster.CrsName;

/**
 * What every GeoPackage has, whatever its tables hold (OGC 12-128r18): the marks of the file, the reference systems,
 * the list of contents, and remarks in the metadata tables of annex F.8.
 */
final class GeoPackageFile {

  private static final int APPLICATION_ID = 0x47504B47;
  private static final int VERSION = 10300;

  /** How long reading one file may take, unless the property {@code kestrel.geopackage.seconds} says otherwise. */
  private static final int LONGEST_SECONDS = 120;

  private static final int INTERRUPTED = 9;

  /** Instructions of the database between two looks at the clock. */
  private static final int STEPS = 100_000;

  private static final String REMARKS = "urn:sharpkestrel:remarks";

  /** Fills a new file within one transaction. */
  interface Content {
    void fill(Connection db) throws SQLException;
  }

  private GeoPackageFile() {}

  /** Writes a file whole or not at all. */
  static void write(Path target, Content content) {
    AtomicFile.write(target, temporary -> {
      Files.deleteIfExists(temporary);
      try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + uri(temporary))) {
        try (Statement s = db.createStatement()) {
          s.execute("PRAGMA application_id = " + APPLICATION_ID);
          s.execute("PRAGMA user_version = " + VERSION);
          s.execute("PRAGMA journal_mode = OFF");
          s.execute("PRAGMA synchronous = OFF");
        }
        db.setAutoCommit(false);
        createTables(db);
        content.fill(db);
        db.commit();
      } catch (SQLException failed) {
        throw new IOException(failed.getMessage(), failed);
      }
    });
  }

  /**
   * @throws FileFormatException where there is no file
   */
  static Connection open(Path path) throws SQLException {
    if (!Files.isRegularFile(path)) {
      throw new FileFormatException(path + " is not there. Check the name and the folder.");
    }
    SQLiteConfig config = new SQLiteConfig();
    config.setReadOnly(true);
    config.setOpenMode(SQLiteOpenMode.READONLY);
    Connection db = config.createConnection("jdbc:sqlite:" + uri(path));
    // A view of a foreign file may go on for ever: it is stopped after so much work, whatever it
    // does.
    long end = System.nanoTime() + longestSeconds() * 1_000_000_000L;
    ProgressHandler.setHandler(db, STEPS, new ProgressHandler() {
      @Override
      protected int progress() {
        return System.nanoTime() > end ? 1 : 0;
      }
    });
    return db;
  }

  private static int longestSeconds() {
    return Integer.getInteger("kestrel.geopackage.seconds", LONGEST_SECONDS);
  }

  /** What a failure to read says: the database's own words, but for one that was stopped. */
  static String reason(SQLException failed) {
    return failed.getErrorCode() == INTERRUPTED
        ? "it took longer than " + longestSeconds() + " s; a view in it may not end. Give a table"
        : String.valueOf(failed.getMessage());
  }

  /** A path as SQLite takes it: what means something else in an address is written in hexadecimal. */
  private static String uri(Path path) {
    return "file:"
        + path.toAbsolutePath()
            .toString()
            .replace("%", "%25")
            .replace("?", "%3f")
            .replace("#", "%23");
  }

  private static void createTables(Connection db) throws SQLException {
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
    for (String table : List.of("gpkg_metadata", "gpkg_metadata_reference")) {
      run(
          db,
          "INSERT INTO gpkg_extensions VALUES (?,NULL,'gpkg_metadata',"
              + "'http://www.geopackage.org/spec130/#extension_metadata','read-write')",
          table);
    }
  }

  /** Adds a reference system where it is not there yet; its number in the file. */
  static int addSystem(Connection db, CrsName name) throws SQLException {
    int code = name.epsgCode();
    int srs = !name.isKnown() ? -1 : code > 0 ? code : 100_000;
    if (srs > 0 && srs != 4326) {
      Crs crs = Crs.of(name);
      addSystem(
          db, crs.title(), srs, code > 0 ? "EPSG" : "NONE", code > 0 ? code : srs, crs.wkt1());
    }
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

  /**
   * Lists a table among the contents, with remarks about it.
   *
   * @param type what the standard calls its kind: features or attributes
   */
  static void addContents(
      Connection db, String table, String type, Envelope all, int srs, Map<String, String> remarks)
      throws SQLException {
    run(
        db,
        "INSERT INTO gpkg_contents (table_name, data_type, identifier, min_x, min_y, max_x, max_y, srs_id)"
            + " VALUES (?,?,?,?,?,?,?,?)",
        table,
        type,
        table,
        all.isNull() ? null : all.getMinX(),
        all.isNull() ? null : all.getMinY(),
        all.isNull() ? null : all.getMaxX(),
        all.isNull() ? null : all.getMaxY(),
        srs);
    ObjectNode texts = Json.object();
    remarks.forEach(texts::put);
    run(
        db,
        "INSERT INTO gpkg_metadata VALUES (1,'dataset','" + REMARKS + "','application/json',?)",
        texts.toString());
    run(
        db,
        "INSERT INTO gpkg_metadata_reference (reference_scope, table_name, md_file_id) VALUES ('table',?,1)",
        table);
  }

  /** The remarks of a file; none where other software wrote it. */
  static Map<String, String> remarks(Connection db) {
    Map<String, String> remarks = new HashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery(
            "SELECT metadata FROM gpkg_metadata WHERE md_standard_uri = '" + REMARKS + "'")) {
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

  static void run(Connection db, String sql, Object... values) throws SQLException {
    try (PreparedStatement statement = db.prepareStatement(sql)) {
      for (int i = 0; i < values.length; i++) {
        statement.setObject(i + 1, values[i]);
      }
      statement.execute();
    }
  }

  static String quoted(String name) {
    return '"' + name.replace("\"", "\"\"") + '"';
  }
}
