package sharpkestrel.io;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Envelope;

/**
 * A long table of numbers without geometry in a GeoPackage (attributes, OGC 12-128r18 section 2.4), written and read row
 * by row, so that millions of rows need no memory of their own.
 */
public final class NumberTable {

  private static final int BATCH = 4096;

  /** Fills a row of numbers; NaN is none. */
  public interface Rows {
    void fill(int row, double[] numbers);
  }

  private NumberTable() {}

  /** Writes a table whole or not at all. */
  public static void write(
      Path target,
      String table,
      List<String> columns,
      int rows,
      Rows numbers,
      Map<String, String> remarks) {
    GeoPackageFile.write(target, db -> {
      GeoPackageFile.addContents(db, table, "attributes", new Envelope(), -1, remarks);
      String typed = String.join(
          ", ", columns.stream().map(c -> GeoPackageFile.quoted(c) + " REAL").toList());
      try (Statement s = db.createStatement()) {
        s.execute("CREATE TABLE " + GeoPackageFile.quoted(table)
            + " (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, " + typed + ")");
      }
      double[] row = new double[columns.size()];
      try (PreparedStatement insert = db.prepareStatement("INSERT INTO "
          + GeoPackageFile.quoted(table) + " VALUES (?" + ",?".repeat(row.length) + ")")) {
        for (int i = 0; i < rows; i++) {
          numbers.fill(i, row);
          insert.setInt(1, i + 1);
          for (int k = 0; k < row.length; k++) {
            if (Double.isNaN(row[k])) {
              insert.setNull(k + 2, java.sql.Types.REAL);
            } else {
              insert.setDouble(k + 2, row[k]);
            }
          }
          insert.addBatch();
          if (i % BATCH == BATCH - 1) {
            insert.executeBatch();
          }
        }
        insert.executeBatch();
      }
    });
  }

  /** The remarks that were written with a table. */
  public static Map<String, String> remarks(Path path) {
    try (Connection db = GeoPackageFile.open(path)) {
      return GeoPackageFile.remarks(db);
    } catch (SQLException unreadable) {
      throw unreadable(path, unreadable);
    }
  }

  /**
   * Reads the rows in order.
   *
   * @param sink told each row's place, from 0, and its numbers, in an array that is used again
   * @return how many rows there were
   * @throws FileFormatException where the file has no such table
   */
  public static int read(Path path, String table, List<String> columns, Rows sink) {
    String names =
        String.join(", ", columns.stream().map(GeoPackageFile::quoted).toList());
    double[] row = new double[columns.size()];
    try (Connection db = GeoPackageFile.open(path);
        Statement s = db.createStatement();
        ResultSet r = s.executeQuery(
            "SELECT " + names + " FROM " + GeoPackageFile.quoted(table) + " ORDER BY id")) {
      int count = 0;
      while (r.next()) {
        for (int k = 0; k < row.length; k++) {
          double number = r.getDouble(k + 1);
          row[k] = r.wasNull() ? Double.NaN : number;
        }
        sink.fill(count++, row);
      }
      return count;
    } catch (SQLException unreadable) {
      throw unreadable(path, unreadable);
    }
  }

  private static FileFormatException unreadable(Path path, SQLException why) {
    return new FileFormatException(
        path + " cannot be read as a GeoPackage: " + why.getMessage(), why);
  }
}
