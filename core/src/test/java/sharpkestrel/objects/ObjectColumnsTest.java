package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.io.ArrowTable;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;

class ObjectColumnsTest {

  private static final int WIDTH = 400;
  private static final int HEIGHT = 300;
  /** More than a batch of the table holds. */
  private static final int COUNT = 70_000;

  @TempDir
  Path folder;

  /** One object for each pixel of the first rows; every third label belongs to none. */
  private static ObjectSet objects() {
    ScratchLabels labels = new ScratchLabels(
        new Grid(WIDTH, HEIGHT, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)));
    int[] all =
        IntStream.range(0, WIDTH * HEIGHT).map(i -> Math.max(0, i - 500)).toArray();
    labels.write(labels.grid().window(), all);
    labels.setMaxLabel(WIDTH * HEIGHT - 501);
    int[] rowOf = new int[WIDTH * HEIGHT - 500];
    Arrays.fill(rowOf, -1);
    int row = 0;
    for (int label = 1; label < rowOf.length && row < COUNT; label++) {
      rowOf[label] = label % 3 == 0 ? -1 : row++;
    }
    double[] area = new double[COUNT];
    Arrays.setAll(area, i -> i % 7 == 0 ? Double.NaN : i / 3.0);
    List<String> kinds = IntStream.range(0, COUNT)
        .mapToObj(i -> i % 5 == 0 ? null : i % 2 == 0 ? "skáli" : "shed")
        .toList();
    Table table = new Table(
        COUNT,
        List.of(
            new Table.Column("area", "Area", "m²", area),
            Table.Column.ofTexts("kind", "Kind", kinds)));
    int[] ids = IntStream.range(0, COUNT).map(i -> 3 * i + 11).toArray();
    return new ObjectSet(labels, rowOf, ids, table, new GroundSize(0.5, 0.25));
  }

  private Path file(String name) {
    return folder.resolve(name);
  }

  @Test
  void aSetComesBackAsItWas() {
    ObjectSet set = objects();

    ObjectColumns.write(set, file("set.arrow"), Job.QUIET);
    ObjectSet back = ObjectColumns.read(file("set.arrow"), Job.QUIET);

    assertThat(file("set.tif")).exists();
    assertThat(back.ids()).isEqualTo(set.ids());
    assertThat(back.ground()).isEqualTo(set.ground());
    assertThat(back.labels().grid()).isEqualTo(set.labels().grid());
    assertThat(back.table().columns()).hasSize(2);
    Table.Column area = back.table().column("area");
    assertThat(area.title()).isEqualTo("Area");
    assertThat(area.unit()).isEqualTo("m²");
    assertThat(area.values()).isEqualTo(set.table().values("area"));
    Table.Column kind = back.table().column("kind");
    assertThat(kind.categories()).containsExactly("shed", "skáli");
    assertThat(kind.values()).isEqualTo(set.table().values("kind"));
    assertThat(rows(back)).isEqualTo(rows(set));
  }

  /** Pixel by pixel the row of the object there. */
  private static int[] rows(ObjectSet set) {
    int[] labels = new int[WIDTH * HEIGHT];
    set.labels().read(set.labels().grid().window(), labels);
    return Arrays.stream(labels).map(label -> set.rowOf()[label]).toArray();
  }

  @Test
  void aTableWithoutItsRasterSaysWhichFileIsMissing() throws IOException {
    ObjectColumns.write(objects(), file("set.arrow"), Job.QUIET);
    Files.delete(file("set.tif"));

    assertThatThrownBy(() -> ObjectColumns.read(file("set.arrow"), Job.QUIET))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("set.tif")
        .hasMessageContaining("missing");
  }

  @Test
  void filesThatDoNotGoTogetherAreRefused() {
    ObjectColumns.write(objects(), file("set.arrow"), Job.QUIET);
    new ArrowTable(
            new Table(1, List.of(new Table.Column("id", "Id", "", new double[] {1}))),
            java.util.Map.of("ground", "1,1"))
        .write(file("set.arrow"), Job.QUIET);

    assertThatThrownBy(() -> ObjectColumns.read(file("set.arrow"), Job.QUIET))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("not of the same");
  }

  @Test
  void whatIsNoTableOrIsCutShortIsRefused() throws IOException {
    ObjectColumns.write(objects(), file("set.arrow"), Job.QUIET);
    byte[] whole = Files.readAllBytes(file("set.arrow"));

    for (int length : new int[] {0, 5, 200, whole.length / 2, whole.length - 1}) {
      Files.write(file("set.arrow"), Arrays.copyOf(whole, length));
      assertThatThrownBy(() -> ObjectColumns.read(file("set.arrow"), Job.QUIET))
          .as("%d bytes", length)
          .isInstanceOf(FileFormatException.class)
          .hasMessageContaining("set.arrow");
    }
  }
}
