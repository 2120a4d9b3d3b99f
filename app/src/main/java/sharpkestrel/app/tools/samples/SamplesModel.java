package sharpkestrel.app.tools.samples;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.IntStream;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.samples.Ground;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.expr.Expression;
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
final class SamplesModel extends Labelling implements InHand {

  private static final long SEED = 1;
  private static final int LEAST_TO_FIND = 3;

  private static final int MOST_AT_ONCE = 2000;

  private final Workspace workspace;
  private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Why> why = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper unread = new ReadOnlyStringWrapper("");
  private final ObjectProperty<Learner> learner = new SimpleObjectProperty<>(Learner.EXTREME_TREES);
  private final List<Integer> asked = new ArrayList<>();
  private final Outlines where = new Outlines();
  private Progress progress = Progress.NONE;
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
    super(book);
    this.workspace = workspace;
    watch.on(workspace.display().paneAProperty(), now -> follow());
    learner.addListener((p, before, now) -> learn());
    book().samplesProperty().addListener((p, before, now) -> learn());
    book().classesProperty().addListener((p, before, now) -> keepCurrent());
    keepCurrent();
    follow();
  }

  private <T> void ask(String what, Function<Job, T> work, Consumer<T> done) {
    workspace.ask(kind(what), work, done);
  }

  private Object kind(String what) {
    return List.of(this, what);
  }

  private void drop(String what) {
    workspace.lanes().trial().drop(kind(what));
  }

  ReadOnlyObjectProperty<Answer> answerProperty() {
    return answer.getReadOnlyProperty();
  }

  ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }

  /** Why the object that is asked about, or under the mouse, is what it is said to be; empty where there is none. */
  ReadOnlyObjectProperty<Why> whyProperty() {
    return why.getReadOnlyProperty();
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
    return book().path(ground);
  }

  @Override
  Ground ground() {
    return ground;
  }

  /** The tool is in hand, or put away: then nothing is worked out. */
  @Override
  public void setInHand(boolean now) {
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
    progress = Progress.NONE;
    why.set(null);
    stopAsking();
    learn();
  }

  /** Answers the question, where there is one; clicks give this class from now on. */
  @Override
  void give(String ofClass) {
    currentProperty().set(ofClass);
    Question open = question.get();
    if (open != null) {
      question.set(null);
      label(open.row(), open.outline(), ofClass);
    }
  }

  /** Gives the object at a pixel the class in hand; a click on one that has it takes it away. */
  void click(int col, int row) {
    if (objects == null || currentProperty().get().isEmpty()) {
      workspace
          .messages()
          .warn(
              objects == null
                  ? "Samples are given to objects: click measured objects in the trail first."
                  : "Add a class first: what is it that you label?");
      return;
    }
    ObjectSet set = objects;
    String ofClass = currentProperty().get();
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
    book().label(ground, new Sample(outline, ofClass, shown == null ? "" : shown.name()));
  }

  /** Gives all objects of a choice the class in hand. */
  void labelAll(boolean[] chosen) {
    int[] rows = IntStream.range(0, chosen.length).filter(row -> chosen[row]).toArray();
    if (currentProperty().get().isEmpty() || rows.length > MOST_AT_ONCE) {
      workspace
          .messages()
          .warn(
              currentProperty().get().isEmpty()
                  ? "Add a class first: what is it that you label?"
                  : rows.length
                      + " objects are chosen; so many are no examples but a rule. Choose up to "
                      + MOST_AT_ONCE + ", or use Rules.");
      return;
    }
    ObjectSet set = objects;
    Result shown = workspace.display().paneAProperty().get();
    String ofClass = currentProperty().get();
    ask(
        "choice",
        job -> {
          ObjectGeometry places = where.of(set);
          return Arrays.stream(rows)
              .mapToObj(row -> new Sample(places.outline(row), ofClass, shown.name()))
              .toList();
        },
        labelled -> {
          if (set == objects) {
            book().labelAll(ground, labelled);
          }
        });
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
    OutlineSet outlines = book().outlines(ground);
    Learner how = learner.get();
    workspace
        .lanes()
        .trial()
        .ask(
            kind("learn"),
            "Learning from samples",
            job -> Answer.of(set, outlines, how, false, job),
            made -> {
              unread.set("");
              answer.set(made);
              ask("weigh", job -> Answer.of(set, outlines, how, true, job), this::weighed);
              if (asking) {
                askNext();
              }
            },
            failure -> {
              unread.set(failure.getMessage());
              answer.set(null);
            });
  }

  private void weighed(Answer made) {
    made.point().ifPresent(point -> progress = progress.with(point));
    answer.set(made);
  }

  /** How what is told right has grown with the samples. */
  Progress progress() {
    return progress;
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
    long wanted =
        here().stream().filter(s -> s.ofClass().equals(currentProperty().get())).count();
    return wanted >= LEAST_TO_FIND && here().size() > wanted && tree().isPresent();
  }

  /** Whether what is shown was found among all nodes of a tree: a round of corrections makes it better. */
  boolean isFound() {
    Result shown = workspace.display().paneAProperty().get();
    return objects != null && shown != null && shown.inputs().containsKey("tree");
  }

  /** Learns to find the class in hand among all nodes of the tree; all other samples are something else. */
  void learnToFind() {
    Result cut = tree().orElseThrow();
    String ofClass = currentProperty().get();
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

  /** Says why the object at a pixel is what it is said to be, unless another is asked about. */
  void lookAt(int col, int row) {
    Answer now = answer.get();
    if (!inHand || now == null || question.get() != null) {
      return;
    }
    Why before = why.get();
    ask(
        "why",
        job -> {
          int object = now.objects().rowAt(col, row);
          boolean same = before != null && before.row() == object;
          return object < 0
              ? Optional.<Why>empty()
              : Optional.of(same ? before : why(now, object, job));
        },
        found -> {
          if (answer.get() == now && question.get() == null) {
            why.set(found.orElse(null));
          }
        });
  }

  private Why why(Answer now, int row, Job job) {
    return Why.of(
        now,
        row,
        where.of(now.objects()),
        workspace.display().paneAProperty().get().backdrop(),
        workspace.display().lookProperty().get(),
        job);
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
            found.question.ifPresent(
                open -> ask("why", job -> why(now, open.row(), job), why::set));
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
