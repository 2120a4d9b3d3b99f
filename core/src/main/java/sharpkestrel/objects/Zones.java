package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.DrawnRegions;

/**
 * The zone of every object: that in which most of its pixels lie, of those that lie in any.
 *
 * @param zoneOf for each object its zone, -1 for none
 * @param pixels of each zone in the scene
 * @param names of the zones
 */
record Zones(int[] zoneOf, long[] pixels, List<String> names) {

  /**
   * @param outlines of the zones, in the system of the objects' grid
   * @param nameColumn of the zones' names; empty: the first column of texts, or numbers from 1
   */
  static Zones of(ObjectSet objects, OutlineSet outlines, String nameColumn, Job job) {
    Grid grid = objects.labels().grid();
    if (outlines.count() == 0) {
      throw new RasterException("There are no zones in the file that was given.");
    }
    if (!outlines.crs().equals(grid.crs())) {
      throw new RasterException("The zones are in " + outlines.crs() + ", the objects in "
          + grid.crs() + ". Give zones in the system of the objects.");
    }
    ScratchLabels drawn = new ScratchLabels(grid);
    DrawnRegions.draw(outlines.outlines(), drawn, job);
    PairTable table = new PairTable(0);
    long[] pixels = new long[outlines.count()];
    int width = grid.width();
    int[] row = new int[width];
    int[] zone = new int[width];
    int[] rowOf = objects.rowOf();
    float[] none = new float[0];
    for (int y = 0; y < grid.height(); y++) {
      job.cancellation().check();
      Window line = new Window(0, y, width, 1);
      objects.labels().read(line, row);
      drawn.read(line, zone);
      for (int x = 0; x < width; x++) {
        if (zone[x] > 0) {
          pixels[zone[x] - 1]++;
          if (rowOf[row[x]] >= 0) {
            table.add((long) rowOf[row[x]] << 32 | zone[x] - 1, none);
          }
        }
      }
    }
    tellOverlaps(outlines, grid, pixels, job);
    PairTable.Pairs pairs = table.sorted();
    int[] zoneOf = new int[objects.count()];
    int[] most = new int[zoneOf.length];
    Arrays.fill(zoneOf, -1);
    for (int p = 0; p < pairs.keys().length; p++) {
      int object = (int) (pairs.keys()[p] >>> 32);
      if (pairs.sides()[p] > most[object]) {
        most[object] = pairs.sides()[p];
        zoneOf[object] = (int) pairs.keys()[p];
      }
    }
    return new Zones(zoneOf, pixels, names(outlines, nameColumn));
  }

  private static void tellOverlaps(OutlineSet outlines, Grid grid, long[] drawn, Job job) {
    long lost = 0;
    long inside = 0;
    List<Integer> missing = new ArrayList<>();
    for (int z = 0; z < drawn.length; z++) {
      PolygonFill fill = new PolygonFill(outlines.outlines().get(z), grid);
      Window window = fill.bounds(0).intersect(grid.window());
      long own = 0;
      if (!window.isEmpty()) {
        for (boolean pixel : fill.fill(0, window)) {
          own += pixel ? 1 : 0;
        }
      }
      inside += own;
      lost += own - drawn[z];
      if (own == 0) {
        missing.add(z + 1);
      }
    }
    if (inside == 0) {
      throw new RasterException("None of the " + drawn.length
          + " zones has a pixel of the objects' scene in it: they lie elsewhere.");
    }
    if (!missing.isEmpty()) {
      job.warn(missing.size() + " of " + drawn.length
          + " zones lie outside of the scene and hold no objects.");
    }
    if (lost > 0) {
      job.warn(String.format(
          java.util.Locale.ROOT,
          "Zones overlap on %.1f %% of their area; there the later one counts.",
          100.0 * lost / inside));
    }
  }

  private static List<String> names(OutlineSet outlines, String nameColumn) {
    Table table = outlines.table();
    Optional<Table.Column> column = nameColumn.isBlank()
        ? table.columns().stream().filter(Table.Column::isText).findFirst()
        : Optional.of(table.column(nameColumn));
    List<String> names = new ArrayList<>();
    for (int z = 0; z < outlines.count(); z++) {
      int row = z;
      names.add(column
          .map(c -> c.isText() ? c.text(row) : Cql2.number(c.values()[row]))
          .orElse("zone " + (z + 1)));
    }
    return names;
  }

  /** Each zone's objects, that of the best value first; those without a value last, ties by object. */
  List<List<Integer>> ranked(double[] values, boolean largestFirst) {
    List<List<Integer>> ranked = new ArrayList<>();
    for (int z = 0; z < pixels.length; z++) {
      ranked.add(new ArrayList<>());
    }
    for (int i = 0; i < zoneOf.length; i++) {
      if (zoneOf[i] >= 0) {
        ranked.get(zoneOf[i]).add(i);
      }
    }
    for (List<Integer> in : ranked) {
      in.sort((a, b) -> {
        if (Double.isNaN(values[a]) || Double.isNaN(values[b])) {
          return Boolean.compare(Double.isNaN(values[a]), Double.isNaN(values[b]));
        }
        return largestFirst
            ? Double.compare(values[b], values[a])
            : Double.compare(values[a], values[b]);
      });
    }
    return ranked;
  }
}
