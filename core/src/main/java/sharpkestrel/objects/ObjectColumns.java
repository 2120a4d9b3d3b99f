package sharpkestrel.objects;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.io.ArrowTable;
import sharpkestrel.io.Compression;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.GeoTiff;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.NumberRaster;
import sharpkestrel.raster.ScratchLabels;

/**
 * Object sets as two files of one name, twenty times as fast as outlines in a GeoPackage: where the objects lie as a
 * GeoTIFF of their rows, counted from 1, and their features as a table of Apache Arrow.
 */
public final class ObjectColumns {

  private static final String ID = "id";
  private static final String GROUND = "ground";

  private ObjectColumns() {}

  /** The raster that goes with a table. */
  public static Path labels(Path columns) {
    String name = columns.getFileName().toString();
    return columns.resolveSibling(name.replaceFirst("\\.[^.]*$", "") + ".tif");
  }

  /** Whether both files are there. */
  public static boolean exists(Path columns) {
    return Files.isRegularFile(columns) && Files.isRegularFile(labels(columns));
  }

  /**
   * @param columns the table's name, ending in {@code .arrow}
   */
  public static void write(ObjectSet set, Path columns, Job job) {
    int[] rows = set.rowOf();
    GeoTiffWriter.write(
        new NumberRaster(set.labels(), "object", set.count(), label -> rows[label] + 1),
        labels(columns),
        Compression.ZSTD,
        false,
        job);
    List<Table.Column> all = new ArrayList<>();
    all.add(
        new Table.Column(ID, "Id", "", Arrays.stream(set.ids()).asDoubleStream().toArray()));
    set.table().columns().stream().filter(c -> !c.name().equals(ID)).forEach(all::add);
    new ArrowTable(new Table(set.count(), all), Map.of(GROUND, set.ground().toText()))
        .write(columns, job);
  }

  /**
   * @throws FileFormatException where one of the files is missing or damaged, or they do not go together
   */
  public static ObjectSet read(Path columns, Job job) {
    if (!Files.isRegularFile(labels(columns))) {
      throw new FileFormatException(columns + " tells what objects are like, and " + labels(columns)
          + " where they lie; the second is missing. Put both beside each other.");
    }
    ArrowTable read = ArrowTable.read(columns, job);
    String ground = read.remarks().getOrDefault(GROUND, "");
    ScratchLabels labels = ScratchLabels.of(GeoTiff.open(labels(columns)).labels(), job);
    Table table = read.table();
    if (ground.isEmpty() || !table.has(ID) || labels.maxLabel() > table.rows()) {
      throw new FileFormatException(
          columns + " and the GeoTIFF beside it are no object set, or not of the same.");
    }
    labels.setMaxLabel(table.rows());
    int[] rowOf = new int[table.rows() + 1];
    Arrays.setAll(rowOf, label -> label - 1);
    return new ObjectSet(
        labels,
        rowOf,
        Arrays.stream(table.values(ID)).mapToInt(id -> (int) id).toArray(),
        new Table(
            table.rows(),
            table.columns().stream().filter(c -> !c.name().equals(ID)).toList()),
        GroundSize.parse(ground));
  }
}
