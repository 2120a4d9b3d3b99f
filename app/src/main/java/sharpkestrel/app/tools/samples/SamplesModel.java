package sharpkestrel.app.tools.samples;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.expr.Expression;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.LearnClasses;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.NextQuestion;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Cut;

/**
 * Labelling what pane A shows, and what that says of all its objects: learned anew after each change, the picture first, what it is
 * worth after it. Put away it asks nothing.
 */
final class SamplesModel implements Labelling {

  private static final long SEED = 1;
  private static final int LEAST_TO_FIND = 3;

  private final Workspace workspace;
  private final SampleBook book;
  private final StringProperty current = new SimpleStringProperty("");
  private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper unread = new ReadOnlyStringWrapper("");
  private final ObjectProperty<Learner> learner = new SimpleObjectProperty<>(Learner.EXTREME_TREES);
  private final List<Integer> asked = new ArrayList<>();
  private final Outlines where = new Outlines();
  private ObjectSet objects;
  private Ground ground;
  private NextQuestion questions;
  private boolean inHand;
  private boolean asking;
  private int clicks;

  /**
   * An object that is asked about.
   *
   * @param bounds in full-size pixels
   */
  record Question(int row, Geometry outline, Window bounds) {}

  /** An object under the mouse. */
  private record Under(int row, Geometry outline) {}

  SamplesModel(Workspace workspace, Watch watch, SampleBook book) {
    this.workspace = workspace;
    this.book = book;
    watch.on(workspace.display().paneAProperty(), now -> follow());
    learner.addListener((p, before, now) -> learn());
    book.samplesProperty().addListener((p, before, now) -> learn());
    book.classesProperty().addListener((p, before, now) -> keepCurrent());
    keepCurrent();
    follow();
  }

  private <T> void ask(String what, Function<Job, T> work, Consumer<T> done) {
    ask(what, "", work, done, failure -> workspace.messages().tell(failure.getMessage()));
  }

  private <T> void ask(
      String what,
      String title,
      Function<Job, T> work,
      Consumer<T> done,
      Consumer<Throwable> failed) {
    workspace.lanes().trial().ask(kind(what), title, work, done, failed);
  }

  private Object kind(String what) {
    return List.of(this, what);
  }

  private void drop(String what) {
    workspace.lanes().trial().drop(kind(what));
  }

  @Override
  public SampleBook book() {
    return book;
  }

  @Override
  public StringProperty currentProperty() {
    return current;
  }

  ReadOnlyObjectProperty<Answer> answerProperty() {
    return answer.getReadOnlyProperty();
  }

  ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }

  ObjectProperty<Learner> learnerProperty() {
    return learner;
  }

  /** Why there is no answer; empty where there is one, or nothing to say. */
  ReadOnlyStringProperty unreadProperty() {
    return unread.getReadOnlyProperty();
  }

  boolean hasObjects() {
    return objects != null;
  }

  /** The file with the samples of what pane A shows. */
  Path path() {
    return book.path(ground);
  }

  @Override
  public List<Sample> here() {
    return ground == null ? List.of() : book.of(ground);
  }

  /** The tool is in hand, or put away: then nothing is worked out. */
  void setInHand(boolean now) {
    inHand = now;
    if (now) {
      learn();
    } else {
      stopAsking();
      drop("learn");
      drop("weigh");
    }
  }

  private void follow() {
    Result shown = workspace.display().paneAProperty().get();
    ObjectSet now = shown != null && shown.value() instanceof ObjectSet set ? set : null;
    if (now == objects) {
      return;
    }
    objects = now;
    ground = now == null ? null : Ground.of(shown, now);
    questions = null;
    asked.clear();
    answer.set(null);
    stopAsking();
    learn();
  }

  /** Answers the question, where there is one; clicks give this class from now on. */
  @Override
  public void give(String ofClass) {
    current.set(ofClass);
    Question open = question.get();
    if (open != null) {
      question.set(null);
      label(open.row(), open.outline(), ofClass);
    }
  }

  /** Gives the object at a pixel the class in hand; a click on one that has it takes it away. */
  void click(int col, int row) {
    if (objects == null || current.get().isEmpty()) {
      workspace
          .messages()
          .warn(
              objects == null
                  ? "Samples are given to objects: click measured objects in the trail first."
                  : "Add a class first: what is it that you label?");
      return;
    }
    ObjectSet set = objects;
    String ofClass = current.get();
    // each click counts, however fast they follow each other
    clicks++;
    ask(
        "click " + clicks,
        job -> {
          int object = set.rowAt(col, row);
          return object < 0
              ? Optional.<Under>empty()
              : Optional.of(new Under(object, where.of(set).outline(object)));
        },
        found -> found
            .filter(under -> set == objects)
            .ifPresent(under -> label(under.row, under.outline, ofClass)));
  }

  /** Gives an object a class, wherever it is. */
  void label(int row, String ofClass) {
    ObjectSet set = objects;
    clicks++;
    ask("click " + clicks, job -> where.of(set).outline(row), outline -> {
      if (set == objects) {
        label(row, outline, ofClass);
      }
    });
  }

  private void label(int row, Geometry outline, String ofClass) {
    Result shown = workspace.display().paneAProperty().get();
    asked.add(row);
    book.label(ground, new Sample(outline, ofClass, shown == null ? "" : shown.name()));
  }

  private OutlineSet outlines() {
    List<Sample> here = here();
    return new OutlineSet(
        ground.crs(),
        here.stream().map(Sample::outline).toList(),
        new Table(
            here.size(),
            List.of(Table.Column.ofTexts(
                "class", "Class", here.stream().map(Sample::ofClass).toList()))));
  }

  /** The picture first: what it is worth, and probabilities that say so, come after. */
  private void learn() {
    drop("weigh");
    if (!inHand || objects == null || here().isEmpty()) {
      drop("learn");
      answer.set(null);
      unread.set("");
      return;
    }
    ObjectSet set = objects;
    OutlineSet outlines = outlines();
    Learner how = learner.get();
    ask(
        "learn",
        "Learning from samples",
        job -> Answer.of(set, outlines, how, false, job),
        made -> {
          unread.set("");
          answer.set(made);
          ask("weigh", job -> Answer.of(set, outlines, how, true, job), answer::set);
          if (asking) {
            askNext();
          }
        },
        failure -> {
          unread.set(failure.getMessage());
          answer.set(null);
        });
  }

  /** The tree that what pane A shows was cut from. */
  private Optional<Result> tree() {
    Result at = workspace.display().paneAProperty().get();
    while (at != null && !(at.value() instanceof Cut)) {
      // what was found among all nodes hangs from the tree itself
      at = at.inputs().getOrDefault("tree", at.inputs().get("objects"));
    }
    return Optional.ofNullable(at).filter(cut -> cut.inputs().containsKey("scene"));
  }

  /** Whether there is a tree, and enough samples of the class in hand and of something else. */
  boolean canLearnToFind() {
    long wanted = here().stream().filter(s -> s.ofClass().equals(current.get())).count();
    return wanted >= LEAST_TO_FIND && here().size() > wanted && tree().isPresent();
  }

  /** Learns to find the class in hand among all nodes of the tree; all other samples are something else. */
  void learnToFind() {
    Result cut = tree().orElseThrow();
    String ofClass = current.get();
    workspace.run(
        StepCatalogue.get("learn-objects"),
        "Finder of " + ofClass,
        Map.of("tree", cut, "scene", cut.inputs().get("scene")),
        Map.of("outlines", path().toString()),
        Map.of(
            "wanted",
            new Expression.Comparison(
                    "=", new Expression.Property("class"), new Expression.Text(ofClass))
                .toText(),
            "labelled",
            "some"));
  }

  /** Asks about the object whose answer would teach most, now and after each answer. */
  void askNext() {
    Answer now = answer.get();
    asking = now != null;
    if (now == null) {
      workspace
          .messages()
          .warn("Label two or more objects of two classes first: then there is something to ask.");
      return;
    }
    NextQuestion known = questions;
    int[] before = asked.stream().mapToInt(Integer::intValue).toArray();
    ask(
        "question",
        job -> {
          NextQuestion from = known == null
              ? new NextQuestion(LearnClasses.columns(now.objects().table()), SEED)
              : known;
          int next = from.next(now.doubts(), now.known(before), before);
          ObjectGeometry found = where.of(now.objects());
          return new Asked(
              from,
              next < 0
                  ? Optional.empty()
                  : Optional.of(new Question(next, found.outline(next), found.bounds(next))));
        },
        found -> {
          if (objects == now.objects() && asking) {
            questions = found.questions;
            question.set(found.question.orElse(null));
          }
        });
  }

  private record Asked(NextQuestion questions, Optional<Question> question) {}

  /** Where the objects of the last set lie, looked up once whoever asks. */
  private static final class Outlines {
    private ObjectSet of;
    private ObjectGeometry geometry;

    synchronized ObjectGeometry of(ObjectSet set) {
      if (set != of) {
        geometry = ObjectGeometry.of(set);
        of = set;
      }
      return geometry;
    }
  }

  /** Passes over the question. */
  void pass() {
    Question open = question.get();
    if (open != null) {
      asked.add(open.row());
      question.set(null);
      askNext();
    }
  }

  void stopAsking() {
    asking = false;
    drop("question");
    question.set(null);
  }
}
