package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Calls classes otherwise, several of them the same. */
@StepInfo(
    id = "name-classes",
    stage = Stage.EXTRACT,
    family = "Classes",
    title = "Name classes",
    next = "Clusters without names.",
    nextFor = Suits.CLUSTERS,
    makes = "Named classes",
    does =
        "Calls clusters or classes otherwise; those that get one name become one class. What has no new name keeps its own.")
public record NameClasses(
    @In(does = "What has classes: clusters, a class map, or classified objects.")
    ObjectSet classes,

    @Setting(
        label = "Names",
        does =
            "Old and new names, separated by commas, e.g. cluster 1=water,cluster 4=water,cluster 2=roof; with nothing behind the = a"
                + " class is none any more.",
        initial = "auto")
    List<String> names,

    @Setting(
        label = "Colours",
        does =
            "Colours of classes, separated by commas, e.g. water=#0072B2; auto keeps those that there are, and finds others for new names.",
        initial = "auto")
    List<String> colours)
    implements Step<ObjectSet> {

  private static final String COLOUR = "#[0-9A-Fa-f]{6}";
  private static final String NEAREST = "nearest";

  @Override
  public ObjectSet run(Job job) {
    Table.Column before = ClassMap.classesOf(classes);
    Map<String, String> renamed = pairs(names);
    ClassMap.asked(List.copyOf(renamed.keySet()), before.categories());
    List<String> after = new ArrayList<>();
    for (int row = 0; row < classes.count(); row++) {
      String name = renamed.getOrDefault(before.text(row), before.text(row));
      after.add(name.isEmpty() ? null : name);
    }
    if (after.stream().allMatch(java.util.Objects::isNull)) {
      throw new RasterException("No class would be left. Give at least one of them a name.");
    }
    Map<String, String> colourOf = colours(after, renamed.isEmpty());
    Table.Column newClasses = Table.Column.ofTexts(ClassMap.CLASS, "Class", after);
    Table.Column newColours = Table.Column.ofTexts(
        ClassMap.COLOUR,
        "Colour",
        after.stream().map(name -> name == null ? null : colourOf.get(name)).toList());
    Table table = classes.table().with(List.of(newClasses, newColours));
    if (table.has(NEAREST) && table.column(NEAREST).isText()) {
      table = table.with(List.of(renamed(table.column(NEAREST), renamed)));
    }
    ObjectSet named = classes.withTable(table);
    return ClassMap.isMap(classes) ? joined(named, colourOf, job) : named;
  }

  /** What is said of other classes calls them by their new names. */
  private static Table.Column renamed(Table.Column column, Map<String, String> renamed) {
    List<String> texts = new ArrayList<>();
    for (int row = 0; row < column.values().length; row++) {
      String now = renamed.getOrDefault(column.text(row), column.text(row));
      texts.add(now.isEmpty() ? null : now);
    }
    return Table.Column.ofTexts(column.name(), column.title(), texts);
  }

  /** Of a class map each class is one object again. */
  private static ObjectSet joined(ObjectSet named, Map<String, String> colourOf, Job job) {
    int[] kept = IntStream.range(0, named.count())
        .filter(row -> !named.table().column(ClassMap.CLASS).text(row).isEmpty())
        .toArray();
    ObjectSet some = named.select(kept);
    List<String> order = IntStream.range(0, some.count())
        .mapToObj(row -> some.table().column(ClassMap.CLASS).text(row))
        .distinct()
        .toList();
    if (order.size() == some.count()) {
      return some;
    }
    ClassMap map = ClassMap.of(some, job);
    ScratchLabels labels = new ScratchLabels(map.labels().grid());
    int[] place = map.classes().stream().mapToInt(order::indexOf).toArray();
    ClassMap.eachStrip(labels.grid(), job, rows -> {
      int[] values = new int[rows.area()];
      map.labels().read(rows, values);
      for (int i = 0; i < values.length; i++) {
        values[i] = values[i] == 0 ? 0 : 1 + place[values[i] - 1];
      }
      labels.write(rows, values);
    });
    labels.setMaxLabel(order.size());
    return new ClassMap(labels, order, order.stream().map(colourOf::get).toList(), map.ground())
        .objects(job);
  }

  private static Map<String, String> pairs(List<String> texts) {
    Map<String, String> pairs = new LinkedHashMap<>();
    for (String text : texts) {
      int sign = text.lastIndexOf('=');
      if (sign < 1) {
        throw new RasterException("'" + text.strip()
            + "' is no pair: write what there is, = and what it is to be, e.g. cluster 1=water.");
      }
      pairs.put(text.substring(0, sign).strip(), text.substring(sign + 1).strip());
    }
    return pairs;
  }

  /** The colour of each class: as given, as it was, or the next that is free. */
  private Map<String, String> colours(List<String> after, boolean keepsAll) {
    Map<String, String> given = pairs(colours);
    List<String> names =
        after.stream().filter(java.util.Objects::nonNull).distinct().toList();
    given.forEach((name, colour) -> {
      ClassMap.asked(List.of(name), names);
      if (!colour.matches(COLOUR)) {
        throw new RasterException("The colour of '" + name + "' is '" + colour
            + "'; it should be #RRGGBB, such as #E69F00.");
      }
    });
    Table table = classes.table();
    boolean coloured =
        table.has(ClassMap.COLOUR) && table.column(ClassMap.COLOUR).isText();
    Map<String, String> found = new LinkedHashMap<>(given);
    Table.Column before = table.column(ClassMap.CLASS);
    for (int row = 0; coloured && row < classes.count(); row++) {
      String colour = table.column(ClassMap.COLOUR).text(row);
      boolean same = before.text(row).equals(after.get(row));
      if (after.get(row) != null && !colour.isEmpty() && (keepsAll || same)) {
        found.putIfAbsent(after.get(row), colour);
      }
    }
    List<String> usual = ClassMap.colours(names);
    int next = 0;
    for (String name : names) {
      while (!found.containsKey(name)
          && next < usual.size() - 1
          && found.containsValue(usual.get(next))) {
        next++;
      }
      found.putIfAbsent(name, usual.get(next));
    }
    return found;
  }
}
