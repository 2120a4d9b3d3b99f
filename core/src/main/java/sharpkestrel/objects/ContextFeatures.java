package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Distances;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/** What lies around objects and above them. */
final class ContextFeatures {

  /** Bytes a pixel that distances take. */
  private static final int BYTES = 10;

  private final ObjectSet objects;
  private final Neighbours neighbours;

  ContextFeatures(ObjectSet objects, Neighbours neighbours) {
    this.objects = objects;
    this.neighbours = neighbours;
  }

  /**
   * @param measured what is measured already, for the test
   * @param beside CQL2 test; blank for none
   */
  List<Table.Column> columns(
      List<Table.Column> measured,
      BorderFeatures borders,
      String beside,
      Optional<ObjectSet> coarser,
      Job job) {
    int n = objects.count();
    List<Table.Column> columns = new ArrayList<>();
    double[] counts = new double[n];
    for (int i = 0; i < n; i++) {
      counts[i] = neighbours.count(i);
    }
    columns.add(FeatureCatalogue.column("neighbours", counts));
    if (borders.seesShadows()) {
      columns.add(FeatureCatalogue.column("shadow_share", borders.shadowShares()));
    }
    if (!beside.isBlank()) {
      List<Table.Column> known = new ArrayList<>(measured);
      known.addAll(columns);
      double[] passes = Cql2.parseTest(beside).evaluate(new Table(n, known));
      columns.add(FeatureCatalogue.column("beside_share", shares(passes)));
      columns.add(FeatureCatalogue.column("beside_distance", distances(passes, job)));
    }
    coarser.ifPresent(set -> columns.addAll(ofCoarser(set, measured, job)));
    return columns;
  }

  private double[] shares(double[] passes) {
    double[] shares = new double[passes.length];
    for (int i = 0; i < shares.length; i++) {
      double with = 0;
      double all = 0;
      for (int k = 0; k < neighbours.count(i); k++) {
        all += neighbours.sides(i, k);
        with += passes[neighbours.neighbour(i, k)] == 1 ? neighbours.sides(i, k) : 0;
      }
      shares[i] = all == 0 ? 0 : with / all;
    }
    return shares;
  }

  private double[] distances(double[] passes, Job job) {
    Grid grid = objects.labels().grid();
    double[] least = new double[passes.length];
    Arrays.fill(least, Double.POSITIVE_INFINITY);
    if (Arrays.stream(passes).noneMatch(p -> p == 1)) {
      Arrays.fill(least, Double.NaN);
      job.warn("No object passes the test 'beside', so none has a distance to one.");
      return least;
    }
    long room = Runtime.getRuntime().maxMemory();
    if (grid.pixels() > Integer.MAX_VALUE - 16 || grid.pixels() * BYTES > room / 4 * 3) {
      throw new RasterException(String.format(
          java.util.Locale.ROOT,
          "Distances to objects need %.1f GiB for this scene. Clip it, give more (KESTREL_HEAP=...), or leave 'beside' out.",
          grid.pixels() * (double) BYTES / (1 << 30)));
    }
    int width = grid.width();
    boolean[] mask = new boolean[(int) grid.pixels()];
    rows(job, (y, row) -> {
      for (int x = 0; x < width; x++) {
        mask[y * width + x] = row[x] >= 0 && passes[row[x]] == 1;
      }
    });
    float[] distance = Distances.to(mask, width, grid.height());
    double pixel = objects.ground().mean();
    rows(job, (y, row) -> {
      for (int x = 0; x < width; x++) {
        if (row[x] >= 0) {
          least[row[x]] = Math.min(least[row[x]], distance[y * width + x] * pixel);
        }
      }
    });
    return least;
  }

  private interface Row {
    void of(int y, int[] objects);
  }

  private void rows(Job job, Row each) {
    int width = objects.labels().grid().width();
    int[] row = new int[width];
    int[] rowOf = objects.rowOf();
    for (int y = 0; y < objects.labels().grid().height(); y++) {
      job.cancellation().check();
      objects.labels().read(new Window(0, y, width, 1), row);
      for (int x = 0; x < width; x++) {
        row[x] = rowOf[row[x]];
      }
      each.of(y, row);
    }
  }

  private List<Table.Column> ofCoarser(ObjectSet coarser, List<Table.Column> measured, Job job) {
    if (!coarser.labels().grid().equals(objects.labels().grid())) {
      throw new RasterException(
          "The coarser objects lie on other pixels than the objects. Give a coarser cut of the same scene.");
    }
    int[] above = above(coarser, job);
    List<Table.Column> columns = new ArrayList<>();
    for (Table.Column column : coarser.table().columns()) {
      if (!column.isText() && !column.name().startsWith("coarser_")) {
        double[] values = new double[above.length];
        for (int i = 0; i < values.length; i++) {
          values[i] = above[i] < 0 ? Double.NaN : column.values()[above[i]];
        }
        columns.add(new Table.Column(
            "coarser_" + column.name(), "Coarser, " + column.title(), column.unit(), values));
      }
    }
    double[] area = measured.stream()
        .filter(c -> c.name().equals("area"))
        .findFirst()
        .orElseThrow()
        .values();
    double[] share = new double[above.length];
    double[] whole = coarser.table().values("area");
    for (int i = 0; i < share.length; i++) {
      share[i] = above[i] < 0 ? Double.NaN : area[i] / whole[above[i]];
    }
    columns.add(FeatureCatalogue.column("share_of_coarser", share));
    return columns;
  }

  /** For each object the coarser one in which most of its pixels lie, -1 for none. */
  private int[] above(ObjectSet coarser, Job job) {
    PairTable table = new PairTable(0);
    int width = objects.labels().grid().width();
    int[] theirs = new int[width];
    float[] none = new float[0];
    rows(job, (y, row) -> {
      coarser.labels().read(new Window(0, y, width, 1), theirs);
      for (int x = 0; x < width; x++) {
        int other = coarser.rowOf()[theirs[x]];
        if (row[x] >= 0 && other >= 0) {
          table.add((long) row[x] << 32 | other, none);
        }
      }
    });
    PairTable.Pairs pairs = table.sorted();
    int[] above = new int[objects.count()];
    int[] most = new int[above.length];
    Arrays.fill(above, -1);
    for (int p = 0; p < pairs.keys().length; p++) {
      int object = (int) (pairs.keys()[p] >>> 32);
      if (pairs.sides()[p] > most[object]) {
        most[object] = pairs.sides()[p];
        above[object] = (int) pairs.keys()[p];
      }
    }
    return above;
  }
}
