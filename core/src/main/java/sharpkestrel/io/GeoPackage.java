package sharpkestrel.io;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.sql.Connection;
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
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.io.ByteOrderValues;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.locationtech.jts.io.WKBWriter;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.CrsName;

/**
 * OGC GeoPackage 1.3 (OGC 12-128r18) with one feature table: the spatial index of annex F.3 with its triggers;
 * titles and units of the columns among the remarks.
 */
public final class GeoPackage {

  private static final Geometry NONE = new GeometryFactory().createGeometryCollection();
  private static final int MOST_ROWS = 50_000_000;
  private static final int COLLECTION = 7;
  private static final int DEEPEST = 32;
  private static final String GEOMETRY = "geom";
  private static final String KEY = "fid";
  private static final String TITLE = "title:";
  private static final String UNIT = "unit:";

  private GeoPackage() {}

  /** Writes a layer whole or not at all. */
  public static void write(Layer layer, Path target) {
    GeoPackageFile.write(target, db -> fill(db, layer));
  }

  private static void fill(Connection db, Layer layer) throws SQLException {
    int srs = describe(db, layer);
    String table = GeoPackageFile.quoted(layer.name());
    StringBuilder columns = new StringBuilder();
    StringBuilder marks = new StringBuilder();
    for (Table.Column column : layer.table().columns()) {
      columns
          .append(", ")
          .append(GeoPackageFile.quoted(column.name()))
          .append(column.isText() ? " TEXT" : " REAL");
      marks.append(",?");
    }
    try (Statement s = db.createStatement()) {
      s.execute(
          "CREATE TABLE " + table + " (" + KEY + " INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, "
              + GEOMETRY + " GEOMETRY" + columns + ")");
      s.execute("CREATE VIRTUAL TABLE " + GeoPackageFile.quoted(index(layer))
          + " USING rtree(id, minx, maxx, miny, maxy)");
    }
    WKBWriter wkb = new WKBWriter(2, ByteOrderValues.LITTLE_ENDIAN);
    try (PreparedStatement insert =
            db.prepareStatement("INSERT INTO " + table + " VALUES (?,?" + marks + ")");
        PreparedStatement place = db.prepareStatement(
            "INSERT INTO " + GeoPackageFile.quoted(index(layer)) + " VALUES (?,?,?,?,?)")) {
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
  }

  private static int describe(Connection db, Layer layer) throws SQLException {
    int srs = GeoPackageFile.addSystem(db, layer.crs());
    Envelope all = new Envelope();
    layer.geometries().forEach(g -> all.expandToInclude(g.getEnvelopeInternal()));
    Map<String, String> remarks = new HashMap<>(layer.remarks());
    for (Table.Column column : layer.table().columns()) {
      remarks.put(TITLE + column.name(), column.title());
      remarks.put(UNIT + column.name(), column.unit());
    }
    GeoPackageFile.addContents(db, layer.name(), "features", all, srs, remarks);
    GeoPackageFile.run(
        db,
        "INSERT INTO gpkg_geometry_columns VALUES (?,?,'GEOMETRY',?,0,0)",
        layer.name(),
        GEOMETRY,
        srs);
    GeoPackageFile.run(
        db,
        "INSERT INTO gpkg_extensions VALUES (?,?,'gpkg_rtree_index',"
            + "'http://www.geopackage.org/spec130/#extension_rtree','write-only')",
        layer.name(),
        GEOMETRY);
    return srs;
  }

  /** The triggers that keep the index true when other software edits the features. */
  private static void createTriggers(Connection db, Layer layer) throws SQLException {
    String t = GeoPackageFile.quoted(layer.name());
    String r = GeoPackageFile.quoted(index(layer));
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
    try (Connection db = GeoPackageFile.open(path)) {
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
    } catch (SQLException unreadable) {
      throw new FileFormatException(
          path + " cannot be read as a GeoPackage: " + GeoPackageFile.reason(unreadable),
          unreadable);
    } catch (ParseException | IllegalArgumentException | ArithmeticException unreadable) {
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
            : system(r.getString(4));
      }
    }
    List<Geometry> geometries = new ArrayList<>();
    Map<String, List<Object>> values = new java.util.LinkedHashMap<>();
    WKBReader wkb = new WKBReader();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT * FROM " + GeoPackageFile.quoted(table))) {
      int count = r.getMetaData().getColumnCount();
      while (r.next()) {
        if (geometries.size() == MOST_ROWS) {
          throw new FileFormatException(path + ": table '" + table + "' has more than " + MOST_ROWS
              + " features, or a view in it does not end. Give a table with fewer.");
        }
        for (int c = 1; c <= count; c++) {
          String column = r.getMetaData().getColumnName(c);
          if (column.equals(geometry)) {
            geometries.add(geometry(r.getBytes(c), wkb));
          } else if (!column.equalsIgnoreCase(KEY)) {
            values.computeIfAbsent(column, key -> new ArrayList<>()).add(r.getObject(c));
          }
        }
      }
    }
    List<Table.Column> columns = new ArrayList<>();
    Map<String, String> remarks = GeoPackageFile.remarks(db);
    values.forEach((name, list) -> columns.add(Layer.column(
        name,
        remarks.getOrDefault(TITLE + name, name),
        remarks.getOrDefault(UNIT + name, ""),
        list)));
    return new Layer(table, crs, geometries, new Table(geometries.size(), columns), remarks);
  }

  private static CrsName system(String definition) {
    return definition == null || definition.equals("undefined")
        ? CrsName.NONE
        : CrsName.ofWkt(definition);
  }

  private static Geometry geometry(byte[] blob, WKBReader wkb) throws ParseException {
    if (blob == null) {
      return NONE;
    }
    if (blob.length < 8 || blob[0] != 'G' || blob[1] != 'P') {
      throw new ParseException("a geometry does not begin with the marks of GeoPackage");
    }
    int[] envelopes = {0, 32, 48, 48, 64, 0, 0, 0};
    int header = 8 + envelopes[blob[3] >> 1 & 7];
    checkDepth(blob, header);
    return wkb.read(java.util.Arrays.copyOfRange(blob, header, blob.length));
  }

  /** Collections within collections are read by calls within calls, which must end. */
  private static void checkDepth(byte[] blob, int header) throws ParseException {
    int deep = 0;
    for (int at = header; at + 9 <= blob.length; at += 9) {
      boolean little = blob[at] == 1;
      int type = ByteBuffer.wrap(blob, at + 1, 4)
          .order(little ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN)
          .getInt();
      if ((type & 0xff) % 1000 != COLLECTION) {
        return;
      }
      if (++deep > DEEPEST) {
        throw new ParseException("collections of shapes within each other, more than " + DEEPEST);
      }
    }
  }
}
