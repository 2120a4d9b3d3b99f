package sharpkestrel.extract.rules;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.Neighbours;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Distances;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;

/**
 * What lies about objects, by the classes that they have at the moment, as functions of rules: {@code border('water')} is the share of an
 * object's border with a class, {@code neighbours('roof')} how many neighbours are of it, {@code distance('road')} how far the nearest
 * object of it is, from edge to edge, and {@code class_share('ground')} the share of the area about it, out to its neighbours, that has it.
 */
final class Relations {

  private static final List<String> KNOWN =
      List.of("border", "neighbours", "distance", "class_share");

  /** Cells on which distances are worked out, at the most; of larger scenes each cell stands for several pixels. */
  private static final long MOST_CELLS = 4_000_000;

  private final ObjectSet set;
  private final Job job;
  private Neighbours neighbours;

  Relations(ObjectSet set, Job job) {
    this.set = set;
    this.job = job;
  }

  /** A name of the column that a function's numbers are in. */
  private static String column(String name, String ofClass) {
    return name + "(" + ofClass + ")";
  }

  /**
   * A test with columns in place of functions.
   *
   * @param wanted (output) the function and the class of each column by its name
   * @throws ExpressionException for a function that there is not, or one without a class
   */
  static Expression resolve(Expression test, Map<String, String[]> wanted) {
    return test.replacing(call -> {
      String name = call.name().toLowerCase(java.util.Locale.ROOT);
      if (!KNOWN.contains(name)) {
        throw new ExpressionException("There is no function '" + call.name() + "'; there are "
            + String.join(", ", KNOWN) + ", each with a class, e.g. border('water') > 0.3.");
      }
      if (call.arguments().size() != 1
          || !(call.arguments().getFirst() instanceof Expression.Text ofClass)) {
        throw new ExpressionException(
            "'" + call.name() + "' needs a class in quotation marks, e.g. " + name + "('water').");
      }
      String column = column(name, ofClass.value());
      wanted.put(column, new String[] {name, ofClass.value()});
      return new Expression.Property(column);
    });
  }

  /**
   * @param wanted functions and classes by column
   * @param classOf for each object the place of its class, -1 for none
   */
  List<Table.Column> columns(Map<String, String[]> wanted, List<String> classes, int[] classOf) {
    return wanted.entrySet().stream()
        .map(each -> {
          int ofClass = classes.indexOf(each.getValue()[1]);
          double[] values = switch (each.getValue()[0]) {
            case "border" -> border(ofClass, classOf);
            case "neighbours" -> counts(ofClass, classOf);
            case "class_share" -> share(ofClass, classOf);
            default -> distance(ofClass, classOf);
          };
          return new Table.Column(each.getKey(), each.getKey(), "", values);
        })
        .toList();
  }

  private Neighbours neighbours() {
    if (neighbours == null) {
      neighbours = Neighbours.of(set, job);
    }
    return neighbours;
  }

  private double[] border(int ofClass, int[] classOf) {
    Neighbours about = neighbours();
    double[] shares = new double[classOf.length];
    for (int i = 0; i < shares.length; i++) {
      double there = 0;
      double all = 0;
      for (int k = 0; k < about.count(i); k++) {
        all += about.sides(i, k);
        there += classOf[about.neighbour(i, k)] == ofClass && ofClass >= 0 ? about.sides(i, k) : 0;
      }
      shares[i] = all == 0 ? 0 : there / all;
    }
    return shares;
  }

  private double[] counts(int ofClass, int[] classOf) {
    Neighbours about = neighbours();
    double[] counts = new double[classOf.length];
    for (int i = 0; i < counts.length; i++) {
      for (int k = 0; k < about.count(i); k++) {
        counts[i] += classOf[about.neighbour(i, k)] == ofClass && ofClass >= 0 ? 1 : 0;
      }
    }
    return counts;
  }

  private double[] share(int ofClass, int[] classOf) {
    Neighbours about = neighbours();
    double[] areas = set.table().values("area");
    double[] shares = new double[classOf.length];
    for (int i = 0; i < shares.length; i++) {
      double there = 0;
      double all = 0;
      for (int k = 0; k < about.count(i); k++) {
        int other = about.neighbour(i, k);
        all += areas[other];
        there += classOf[other] == ofClass && ofClass >= 0 ? areas[other] : 0;
      }
      shares[i] = all == 0 ? 0 : there / all;
    }
    return shares;
  }

  /** In the ground's unit, between the pixels' edges; infinite where no object has the class. */
  private double[] distance(int ofClass, int[] classOf) {
    double[] nearest = new double[classOf.length];
    Arrays.fill(nearest, Double.POSITIVE_INFINITY);
    if (ofClass < 0 || Arrays.stream(classOf).noneMatch(k -> k == ofClass)) {
      return nearest;
    }
    Grid grid = set.labels().grid();
    int step = (int) Math.max(1, Math.ceil(Math.sqrt((double) grid.pixels() / MOST_CELLS)));
    int width = Math.ceilDiv(grid.width(), step);
    int height = Math.ceilDiv(grid.height(), step);
    boolean[] there = new boolean[width * height];
    eachObject(step, width, (cell, row) -> there[cell] |= classOf[row] == ofClass);
    float[] away = Distances.to(there, width, height);
    double unit = step * set.ground().mean();
    eachObject(step, width, (cell, row) -> {
      // of cells that touch the edges do
      double edge = Math.max(0, away[cell] - 1) * unit;
      nearest[row] = Math.min(nearest[row], classOf[row] == ofClass ? 0 : edge);
    });
    return nearest;
  }

  private interface CellOf {
    void accept(int cell, int row);
  }

  private void eachObject(int step, int width, CellOf each) {
    ClassMap.eachStrip(set.labels().grid(), job, rows -> {
      int[] labels = new int[rows.area()];
      set.labels().read(rows, labels);
      for (int i = 0; i < labels.length; i++) {
        int row = set.rowOf()[labels[i]];
        if (row >= 0) {
          int cell = (rows.y() + i / rows.width()) / step * width + i % rows.width() / step;
          each.accept(cell, row);
        }
      }
    });
  }

  /** The classes of coarser objects in which the objects lie for the most part; null where there is none. */
  static List<String> coarser(ObjectSet set, ObjectSet coarse, Job job) {
    Table.Column classes = ClassMap.classesOf(coarse);
    var pairs = sharpkestrel.raster.LabelOverlap.of(set.labels(), coarse.labels(), job);
    Map<Long, Integer> common = new HashMap<>();
    for (int i = 0; i < pairs.keys().length; i++) {
      int row = set.rowOf()[(int) (pairs.keys()[i] >>> 32)];
      int other = coarse.rowOf()[(int) pairs.keys()[i]];
      if (row >= 0 && other >= 0) {
        common.merge((long) row << 32 | other, pairs.sides()[i], Integer::sum);
      }
    }
    int[] most = new int[set.count()];
    int[] of = new int[set.count()];
    Arrays.fill(of, -1);
    common.forEach((key, pixels) -> {
      int row = (int) (key >>> 32);
      int other = key.intValue();
      if (pixels > most[row] || pixels == most[row] && other < of[row]) {
        most[row] = pixels;
        of[row] = other;
      }
    });
    return Arrays.stream(of)
        .mapToObj(other -> other < 0 || classes.text(other).isEmpty() ? null : classes.text(other))
        .toList();
  }
}
