package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.rules.Rule;
import sharpkestrel.extract.rules.RuleBook;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Classes of objects by rules. */
@StepInfo(
    id = "rules",
    stage = Stage.EXTRACT,
    family = "Tests",
    title = "Rules",
    makes = "Classes by rules",
    does =
        "Gives objects classes by rules, sentences in order of which the first that holds counts: features, probabilities, the class an object"
            + " has, and what lies about it. Rules that look at classes are held against all objects again until nothing changes. Each object"
            + " has the rule that made it what it is, how clearly that holds, and its doubt.")
public record ClassifyByRules(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @In(
        does =
            "Coarser objects with classes on the same pixels: rules see the class of the one that an object lies in, as coarser_class.",
        optional = true,
        byHand = true)
    Optional<ObjectSet> coarser,

    @Setting(
        label = "Rules",
        does =
            "Sentences with a semicolon between: a class, a colon and a CQL2 test, e.g. water: near_infrared_mean < 0.05; shore: border('water')"
                + " > 0.2; ground: area > 0. Functions: border, class_share, distance (m, from edge to edge) and neighbours, of a class.",
        initial = "auto")
    Optional<String> rules,

    @Setting(
        label = "Rounds",
        does = "How often rules are held against all objects, at the most.",
        min = 1,
        max = 1000,
        initial = "10")
    int rounds,

    @Setting(
        label = "Others",
        does =
            "What objects are for which no rule holds. none: nothing; kept: what they were before.",
        initial = "none")
    Others others)
    implements Step<ObjectSet> {

  /** What objects are for which no rule holds. */
  public enum Others {
    NONE,
    KEPT
  }

  public ClassifyByRules {
    new RuleBook(Rule.parse(rules.orElse("")));
  }

  @Override
  public ObjectSet run(Job job) {
    List<Rule> read = Rule.parse(rules.orElse(""));
    if (read.isEmpty()) {
      throw new RasterException(
          "There are no rules. Write a class, a colon and a test, e.g. water: near_infrared_mean < 0.05.");
    }
    RuleBook book = new RuleBook(read);
    RuleBook.Said said = book.say(objects, coarser, rounds, job);
    if (!said.isSettled()) {
      job.warn(
          "After " + said.rounds()
              + " rounds classes still change: some rules undo what others do. What stands is that of the last round.");
    }
    return told(book, said);
  }

  private ObjectSet told(RuleBook book, RuleBook.Said said) {
    int n = objects.count();
    Table table = objects.table();
    boolean hadClasses =
        table.has(ClassMap.CLASS) && table.column(ClassMap.CLASS).isText();
    List<String> classes = new ArrayList<>();
    List<String> ruleOf = new ArrayList<>();
    double[] degree = new double[n];
    double[] doubt = new double[n];
    for (int row = 0; row < n; row++) {
      int rule = said.ruleOf()[row];
      String before =
          hadClasses && others == Others.KEPT ? table.column(ClassMap.CLASS).text(row) : "";
      classes.add(rule >= 0 ? book.rules().get(rule).ofClass() : before.isEmpty() ? null : before);
      ruleOf.add(rule < 0 ? null : (rule + 1) + ": " + book.rules().get(rule).toText());
      degree[row] = rule < 0 ? Double.NaN : said.degrees()[rule][row];
      doubt[row] = said.doubt(row);
    }
    List<String> names = new ArrayList<>(book.classes());
    classes.stream()
        .filter(name -> name != null && !names.contains(name))
        .distinct()
        .forEach(names::add);
    List<String> colourOf = ClassMap.coloursOf(classes, names);
    return objects.withTable(table.with(Arrays.asList(
        Table.Column.ofTexts(ClassMap.CLASS, "Class", classes),
        Table.Column.ofTexts(ClassMap.COLOUR, "Colour", colourOf),
        Table.Column.ofTexts("rule", "Rule", ruleOf),
        new Table.Column("degree", "How clearly", "", degree),
        new Table.Column("doubt", "Doubt", "", doubt))));
  }
}
