package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Mends objects: joins, grows, fills, splits, or takes finer ones in part of the scene. */
@StepInfo(
    id = "refine-objects",
    stage = Stage.SEGMENT,
    title = "Refine objects",
    makes = "Refined",
    redrawsObjects = true,
    does =
        "Mends objects where one grain does not fit all: joins those that pass a test, dissolves small ones, grows some into"
            + " their neighbours, fills holes, splits at necks, or takes finer objects inside of some. What comes out has areas"
            + " only and is to be measured again.")
public record RefineObjects(
    @In(does = "The objects to mend, measured as far as tests need it.")
    ObjectSet objects,

    @In(
        does = "Finer objects on the same pixels, for the operation finer.",
        optional = true,
        byHand = true,
        when = "operation=finer")
    Optional<ObjectSet> finer,

    @Setting(
        label = "Operation",
        does =
            "merge: neighbours that both pass the test become one; dissolve: objects under the area go into a neighbour; grow:"
                + " objects that pass the test take neighbours that pass the second; fill-holes: what one object surrounds"
                + " joins it; split-necks: objects that pass fall apart at necks; finer: objects that pass are replaced by the"
                + " finer ones in them.",
        initial = "merge")
    Operation operation,

    @Setting(
        label = "Test",
        does = "CQL2 test of the objects that are meant, e.g. ndvi > 0.4; empty: all.",
        initial = "auto")
    Optional<String> test,

    @Setting(
        label = "Same",
        does =
            "Column of texts, such as a class: only neighbours that have the same text become one; empty: all.",
        initial = "auto",
        when = "operation=merge")
    Optional<String> same,

    @Setting(
        label = "Grow into",
        does = "CQL2 test of the neighbours that are taken in.",
        initial = "auto",
        when = "operation=grow")
    Optional<String> into,

    @Setting(
        label = "Rounds",
        does = "How many rings of neighbours are taken in at most.",
        min = 1,
        max = 1000,
        initial = "1",
        when = "operation=grow")
    int rounds,

    @Setting(
        label = "Area",
        does = "Objects, or holes, under this area.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "10",
        when = {"operation=dissolve", "operation=fill_holes"})
    double area,

    @Setting(
        label = "Into",
        does =
            "Which neighbour takes a small object: that with the longest common border, or the one most like it in the means"
                + " of all bands.",
        initial = "longest_border",
        when = "operation=dissolve")
    Neighbour neighbour,

    @Setting(
        label = "Neck",
        does =
            "Objects fall apart where they are no wider than this; auto is 3 m, never under 3 pixels.",
        unit = "m",
        min = 0.01,
        max = 1000,
        initial = "auto",
        when = "operation=split_necks")
    double neck)
    implements Step<ObjectSet> {

  /** What is done. */
  public enum Operation {
    MERGE,
    DISSOLVE,
    GROW,
    FILL_HOLES,
    SPLIT_NECKS,
    FINER
  }

  /** Which neighbour takes a small object. */
  public enum Neighbour {
    LONGEST_BORDER,
    MOST_SIMILAR
  }

  public RefineObjects {
    test.ifPresent(Cql2::parseTest);
    into.ifPresent(Cql2::parseTest);
    if (operation == Operation.GROW && into.isEmpty()) {
      throw new RasterException(
          "Growing needs a test of the neighbours that are taken in, e.g. brightness < 0.1 (--into).");
    }
    if (operation == Operation.FINER && finer.isEmpty()) {
      throw new RasterException(
          "The operation 'finer' needs the finer objects: a cut of the same tree at a smaller grain (--finer).");
    }
  }

  @Override
  public ObjectSet run(Job job) {
    if (objects.count() == 0) {
      throw new RasterException("There are no objects to refine: the object set is empty.");
    }
    boolean[] meant = Selection.of(objects.table(), test.orElse(""));
    return switch (operation) {
      case MERGE -> merge(meant, job);
      case DISSOLVE -> dissolve(meant, job);
      case GROW -> grow(meant, job);
      case FILL_HOLES -> fillHoles(meant, job);
      case SPLIT_NECKS -> splitNecks(meant, job);
      case FINER -> takeFiner(meant, finer.orElseThrow(), job);
    };
  }

  private Merging merging(Neighbours neighbours) {
    return new Merging(objects, neighbours, objects.table().values("area"));
  }

  private ObjectSet merge(boolean[] meant, Job job) {
    Table.Column texts = same.map(objects.table()::column).orElse(null);
    if (texts != null && !texts.isText()) {
      throw new RasterException(
          "'" + same.get() + "' holds numbers; give a column of texts, such as a class.");
    }
    Neighbours neighbours = Neighbours.of(objects, job);
    Merging merging = merging(neighbours);
    for (int i = 0; i < meant.length; i++) {
      for (int k = 0; k < neighbours.count(i) && meant[i]; k++) {
        int other = neighbours.neighbour(i, k);
        boolean alike = texts == null || texts.text(i).equals(texts.text(other));
        if (meant[other] && alike) {
          merging.join(i, other);
        }
      }
    }
    return merging.result();
  }

  private ObjectSet dissolve(boolean[] meant, Job job) {
    double[] areas = objects.table().values("area").clone();
    for (int i = 0; i < areas.length; i++) {
      areas[i] = meant[i] ? areas[i] : Math.max(areas[i], area);
    }
    Merging merging = new Merging(objects, Neighbours.of(objects, job), areas);
    List<Table.Column> means = objects.table().columns().stream()
        .filter(c -> c.name().endsWith("_mean") && !c.name().startsWith("height"))
        .toList();
    if (neighbour == Neighbour.MOST_SIMILAR && means.isEmpty()) {
      throw new RasterException(
          "To know which neighbour is most like an object, the means of bands are needed: measure the objects first.");
    }
    double[] own = objects.table().values("area");
    merging.dissolve(
        area,
        neighbour == Neighbour.LONGEST_BORDER
            ? (object, other, sides) -> sides
            : (object, other, sides) -> -unlikeness(merging, means, own, object, other));
    ObjectSet result = merging.result();
    return result.withTable(withTrueAreas(result));
  }

  /** What was held back from dissolving by a larger area has its own again. */
  private Table withTrueAreas(ObjectSet result) {
    double[] areas = new double[result.count()];
    double[] own = objects.table().values("area");
    boolean[] seen = new boolean[own.length];
    for (int label = 0; label < result.rowOf().length; label++) {
      int before = objects.rowOf()[label];
      if (before >= 0 && !seen[before]) {
        seen[before] = true;
        areas[result.rowOf()[label]] += own[before];
      }
    }
    List<Table.Column> columns = new ArrayList<>(result.table().columns());
    columns.set(0, FeatureCatalogue.column("area", areas));
    return new Table(areas.length, columns);
  }

  private static double unlikeness(
      Merging merging, List<Table.Column> means, double[] areas, int a, int b) {
    double square = 0;
    for (Table.Column column : means) {
      double d = mean(merging.members(a), column.values(), areas)
          - mean(merging.members(b), column.values(), areas);
      square += d * d;
    }
    return square;
  }

  private static double mean(List<Integer> members, double[] values, double[] areas) {
    double sum = 0;
    double total = 0;
    for (int member : members) {
      sum += areas[member] * values[member];
      total += areas[member];
    }
    return sum / total;
  }

  private ObjectSet grow(boolean[] meant, Job job) {
    Neighbours neighbours = Neighbours.of(objects, job);
    Merging merging = merging(neighbours);
    boolean[] takes = Selection.of(objects.table(), into.orElse(""));
    int[] owner = new int[meant.length];
    Arrays.setAll(owner, i -> meant[i] ? i : -1);
    for (int round = 0; round < rounds; round++) {
      job.cancellation().check();
      int[] next = owner.clone();
      boolean any = false;
      for (int i = 0; i < owner.length; i++) {
        if (owner[i] >= 0 || !takes[i]) {
          continue;
        }
        // the one that touches it most takes it; ties to the lower object
        Map<Integer, Integer> claims = new HashMap<>();
        for (int k = 0; k < neighbours.count(i); k++) {
          int by = owner[neighbours.neighbour(i, k)];
          if (by >= 0) {
            claims.merge(by, neighbours.sides(i, k), Integer::sum);
          }
        }
        for (var claim : claims.entrySet()) {
          boolean better = next[i] < 0
              || claim.getValue() > claims.get(next[i])
              || claim.getValue().equals(claims.get(next[i])) && claim.getKey() < next[i];
          next[i] = better ? claim.getKey() : next[i];
          any = true;
        }
      }
      owner = next;
      if (!any) {
        break;
      }
    }
    for (int i = 0; i < owner.length; i++) {
      if (owner[i] >= 0 && owner[i] != i) {
        merging.join(owner[i], i);
      }
    }
    return merging.result();
  }

  private ObjectSet fillHoles(boolean[] meant, Job job) {
    Merging merging = merging(Neighbours.of(objects, job));
    Holes.fill(merging, objects, area, meant, job);
    return merging.result();
  }

  private ObjectSet splitNecks(boolean[] meant, Job job) {
    ObjectGeometry geometry = ObjectGeometry.of(objects);
    Redrawing redrawing = new Redrawing(objects, job);
    double width = Double.isNaN(neck) ? objects.ground().lengthOf(3, 3) : neck;
    double half = width / objects.ground().mean() / 2;
    int large = 0;
    for (int i = 0; i < meant.length; i++) {
      job.cancellation().check();
      Window bounds = geometry.bounds(i);
      boolean fits = (long) bounds.width() * bounds.height() <= Necks.MOST;
      large += meant[i] && !fits ? 1 : 0;
      if (!meant[i] || !fits) {
        continue;
      }
      int[] parts = Necks.parts(geometry.mask(i), bounds, half);
      int most = Arrays.stream(parts).max().orElse(1);
      if (most > 1) {
        // the first part keeps the object's number
        int[] numbers = new int[most + 1];
        for (int part = 2; part <= most; part++) {
          numbers[part] = redrawing.add(i);
        }
        int[] drawn = new int[bounds.area()];
        redrawing.labels().read(bounds, drawn);
        for (int k = 0; k < drawn.length; k++) {
          drawn[k] = parts[k] > 1 ? numbers[parts[k]] : drawn[k];
        }
        redrawing.labels().write(bounds, drawn);
      }
    }
    if (large > 0) {
      job.warn(large + " objects were not looked at for necks: each spans over "
          + Necks.MOST / 1_000_000 + " million pixels. A test, e.g. area < 5000, leaves such out.");
    }
    return redrawing.result(job);
  }

  private ObjectSet takeFiner(boolean[] meant, ObjectSet fine, Job job) {
    if (!fine.labels().grid().equals(objects.labels().grid())) {
      throw new RasterException(
          "The finer objects lie on other pixels than the objects. Give a finer cut of the same scene.");
    }
    Redrawing redrawing = new Redrawing(objects, job);
    int width = objects.labels().grid().width();
    Map<Long, Integer> numbers = new HashMap<>();
    boolean[] taken = new boolean[objects.count()];
    int[] row = new int[width];
    int[] theirs = new int[width];
    for (int y = 0; y < objects.labels().grid().height(); y++) {
      job.cancellation().check();
      Window line = new Window(0, y, width, 1);
      redrawing.labels().read(line, row);
      fine.labels().read(line, theirs);
      for (int x = 0; x < width; x++) {
        int own = row[x] - 1;
        int finer = own >= 0 && meant[own] ? fine.rowOf()[theirs[x]] : -1;
        if (finer >= 0) {
          row[x] = numbers.computeIfAbsent((long) own << 32 | finer, key -> {
            // the first finer one keeps the object's number
            boolean first = !taken[own];
            taken[own] = true;
            return first ? own + 1 : redrawing.add(own);
          });
        }
      }
      redrawing.labels().write(line, row);
    }
    return redrawing.result(job);
  }
}
