package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class NumberTableTest {

  @TempDir
  Path folder;

  @Test
  void rowsAndRemarksComeBackAsTheyWere() {
    Path file = folder.resolve("numbers.gpkg");
    double[][] numbers = new double[10_000][3];
    Random random = new Random(5);
    for (double[] row : numbers) {
      row[0] = random.nextInt();
      row[1] = random.nextGaussian();
      row[2] = random.nextInt(3) == 0 ? Double.NaN : random.nextDouble();
    }

    NumberTable.write(
        file,
        "tree of a \"scene\"",
        List.of("parent", "height", "pixels"),
        numbers.length,
        (i, row) -> System.arraycopy(numbers[i], 0, row, 0, 3),
        Map.of("grain", "60"));
    double[][] read = new double[numbers.length][];
    int count = NumberTable.read(
        file,
        "tree of a \"scene\"",
        List.of("parent", "height", "pixels"),
        (i, row) -> read[i] = row.clone());

    assertThat(count).isEqualTo(numbers.length);
    for (int i = 0; i < read.length; i++) {
      assertThat(read[i]).as("row %d", i).containsExactly(numbers[i]);
    }
    assertThat(NumberTable.remarks(file)).containsEntry("grain", "60");
  }

  @Test
  void theFileIsAGeoPackageWithAnAttributesTable() throws Exception {
    Path file = folder.resolve("numbers.gpkg");
    NumberTable.write(file, "numbers", List.of("a"), 2, (i, row) -> row[0] = i, Map.of());

    try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = db.createStatement()) {
      var contents = s.executeQuery("SELECT table_name, data_type FROM gpkg_contents");
      assertThat(contents.getString(1)).isEqualTo("numbers");
      assertThat(contents.getString(2)).isEqualTo("attributes");
      // "GPKG" in ASCII, as the standard's requirement 2 wants.
      assertThat(s.executeQuery("PRAGMA application_id").getInt(1)).isEqualTo(0x47504B47);
      assertThat(s.executeQuery("PRAGMA integrity_check").getString(1)).isEqualTo("ok");
    }
  }

  @Test
  void aMissingFileAnotherTableAndRubbishAreNamed() throws Exception {
    Path file = folder.resolve("numbers.gpkg");
    NumberTable.write(file, "numbers", List.of("a"), 1, (i, row) -> row[0] = i, Map.of());
    Path rubbish = Files.writeString(folder.resolve("rubbish.gpkg"), "no database at all");

    for (Path wrong : List.of(folder.resolve("none.gpkg"), rubbish)) {
      assertThatThrownBy(() -> NumberTable.read(wrong, "numbers", List.of("a"), (i, row) -> {}))
          .isInstanceOf(FileFormatException.class)
          .hasMessageContaining(wrong.toString());
    }
    assertThatThrownBy(() -> NumberTable.read(file, "others", List.of("a"), (i, row) -> {}))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("others");
  }
}
