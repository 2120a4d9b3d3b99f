package sharpkestrel.app.tools.rules;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.extract.rules.Rule;
import sharpkestrel.extract.rules.RuleBook;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.ObjectSet;

/** Rules as they are written, and what they say of the objects that pane A shows; worked out anew after each change. */
final class RulesModel implements InHand {

  private static final int ROUNDS = 10;

  private final Workspace workspace;
  private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper trouble = new ReadOnlyStringWrapper("");
  private String text = "";
  private Result source;
  private boolean inHand;

  /**
   * What the rules say.
   *
   * @param counts for each rule the objects that it made what they are
   */
  record Answer(ObjectSet objects, RuleBook book, RuleBook.Said said, int[] counts, int without) {

    /** In words why an object is what it is, and how nearly other rules hold. */
    String why(int row) {
      int rule = said.ruleOf()[row];
      StringBuilder words = new StringBuilder(
          rule < 0
              ? "No rule holds."
              : String.format(
                  java.util.Locale.ROOT,
                  "%s, by rule %d (%.2f).",
                  book.rules().get(rule).ofClass(),
                  rule + 1,
                  said.degrees()[rule][row]));
      int next = -1;
      for (int other = 0; other < book.rules().size(); other++) {
        boolean elsewhere = rule < 0
            || !book.rules().get(other).ofClass().equals(book.rules().get(rule).ofClass());
        if (other != rule
            && elsewhere
            && (next < 0 || said.degrees()[other][row] > said.degrees()[next][row])) {
          next = other;
        }
      }
      if (next >= 0) {
        words.append(String.format(
            java.util.Locale.ROOT,
            " Next: %s, rule %d (%.2f); a rule holds from 0.50 on.",
            book.rules().get(next).ofClass(),
            next + 1,
            said.degrees()[next][row]));
      }
      return words.toString();
    }
  }

  RulesModel(Workspace workspace, Watch watch) {
    this.workspace = workspace;
    watch.on(workspace.display().paneAProperty(), this::take);
    take(workspace.display().paneAProperty().get());
  }

  ReadOnlyObjectProperty<Answer> answerProperty() {
    return answer.getReadOnlyProperty();
  }

  /** Why there is no answer; empty where there is one, or nothing was written. */
  ReadOnlyStringProperty troubleProperty() {
    return trouble.getReadOnlyProperty();
  }

  /** The objects the rules are held against; empty where pane A shows none. */
  Optional<Result> source() {
    return Optional.ofNullable(source);
  }

  @Override
  public void setInHand(boolean now) {
    inHand = now;
    if (now) {
      say();
    } else {
      workspace.lanes().trial().drop(this);
    }
  }

  private void take(Result shown) {
    boolean measured = shown != null
        && shown.value() instanceof ObjectSet set
        && set.table().columns().size() > 1;
    if (measured && shown.step().id().equals("rules")) {
      // what these rules made: they are held against what it was made of
      source = shown.inputs().get("objects");
    } else {
      source = measured ? shown : null;
    }
    say();
  }

  void write(String newText) {
    text = newText;
    say();
  }

  String text() {
    return text;
  }

  private void say() {
    if (!inHand || source == null || text.isBlank()) {
      workspace.lanes().trial().drop(this);
      answer.set(null);
      trouble.set("");
      return;
    }
    ObjectSet set = (ObjectSet) source.value();
    String now = text;
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "",
            job -> {
              RuleBook book = new RuleBook(Rule.parse(now));
              RuleBook.Said said = book.say(set, Optional.empty(), ROUNDS, job);
              int[] counts = new int[book.rules().size()];
              int without = 0;
              for (int rule : said.ruleOf()) {
                if (rule < 0) {
                  without++;
                } else {
                  counts[rule]++;
                }
              }
              return new Answer(set, book, said, counts, without);
            },
            made -> {
              trouble.set(
                  made.said.isSettled()
                      ? ""
                      : "Some rules undo what others do: classes still change after " + ROUNDS
                          + " rounds.");
              answer.set(made);
            },
            failure -> {
              trouble.set(failure.getMessage());
              answer.set(null);
            });
  }

  void run(String title) {
    String oneLine = Rule.toText(Rule.parse(text));
    workspace.run(
        StepCatalogue.get("rules"),
        title,
        Map.of("objects", source),
        Map.of(),
        Map.of("rules", oneLine));
  }

  /** For each object the place of its class among those of the rules, -1 for none. */
  static int[] classOf(Answer answer) {
    List<String> classes = new ArrayList<>(answer.book().classes());
    int[] classOf = new int[answer.objects().count()];
    Arrays.setAll(classOf, row -> {
      int rule = answer.said().ruleOf()[row];
      return rule < 0 ? -1 : classes.indexOf(answer.book().rules().get(rule).ofClass());
    });
    return classOf;
  }
}
