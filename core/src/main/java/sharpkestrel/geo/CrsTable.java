package sharpkestrel.geo;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.zip.GZIPInputStream;

/**
 * The coordinate reference systems of the EPSG dataset as text that ships, so that a code is known at once: opening the dataset
 * itself takes seconds. Made from it by {@code CrsTableMaker}; systems in ascending order of their codes.
 */
final class CrsTable {

  private static final String FILE = "crs.txt.gz";

  private CrsTable() {}

  /**
   * @param shift from the system's datum to WGS 84; empty where that is no plain one
   * @param wkt well-known text
   */
  record Entry(Optional<DatumShift> shift, String wkt) {}

  /** The system of a code; empty for those that are only in the dataset, or nowhere. */
  static Optional<Entry> of(int code) {
    try (InputStream in = CrsTable.class.getResourceAsStream(FILE);
        BufferedReader lines = new BufferedReader(
            new InputStreamReader(new GZIPInputStream(in, 1 << 16), StandardCharsets.UTF_8))) {
      String start = code + "\t";
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        if (line.startsWith(start)) {
          int end = line.indexOf('\t', start.length());
          String shift = line.substring(start.length(), end);
          return Optional.of(new Entry(DatumShift.parse(shift), line.substring(end + 1)));
        }
      }
      return Optional.empty();
    } catch (IOException broken) {
      throw new IllegalStateException(FILE + " does not ship with the application", broken);
    }
  }
}
