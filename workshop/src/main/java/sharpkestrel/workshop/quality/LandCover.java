package sharpkestrel.workshop.quality;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.demo.Survey;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** What covers each object in truth, in nine classes. */
final class LandCover {

  static final List<String> CLASSES = List.of(
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

  private final float[] pixels;

  private LandCover(float[] pixels) {
    this.pixels = pixels;
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
  static LandCover of(ObjectSet objects, Survey survey) {
    Grid grid = objects.labels().grid();
    float[] counts = new float[objects.count() * CLASSES.size()];
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
          counts[object * CLASSES.size() + CLASS_OF[code]]++;
        }
      }
    }
    return new LandCover(counts);
  }

  /** The commonest class of an object; -1 where the map does not reach. */
  int most(int object) {
    return Confusion.most(pixels, object * CLASSES.size(), CLASSES.size());
  }

  /** Pixels of an object that are of a class. */
  float pixels(int object, int ofClass) {
    return pixels[object * CLASSES.size() + ofClass];
  }

  /** The share of an object that its commonest class has. */
  double purity(int object) {
    double all = 0;
    for (int k = 0; k < CLASSES.size(); k++) {
      all += pixels(object, k);
    }
    return most(object) < 0 ? 0 : pixels(object, most(object)) / all;
  }
}
