package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.classmap.Patches;
import sharpkestrel.geo.LocalArea;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Makes an object of each patch of a class. */
@StepInfo(
    id = "class-objects",
    stage = Stage.EXTRACT,
    family = "Classes",
    title = "Class objects",
    next = "Clean classes: which of their patches are things?",
    nextFor = Suits.CLASS_MAP,
    makes = "Objects of classes",
    redrawsObjects = true,
    does =
        "Makes an object of what hangs together of each class, side by side; neighbours of one class become one. What comes out has its class"
            + " and its area, and can be measured, winnowed and outlined.")
public record ClassObjects(
    @In(does = "What has classes: a class map, clusters, or classified objects.")
    ObjectSet classes,

    @Setting(
        label = "Classes",
        does = "Which classes are wanted, separated by commas; auto is all.",
        initial = "auto")
    List<String> wanted,

    @Setting(
        label = "Least area",
        does = "Smaller ones are left out.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "0")
    double leastArea)
    implements Step<ObjectSet> {

  @Override
  public ObjectSet run(Job job) {
    ClassMap map = ClassMap.of(classes, job);
    List<String> asked = ClassMap.asked(wanted, map.classes());
    Patches patches = Patches.of(map.labels(), job);
    double[] areas = areas(patches, map, job);
    int[] kept = IntStream.rangeClosed(1, patches.count())
        .filter(p -> asked.isEmpty() || asked.contains(map.classes().get(patches.classOf(p) - 1)))
        .filter(p -> areas[p] >= leastArea)
        .toArray();
    int[] rowOf = new int[patches.count() + 1];
    java.util.Arrays.fill(rowOf, -1);
    List<String> names = new ArrayList<>();
    List<String> colours = new ArrayList<>();
    for (int row = 0; row < kept.length; row++) {
      rowOf[kept[row]] = row;
      names.add(map.classes().get(patches.classOf(kept[row]) - 1));
      colours.add(map.colours().get(patches.classOf(kept[row]) - 1));
    }
    Table table = new Table(
        kept.length,
        List.of(
            new Table.Column(
                "area",
                "Area",
                map.ground().areaUnit(),
                IntStream.of(kept).mapToDouble(p -> areas[p]).toArray()),
            Table.Column.ofTexts(ClassMap.CLASS, "Class", names),
            Table.Column.ofTexts(ClassMap.COLOUR, "Colour", colours)));
    return new ObjectSet(patches.labels(), rowOf, kept, table, map.ground());
  }

  private static double[] areas(Patches patches, ClassMap map, Job job) {
    double[] areas = new double[patches.count() + 1];
    LocalArea local = LocalArea.of(patches.labels().grid());
    if (local.isEven()) {
      java.util.Arrays.setAll(areas, p -> patches.pixels(p) * map.ground().area());
      return areas;
    }
    ClassMap.eachStrip(patches.labels().grid(), job, rows -> {
      int[] values = new int[rows.area()];
      patches.labels().read(rows, values);
      for (int i = 0; i < values.length; i++) {
        areas[values[i]] += map.ground().area()
            * local.at(i % rows.width() + 0.5, rows.y() + i / rows.width() + 0.5);
      }
    });
    return areas;
  }
}
