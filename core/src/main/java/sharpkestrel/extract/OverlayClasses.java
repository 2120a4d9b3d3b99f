package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Lays several passes over each other into one map of classes. */
@StepInfo(
    id = "overlay-classes",
    stage = Stage.EXTRACT,
    family = "Classes",
    title = "Overlay",
    makes = "All classes",
    does =
        "Lays what several passes found over each other into one class map: where they say different things the first one given counts, or"
            + " the surer one. Where they differ can be shown as a map of its own.")
public record OverlayClasses(
    @In(
        does =
            "What has classes, in the order in which they count: found, classified or winnowed objects, class maps.")
    List<ObjectSet> passes,

    @Setting(
        label = "By",
        does =
            "What counts where passes differ. order: the first that says anything; probability: the one whose object is surer, by its"
                + " probability or score.",
        initial = "order")
    By by,

    @Setting(
        label = "Names",
        does =
            "Names for what passes found that has no class, separated by commas, one for each pass; auto is pass 1, pass 2.",
        initial = "auto")
    List<String> names,

    @Setting(
        label = "Show",
        does = "classes: the map; conflicts: where passes say different things, by what they say.",
        initial = "classes")
    Show show)
    implements Step<ObjectSet> {

  /** What counts where passes differ. */
  public enum By {
    ORDER,
    PROBABILITY
  }

  /** What comes out. */
  public enum Show {
    CLASSES,
    CONFLICTS
  }

  private static final List<String> SURE = List.of("probability", "score");

  /** A pass: its objects, the place of each one's class in the map, and how sure it is of it. */
  private record Pass(ObjectSet set, int[] classOf, double[] sure) {}

  @Override
  public ObjectSet run(Job job) {
    Grid grid = passes.getFirst().labels().grid();
    for (int p = 1; p < passes.size(); p++) {
      if (!passes.get(p).labels().grid().equals(grid)) {
        throw new RasterException("Pass " + (p + 1)
            + " lies on other pixels than the first. Overlay what was made from one scene.");
      }
    }
    TreeSet<String> all = new TreeSet<>();
    for (int p = 0; p < passes.size(); p++) {
      for (int row = 0; row < passes.get(p).count(); row++) {
        String name = nameOf(p, row);
        if (!name.isEmpty()) {
          all.add(name);
        }
      }
    }
    if (all.isEmpty()) {
      throw new RasterException("None of the " + passes.size() + " passes found anything.");
    }
    List<String> classes = new ArrayList<>(all);
    List<Pass> read = new ArrayList<>();
    for (int p = 0; p < passes.size(); p++) {
      read.add(pass(p, classes));
    }
    return show == Show.CLASSES ? classes(read, classes, job) : conflicts(read, classes, job);
  }

  private String nameOf(int pass, int row) {
    Table table = passes.get(pass).table();
    boolean named = table.has(ClassMap.CLASS) && table.column(ClassMap.CLASS).isText();
    return named
        ? table.column(ClassMap.CLASS).text(row)
        : pass < names.size() ? names.get(pass).strip() : "pass " + (pass + 1);
  }

  private Pass pass(int place, List<String> classes) {
    ObjectSet set = passes.get(place);
    int[] classOf = new int[set.count()];
    double[] sure = new double[set.count()];
    String column = SURE.stream().filter(set.table()::has).findFirst().orElse("");
    if (by == By.PROBABILITY && column.isEmpty()) {
      throw new RasterException(
          "Pass " + (place + 1)
              + " has neither probability nor score, so that nothing says how sure it is. Overlay by order, or give what was classified or found.");
    }
    for (int row = 0; row < classOf.length; row++) {
      classOf[row] = classes.indexOf(nameOf(place, row));
      sure[row] = column.isEmpty() ? 0 : set.table().values(column)[row];
    }
    return new Pass(set, classOf, sure);
  }

  /** What each pass says of each pixel of some rows: rows of its table, -1 for nothing. */
  private static int[][] said(List<Pass> read, sharpkestrel.raster.Window rows) {
    int[][] said = new int[read.size()][rows.area()];
    for (int p = 0; p < said.length; p++) {
      Pass pass = read.get(p);
      pass.set.labels().read(rows, said[p]);
      for (int i = 0; i < said[p].length; i++) {
        int row = pass.set.rowOf()[said[p][i]];
        said[p][i] = row < 0 || pass.classOf[row] < 0 ? -1 : row;
      }
    }
    return said;
  }

  private ObjectSet classes(List<Pass> read, List<String> classes, Job job) {
    Grid grid = passes.getFirst().labels().grid();
    ScratchLabels labels = new ScratchLabels(grid);
    long[] differing = new long[classes.size()];
    ClassMap.eachStrip(grid, job, rows -> {
      int[][] said = said(read, rows);
      int[] chosen = new int[rows.area()];
      for (int i = 0; i < chosen.length; i++) {
        int best = -1;
        boolean differs = false;
        for (int p = 0; p < said.length; p++) {
          if (said[p][i] < 0) {
            continue;
          }
          Pass pass = read.get(p);
          boolean takes = best < 0
              || by == By.PROBABILITY && pass.sure[said[p][i]] > read.get(best).sure[said[best][i]];
          differs |= best >= 0 && pass.classOf[said[p][i]] != read.get(best).classOf[said[best][i]];
          best = takes ? p : best;
        }
        if (best >= 0) {
          int ofClass = read.get(best).classOf[said[best][i]];
          chosen[i] = ofClass + 1;
          differing[ofClass] += differs ? 1 : 0;
        }
      }
      labels.write(rows, chosen);
    });
    labels.setMaxLabel(classes.size());
    ClassMap map = map(labels, classes);
    double[] conflict = new double[classes.size()];
    for (int k = 0; k < conflict.length; k++) {
      conflict[k] = differing[k] * map.ground().area();
    }
    return map.objects(
        List.of(new Table.Column("contested", "Contested", map.ground().areaUnit(), conflict)),
        job);
  }

  private ClassMap map(ScratchLabels labels, List<String> classes) {
    return new ClassMap(
        labels, classes, ClassMap.colours(classes), passes.getFirst().ground());
  }

  private ObjectSet conflicts(List<Pass> read, List<String> classes, Job job) {
    Grid grid = passes.getFirst().labels().grid();
    ScratchLabels labels = new ScratchLabels(grid);
    List<String> pairs = new ArrayList<>();
    ClassMap.eachStrip(grid, job, rows -> {
      int[][] said = said(read, rows);
      int[] chosen = new int[rows.area()];
      for (int i = 0; i < chosen.length; i++) {
        if (differ(read, said, i)) {
          TreeSet<String> here = new TreeSet<>();
          for (int p = 0; p < said.length; p++) {
            if (said[p][i] >= 0) {
              here.add(classes.get(read.get(p).classOf[said[p][i]]));
            }
          }
          String pair = String.join(" or ", here);
          if (!pairs.contains(pair)) {
            pairs.add(pair);
          }
          chosen[i] = 1 + pairs.indexOf(pair);
        }
      }
      labels.write(rows, chosen);
    });
    labels.setMaxLabel(pairs.size());
    if (pairs.isEmpty()) {
      job.warn("The passes nowhere say different things.");
    }
    return map(labels, pairs).objects(job);
  }

  private static boolean differ(List<Pass> read, int[][] said, int pixel) {
    int first = -1;
    for (int p = 0; p < said.length; p++) {
      int ofClass = said[p][pixel] < 0 ? -1 : read.get(p).classOf[said[p][pixel]];
      if (ofClass >= 0 && first >= 0 && ofClass != first) {
        return true;
      }
      first = first < 0 ? ofClass : first;
    }
    return false;
  }
}
