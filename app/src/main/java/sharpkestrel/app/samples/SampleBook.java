package sharpkestrel.app.samples;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.paint.Color;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.geo.OutlineSet;

/**
 * The classes of a project and what was labelled on each ground: kept, changed, and taken back by name. What is asked for before all has
 * been read is done after it; where something cannot be read nothing is changed, so that nothing is lost.
 */
public final class SampleBook {

  private final Workspace workspace;
  private final KeptSamples kept;
  private final ReadOnlyObjectWrapper<Map<Ground, List<Sample>>> samples =
      new ReadOnlyObjectWrapper<>(Map.of());
  private final ReadOnlyObjectWrapper<ClassList> classes =
      new ReadOnlyObjectWrapper<>(ClassList.EMPTY);
  private List<Runnable> waiting = new ArrayList<>();

  /** The book of a project, opened when it is first asked for. */
  public static Supplier<SampleBook> of(Workspace workspace) {
    return new Supplier<>() {
      private SampleBook opened;

      @Override
      public SampleBook get() {
        if (opened == null) {
          opened = new SampleBook(workspace);
        }
        return opened;
      }
    };
  }

  private SampleBook(Workspace workspace) {
    this.workspace = workspace;
    kept = new KeptSamples(workspace);
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "",
            job -> kept.read(),
            read -> {
              samples.set(Map.copyOf(read.samples()));
              classes.set(read.classes());
              List<Runnable> now = waiting;
              waiting = null;
              now.forEach(Runnable::run);
            },
            failure -> workspace
                .messages()
                .tell("The samples of this project cannot be read, so none are shown or changed. "
                    + failure.getMessage()));
  }

  private void whenRead(Runnable act) {
    if (waiting == null) {
      act.run();
    } else {
      waiting.add(act);
    }
  }

  public ReadOnlyObjectProperty<Map<Ground, List<Sample>>> samplesProperty() {
    return samples.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<ClassList> classesProperty() {
    return classes.getReadOnlyProperty();
  }

  /** The colour of a class as {@code #RRGGBB}; grey where there is none of that name any more. */
  public String hexOf(String ofClass) {
    return classes.get().of(ofClass).map(ClassList.Entry::colour).orElse("#999999");
  }

  public Color colourOf(String ofClass) {
    return Color.web(hexOf(ofClass));
  }

  public List<Sample> of(Ground ground) {
    return samples.get().getOrDefault(ground, List.of());
  }

  /** The file that steps read what was labelled on a ground from. */
  public Path path(Ground ground) {
    return kept.path(ground);
  }

  /**
   * Adds a class.
   *
   * @throws sharpkestrel.raster.RasterException where there is one of that name
   */
  public void addClass(String name) {
    classes.get().with(name);
    whenRead(() -> {
      if (classes.get().of(name).isEmpty()) {
        change("add class " + name, classes.get().with(name), samples.get());
      }
    });
  }

  /**
   * Calls a class otherwise, with its samples everywhere.
   *
   * @throws sharpkestrel.raster.RasterException where there is one of that name
   */
  public void rename(String name, String newName) {
    ClassList after = classes.get().renamed(name, newName);
    Map<Ground, List<Sample>> renamed = each(list -> list.stream()
        .map(s -> s.ofClass().equals(name) ? new Sample(s.outline(), newName, s.scene()) : s)
        .toList());
    change("rename class " + name, after, renamed);
  }

  /**
   * Lets a class belong to another, or to none.
   *
   * @throws sharpkestrel.raster.RasterException where that would make a second level
   */
  public void putWithin(String name, String parent) {
    change(
        parent.isEmpty() ? "let " + name + " stand alone" : "put " + name + " under " + parent,
        classes.get().within(name, parent),
        // files tell it too, so that they are written anew
        each(list -> List.copyOf(new ArrayList<>(list))));
  }

  /** Takes a class away with its samples everywhere. */
  public void removeClass(String name) {
    change(
        "remove class " + name,
        classes.get().without(name),
        each(list -> list.stream().filter(s -> !s.ofClass().equals(name)).toList()));
  }

  private Map<Ground, List<Sample>> each(UnaryOperator<List<Sample>> how) {
    Map<Ground, List<Sample>> all = new HashMap<>();
    samples.get().forEach((ground, list) -> all.put(ground, how.apply(list)));
    return all;
  }

  /** Gives a place a class, in place of one that it had; one that has it already loses it. */
  public void label(Ground ground, Sample sample) {
    whenRead(() -> {
      List<Sample> after = new ArrayList<>(of(ground));
      boolean had = after.stream()
          .anyMatch(s -> s.liesAs(sample.outline()) && s.ofClass().equals(sample.ofClass()));
      after.removeIf(s -> s.liesAs(sample.outline()));
      if (!had) {
        after.add(sample);
      }
      put((had ? "take back " : "label ") + sample.ofClass(), ground, after);
    });
  }

  /** Gives many places their classes at once, in place of those they had; classes that there are not yet come along. */
  public void labelAll(Ground ground, List<Sample> labelled) {
    whenRead(() -> {
      ClassList list = classes.get();
      for (Sample sample : labelled) {
        list = withClass(list, sample.ofClass());
      }
      List<Sample> after = new ArrayList<>(of(ground));
      after.removeIf(before -> labelled.stream().anyMatch(now -> before.liesAs(now.outline())));
      after.addAll(labelled);
      put("label " + labelled.size() + " at once", list, ground, after);
    });
  }

  private static ClassList withClass(ClassList list, String name) {
    return list.of(name).isEmpty() ? list.with(name) : list;
  }

  /** Takes the classes of a list in that are not there yet. */
  public void takeClasses(ClassList other) {
    whenRead(() -> {
      ClassList list = classes.get();
      for (ClassList.Entry entry : other.classes()) {
        list = withClass(list, entry.name());
      }
      change("take classes in", list, samples.get());
    });
  }

  /** Puts a sample elsewhere. */
  public void move(Ground ground, Sample sample, Geometry to) {
    whenRead(() -> {
      List<Sample> after = new ArrayList<>(of(ground));
      int at = after.indexOf(sample);
      if (at >= 0) {
        after.set(at, new Sample(to, sample.ofClass(), sample.scene()));
        put("move a sample", ground, after);
      }
    });
  }

  /** Takes samples away. */
  public void removeAll(Ground ground, List<Sample> gone) {
    whenRead(() -> {
      List<Sample> after = new ArrayList<>(of(ground));
      after.removeAll(gone);
      put(
          gone.size() == 1 ? "take a sample away" : "take " + gone.size() + " samples away",
          ground,
          after);
    });
  }

  private void put(String what, Ground ground, List<Sample> after) {
    put(what, classes.get(), ground, after);
  }

  private void put(String what, ClassList list, Ground ground, List<Sample> after) {
    Map<Ground, List<Sample>> all = new HashMap<>(samples.get());
    all.put(ground, List.copyOf(after));
    change(what, list, all);
  }

  /** What was labelled on a ground, as steps take it. */
  public OutlineSet outlines(Ground ground) {
    List<Sample> here = of(ground);
    return new OutlineSet(
        ground.crs(),
        here.stream().map(Sample::outline).toList(),
        new Table(
            here.size(),
            List.of(Table.Column.ofTexts(
                "class", "Class", here.stream().map(Sample::ofClass).toList()))));
  }

  private void change(String what, ClassList newClasses, Map<Ground, List<Sample>> newSamples) {
    ClassList classesBefore = classes.get();
    Map<Ground, List<Sample>> before = samples.get();
    Map<Ground, List<Sample>> after = Map.copyOf(newSamples);
    workspace.undo().change(what, () -> set(newClasses, after), () -> set(classesBefore, before));
  }

  private void set(ClassList newClasses, Map<Ground, List<Sample>> newSamples) {
    Map<Ground, List<Sample>> before = samples.get();
    if (!newClasses.equals(classes.get())) {
      classes.set(newClasses);
      kept.write(newClasses);
    }
    samples.set(newSamples);
    newSamples.forEach((ground, list) -> {
      if (list != before.get(ground)) {
        kept.write(ground, list, newClasses);
      }
    });
    before.keySet().stream()
        .filter(ground -> !newSamples.containsKey(ground))
        .forEach(ground -> kept.write(ground, List.of(), newClasses));
  }
}
