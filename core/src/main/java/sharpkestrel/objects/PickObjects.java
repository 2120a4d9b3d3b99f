package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Objects picked one by one from a merge tree. */
@StepInfo(
    id = "pick-objects",
    stage = Stage.SEGMENT,
    title = "Pick",
    makes = "Picked",
    does =
        "Takes single objects out of a merge tree, each by a place in it and its area, whatever grain it is of. Clicking on the"
            + " picture finds them.")
public record PickObjects(
    @In(does = "The tree: what 'segment' made, or the file it wrote (.tree.gpkg).")
    Cut tree,

    @Setting(
        label = "Places",
        does =
            "East, north and area in m² of each object, objects apart by ';', parts of one by '+', e.g. 512340.2 6702118.7 84.5;"
                + " 512300 6702100 60.")
    String places)
    implements Step<ObjectSet> {

  /** How far the area of a node may be from the one that is asked for. */
  private static final double NEAR = 0.02;

  /** A node of a tree as a place in it and its area. */
  public record Part(double east, double north, double area) {

    String toText() {
      return String.format(Locale.ROOT, "%.2f %.2f %.4f", east, north, area);
    }
  }

  public PickObjects {
    fromText(places);
  }

  /** Objects, each of its parts, as the setting takes them. */
  public static String toText(List<List<Part>> objects) {
    return String.join(
        "; ",
        objects.stream()
            .map(parts -> String.join(" + ", parts.stream().map(Part::toText).toList()))
            .toList());
  }

  /**
   * What {@link #toText} wrote.
   *
   * @throws RasterException where the text names no places
   */
  public static List<List<Part>> fromText(String text) {
    List<List<Part>> objects = new ArrayList<>();
    for (String object : text.split(";")) {
      if (object.isBlank()) {
        continue;
      }
      List<Part> parts = new ArrayList<>();
      for (String part : object.split("\\+")) {
        String[] numbers = part.strip().split("\\s+");
        try {
          if (numbers.length == 3) {
            parts.add(new Part(
                Double.parseDouble(numbers[0]),
                Double.parseDouble(numbers[1]),
                Double.parseDouble(numbers[2])));
            continue;
          }
        } catch (NumberFormatException notNumbers) {
          // told below
        }
        throw new RasterException(
            "A place is east, north and area, e.g. 512340.2 6702118.7 84.5, not '" + part.strip()
                + "'.");
      }
      objects.add(parts);
    }
    if (objects.isEmpty()) {
      throw new RasterException("No place is given, so there is nothing to pick.");
    }
    return objects;
  }

  @Override
  public ObjectSet run(Job job) {
    List<List<Part>> wanted = fromText(places);
    int[] nodePixels = Branch.pixelsOf(tree.tree());
    int[] rowOf = new int[tree.tree().leaves() + 1];
    Arrays.fill(rowOf, -1);
    double[] areas = new double[wanted.size()];
    int[] ids = new int[wanted.size()];
    for (int i = 0; i < wanted.size(); i++) {
      int[] nodes = new int[wanted.get(i).size()];
      for (int k = 0; k < nodes.length; k++) {
        nodes[k] = node(wanted.get(i).get(k), nodePixels);
      }
      ids[i] = nodes[0] + 1;
      int[] here = Branch.rowOf(tree.tree(), nodes);
      for (int label = 1; label < rowOf.length; label++) {
        // of objects that overlap the first one keeps what is theirs
        if (here[label] == 0 && rowOf[label] < 0) {
          rowOf[label] = i;
          areas[i] += tree.tree().pixels(label - 1) * tree.ground().area();
        }
      }
    }
    for (int i = 0; i < areas.length; i++) {
      if (areas[i] == 0) {
        job.warn("Picked object " + (i + 1) + " lies within others and has no pixels of its own.");
      }
    }
    Table table = new Table(areas.length, List.of(FeatureCatalogue.column("area", areas)));
    return new ObjectSet(tree.superpixels(), rowOf, ids, table, tree.ground());
  }

  private int node(Part part, int[] nodePixels) {
    Affine toPixel = tree.superpixels().grid().affine().inverse();
    int[] label = new int[1];
    tree.superpixels()
        .read(
            new Window(
                (int) Math.floor(toPixel.x(part.east, part.north)),
                (int) Math.floor(toPixel.y(part.east, part.north)),
                1,
                1),
            label);
    double pixels = part.area / tree.ground().area();
    if (label[0] > 0) {
      for (int node = label[0] - 1; node >= 0; node = tree.tree().parent(node)) {
        if (Math.abs(nodePixels[node] - pixels) <= Math.max(0.5, NEAR * pixels)) {
          return node;
        }
      }
    }
    throw new RasterException(String.format(
        Locale.ROOT,
        "The tree has no object of %.1f m² at E %.1f N %.1f. It was picked from another tree: pick it again.",
        part.area,
        part.east,
        part.north));
  }
}
