package sharpkestrel.app.tools.winnow;

import java.util.ArrayList;
import java.util.Arrays;
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
  private int[] failedAt = new int[0];
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
    List<RangeTest> usable = tests.stream().filter(t -> table.has(t.feature())).toList();
    failedAt = new int[table.rows()];
    Arrays.fill(failedAt, tests.size());
    left = new int[tests.size()];
    for (int t = 0; t < tests.size(); t++) {
      RangeTest test = tests.get(t);
      double[] values = table.has(test.feature()) ? table.values(test.feature()) : null;
      for (int i = 0; i < failedAt.length; i++) {
        if (failedAt[i] > t && values != null && !test.passes(values[i])) {
          failedAt[i] = t;
        }
        left[t] += failedAt[i] > t ? 1 : 0;
      }
    }
    doubtful = 0;
    for (double score : WinnowScores.of(table, usable)) {
      doubtful += WinnowScores.isDoubtful(score) ? 1 : 0;
    }
    listeners.forEach(Runnable::run);
  }

  /** Objects left after a test. */
  public int leftAfter(int test) {
    return left[test];
  }

  public int survivors() {
    return left.length == 0 ? failedAt.length : left[left.length - 1];
  }

  public int doubtful() {
    return doubtful;
  }

  /** Whether a row passes all tests. */
  public boolean passes(int row) {
    return failedAt[row] == tests.size();
  }

  /** For each row the place of the first test it fails; the number of tests where it passes all. */
  public int[] failedAt() {
    return failedAt;
  }

  public String text() {
    return RangeTest.toText(tests);
  }
}
