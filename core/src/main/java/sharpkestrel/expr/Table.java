package sharpkestrel.expr;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;

/** Numbers in named columns of one length; NaN is no value. Columns are plain arrays: fast to sort and to scan. */
public final class Table {

  /**
   * @param name lower case with underscores, usable in formulas
   * @param title for people
   * @param unit empty for plain numbers
   * @param values numbers, or places in {@code categories}
   * @param categories the texts of a column of texts; empty for numbers
   */
  public record Column(
      String name, String title, String unit, double[] values, List<String> categories) {

    public Column(String name, String title, String unit, double[] values) {
      this(name, title, unit, values, List.of());
    }

    /**
     * A column of texts.
     *
     * @param texts null for none
     */
    public static Column ofTexts(String name, String title, List<String> texts) {
      List<String> distinct =
          texts.stream().filter(Objects::nonNull).distinct().sorted().toList();
      Map<String, Integer> place = new HashMap<>();
      distinct.forEach(text -> place.put(text, place.size()));
      double[] places = new double[texts.size()];
      for (int i = 0; i < places.length; i++) {
        places[i] = texts.get(i) == null ? Double.NaN : place.get(texts.get(i));
      }
      return new Column(name, title, "", places, distinct);
    }

    public boolean isText() {
      return !categories.isEmpty();
    }

    /** The values of the rows at the given places, in that order. */
    public Column select(int[] places) {
      double[] chosen = new double[places.length];
      Arrays.setAll(chosen, i -> values[places[i]]);
      return new Column(name, title, unit, chosen, categories);
    }

    /** The text of a row of a column of texts; empty where it has none. */
    public String text(int row) {
      return Double.isNaN(values[row]) ? "" : categories.get((int) values[row]);
    }
  }

  private static final int MOST_NAMED = 12;

  private final int rows;
  private final Map<String, Column> columns = new LinkedHashMap<>();
  private final Map<String, double[]> sorted = new ConcurrentHashMap<>();

  public Table(int rows, List<Column> columns) {
    this.rows = rows;
    for (Column column : columns) {
      if (column.values().length != rows) {
        throw new IllegalArgumentException("Column " + column.name() + " has "
            + column.values().length + " values for " + rows + " rows");
      }
      if (this.columns.put(column.name(), column) != null) {
        throw new IllegalArgumentException("Two columns are named " + column.name());
      }
    }
  }

  public int rows() {
    return rows;
  }

  public List<Column> columns() {
    return List.copyOf(columns.values());
  }

  public boolean has(String name) {
    return columns.containsKey(name);
  }

  /**
   * @throws ExpressionException that names the columns there are
   */
  public Column column(String name) {
    Column column = columns.get(name);
    if (column == null) {
      throw new ExpressionException("There is no feature '" + name + "'. Nearest: "
          + String.join(", ", nearest(name)) + ". There are: " + some() + ".");
    }
    return column;
  }

  /** The names of the columns, the first of many. */
  private String some() {
    List<String> names = List.copyOf(columns.keySet());
    int rest = names.size() - MOST_NAMED;
    return rest <= 1
        ? String.join(", ", names)
        : String.join(", ", names.subList(0, MOST_NAMED)) + " and " + rest + " more";
  }

  /** The three names with the most pairs of letters in common (Dice 1945, Ecology 26(3), 297-302), the best first. */
  private List<String> nearest(String name) {
    return columns.keySet().stream()
        .sorted(Comparator.comparingDouble((String known) -> -likeness(name, known)))
        .limit(3)
        .toList();
  }

  private static double likeness(String a, String b) {
    int common = 0;
    for (int i = 0; i + 2 <= a.length(); i++) {
      common += b.contains(a.substring(i, i + 2)) ? 1 : 0;
    }
    return 2.0 * common / Math.max(1, a.length() + b.length() - 2);
  }

  public double[] values(String name) {
    return column(name).values();
  }

  /** The value below which a share of a column's values lies; NaN where none is a number. Sorts a column once. */
  public double quantile(String name, double share) {
    double[] ascending = sorted.computeIfAbsent(
        name,
        n -> Arrays.stream(values(n)).filter(v -> !Double.isNaN(v)).sorted().toArray());
    return ascending.length == 0 ? Double.NaN : ascending[(int) (share * (ascending.length - 1))];
  }

  /** With more columns, replacing those of the same name. */
  public Table with(List<Column> more) {
    Map<String, Column> all = new LinkedHashMap<>(columns);
    for (Column column : more) {
      all.put(column.name(), column);
    }
    return new Table(rows, new ArrayList<>(all.values()));
  }

  /** The rows at the given places, in that order. */
  public Table select(int[] places) {
    List<Column> kept = new ArrayList<>();
    columns.values().forEach(column -> kept.add(column.select(places)));
    return new Table(places.length, kept);
  }
}
