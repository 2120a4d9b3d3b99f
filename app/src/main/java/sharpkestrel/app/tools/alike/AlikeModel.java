package sharpkestrel.app.tools.alike;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleDoubleProperty;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandFile;
import sharpkestrel.app.samples.Ground;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.SmallPictures;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.LearnClasses;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.learner.Likeness;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Window;

/** Picked and rejected objects of what pane A shows, and how alike all others are; worked out anew after each verdict. */
final class AlikeModel implements InHand {

  static final int SMALL = 64;

  private static final int SHOWN = 10;
  private static final String WANTED = "wanted";
  private static final String REJECTED = "rejected";
  private static final String FILE = "alike";

  private final Workspace workspace;
  private final SampleBook book;
  private final Map<Integer, Boolean> verdicts = new LinkedHashMap<>();
  private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>();
  private final DoubleProperty least = new SimpleDoubleProperty(0.5);
  private Result source;
  private boolean inHand;

  /**
   * How alike all objects are.
   *
   * @param next the most alike of those without a verdict, the best first
   * @param pictures of those, and {@code places} where they lie
   */
  record Answer(
      ObjectSet objects,
      float[] likeness,
      List<Integer> next,
      List<int[]> pictures,
      List<Window> places) {}

  AlikeModel(Workspace workspace, Watch watch, SampleBook book) {
    this.workspace = workspace;
    this.book = book;
    watch.on(workspace.display().paneAProperty(), this::take);
    take(workspace.display().paneAProperty().get());
  }

  ReadOnlyObjectProperty<Answer> answerProperty() {
    return answer.getReadOnlyProperty();
  }

  /** The likeness from which on objects are taken. */
  DoubleProperty leastProperty() {
    return least;
  }

  boolean hasObjects() {
    return source != null;
  }

  Optional<Boolean> verdict(int row) {
    return Optional.ofNullable(verdicts.get(row));
  }

  long count(boolean wanted) {
    return verdicts.values().stream().filter(v -> v == wanted).count();
  }

  private void take(Result shown) {
    boolean measured = shown != null
        && shown.value() instanceof ObjectSet set
        && set.table().columns().size() > 2;
    Result now = measured ? shown : null;
    if (now != source) {
      source = now;
      verdicts.clear();
      answer.set(null);
    }
  }

  @Override
  public void setInHand(boolean now) {
    inHand = now;
    if (now) {
      rank();
    } else {
      workspace.lanes().trial().drop(this);
    }
  }

  /** Picks the object at a pixel; one that is picked or rejected is neither any more. */
  void pickAt(int col, int row) {
    if (source == null) {
      workspace.messages().warn("Show measured objects in pane A first: click them in the trail.");
      return;
    }
    ObjectSet set = (ObjectSet) source.value();
    workspace.ask(verdicts, job -> set.rowAt(col, row), object -> {
      if (object >= 0 && source != null && set == source.value()) {
        judge(object, verdicts.containsKey(object) ? null : Boolean.TRUE);
      }
    });
  }

  /**
   * @param verdict null for none any more
   */
  private void judge(int row, Boolean verdict) {
    Boolean before = verdicts.get(row);
    Result of = source;
    workspace
        .undo()
        .change(
            verdict == null ? "forget pick" : verdict ? "accept" : "reject",
            () -> put(of, row, verdict),
            () -> put(of, row, before));
  }

  private void put(Result of, int row, Boolean verdict) {
    if (of == source) {
      if (verdict == null) {
        verdicts.remove(row);
      } else {
        verdicts.put(row, verdict);
      }
      rank();
    }
  }

  /** Says of the most alike one whether it is wanted. */
  void judgeNext(boolean wanted) {
    Answer now = answer.get();
    if (now != null && !now.next.isEmpty()) {
      judge(now.next.getFirst(), wanted);
    }
  }

  private int[] rows(boolean wanted) {
    return verdicts.entrySet().stream()
        .filter(e -> e.getValue() == wanted)
        .mapToInt(Map.Entry::getKey)
        .sorted()
        .toArray();
  }

  private void rank() {
    int[] picked = rows(true);
    if (!inHand || source == null || picked.length == 0) {
      workspace.lanes().trial().drop(this);
      answer.set(null);
      return;
    }
    int[] rejected = rows(false);
    Result of = source;
    ObjectSet set = (ObjectSet) of.value();
    Map<Integer, Boolean> known = Map.copyOf(verdicts);
    var look = workspace.display().lookProperty().get();
    workspace.ask(
        this,
        job -> {
          float[] likeness = Likeness.of(LearnClasses.columns(set.table()), picked, rejected, job)
              .likeness();
          List<Integer> next = IntStream.range(0, likeness.length)
              .filter(row -> !known.containsKey(row))
              .boxed()
              .sorted(Comparator.comparingDouble(row -> -likeness[row]))
              .limit(SHOWN)
              .toList();
          ObjectGeometry geometry = ObjectGeometry.of(set);
          SmallPictures small = new SmallPictures(of.backdrop(), look);
          List<Window> places = next.stream().map(geometry::bounds).toList();
          List<int[]> pictures = new ArrayList<>();
          for (Window place : places) {
            int margin = Math.max(4, Math.max(place.width(), place.height()) / 4);
            pictures.add(small.of(place.grown(margin), SMALL, job.request()));
          }
          return new Answer(set, likeness, next, pictures, places);
        },
        made -> {
          if (source == of) {
            answer.set(made);
          }
        });
  }

  /** How many objects are as alike as is asked for. */
  int taken() {
    Answer now = answer.get();
    int count = 0;
    for (int row = 0; now != null && row < now.likeness.length; row++) {
      count += now.likeness[row] >= least.get() ? 1 : 0;
    }
    return count;
  }

  SampleBook book() {
    return book;
  }

  /**
   * Keeps what was picked as samples of a class, and what was rejected as something else.
   *
   * @param ofClass added where there is none of that name
   */
  void keep(String ofClass) {
    ObjectSet set = (ObjectSet) source.value();
    Result of = source;
    Map<Integer, Boolean> known = new LinkedHashMap<>(verdicts);
    workspace.ask(
        book,
        job -> {
          ObjectGeometry geometry = ObjectGeometry.of(set);
          List<Sample> samples = new ArrayList<>();
          known.forEach((row, wanted) -> samples.add(
              new Sample(geometry.outline(row), wanted ? ofClass : Finder.OTHER, of.name())));
          return samples;
        },
        samples -> {
          book.labelAll(Ground.of(of, set), samples);
          workspace
              .messages()
              .warn(count(true) + " samples of " + ofClass + " and " + count(false)
                  + " of something else are kept; Classify objects and Learn to find take them.");
        });
  }

  /** Writes what was picked and rejected, and runs the step by it. */
  void run(String title) {
    ObjectSet set = (ObjectSet) source.value();
    Map<Integer, Boolean> known = new LinkedHashMap<>(verdicts);
    HandFile file = new HandFile(workspace, FILE);
    Result of = source;
    String from = Cql2.number(least.get());
    boolean rejects = known.containsValue(false);
    workspace.ask(
        known,
        job -> {
          ObjectGeometry geometry = ObjectGeometry.of(set);
          List<Geometry> outlines = new ArrayList<>();
          List<String> said = new ArrayList<>();
          known.forEach((row, wanted) -> {
            outlines.add(geometry.outline(row));
            said.add(wanted ? WANTED : REJECTED);
          });
          return new Layer(
              FILE,
              set.labels().grid().crs(),
              outlines,
              new Table(said.size(), List.of(Table.Column.ofTexts("class", "Class", said))),
              Map.of());
        },
        layer -> {
          file.write(layer);
          workspace.run(
              StepCatalogue.get("rank-alike"),
              title,
              Map.of("objects", of),
              Map.of("picks", file.path().toString()),
              rejects ? Map.of("least", from, "wanted", WANTED) : Map.of("least", from));
        });
  }
}
