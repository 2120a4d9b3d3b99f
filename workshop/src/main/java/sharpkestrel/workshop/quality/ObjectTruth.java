package sharpkestrel.workshop.quality;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.demo.Survey;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** What each object is in truth: what covers it, in nine classes, or what roof it is. */
final class ObjectTruth {

  private static final List<String> COVER = List.of(
      "water",
      "weed",
      "shore and rock",
      "grass and field",
      "moor",
      "trees",
      "sealed",
      "building",
      "thing");

  private static final int MOST_CODES = 64;

  /** For each number of the survey's cover map the place of its class. */
  private static final int[] CLASS_OF = classOf();

  private final List<String> classes;
  private final float[] pixels;

  private ObjectTruth(List<String> classes, float[] pixels) {
    this.classes = classes;
    this.pixels = pixels;
  }

  List<String> classes() {
    return classes;
  }

  /** What roofs are made of; of objects of which less than half is roof nothing is said. */
  static ObjectTruth ofRoofs(ObjectSet objects, OutlineSet roofs) {
    Table.Column materials = roofs.table().column("material");
    List<String> names = materials.categories();
    float[] counts = new float[objects.count() * names.size()];
    for (int i = 0; i < roofs.count(); i++) {
      PolygonFill fill =
          new PolygonFill(roofs.outlines().get(i), objects.labels().grid());
      Window under = fill.bounds(0).intersect(objects.labels().grid().window());
      if (under.isEmpty()) {
        continue;
      }
      boolean[] inside = fill.fill(0, under);
      int[] labels = new int[under.area()];
      objects.labels().read(under, labels);
      for (int k = 0; k < labels.length; k++) {
        int object = objects.rowOf()[labels[k]];
        if (inside[k] && object >= 0) {
          counts[object * names.size() + (int) materials.values()[i]]++;
        }
      }
    }
    double[] areas = objects.table().values("area");
    for (int object = 0; object < areas.length; object++) {
      int from = object * names.size();
      double roof = 0;
      for (int k = 0; k < names.size(); k++) {
        roof += counts[from + k];
      }
      if (roof < areas[object] / objects.ground().area() / 2) {
        Arrays.fill(counts, from, from + names.size(), 0);
      }
    }
    return new ObjectTruth(names, counts);
  }

  private static int[] classOf() {
    int[] classOf = new int[MOST_CODES];
    Arrays.fill(classOf, -1);
    int[][] codes = {
      {1, 2},
      {3},
      {4, 10, 15},
      {5, 6, 7},
      {8, 9},
      {11},
      {12, 13, 14},
      {16, 20, 21, 22, 23, 24},
      {30, 31, 32, 33, 34, 35, 36, 37, 38, 39}
    };
    for (int k = 0; k < codes.length; k++) {
      for (int code : codes[k]) {
        classOf[code] = k;
      }
    }
    return classOf;
  }

  /** Looked up in the cover map of scene one, which lies as a true ortho does. */
  static ObjectTruth ofCover(ObjectSet objects, Survey survey) {
    Grid grid = objects.labels().grid();
    float[] counts = new float[objects.count() * COVER.size()];
    Raster cover = RasterFiles.open(survey.truth("scene-one", "cover.tif"));
    int width = cover.grid().width();
    int height = cover.grid().height();
    float[] codes = cover.read(0, new Window(0, 0, width, height), Request.BACKGROUND)[0];
    Affine toCover = cover.grid().affine().inverse().after(grid.affine());
    int[] line = new int[grid.width()];
    for (int y = 0; y < grid.height(); y++) {
      objects.labels().read(new Window(0, y, line.length, 1), line);
      for (int x = 0; x < line.length; x++) {
        int object = objects.rowOf()[line[x]];
        int col = (int) Math.floor(toCover.x(x + 0.5, y + 0.5));
        int row = (int) Math.floor(toCover.y(x + 0.5, y + 0.5));
        boolean inside = col >= 0 && row >= 0 && col < width && row < height;
        int code = inside && object >= 0 ? (int) codes[row * width + col] : 0;
        if (code > 0) {
          counts[object * COVER.size() + CLASS_OF[code]]++;
        }
      }
    }
    return new ObjectTruth(COVER, counts);
  }

  /** The commonest class of an object; -1 where the map does not reach. */
  int most(int object) {
    return Confusion.most(pixels, object * classes.size(), classes.size());
  }

  /** Pixels of an object that are of a class. */
  float pixels(int object, int ofClass) {
    return pixels[object * classes.size() + ofClass];
  }

  /** The share of an object that its commonest class has. */
  double purity(int object) {
    double all = 0;
    for (int k = 0; k < classes.size(); k++) {
      all += pixels(object, k);
    }
    return most(object) < 0 ? 0 : pixels(object, most(object)) / all;
  }
}
