package sharpkestrel.app.tools.samples;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
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
import sharpkestrel.expr.Table;
import sharpkestrel.extract.LearnClasses;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Method;
import sharpkestrel.extract.learner.NextQuestion;
import sharpkestrel.extract.learner.ObjectSamples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/**
 * Samples of what pane A shows, and what they say of all its objects: learned anew after each change, the picture first, what it is worth
 * after it.
 */
final class SamplesModel {

  private static final long SEED = 1;

  private final Workspace workspace;
  private final KeptSamples kept;
  private final ReadOnlyObjectWrapper<List<Sample>> samples =
      new ReadOnlyObjectWrapper<>(List.of());
  private final ReadOnlyObjectWrapper<ClassList> classes =
      new ReadOnlyObjectWrapper<>(ClassList.EMPTY);
  private final StringProperty current = new SimpleStringProperty("");
  private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private final ObjectProperty<Method> method = new SimpleObjectProperty<>(Method.EXTREME_TREES);
  private final List<Integer> asked = new ArrayList<>();
  private ObjectSet objects;
  private final Outlines where = new Outlines();
  private NextQuestion questions;
  private boolean asking;
  private int clicks;
  private final ReadOnlyStringWrapper unread = new ReadOnlyStringWrapper("");

  /**
   * An object that is asked about.
   *
   * @param bounds in full-size pixels
   */
  record Question(int row, Geometry outline, Window bounds) {}

  /** An object under the mouse. */
  private record Under(int row, Geometry outline) {}

  SamplesModel(Workspace workspace, Watch watch) {
    this.workspace = workspace;
    kept = new KeptSamples(workspace);
    watch.on(workspace.display().paneAProperty(), now -> follow());
    method.addListener((p, before, now) -> learn());
    ask("read", job -> kept.readSamples(), read -> {
      if (samples.get().isEmpty()) {
        samples.set(read);
        learn();
      }
    });
    ask("classes", job -> kept.readClasses(), read -> {
      if (classes.get().classes().isEmpty()) {
        classes.set(read);
        current.set(read.classes().isEmpty() ? "" : read.classes().getFirst().name());
      }
    });
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
    workspace.lanes().trial().ask(List.of(this, what), title, work, done, failed);
  }

  ReadOnlyObjectProperty<List<Sample>> samplesProperty() {
    return samples.getReadOnlyProperty();
  }

  ReadOnlyObjectProperty<ClassList> classesProperty() {
    return classes.getReadOnlyProperty();
  }

  /** The class that a click gives. */
  StringProperty currentProperty() {
    return current;
  }

  ReadOnlyObjectProperty<Answer> answerProperty() {
    return answer.getReadOnlyProperty();
  }

  ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }

  ObjectProperty<Method> methodProperty() {
    return method;
  }

  /** Why there is no answer; empty where there is one, or nothing to say. */
  ReadOnlyStringProperty unreadProperty() {
    return unread.getReadOnlyProperty();
  }

  boolean hasObjects() {
    return objects != null;
  }

  Path path() {
    return kept.path();
  }

  /** Samples that lie in what pane A shows. */
  List<Sample> here() {
    return objects == null
        ? List.of()
        : samples.get().stream()
            .filter(s -> s.crs().equals(objects.labels().grid().crs()))
            .toList();
  }

  private void follow() {
    Result shown = workspace.display().paneAProperty().get();
    ObjectSet now = shown != null && shown.value() instanceof ObjectSet set ? set : null;
    if (now == objects) {
      return;
    }
    objects = now;
    questions = null;
    asked.clear();
    answer.set(null);
    question.set(null);
    asking = false;
    learn();
  }

  void addClass(String name) {
    put(classes.get().with(name), "class " + name);
    current.set(name);
  }

  void rename(String name, String newName) {
    ClassList before = classes.get();
    List<Sample> samplesBefore = samples.get();
    ClassList after = before.renamed(name, newName);
    List<Sample> samplesAfter = samplesBefore.stream()
        .map(s ->
            s.ofClass().equals(name) ? new Sample(s.outline(), s.crs(), newName, s.scene()) : s)
        .toList();
    workspace
        .undo()
        .change(
            "rename class " + name,
            () -> {
              set(after);
              set(samplesAfter);
            },
            () -> {
              set(before);
              set(samplesBefore);
            });
    current.set(newName);
  }

  /** Takes a class away with its samples. */
  void removeClass(String name) {
    ClassList before = classes.get();
    List<Sample> samplesBefore = samples.get();
    List<Sample> rest =
        samplesBefore.stream().filter(s -> !s.ofClass().equals(name)).toList();
    workspace
        .undo()
        .change(
            "remove class " + name,
            () -> {
              set(before.without(name));
              set(rest);
            },
            () -> {
              set(before);
              set(samplesBefore);
            });
    current.set(
        classes.get().classes().isEmpty()
            ? ""
            : classes.get().classes().getFirst().name());
  }

  private void put(ClassList after, String what) {
    ClassList before = classes.get();
    workspace.undo().change("add " + what, () -> set(after), () -> set(before));
  }

  private void set(ClassList now) {
    classes.set(now);
    kept.write(now);
  }

  private void set(List<Sample> now) {
    samples.set(now);
    kept.write(now);
    learn();
  }

  /** A digit: answers the question, or chooses the class that clicks give. */
  void digit(int digit) {
    classes.get().classes().stream()
        .filter(each -> each.digit() == digit)
        .findFirst()
        .ifPresent(each -> {
          current.set(each.name());
          Question open = question.get();
          if (open != null) {
            question.set(null);
            label(open.row(), open.outline(), each.name());
          }
        });
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
          Window pixel = new Window(col, row, 1, 1);
          int[] label = new int[1];
          if (set.labels().grid().window().contains(pixel)) {
            set.labels().read(pixel, label);
          }
          int object = set.rowOf()[label[0]];
          return object < 0
              ? Optional.<Under>empty()
              : Optional.of(new Under(object, where.of(set).outline(object)));
        },
        found -> found
            .filter(under -> set == objects)
            .ifPresent(under -> label(under.row, under.outline, ofClass)));
  }

  /** Gives an object a class, wherever it is; off the interface thread its outline is found. */
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
    List<Sample> before = samples.get();
    Result shown = workspace.display().paneAProperty().get();
    Sample now = new Sample(
        outline, objects.labels().grid().crs(), ofClass, shown == null ? "" : shown.name());
    List<Sample> after = new ArrayList<>(before);
    boolean had = after.removeIf(s -> s.crs().equals(now.crs())
        && s.outline().getEnvelopeInternal().equals(outline.getEnvelopeInternal())
        && s.outline().equalsTopo(outline)
        && s.ofClass().equals(ofClass));
    after.removeIf(s -> s.crs().equals(now.crs())
        && s.outline().getEnvelopeInternal().equals(outline.getEnvelopeInternal())
        && s.outline().equalsTopo(outline));
    if (!had) {
      after.add(now);
    }
    asked.add(row);
    workspace
        .undo()
        .change(
            (had ? "take back " : "label ") + ofClass,
            () -> set(List.copyOf(after)),
            () -> set(before));
  }

  private OutlineSet outlines() {
    List<Sample> here = here();
    return new OutlineSet(
        objects.labels().grid().crs(),
        here.stream().map(Sample::outline).toList(),
        new Table(
            here.size(),
            List.of(Table.Column.ofTexts(
                "class", "Class", here.stream().map(Sample::ofClass).toList()))));
  }

  private void learn() {
    if (objects == null || here().isEmpty()) {
      answer.set(null);
      unread.set("");
      return;
    }
    ObjectSet set = objects;
    OutlineSet outlines = outlines();
    Method how = method.get();
    ask(
        "learn",
        "Learning from samples",
        job -> {
          ObjectSamples found = ObjectSamples.of(set, outlines, "class", job);
          Examples examples = LearnClasses.examples(set, found, List.of());
          Classifier classifier = Classifier.learn(examples.balanced(), how, "", SEED, false, job);
          float[] shares = classifier.shares(classifier.columns(set.table()), job);
          return new Answer(set, classifier.classes(), shares, found.classOf(), Optional.empty());
        },
        made -> {
          unread.set("");
          answer.set(made);
          weigh(made, outlines, how);
          if (asking) {
            askNext();
          }
        },
        failure -> {
          unread.set(
              failure instanceof RasterException ? failure.getMessage() : failure.toString());
          answer.set(null);
        });
  }

  /** What it is worth on kept-back blocks, after it is shown. */
  private void weigh(Answer shown, OutlineSet outlines, Method how) {
    ask(
        "weigh",
        job -> {
          ObjectSamples found = ObjectSamples.of(shown.objects(), outlines, "class", job);
          Examples examples = LearnClasses.examples(shown.objects(), found, List.of());
          return Classifier.learn(examples.balanced(), how, "", SEED, true, job).kept();
        },
        worth -> {
          if (answer.get() == shown) {
            answer.set(new Answer(
                shown.objects(), shown.classes(), shown.shares(), shown.sampleOf(), worth));
          }
        });
  }

  /** Asks about the object whose answer would teach most, now and after each answer. */
  void askNext() {
    Answer now = answer.get();
    asking = true;
    if (now == null) {
      workspace
          .messages()
          .warn("Label two or more objects of two classes first: then there is something to ask.");
      asking = false;
      return;
    }
    NextQuestion known = questions;
    int[] before = asked.stream().mapToInt(Integer::intValue).toArray();
    ask(
        "question",
        job -> {
          NextQuestion from = known == null ? questions(now.objects()) : known;
          boolean[] labelled = new boolean[now.objects().count()];
          double[] doubt = new double[labelled.length];
          for (int row = 0; row < labelled.length; row++) {
            labelled[row] = now.sampleOf()[row] >= 0;
            doubt[row] = now.doubt(row);
          }
          for (int row : before) {
            labelled[row] = true;
          }
          int next = from.next(doubt, labelled, before);
          ObjectGeometry found = where.of(now.objects());
          return new Asked(
              from,
              next < 0
                  ? Optional.empty()
                  : Optional.of(new Question(next, found.outline(next), found.bounds(next))));
        },
        found -> {
          if (objects == now.objects()) {
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

  private static NextQuestion questions(ObjectSet set) {
    List<String> names = LearnClasses.features(set.table());
    float[][] columns = new float[names.size()][set.count()];
    for (int f = 0; f < columns.length; f++) {
      double[] values = set.table().values(names.get(f));
      for (int i = 0; i < values.length; i++) {
        columns[f][i] = (float) values[i];
      }
    }
    return new NextQuestion(columns, SEED);
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
    question.set(null);
  }
}
