package sharpkestrel.objects;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;
import sharpkestrel.raster.Job;

/**
 * Features in the order in which they tell two selections of objects apart.
 *
 * @param first how many objects the first selection has
 * @param entries the best first
 */
public record FeatureRanking(int first, int second, List<Entry> entries) implements Report {

  private static final int WRITTEN = 20;

  /**
   * How one feature tells them apart.
   *
   * @param larger probability that an object of the first has the larger value than one of the second, ties counted half:
   *     the area under the curve of right against false alarms; 0.5 is chance
   * @param cut the value that parts them best; NaN where no object of one selection has a value
   * @param right mean of both selections' shares on their side of the cut
   */
  public record Entry(Table.Column feature, double larger, double cut, double right) {

    /** How far they are apart: 0 for chance, 1 for not one pair the wrong way round. */
    public double apart() {
      return Math.abs(2 * larger - 1);
    }
  }

  public FeatureRanking {
    entries = List.copyOf(entries);
  }

  /**
   * By the Mann-Whitney statistic (Hanley and McNeil 1982, Radiology 143(1), 29-36), which does not ask how values are
   * distributed and needs few objects, with the cut of the largest sum of both shares (Youden 1950, Cancer 3(1), 32-35).
   * Objects without a value of a feature are left out of it; columns of texts are left out altogether.
   *
   * @param first for each row whether it is in the first selection
   */
  public static FeatureRanking of(Table table, boolean[] first, boolean[] second, Job job) {
    List<Entry> entries = new ArrayList<>();
    List<Table.Column> columns =
        table.columns().stream().filter(c -> !c.isText()).toList();
    for (Table.Column column : columns) {
      job.cancellation().check();
      job.progress("Comparing features", entries.size(), columns.size());
      entries.add(entry(column, chosen(column, first), chosen(column, second)));
    }
    entries.sort(Comparator.comparingDouble(Entry::apart)
        .reversed()
        .thenComparing(e -> e.feature().name()));
    return new FeatureRanking(Selection.count(first), Selection.count(second), entries);
  }

  @Override
  public String toText() {
    StringBuilder text = new StringBuilder(String.format(
        Locale.ROOT,
        "%d objects against %d%n%-34s %6s %6s   %s%n",
        first,
        second,
        "feature",
        "apart",
        "right",
        "cut"));
    for (Entry entry : entries.subList(0, Math.min(WRITTEN, entries.size()))) {
      text.append(String.format(
          Locale.ROOT,
          "%-34s %6.3f %6.3f   %s%n",
          entry.feature().name(),
          entry.apart(),
          entry.right(),
          Double.isNaN(entry.cut())
              ? "none"
              : String.format(
                  Locale.ROOT,
                  "%s %.4g %s",
                  entry.larger() >= 0.5 ? "above" : "below",
                  entry.cut(),
                  entry.feature().unit())));
    }
    return text.toString();
  }

  @Override
  public ObjectNode toJson() {
    ObjectNode json = Json.object().put("first", first).put("second", second);
    ArrayNode features = json.putArray("features");
    for (Entry entry : entries) {
      features
          .addObject()
          .put("name", entry.feature().name())
          .put("apart", entry.apart())
          .put("first_larger", entry.larger())
          .put("right", entry.right())
          .put("cut", Double.isNaN(entry.cut()) ? null : entry.cut());
    }
    return json;
  }

  /** Values of the rows that are chosen, ascending. */
  private static double[] chosen(Table.Column column, boolean[] rows) {
    double[] values = new double[Selection.count(rows)];
    int n = 0;
    for (int i = 0; i < rows.length; i++) {
      if (rows[i] && !Double.isNaN(column.values()[i])) {
        values[n++] = column.values()[i];
      }
    }
    values = Arrays.copyOf(values, n);
    Arrays.sort(values);
    return values;
  }

  private static Entry entry(Table.Column column, double[] a, double[] b) {
    if (a.length == 0 || b.length == 0) {
      return new Entry(column, 0.5, Double.NaN, 0.5);
    }
    double wins = 0;
    double cut = Double.NaN;
    double right = 0.5;
    int below = 0;
    int i = 0;
    while (i < a.length || below < b.length) {
      boolean fromA = below == b.length || i < a.length && a[i] <= b[below];
      double value = fromA ? a[i] : b[below];
      int iEnd = after(a, i, value);
      int bEnd = after(b, below, value);
      wins += (iEnd - i) * (below + (bEnd - below) / 2.0);
      i = iEnd;
      below = bEnd;
      double difference = (double) i / a.length - (double) below / b.length;
      double here = 0.5 + Math.abs(difference) / 2;
      if (here > right) {
        right = here;
        cut = between(value, a, i, b, below);
      }
    }
    return new Entry(column, wins / a.length / b.length, cut, right);
  }

  private static int after(double[] ascending, int from, double value) {
    int k = from;
    while (k < ascending.length && ascending[k] == value) {
      k++;
    }
    return k;
  }

  /** Half way to the next value. */
  private static double between(double value, double[] a, int i, double[] b, int j) {
    double next = Math.min(
        i < a.length ? a[i] : Double.POSITIVE_INFINITY,
        j < b.length ? b[j] : Double.POSITIVE_INFINITY);
    return value + (next - value) / 2;
  }
}
