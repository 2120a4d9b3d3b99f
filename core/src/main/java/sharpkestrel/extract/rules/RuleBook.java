package sharpkestrel.extract.rules;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;

/**
 * Rules in their order: an object has the class of the first rule that holds for it. As rules may look at the classes of what lies about
 * an object, and at its own, they are held against all objects again until nothing changes, each round by the classes of the round before.
 */
public final class RuleBook {

  private static final String COARSER = "coarser_class";

  private final List<Rule> rules;
  private final List<String> classes;

  /** Tests with columns in place of functions. */
  private final List<Expression> tests = new ArrayList<>();

  private final Map<String, String[]> relations = new LinkedHashMap<>();

  /**
   * @throws ExpressionException for a function that there is not
   */
  public RuleBook(List<Rule> rules) {
    this.rules = List.copyOf(rules);
    classes = rules.stream().map(Rule::ofClass).distinct().toList();
    for (Rule rule : rules) {
      tests.add(Relations.resolve(rule.test(), relations));
    }
  }

  public List<Rule> rules() {
    return rules;
  }

  /** Names in the order in which rules give them. */
  public List<String> classes() {
    return classes;
  }

  /**
   * What the rules say of objects.
   *
   * @param ruleOf for each object the place of the rule that made it what it is, -1 where none holds
   * @param degrees for each rule and object how clearly it holds, 0 to 1, at least a half where it does
   * @param rounds how often all were looked at
   * @param isSettled whether nothing would change any more
   */
  public record Said(int[] ruleOf, double[][] degrees, int rounds, boolean isSettled) {

    /** How near an object is to another class: 1 where it lies on an edge, 0 where it is far inside and far from the rules before. */
    public double doubt(int row) {
      double least = 0.5;
      int own = ruleOf[row] < 0 ? degrees.length : ruleOf[row];
      for (int rule = 0; rule < own; rule++) {
        least = Math.min(least, 0.5 - degrees[rule][row]);
      }
      if (own < degrees.length) {
        least = Math.min(least, degrees[own][row] - 0.5);
      }
      return 1 - 2 * Math.max(0, least);
    }
  }

  /**
   * Holds the rules against objects.
   *
   * @param coarser objects with classes on the same pixels, as {@code coarser_class}
   * @param rounds how often at the most
   */
  public Said say(ObjectSet set, Optional<ObjectSet> coarser, int rounds, Job job) {
    Table table = set.table();
    if (coarser.isPresent()) {
      table = table.with(List.of(Table.Column.ofTexts(
          COARSER, "Class of the coarser", Relations.coarser(set, coarser.get(), job))));
    }
    List<String> known = known(set);
    int[] classOf = classesBefore(set, known);
    Relations about = new Relations(set, job);
    int[] ruleOf = new int[set.count()];
    double[][] degrees = new double[rules.size()][];
    boolean settled = false;
    int round = 0;
    while (round < rounds && !settled) {
      job.cancellation().check();
      job.progress("Holding rules against objects", round, rounds);
      List<Table.Column> columns = new ArrayList<>(about.columns(relations, known, classOf));
      columns.add(classColumn(known, classOf));
      Table now = table.with(columns);
      Arrays.fill(ruleOf, -1);
      for (int rule = rules.size() - 1; rule >= 0; rule--) {
        double[] holds = tests.get(rule).evaluate(now);
        degrees[rule] = Degree.of(tests.get(rule), now);
        for (int row = 0; row < ruleOf.length; row++) {
          ruleOf[row] = holds[row] == 1 ? rule : ruleOf[row];
        }
      }
      int[] after = new int[classOf.length];
      for (int row = 0; row < after.length; row++) {
        after[row] = ruleOf[row] < 0 ? -1 : known.indexOf(rules.get(ruleOf[row]).ofClass());
      }
      settled = Arrays.equals(after, classOf) || !looksAtClasses();
      classOf = after;
      round++;
    }
    return new Said(ruleOf, degrees, round, settled);
  }

  private boolean looksAtClasses() {
    return !relations.isEmpty()
        || tests.stream().anyMatch(test -> test.names().contains(ClassMap.CLASS));
  }

  /** Classes that rules give, and those that objects have before. */
  private List<String> known(ObjectSet set) {
    List<String> known = new ArrayList<>(classes);
    if (set.table().has(ClassMap.CLASS) && set.table().column(ClassMap.CLASS).isText()) {
      set.table().column(ClassMap.CLASS).categories().stream()
          .filter(name -> !known.contains(name))
          .forEach(known::add);
    }
    return known;
  }

  private static int[] classesBefore(ObjectSet set, List<String> known) {
    int[] classOf = new int[set.count()];
    Arrays.fill(classOf, -1);
    if (set.table().has(ClassMap.CLASS) && set.table().column(ClassMap.CLASS).isText()) {
      Table.Column before = set.table().column(ClassMap.CLASS);
      Arrays.setAll(classOf, row -> known.indexOf(before.text(row)));
    }
    return classOf;
  }

  private static Table.Column classColumn(List<String> known, int[] classOf) {
    double[] values = new double[classOf.length];
    Arrays.setAll(values, row -> classOf[row] < 0 ? Double.NaN : classOf[row]);
    return new Table.Column(ClassMap.CLASS, "Class", "", values, known);
  }
}
