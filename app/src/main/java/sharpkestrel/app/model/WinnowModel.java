package sharpkestrel.app.model;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.extract.WinnowScores;
import sharpkestrel.objects.ObjectSet;

/** The winnow in hand: its tests in order, and who is left after each. */
public final class WinnowModel {

  private final ObjectProperty<ObjectSet> objects = new SimpleObjectProperty<>();
  private final ObservableList<RangeTest> tests = FXCollections.observableArrayList();
  private final List<Runnable> listeners = new ArrayList<>();
  private boolean[] passing = new boolean[0];
  private int[] left = new int[0];
  private int doubtful;

  public WinnowModel() {
    objects.addListener((property, before, now) -> recount());
    tests.addListener((javafx.collections.ListChangeListener<RangeTest>) change -> recount());
  }

  public ObjectProperty<ObjectSet> objectsProperty() {
    return objects;
  }

  public ObservableList<RangeTest> tests() {
    return tests;
  }

  /** Called after every change of tests or objects. */
  public void onChange(Runnable listener) {
    listeners.add(listener);
  }

  private void recount() {
    ObjectSet set = objects.get();
    if (set == null) {
      return;
    }
    Table table = set.table();
    passing = new boolean[table.rows()];
    java.util.Arrays.fill(passing, true);
    left = new int[tests.size()];
    List<RangeTest> usable = tests.stream().filter(t -> table.has(t.feature())).toList();
    for (int t = 0; t < tests.size(); t++) {
      RangeTest test = tests.get(t);
      double[] values = table.has(test.feature()) ? table.values(test.feature()) : null;
      int count = 0;
      for (int i = 0; i < passing.length; i++) {
        passing[i] &= values == null || test.passes(values[i]);
        count += passing[i] ? 1 : 0;
      }
      left[t] = count;
    }
    doubtful = 0;
    double[] scores = WinnowScores.of(table, usable);
    for (double score : scores) {
      doubtful += WinnowScores.isDoubtful(score) ? 1 : 0;
    }
    listeners.forEach(Runnable::run);
  }

  /** Objects left after a test. */
  public int leftAfter(int test) {
    return left[test];
  }

  public int survivors() {
    return left.length == 0 ? passing.length : left[left.length - 1];
  }

  public int doubtful() {
    return doubtful;
  }

  /** For each row whether it passes all tests. */
  public boolean[] passing() {
    return passing;
  }

  /** The rows that pass all tests before one. */
  public boolean[] passingBefore(int test) {
    boolean[] before = new boolean[passing.length];
    java.util.Arrays.fill(before, true);
    for (int t = 0; t < test; t++) {
      RangeTest each = tests.get(t);
      if (objects.get().table().has(each.feature())) {
        double[] values = objects.get().table().values(each.feature());
        for (int i = 0; i < before.length; i++) {
          before[i] &= each.passes(values[i]);
        }
      }
    }
    return before;
  }

  public String text() {
    return RangeTest.toText(tests);
  }

  /** Numbers in the column, sorted, for the ends of a histogram. */
  public double quantile(String feature, double share) {
    double[] sorted = java.util.Arrays.stream(objects.get().table().values(feature))
        .filter(v -> !Double.isNaN(v))
        .sorted()
        .toArray();
    return sorted.length == 0 ? 0 : sorted[(int) (share * (sorted.length - 1))];
  }
}
