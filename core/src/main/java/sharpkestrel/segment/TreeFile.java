package sharpkestrel.segment;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.io.Compression;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.GeoTiff;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.NumberTable;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.NumberRaster;
import sharpkestrel.raster.ScratchLabels;

/**
 * A merge tree as two files of one name: the superpixels' numbers as a GeoTIFF, and a GeoPackage with a row for each node
 * of the tree: the node it merged into, the height of its merge (none for superpixels), its pixels (superpixels only).
 */
public final class TreeFile {

  private static final String TABLE = "merge_tree";
  private static final List<String> COLUMNS = List.of("parent", "height", "pixels");
  private static final String LEAVES = "superpixels";
  private static final String NODES = "nodes";
  private static final String GROUND = "ground";
  private static final String CRITERION = "criterion";

  /** How the second file's name ends where a user gives it. */
  public static final String ENDING = ".tree.gpkg";

  private TreeFile() {}

  /** Whether a name is that of a tree's GeoPackage, and not of one of objects or outlines. */
  public static boolean isNamed(Path file) {
    return file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(ENDING);
  }

  /** The name of both files of a tree that is given by its GeoPackage. */
  public static Path stem(Path file) {
    String name = file.getFileName().toString();
    return file.resolveSibling(name.substring(0, name.length() - ".gpkg".length()));
  }

  private static Path labels(Path stem) {
    return stem.resolveSibling(stem.getFileName() + ".tif");
  }

  private static Path nodes(Path stem) {
    return stem.resolveSibling(stem.getFileName() + ".gpkg");
  }

  /** Whether both files are there. */
  public static boolean exists(Path stem) {
    return Files.isRegularFile(labels(stem)) && Files.isRegularFile(nodes(stem));
  }

  /**
   * @param stem the files' name without its ending
   */
  public static void write(Cut cut, Path stem, Job job) {
    MergeTree tree = cut.tree();
    GeoTiffWriter.write(
        new NumberRaster(cut.superpixels(), "superpixel", tree.leaves(), label -> label),
        labels(stem),
        Compression.ZSTD,
        false,
        job);
    job.cancellation().check();
    NumberTable.write(
        nodes(stem),
        TABLE,
        COLUMNS,
        tree.nodes(),
        (node, row) -> {
          int merge = node - tree.leaves();
          row[0] = tree.parent(node);
          row[1] = merge < 0 ? Double.NaN : tree.heightOfMerge(merge);
          row[2] = merge < 0 ? tree.pixels(node) : Double.NaN;
        },
        Map.of(
            LEAVES, Integer.toString(tree.leaves()),
            NODES, Integer.toString(tree.nodes()),
            GROUND, cut.ground().toText(),
            CRITERION, tree.by().name()));
  }

  /**
   * The tree, cut at its lowest height.
   *
   * @throws FileFormatException where the files are missing, damaged, or do not go together
   */
  public static Cut read(Path stem, Job job) {
    Path file = nodes(stem);
    Map<String, String> remarks = NumberTable.remarks(file);
    try {
      int leaves = Integer.parseInt(remarks.getOrDefault(LEAVES, ""));
      int nodes = Integer.parseInt(remarks.getOrDefault(NODES, ""));
      int[] parent = new int[nodes];
      float[] heights = new float[nodes - leaves];
      int[] pixels = new int[leaves];
      int read = NumberTable.read(file, TABLE, COLUMNS, (node, row) -> {
        parent[node] = (int) row[0];
        if (node < leaves) {
          pixels[node] = (int) row[2];
        } else {
          heights[node - leaves] = (float) row[1];
        }
      });
      ScratchLabels superpixels = ScratchLabels.of(GeoTiff.open(labels(stem)).labels(), job);
      if (read != nodes || superpixels.maxLabel() != leaves) {
        throw new FileFormatException(file + " and the GeoTIFF beside it do not go together.");
      }
      MergeTree tree = new MergeTree(
          leaves,
          nodes - leaves,
          parent,
          heights,
          pixels,
          MergingBy.valueOf(remarks.getOrDefault(CRITERION, MergingBy.LIKENESS.name())));
      GroundSize size = GroundSize.parse(remarks.getOrDefault(GROUND, ""));
      return Cut.atHeight(superpixels, tree, size, size.area(), 0);
    } catch (IllegalArgumentException
        | IndexOutOfBoundsException
        | NegativeArraySizeException damaged) {
      throw new FileFormatException(file + " holds no merge tree.", damaged);
    }
  }
}
