package sharpkestrel.place;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Bilinear;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Which places a scene cannot show because something that stands on the ground hides them: from each place the ray towards
 * the sensor is followed over the surface model until it is above everything (Amhar, Jansa and Ries 1998, The generation
 * of true orthophotos, IAPRS 32(4), 16-22, by rays instead of a depth buffer).
 */
final class HiddenGround {

  /** Pixels of the grid between nodes; rays change slowly. */
  private static final int STEP = 32;
  /** Pixels of the surface model in a step along a ray. */
  private static final double STRIDE = 0.7;
  /** Pixels of the surface model near the place itself that are not asked: its own slope. */
  private static final double OWN = 1.5;
  /** Metres that something must rise above a ray to hide what is behind: the roughness of surface models. */
  private static final double RISE = 0.5;

  private static final double HEIGHT_STEP = 10;
  private static final int NUMBERS = 6;
  private static final int WIDEST_READ = 4096;

  private final Heights surface;
  private final Grid grid;
  private final ImageModel model;
  private final CoordinateMap toSurface;
  private final CoordinateMap toModel;

  HiddenGround(ImageModel model, Heights surface, Crs system, Grid grid) {
    this.surface = surface;
    this.grid = grid;
    this.model = model;
    Crs own = Crs.of(surface.model().grid().crs());
    toSurface = system.to(own);
    toModel = own.to(Crs.of(model.crs()));
  }

  /** For each pixel of a window at a level, row by row. */
  boolean[] in(int level, Window window, Request request) {
    int firstX = Math.floorDiv(window.x(), STEP);
    int firstY = Math.floorDiv(window.y(), STEP);
    int nodesX = Math.floorDiv(window.right() - 1, STEP) + 2 - firstX;
    int nodesY = Math.floorDiv(window.bottom() - 1, STEP) + 2 - firstY;
    double[] nodes = nodes(level, firstX, firstY, nodesX, nodesY);
    Surface under = read(nodes, request);
    boolean[] hidden = new boolean[window.area()];
    if (under == null) {
      return hidden;
    }
    double[] at = new double[NUMBERS];
    for (int i = 0; i < hidden.length; i++) {
      double u = (window.x() + i % window.width() + 0.5) / STEP - firstX;
      double v = (window.y() + i / window.width() + 0.5) / STEP - firstY;
      between(nodes, nodesX, u, v, at);
      hidden[i] = under.hides(at);
    }
    return hidden;
  }

  private static void between(double[] nodes, int nodesX, double u, double v, double[] at) {
    int x = (int) u;
    int y = (int) v;
    double fx = u - x;
    double fy = v - y;
    int a = NUMBERS * (y * nodesX + x);
    int b = a + NUMBERS * nodesX;
    for (int k = 0; k < NUMBERS; k++) {
      double top = nodes[a + k] + (nodes[a + NUMBERS + k] - nodes[a + k]) * fx;
      double bottom = nodes[b + k] + (nodes[b + NUMBERS + k] - nodes[b + k]) * fx;
      at[k] = top + (bottom - top) * fy;
    }
  }

  /**
   * For each node its column and row in the surface model, and how far a ray to the sensor goes in those for each metre up,
   * at the lowest height and at the highest.
   */
  private double[] nodes(int level, int firstX, int firstY, int nodesX, int nodesY) {
    int count = nodesX * nodesY;
    Affine affine = grid.affine().scaled(1L << level);
    double[] places = new double[2 * count];
    for (int i = 0; i < count; i++) {
      double col = (double) (firstX + i % nodesX) * STEP;
      double row = (double) (firstY + i / nodesX) * STEP;
      places[2 * i] = affine.x(col, row);
      places[2 * i + 1] = affine.y(col, row);
    }
    toSurface.apply(places, count);
    Affine toPixel = surface.model().grid().affine().inverse();
    double[] nodes = new double[NUMBERS * count];
    for (int i = 0; i < count; i++) {
      int at = NUMBERS * i;
      nodes[at] = toPixel.x(places[2 * i], places[2 * i + 1]);
      nodes[at + 1] = toPixel.y(places[2 * i], places[2 * i + 1]);
      ray(nodes[at], nodes[at + 1], surface.lowest(), nodes, at + 2);
      ray(nodes[at], nodes[at + 1], surface.highest(), nodes, at + 4);
    }
    return nodes;
  }

  /** Columns and rows of the surface model by which a ray moves for each metre up, into {@code ray} from {@code to} on. */
  private void ray(double col, double row, double height, double[] ray, int to) {
    double[] here = image(col, row, height);
    double[] right = image(col + 1, row, height);
    double[] down = image(col, row + 1, height);
    double[] up = image(col, row, height + HEIGHT_STEP);
    double a = right[0] - here[0];
    double b = down[0] - here[0];
    double c = right[1] - here[1];
    double d = down[1] - here[1];
    double x = (here[0] - up[0]) / HEIGHT_STEP;
    double y = (here[1] - up[1]) / HEIGHT_STEP;
    double det = a * d - b * c;
    ray[to] = (d * x - b * y) / det;
    ray[to + 1] = (a * y - c * x) / det;
  }

  private double[] image(double col, double row, double height) {
    Affine affine = surface.model().grid().affine();
    double[] place = {affine.x(col, row), affine.y(col, row)};
    toModel.apply(place, 1);
    double[] image = new double[2];
    model.toImage(place[0], place[1], height, image);
    return image;
  }

  /** The surface under the nodes and along their rays; null where there is none. */
  private Surface read(double[] nodes, Request request) {
    double left = Double.POSITIVE_INFINITY;
    double top = left;
    double right = -left;
    double bottom = -left;
    double range = surface.highest() - surface.lowest();
    double reach = 2;
    for (int i = 0; i < nodes.length; i += NUMBERS) {
      for (int k = 2; k < NUMBERS; k += 2) {
        double away = Math.hypot(nodes[i + k], nodes[i + k + 1]) * range;
        reach = away > reach ? away : reach;
      }
      left = Math.min(left, nodes[i]);
      right = Math.max(right, nodes[i]);
      top = Math.min(top, nodes[i + 1]);
      bottom = Math.max(bottom, nodes[i + 1]);
    }
    Window whole = surface.model().grid().window();
    int level = 0;
    while (Math.max(right - left, bottom - top) + 2 * reach > (double) WIDEST_READ * (1 << level)) {
      level++;
    }
    double size = 1 << level;
    Window at = surface.model().grid().atLevel(level).window();
    if (!(right > -reach && bottom > -reach && left < whole.width() + reach)) {
      return null;
    }
    int x = (int) Math.floor((left - reach) / size) - 2;
    int y = (int) Math.floor((top - reach) / size) - 2;
    Window window = new Window(
            x,
            y,
            (int) Math.ceil((right + reach) / size) + 3 - x,
            (int) Math.ceil((bottom + reach) / size) + 3 - y)
        .intersect(at);
    if (window.isEmpty()) {
      return null;
    }
    float[][] target = new float[surface.model().bands().size()][];
    target[0] = new float[window.area()];
    surface.model().read(level, window, target, request);
    return new Surface(target[0], window, size, surface);
  }

  /** A part of the surface model. */
  private static final class Surface {
    private final float[] plane;
    private final Window window;
    private final double size;
    private final double lowest;
    private final double range;
    private final float highestHere;

    Surface(float[] plane, Window window, double size, Heights heights) {
      this.plane = plane;
      this.window = window;
      this.size = size;
      lowest = heights.lowest() - heights.undulation();
      range = heights.highest() - heights.lowest();
      float high = Float.NEGATIVE_INFINITY;
      for (float v : plane) {
        high = v > high ? v : high;
      }
      highestHere = high;
    }

    /** Height at a place in the model's full-size pixels; NaN outside and in voids. */
    private double at(double col, double row) {
      return Bilinear.inside(
          plane, window.width(), window.height(), col / size - window.x(), row / size - window.y());
    }

    boolean hides(double[] ray) {
      double height = at(ray[0], ray[1]);
      if (Double.isNaN(height)) {
        return false;
      }
      double share = range > 0 ? (height - lowest) / range : 0;
      double dx = ray[2] + (ray[4] - ray[2]) * share;
      double dy = ray[3] + (ray[5] - ray[3]) * share;
      double across = Math.hypot(dx, dy);
      if (!(across > 1e-9)) {
        return false;
      }
      double metres = STRIDE * size / across;
      double limit = highestHere - RISE;
      for (double up = OWN * size / across; height + up < limit; up += metres) {
        double there = at(ray[0] + up * dx, ray[1] + up * dy);
        if (there > height + up + RISE) {
          return true;
        }
      }
      return false;
    }
  }
}
