package sharpkestrel.extract.classmap;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.LocalArea;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Window;

/**
 * Every pixel has one of a few classes, or none. Kept as objects of which each is all there is of a class, with its name and colour in
 * the table: so a map of classes is drawn, listed, written and outlined like any objects.
 *
 * @param labels 1 to the number of classes; 0 for none
 * @param colours as {@code #RRGGBB}
 */
public record ClassMap(
    LabelRaster labels, List<String> classes, List<String> colours, GroundSize ground) {

  public static final String CLASS = "class";
  public static final String COLOUR = "colour";

  private static final int STRIP = 256;

  public ClassMap {
    classes = List.copyOf(classes);
    colours = List.copyOf(colours);
    if (classes.size() != colours.size()) {
      throw new IllegalArgumentException("Classes and colours differ in number.");
    }
  }

  /** Colours for names, in the order in which a class list gives them. */
  public static List<String> colours(List<String> names) {
    ClassList list = ClassList.EMPTY;
    for (String name : names) {
      list = list.with(name);
    }
    return list.classes().stream().map(ClassList.Entry::colour).toList();
  }

  /** The same, but as samples have them that tell the colours of their classes. */
  public static List<String> colours(List<String> names, Optional<OutlineSet> samples) {
    List<String> colours = new ArrayList<>(colours(names));
    samples
        .map(OutlineSet::table)
        .filter(table -> table.has(CLASS) && table.has(COLOUR))
        .ifPresent(table -> {
          for (int row = 0; row < table.rows(); row++) {
            int place = names.indexOf(table.column(CLASS).text(row));
            String colour = table.column(COLOUR).text(row);
            if (place >= 0 && !colour.isEmpty()) {
              colours.set(place, colour);
            }
          }
        });
    return colours;
  }

  /**
   * The colour of each of some things by its class.
   *
   * @param names of the things' classes; null for none
   * @param classes all there are, in the order in which colours are given
   */
  public static List<String> coloursOf(List<String> names, List<String> classes) {
    List<String> colours = colours(classes);
    List<String> found = new ArrayList<>();
    for (String name : names) {
      found.add(name == null ? null : colours.get(classes.indexOf(name)));
    }
    return found;
  }

  /**
   * The classes of objects, whichever of them they are; colours as they have them.
   *
   * @throws RasterException where they have no classes
   */
  public static ClassMap of(ObjectSet set, Job job) {
    Table.Column classes = classesOf(set);
    List<String> names = classes.categories();
    List<String> colours = new ArrayList<>(colours(names));
    boolean coloured = set.table().has(COLOUR) && set.table().column(COLOUR).isText();
    int[] labelOf = new int[set.rowOf().length];
    for (int label = 0; label < labelOf.length; label++) {
      int row = set.rowOf()[label];
      labelOf[label] =
          row < 0 || Double.isNaN(classes.values()[row]) ? 0 : 1 + (int) classes.values()[row];
    }
    for (int row = 0; coloured && row < set.count(); row++) {
      String colour = set.table().column(COLOUR).text(row);
      if (!Double.isNaN(classes.values()[row]) && !colour.isEmpty()) {
        colours.set((int) classes.values()[row], colour);
      }
    }
    ScratchLabels labels = new ScratchLabels(set.labels().grid());
    eachStrip(set.labels().grid(), job, rows -> {
      int[] values = new int[rows.area()];
      set.labels().read(rows, values);
      Arrays.setAll(values, i -> labelOf[values[i]]);
      labels.write(rows, values);
    });
    labels.setMaxLabel(names.size());
    return new ClassMap(labels, names, colours, set.ground());
  }

  /**
   * The column that holds the classes of objects.
   *
   * @throws RasterException where there is none
   */
  public static Table.Column classesOf(ObjectSet set) {
    if (!set.table().has(CLASS) || !set.table().column(CLASS).isText()) {
      throw new RasterException(
          "The objects have no classes: there is no column of texts called 'class'. Give objects that were classified, clustered or found, or a class map.");
    }
    return set.table().column(CLASS);
  }

  /**
   * Names as they are given in a setting, stripped.
   *
   * @param known classes that there are
   * @throws RasterException for one that is none of them
   */
  public static List<String> asked(List<String> given, List<String> known) {
    List<String> asked = given.stream().map(String::strip).toList();
    for (String each : asked) {
      if (!known.contains(each)) {
        throw new RasterException(
            "There is no class '" + each + "'; there are " + String.join(", ", known) + ".");
      }
    }
    return asked;
  }

  /** Whether each object is all there is of its class. */
  public static boolean isMap(ObjectSet set) {
    if (!set.table().has(CLASS) || !set.table().column(CLASS).isText()) {
      return false;
    }
    Table.Column classes = set.table().column(CLASS);
    return set.table().has(COLOUR)
        && set.table().has("share")
        && set.count() == classes.categories().size()
        && Arrays.stream(classes.values()).distinct().count() == set.count();
  }

  /** Whether most classes are clusters that nobody has named. */
  public static boolean hasUnnamedClusters(ObjectSet set) {
    if (!set.table().has(CLASS) || !set.table().column(CLASS).isText()) {
      return false;
    }
    List<String> names = set.table().column(CLASS).categories();
    return 2 * names.stream().filter(name -> name.matches("cluster \\d+")).count() > names.size();
  }

  /** What is done with some rows of a grid. */
  public interface Strip {
    void run(Window rows);
  }

  /** Rows from the top, some at a time. */
  public static void eachStrip(Grid grid, Job job, Strip strip) {
    for (int top = 0; top < grid.height(); top += STRIP) {
      job.cancellation().check();
      strip.run(new Window(0, top, grid.width(), STRIP).intersect(grid.window()));
    }
  }

  /** Area of each class in the ground's unit. */
  public double[] areas(Job job) {
    double[] areas = new double[classes.size()];
    Grid grid = labels.grid();
    LocalArea local = LocalArea.of(grid);
    eachStrip(grid, job, rows -> {
      int[] values = new int[rows.area()];
      labels.read(rows, values);
      for (int i = 0; i < values.length; i++) {
        if (values[i] > 0) {
          areas[values[i] - 1] += local.isEven()
              ? 1
              : local.at(i % rows.width() + 0.5, rows.y() + i / rows.width() + 0.5);
        }
      }
    });
    for (int k = 0; k < areas.length; k++) {
      areas[k] *= ground.area();
    }
    return areas;
  }

  /** As objects; classes without a pixel are left out. */
  public ObjectSet objects(Job job) {
    return objects(List.of(), job);
  }

  /**
   * @param more columns with a value for each class
   */
  public ObjectSet objects(List<Table.Column> more, Job job) {
    double[] areas = areas(job);
    double all = Arrays.stream(areas).sum();
    double[] shares = Arrays.stream(areas).map(area -> 100 * area / all).toArray();
    List<Table.Column> columns = new ArrayList<>();
    columns.add(new Table.Column("area", "Area", ground.areaUnit(), areas));
    columns.add(Table.Column.ofTexts(CLASS, "Class", classes));
    columns.add(Table.Column.ofTexts(COLOUR, "Colour", colours));
    columns.add(new Table.Column("share", "Share", "%", shares));
    columns.addAll(more);
    int[] rowOf = new int[classes.size() + 1];
    int[] ids = new int[classes.size()];
    rowOf[0] = -1;
    for (int k = 0; k < ids.length; k++) {
      rowOf[k + 1] = k;
      ids[k] = k + 1;
    }
    ObjectSet whole = new ObjectSet(labels, rowOf, ids, new Table(ids.length, columns), ground);
    int[] there = java.util.stream.IntStream.range(0, ids.length)
        .filter(k -> areas[k] > 0)
        .toArray();
    return there.length == ids.length ? whole : whole.select(there);
  }
}
