package sharpkestrel.app.model;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.FeatureArea;
import sharpkestrel.objects.FeatureRanking;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.objects.Selection;

/**
 * Which objects of what pane A shows are chosen: by a filter, by ranges of features, by an area of a plot, all at once; and
 * two selections that are compared.
 */
public final class ObjectChoice {

  private static final int SELECTIONS = 2;

  private final Workspace workspace;
  private final List<Runnable> listeners = new ArrayList<>();
  private ObjectSet objects;
  private String filter = "";
  private final Map<String, RangeTest> ranges = new LinkedHashMap<>();

  /** Test of what lies in the area that was drawn; empty where there is none. */
  private String area = "";

  private boolean[] passing = {};
  private boolean[] chosen = {};
  private final boolean[][] selections = new boolean[SELECTIONS][];
  private FeatureRanking ranking;

  public ObjectChoice(Workspace workspace) {
    this.workspace = workspace;
    workspace.display().paneAProperty().addListener((p, before, now) -> follow());
    follow();
  }

  private void follow() {
    Result shown = workspace.display().paneAProperty().get();
    ObjectSet now = shown != null && shown.value() instanceof ObjectSet set ? set : null;
    if (now == objects) {
      return;
    }
    objects = now;
    filter = "";
    ranges.clear();
    area = "";
    Arrays.fill(selections, null);
    ranking = null;
    choose();
  }

  /** Told after every change. */
  public void onChange(Runnable listener) {
    listeners.add(listener);
  }

  private void tell() {
    listeners.forEach(Runnable::run);
  }

  /** The objects of pane A; empty where it shows none that have a table. */
  public Optional<ObjectSet> objects() {
    return Optional.ofNullable(objects);
  }

  /**
   * Keeps those that pass a test.
   *
   * @param test in CQL2; empty for all
   * @throws ExpressionException where it is no test of their features; nothing changes then
   */
  public void filter(String test) {
    if (objects != null) {
      Selection.of(objects.table(), test);
      filter = test.strip();
      choose();
    }
  }

  public String filter() {
    return filter;
  }

  /** Keeps those with values in a range; infinite ends take it away. */
  public void range(RangeTest range) {
    if (Double.isInfinite(range.low()) && Double.isInfinite(range.high())) {
      ranges.remove(range.feature());
    } else {
      ranges.put(range.feature(), range);
    }
    choose();
  }

  /** The range that is asked for of a feature; without ends where none is. */
  public RangeTest range(String feature) {
    return ranges.getOrDefault(
        feature, new RangeTest(feature, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY));
  }

  public List<RangeTest> ranges() {
    return List.copyOf(ranges.values());
  }

  /** Keeps those within an area of the plot of two features; one without corners takes it away. */
  public void area(String x, String y, double[] xs, double[] ys) {
    area = xs.length == 0 ? "" : FeatureArea.test(x, y, xs, ys);
    choose();
  }

  public boolean hasArea() {
    return !area.isEmpty();
  }

  /** Chooses all again. */
  public void clear() {
    filter = "";
    ranges.clear();
    area = "";
    choose();
  }

  private void choose() {
    if (objects == null) {
      passing = new boolean[0];
      chosen = new boolean[0];
      tell();
      return;
    }
    Table table = objects.table();
    passing = Selection.of(table, filter);
    chosen = passing.clone();
    for (RangeTest range : ranges.values()) {
      double[] values = table.values(range.feature());
      for (int i = 0; i < chosen.length; i++) {
        chosen[i] &= range.passes(values[i]);
      }
    }
    if (hasArea()) {
      boolean[] within = Selection.of(table, area);
      for (int i = 0; i < chosen.length; i++) {
        chosen[i] &= within[i];
      }
    }
    tell();
  }

  /** For each row whether it passes the filter, whatever its ranges and its place in the plot. */
  public boolean[] passing() {
    return passing;
  }

  /** For each row whether it is chosen. */
  public boolean[] chosen() {
    return chosen;
  }

  public boolean isAll() {
    return filter.isEmpty() && ranges.isEmpty() && area.isEmpty();
  }

  /** The test that just the chosen pass; empty where all are chosen. */
  public Optional<String> test() {
    List<String> tests = new ArrayList<>();
    if (!filter.isEmpty()) {
      tests.add(ranges.isEmpty() && area.isEmpty() ? filter : "(" + filter + ")");
    }
    ranges.values().forEach(range -> tests.add(range.toText()));
    if (hasArea()) {
      tests.add(area);
    }
    return tests.isEmpty() ? Optional.empty() : Optional.of(String.join(" AND ", tests));
  }

  /** Makes an object set of the chosen. */
  public void makeResult() {
    test()
        .ifPresent(test -> workspace.run(
            StepCatalogue.get("choose-objects"),
            "Chosen",
            Map.of("objects", workspace.display().paneAProperty().get()),
            Map.of(),
            Map.of("test", test)));
  }

  /** Keeps what is chosen as one of the selections that are compared. */
  public void keep(int selection) {
    selections[selection] = chosen.clone();
    compare();
  }

  public void dropSelections() {
    Arrays.fill(selections, null);
    compare();
  }

  /** A selection that was kept; empty where it is none, or only the others of the first. */
  public Optional<boolean[]> kept(int number) {
    return Optional.ofNullable(selections[number]);
  }

  /** One of the selections; the second is all others where only the first was kept; empty where there is none. */
  public Optional<boolean[]> selection(int number) {
    boolean rest = number == 1 && selections[1] == null && selections[0] != null;
    return Optional.ofNullable(rest ? Selection.not(selections[0]) : selections[number]);
  }

  /** How well each feature tells the selections apart; empty until that is known. */
  public Optional<FeatureRanking> ranking() {
    return Optional.ofNullable(ranking);
  }

  private void compare() {
    ranking = null;
    tell();
    Optional<boolean[]> first = selection(0);
    Optional<boolean[]> second = selection(1);
    if (first.isEmpty() || second.isEmpty()) {
      return;
    }
    Table table = objects.table();
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Telling apart",
            job -> FeatureRanking.of(table, first.get(), second.get(), job),
            made -> {
              if (objects != null && objects.table() == table) {
                ranking = made;
                tell();
              }
            },
            failure -> workspace.messages().tell(failure.getMessage()));
  }
}
