package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.IntToDoubleFunction;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.cluster.Clusters;

/** What is told of clusters in a table. */
final class ClusterColumns {

  private ClusterColumns() {}

  /** A column that clusters were formed by. */
  record Told(String name, String unit) {}

  /**
   * @param names of the clusters
   * @param rows of the table; those behind the clusters have no numbers
   */
  static List<Table.Column> of(Clusters clusters, List<String> names, List<Told> by, int rows) {
    List<Table.Column> columns = new ArrayList<>();
    columns.add(column("silhouette", "How sure", "", rows, clusters, clusters::silhouette));
    List<String> nearest = new ArrayList<>();
    for (int c = 0; c < rows; c++) {
      int other = c < clusters.count() ? clusters.nearest(c) : -1;
      nearest.add(other < 0 ? null : names.get(other));
    }
    columns.add(Table.Column.ofTexts("nearest", "Nearest other", nearest));
    columns.add(column(
        "apart",
        "Apart from it",
        "",
        rows,
        clusters,
        c -> clusters.nearest(c) < 0 ? Double.NaN : clusters.distance(c, clusters.nearest(c))));
    for (int f = 0; f < by.size(); f++) {
      int place = f;
      String name = by.get(f).name().toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "_");
      String unit = by.get(f).unit();
      columns.add(column(
          name + "_mean",
          "Mean of " + by.get(f).name(),
          unit,
          rows,
          clusters,
          c -> clusters.mean(c, place)));
      columns.add(column(
          name + "_spread",
          "Spread of " + by.get(f).name(),
          unit,
          rows,
          clusters,
          c -> clusters.spread(c, place)));
    }
    return columns;
  }

  private static Table.Column column(
      String name, String title, String unit, int rows, Clusters clusters, IntToDoubleFunction of) {
    double[] values = new double[rows];
    Arrays.setAll(values, c -> c < clusters.count() ? of.applyAsDouble(c) : Double.NaN);
    return new Table.Column(name, title, unit, values);
  }
}
