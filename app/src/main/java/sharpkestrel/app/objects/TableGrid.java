package sharpkestrel.app.objects;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.IntConsumer;
import javafx.geometry.Orientation;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.ScrollBar;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.expr.Table;

/**
 * A table drawn on a canvas: only what is visible is drawn, sorting orders an array of row numbers by one primitive
 * column, so a hundred thousand rows sort and scroll at once.
 */
public final class TableGrid extends Region {

  private static final double FOUR_DIGITS = 1e4;
  private static final double MOST_WRITTEN_OUT = 1e9;
  private static final double ROW = 20;
  private static final double COLUMN = 96;

  private final Canvas canvas = new Canvas();
  private final ScrollBar down = new ScrollBar();
  private final ScrollBar across = new ScrollBar();
  private final Inks inks = new Inks(this::draw, "text", "soft", "card", "head", "chosen");
  private Table table;
  private String hint = "";
  private int[] ids = new int[0];
  private final Set<String> hidden = new HashSet<>();
  private List<Table.Column> columns = List.of();
  private boolean[] kept = new boolean[0];
  /** All rows as they are sorted, and those of them that are kept. */
  private int[] sorted = new int[0];

  private int[] order = new int[0];
  private String sortedBy = "";
  private boolean descending;
  private int selected = -1;
  private IntConsumer chosen = row -> {};

  public TableGrid() {
    setId("table");
    down.setOrientation(Orientation.VERTICAL);
    across.setOrientation(Orientation.HORIZONTAL);
    getChildren().addAll(canvas, down, across, inks);
    down.valueProperty().addListener((p, before, now) -> draw());
    across.valueProperty().addListener((p, before, now) -> draw());
    setFocusTraversable(true);
    canvas.setOnScroll(e -> down.setValue(clamp(down.getValue() - e.getDeltaY() / 8, down)));
    canvas.setOnMouseClicked(e -> {
      requestFocus();
      if (table == null) {
        return;
      }
      int column = (int) ((e.getX() + across.getValue()) / COLUMN) - 1;
      if (e.getY() < ROW) {
        if (column >= 0 && column < columns.size()) {
          sort(columns.get(column).name());
        }
      } else {
        int at = (int) down.getValue() + (int) ((e.getY() - ROW) / ROW);
        if (at < order.length) {
          select(order[at], true);
        }
      }
    });
    setOnKeyPressed(e -> {
      int step = switch (e.getCode()) {
        case UP -> -1;
        case DOWN -> 1;
        default -> 0;
      };
      if (step != 0 && selected >= 0) {
        int at = placeOf(selected) + step;
        if (at >= 0 && at < order.length) {
          select(order[at], true);
          e.consume();
        }
      }
    });
  }

  private static double clamp(double value, ScrollBar bar) {
    return Math.max(0, Math.min(bar.getMax(), value));
  }

  /** Told the row when somebody picks one here. */
  public void onChosen(IntConsumer listener) {
    chosen = listener;
  }

  /** All rows of a table, in its order. */
  public void show(Table newTable, int[] newIds) {
    table = newTable;
    ids = newIds;
    sorted = new int[newTable.rows()];
    Arrays.setAll(sorted, i -> i);
    kept = new boolean[newTable.rows()];
    Arrays.fill(kept, true);
    order = sorted;
    sortedBy = "";
    selected = -1;
    showColumns();
  }

  /** Shows no table, and says why. */
  public void clear(String why) {
    table = null;
    hint = why;
    sorted = new int[0];
    order = sorted;
    layoutChildren();
  }

  /** Leaves rows out and goes to the first: whoever sorts or filters wants to see the extremes. */
  public void keep(boolean[] rows) {
    kept = rows;
    order = Arrays.stream(sorted).filter(row -> kept[row]).toArray();
    down.setValue(0);
    layoutChildren();
  }

  /** Leaves columns out, also of tables to come. */
  public void hide(Set<String> names) {
    hidden.clear();
    hidden.addAll(names);
    if (table != null) {
      showColumns();
    }
  }

  private void showColumns() {
    columns = table.columns().stream().filter(c -> !hidden.contains(c.name())).toList();
    layoutChildren();
  }

  /** How many rows the table has. */
  int rows() {
    return sorted.length;
  }

  /** Marks a row picked elsewhere and scrolls to it. */
  public void select(int row, boolean tell) {
    selected = row;
    int at = placeOf(row);
    if (at >= 0 && (at < down.getValue() || at >= down.getValue() + visibleRows())) {
      down.setValue(clamp(at - visibleRows() / 2.0, down));
    }
    draw();
    if (tell) {
      chosen.accept(row);
    }
  }

  private int placeOf(int row) {
    for (int i = 0; i < order.length; i++) {
      if (order[i] == row) {
        return i;
      }
    }
    return -1;
  }

  private int visibleRows() {
    return (int) Math.max(1, (canvas.getHeight() - ROW) / ROW);
  }

  private void sort(String column) {
    descending = column.equals(sortedBy) && !descending;
    sortedBy = column;
    sorted = sorted(table.values(column), descending);
    keep(kept);
  }

  /** Row numbers in the order of a column, rows without value last: radix sort on the numbers' bits, stable. */
  static int[] sorted(double[] values, boolean descending) {
    int n = values.length;
    long[] keys = new long[n];
    int[] order = new int[n];
    for (int i = 0; i < n; i++) {
      order[i] = i;
      long bits = Double.doubleToLongBits(values[i] + 0.0);
      long key = bits ^ (bits >> 63 & Long.MAX_VALUE) ^ Long.MIN_VALUE;
      keys[i] = Double.isNaN(values[i]) ? -1L : descending ? ~key : key;
    }
    int[] to = new int[n];
    for (int shift = 0; shift < 64; shift += 16) {
      int[] starts = new int[(1 << 16) + 1];
      for (int i = 0; i < n; i++) {
        starts[(int) (keys[i] >>> shift & 0xffff) + 1]++;
      }
      for (int d = 0; d < 1 << 16; d++) {
        starts[d + 1] += starts[d];
      }
      for (int i = 0; i < n; i++) {
        to[starts[(int) (keys[order[i]] >>> shift & 0xffff)]++] = order[i];
      }
      int[] swap = order;
      order = to;
      to = swap;
    }
    return order;
  }

  @Override
  protected void layoutChildren() {
    double w = Math.max(0, getWidth() - 12);
    double h = Math.max(0, getHeight() - 12);
    canvas.setWidth(w);
    canvas.setHeight(h);
    down.resizeRelocate(w, 0, 12, h);
    across.resizeRelocate(0, h, w, 12);
    if (table != null) {
      down.setMax(Math.max(0, order.length - visibleRows()));
      down.setVisibleAmount(
          Math.max(1, down.getMax() * visibleRows() / Math.max(1.0, order.length)));
      double wide = COLUMN * (columns.size() + 1);
      across.setMax(Math.max(0, wide - w));
      across.setVisibleAmount(Math.max(1, across.getMax() * w / wide));
    }
    draw();
  }

  /** Four digits, or all of those before the point; a dash for none. */
  static String text(double value) {
    if (Double.isNaN(value)) {
      return "\u2013";
    }
    boolean plain = Math.abs(value) < MOST_WRITTEN_OUT
        && (value == Math.rint(value) || Math.abs(value) >= FOUR_DIGITS);
    return String.format(java.util.Locale.ROOT, plain ? "%.0f" : "%.4g", value);
  }

  /** What stands in a cell. */
  public static String text(Table.Column column, int row) {
    return column.isText() ? column.text(row) : text(column.values()[row]);
  }

  /** The unit as it is shown; none where it goes without saying. */
  public static String unit(Table.Column column) {
    return column.unit().equals("reflectance") ? "" : column.unit();
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double w = canvas.getWidth();
    double h = canvas.getHeight();
    Color text = inks.of("text");
    g.setFill(inks.of("card"));
    g.fillRect(0, 0, w, h);
    if (table == null) {
      g.setFill(inks.of("soft"));
      g.setFont(Font.font("IBM Plex Sans", 13));
      g.fillText(hint, 12, 24);
      return;
    }
    int first = (int) down.getValue();
    int firstColumn = Math.max(0, (int) (across.getValue() / COLUMN) - 1);
    g.setFont(Font.font("IBM Plex Mono", 11));
    for (int r = 0; r <= visibleRows() && first + r < order.length; r++) {
      int row = order[first + r];
      double y = ROW + r * ROW;
      if (row == selected) {
        g.setFill(inks.of("chosen"));
        g.fillRect(0, y, w, ROW);
      }
      g.setFill(text);
      g.fillText(Integer.toString(ids[row]), 6 - across.getValue(), y + 14);
      for (int c = firstColumn; c < columns.size(); c++) {
        double x = COLUMN * (c + 1) - across.getValue();
        if (x > w) {
          break;
        }
        Table.Column column = columns.get(c);
        String shown = text(column, row);
        g.fillText(shown, x + 6, y + 14, COLUMN - 10);
      }
    }
    g.setFill(inks.of("head"));
    g.fillRect(0, 0, w, ROW);
    g.setFill(text);
    g.setFont(Font.font("IBM Plex Sans Medium", 11));
    g.fillText("Id", 6 - across.getValue(), 14);
    for (int c = firstColumn; c < columns.size(); c++) {
      double x = COLUMN * (c + 1) - across.getValue();
      Table.Column column = columns.get(c);
      String mark = column.name().equals(sortedBy) ? (descending ? " \u2193" : " \u2191") : "";
      g.fillText((column.title() + " " + unit(column)).strip() + mark, x + 6, 14, COLUMN - 8);
    }
  }
}
