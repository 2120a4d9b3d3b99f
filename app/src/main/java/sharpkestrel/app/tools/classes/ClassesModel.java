package sharpkestrel.app.tools.classes;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.BandSpread;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightAboveGround;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;

/** The classes of what pane A shows, which of them are looked at, and what they are to be called. */
final class ClassesModel {

  private final Workspace workspace;
  private final List<Runnable> listeners = new ArrayList<>();
  private final Map<String, String> names = new LinkedHashMap<>();
  private final Set<String> selected = new LinkedHashSet<>();
  private final ReadOnlyObjectWrapper<List<BandSpread>> spreads =
      new ReadOnlyObjectWrapper<>(List.of());
  private Result source;

  ClassesModel(Workspace workspace, Watch watch) {
    this.workspace = workspace;
    watch.on(workspace.display().paneAProperty(), this::take);
    take(workspace.display().paneAProperty().get());
  }

  void onChange(Runnable listener) {
    listeners.add(listener);
  }

  private void changed() {
    listeners.forEach(Runnable::run);
  }

  private void take(Result shown) {
    boolean classed = shown != null
        && shown.value() instanceof ObjectSet set
        && set.table().has(ClassMap.CLASS)
        && set.table().column(ClassMap.CLASS).isText();
    Result now = classed ? shown : null;
    if (now != source) {
      source = now;
      names.clear();
      selected.clear();
      spreads.set(List.of());
      changed();
    }
  }

  boolean hasClasses() {
    return source != null;
  }

  ObjectSet set() {
    return (ObjectSet) source.value();
  }

  /** Classes as they are now. */
  List<String> classes() {
    return source == null ? List.of() : classColumn().categories();
  }

  private Table.Column classColumn() {
    return set().table().column(ClassMap.CLASS);
  }

  /** What a class is to be called; as it is where nothing was said. */
  String nameOf(String ofClass) {
    return names.getOrDefault(ofClass, ofClass);
  }

  boolean isSelected(String ofClass) {
    return selected.contains(ofClass);
  }

  Set<String> selected() {
    return Set.copyOf(selected);
  }

  /**
   * Looks at a class alone, or at it too.
   *
   * @param more whether those looked at before stay
   */
  void select(String ofClass, boolean more) {
    boolean alone = selected.size() == 1 && selected.contains(ofClass);
    if (!more) {
      selected.clear();
    }
    if (more ? !selected.remove(ofClass) : !alone) {
      selected.add(ofClass);
    }
    changed();
  }

  void selectNone() {
    selected.clear();
    changed();
  }

  /** Looks at the class of an object. */
  void selectAt(int col, int row, boolean more) {
    ObjectSet set = set();
    workspace.ask(
        this,
        job -> {
          int at = set.rowAt(col, row);
          return at < 0 ? "" : set.table().column(ClassMap.CLASS).text(at);
        },
        found -> {
          if (!found.isEmpty() && source != null && set == source.value()) {
            select(found, more);
          }
        });
  }

  /** Names given so far, in the order in which they came; a digit gives one to what is selected. */
  List<String> given() {
    return names.values().stream().distinct().toList();
  }

  /**
   * Calls what is selected by a name.
   *
   * @throws RasterException for a name that cannot be one
   */
  void call(String name) {
    if (selected.isEmpty()) {
      throw new RasterException(
          "Choose one or more classes first: click them in the list or in the picture.");
    }
    if (name.contains(",") || name.contains("=")) {
      throw new RasterException(
          "A name has neither commas nor =, which part names in a run sheet.");
    }
    Map<String, String> before = Map.copyOf(names);
    List<String> order = List.copyOf(names.keySet());
    Map<String, String> after = new LinkedHashMap<>(names);
    for (String each : selected) {
      after.remove(each);
      after.put(each, name);
    }
    Result of = source;
    workspace.undo().change("name " + name, () -> use(of, after), () -> {
      Map<String, String> ordered = new LinkedHashMap<>();
      order.forEach(key -> ordered.put(key, before.get(key)));
      use(of, ordered);
    });
  }

  private void use(Result of, Map<String, String> newNames) {
    if (of == source) {
      names.clear();
      names.putAll(newNames);
      selected.clear();
      changed();
    }
  }

  void callByDigit(int digit) {
    List<String> given = given();
    if (digit <= given.size() && !selected.isEmpty()) {
      call(given.get(digit - 1));
    }
  }

  /** The colour of a class as {@code #RRGGBB}: that of its new name, or its own. */
  String colourOf(String ofClass) {
    List<String> given = given();
    String name = names.get(ofClass);
    if (name != null) {
      return ClassMap.colours(given).get(given.indexOf(name));
    }
    Table table = set().table();
    if (table.has(ClassMap.COLOUR) && table.column(ClassMap.COLOUR).isText()) {
      int row = firstRow(ofClass);
      return row < 0 ? "#999999" : table.column(ClassMap.COLOUR).text(row);
    }
    return ClassMap.colours(classes()).get(classes().indexOf(ofClass));
  }

  private int firstRow(String ofClass) {
    double place = classColumn().categories().indexOf(ofClass);
    double[] values = classColumn().values();
    for (int row = 0; row < values.length; row++) {
      if (values[row] == place) {
        return row;
      }
    }
    return -1;
  }

  /** Percent of the area of all that a class has. */
  double share(String ofClass) {
    double place = classColumn().categories().indexOf(ofClass);
    double[] values = classColumn().values();
    double[] areas = set().table().values("area");
    double own = 0;
    for (int row = 0; row < areas.length; row++) {
      own += values[row] == place ? areas[row] : 0;
    }
    return 100 * own / Arrays.stream(areas).sum();
  }

  /** How surely what is in a cluster belongs to it; NaN where that is not known. */
  double sureness(String ofClass) {
    Table table = set().table();
    int row = firstRow(ofClass);
    return table.has("silhouette") && row >= 0 ? table.values("silhouette")[row] : Double.NaN;
  }

  /** The cluster most like one; empty where that is not known. */
  String nearest(String ofClass) {
    Table table = set().table();
    int row = firstRow(ofClass);
    return table.has("nearest") && table.column("nearest").isText() && row >= 0
        ? table.column("nearest").text(row)
        : "";
  }

  /** For each object the place of its class among {@link #classes}, -1 for none. */
  int[] classOf() {
    double[] values = classColumn().values();
    int[] classOf = new int[values.length];
    Arrays.setAll(classOf, row -> Double.isNaN(values[row]) ? -1 : (int) values[row]);
    return classOf;
  }

  /** The scene under the classes; empty where none is known. */
  Optional<Raster> scene() {
    return Optional.ofNullable(source).map(Result::backdrop);
  }

  /** Where the classes lie in two bands of the scene, in the order of {@link #classes}; empty before it is worked out. */
  ReadOnlyObjectProperty<List<BandSpread>> spreadsProperty() {
    return spreads.getReadOnlyProperty();
  }

  /** Works out where the classes lie in two bands, away from the interface thread. */
  void spread(int bandX, int bandY) {
    Result of = source;
    ObjectSet set = set();
    int[] classOf = classOf();
    int count = classes().size();
    workspace.ask(
        spreads,
        job -> List.of(BandSpread.of(
            HeightAboveGround.onGrid(
                set.labels().grid(), of.backdrop(), "scene", Resampling.NEAREST),
            bandX,
            bandY,
            set.labels(),
            label -> label < 0 || label >= set.rowOf().length || set.rowOf()[label] < 0
                ? -1
                : classOf[set.rowOf()[label]],
            count,
            job)),
        found -> {
          if (of == source) {
            spreads.set(found);
          }
        });
  }

  boolean isNamed() {
    return !names.isEmpty();
  }

  void run(String title) {
    List<String> given = given();
    List<String> colours = ClassMap.colours(given);
    String texts = names.entrySet().stream()
        .map(e -> e.getKey() + "=" + e.getValue())
        .collect(Collectors.joining(","));
    List<String> coloured = new ArrayList<>();
    for (int k = 0; k < given.size(); k++) {
      if (!given.get(k).isEmpty()) {
        coloured.add(given.get(k) + "=" + colours.get(k));
      }
    }
    workspace.run(
        StepCatalogue.get("name-classes"),
        title,
        Map.of("classes", source),
        Map.of(),
        Map.of("names", texts, "colours", String.join(",", coloured)));
  }
}
