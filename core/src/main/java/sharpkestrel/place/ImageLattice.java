package sharpkestrel.place;

import java.util.Optional;
import java.util.concurrent.atomic.AtomicIntegerArray;
import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Where a scene saw each pixel of a grid on the ground, without asking its model at every pixel.
 *
 * <p>The model is evaluated at nodes, a fixed number of the grid's pixels apart from its origin, and at heights that cut
 * the range of the height model into slabs. Between nodes image coordinates are interpolated bilinearly, within a slab by
 * a parabola through its floor, middle and ceiling. Nodes are as far apart, level by level, and slabs as few as keep the
 * model within {@value #TOLERANCE} pixel of itself between them, tried all over the grid; where no spacing does, as along
 * the edges of triangles, the model is asked at every pixel. Nodes start at the grid's origin and slabs at the lowest
 * height, never at a tile's, so tiles agree to the last bit.
 */
final class ImageLattice {

  private static final double TOLERANCE = 0.01;
  private static final int[] STEPS = {4, 8, 16, 32};
  private static final int[] SLABS = {1, 2, 4, 8, 16, 32};
  private static final int PROBES = 12;
  /** Numbers for each node and slab: column and row at the slab's middle, how they change with height, how that does. */
  private static final int OF_SLAB = 6;

  private final Grid grid;
  private final ImageModel model;
  private final Optional<Heights> heights;
  private final CoordinateMap toGround;
  private final CoordinateMap toHeights;
  private final double lowest;
  private final double range;
  private final int slabs;
  private final AtomicIntegerArray steps;

  ImageLattice(ImageModel model, Optional<Heights> heights, Grid grid) {
    this.grid = grid;
    this.model = model;
    this.heights = model.usesHeights() ? heights : Optional.empty();
    if (model.usesHeights() && heights.isEmpty()) {
      throw new IllegalArgumentException("The model needs heights");
    }
    toGround = Crs.between(grid.crs(), model.crs());
    toHeights = this.heights
        .map(h -> Crs.between(grid.crs(), h.model().grid().crs()))
        .orElse(CoordinateMap.IDENTITY);
    lowest = this.heights.map(Heights::lowest).orElse(0.0);
    range = this.heights.map(h -> h.highest() - h.lowest()).orElse(0.0);
    slabs = this.heights.isPresent() ? fewestSlabs() : 0;
    steps = new AtomicIntegerArray(grid.levels() + 1);
  }

  /** Pixels of the scene in one of the grid, at the grid's middle: the square root of the ratio of areas. */
  double pixelsOfSceneInOne() {
    double col = grid.width() / 2.0;
    double row = grid.height() / 2.0;
    double[] cols = new double[3];
    double[] rows = new double[3];
    double[] image = new double[2];
    double[] places = new double[6];
    for (int k = 0; k < 3; k++) {
      places[2 * k] = grid.affine().x(col + k % 2, row + k / 2);
      places[2 * k + 1] = grid.affine().y(col + k % 2, row + k / 2);
    }
    toGround.apply(places, 3);
    for (int k = 0; k < 3; k++) {
      model.toImage(places[2 * k], places[2 * k + 1], lowest + range / 2, image);
      cols[k] = image[0];
      rows[k] = image[1];
    }
    double area = Math.abs(
        (cols[1] - cols[0]) * (rows[2] - rows[0]) - (rows[1] - rows[0]) * (cols[2] - cols[0]));
    return area > 0 ? Math.sqrt(area) : 1;
  }

  /** Slabs of height within which a parabola holds: tried at their quarters, on a lattice over the grid. */
  private int fewestSlabs() {
    double[] places = new double[2 * PROBES * PROBES];
    for (int i = 0; i < PROBES * PROBES; i++) {
      double col = grid.width() * (i % PROBES + 0.5) / PROBES;
      double row = grid.height() * (i / PROBES + 0.5) / PROBES;
      places[2 * i] = grid.affine().x(col, row);
      places[2 * i + 1] = grid.affine().y(col, row);
    }
    toGround.apply(places, PROBES * PROBES);
    for (int count : SLABS) {
      if (parabolasHold(places, count)) {
        return count;
      }
    }
    return SLABS[SLABS.length - 1];
  }

  private boolean parabolasHold(double[] places, int count) {
    double half = range / count / 2;
    double[] parabola = new double[OF_SLAB];
    double[] image = new double[2];
    for (int i = 0; i < places.length; i += 2) {
      // the uppermost slab is the nearest to the lens
      for (int slab : new int[] {0, count - 1}) {
        parabola(places[i], places[i + 1], slab, half, parabola, 0);
        for (double t : new double[] {-0.5, 0.5}) {
          double height = lowest + (2 * slab + 1 + t) * half;
          model.toImage(places[i], places[i + 1], height, image);
          double dx = parabola[0] + t * (parabola[2] + t * parabola[4]) - image[0];
          double dy = parabola[1] + t * (parabola[3] + t * parabola[5]) - image[1];
          if (Math.hypot(dx, dy) > TOLERANCE) {
            return false;
          }
        }
      }
    }
    return true;
  }

  /** Six numbers of a place and slab into {@code values} from {@code at} on. */
  private void parabola(double x, double y, int slab, double half, double[] values, int at) {
    double[] image = new double[2];
    double[] c = new double[3];
    double[] r = new double[3];
    for (int k = 0; k < 3; k++) {
      model.toImage(x, y, lowest + (2 * slab + k) * half, image);
      c[k] = image[0];
      r[k] = image[1];
    }
    values[at] = c[1];
    values[at + 1] = r[1];
    values[at + 2] = (c[2] - c[0]) / 2;
    values[at + 3] = (r[2] - r[0]) / 2;
    values[at + 4] = (c[2] + c[0]) / 2 - c[1];
    values[at + 5] = (r[2] + r[0]) / 2 - r[1];
  }

  /** The step at a level, found when first asked for. */
  private int step(int level) {
    int known = steps.get(level);
    if (known == 0) {
      known = 1;
      for (int candidate : STEPS) {
        known = model.isSmooth() && holds(level, candidate) ? candidate : known;
      }
      steps.set(level, known);
    }
    return known;
  }

  /** Whether cells of a size may be interpolated: looked at in cells spread over the grid, at its lowest height. */
  private boolean holds(int level, int candidate) {
    Grid at = grid.atLevel(level);
    double[] places = new double[2 * 5 * PROBES * PROBES];
    int next = 0;
    for (int j = 0; j < PROBES; j++) {
      for (int i = 0; i < PROBES; i++) {
        double col = Math.floor(at.width() * (i + 0.5) / PROBES / candidate) * candidate;
        double row = Math.floor(at.height() * (j + 0.5) / PROBES / candidate) * candidate;
        for (int k = 0; k < 5; k++) {
          double u = col + (k == 4 ? 0.5 : k & 1) * candidate;
          double v = row + (k == 4 ? 0.5 : k >> 1) * candidate;
          places[next++] = at.affine().x(u, v);
          places[next++] = at.affine().y(u, v);
        }
      }
    }
    toGround.apply(places, next / 2);
    double[] image = new double[2];
    for (int i = 0; i < next; i += 10) {
      double x = 0;
      double y = 0;
      for (int k = 0; k < 5; k++) {
        model.toImage(places[i + 2 * k], places[i + 2 * k + 1], lowest, image);
        x += image[0] * (k == 4 ? -1 : 0.25);
        y += image[1] * (k == 4 ? -1 : 0.25);
      }
      if (Math.hypot(x, y) > TOLERANCE * (1 << level)) {
        return false;
      }
    }
    return true;
  }

  /**
   * Image coordinates at full size of the window's pixel centres; NaN where no height is known.
   *
   * @param cols (output) one for each pixel of the window, row by row
   */
  void toImage(int level, Window window, double[] cols, double[] rows, Request request) {
    int step = step(level);
    if (step == 1) {
      everyPixel(level, window, cols, rows, request);
      return;
    }
    int firstX = Math.floorDiv(window.x(), step);
    int firstY = Math.floorDiv(window.y(), step);
    int nodesX = Math.floorDiv(window.right() - 1, step) + 2 - firstX;
    int nodesY = Math.floorDiv(window.bottom() - 1, step) + 2 - firstY;
    Nodes nodes = nodes(level, step, firstX, firstY, nodesX, nodesY);
    HeightWindow ground = heights
        .map(h -> HeightWindow.under(h, nodes.values, nodes.stride, nodes.count, request))
        .orElse(null);
    double[] row = new double[nodesX * nodes.stride];
    double[] slope = new double[nodes.stride];
    double[] left = new double[nodes.stride];
    for (int y = 0; y < window.height(); y++) {
      int ny = Math.floorDiv(window.y() + y, step);
      double fy = (window.y() + y + 0.5 - (double) ny * step) / step;
      between(nodes, (ny - firstY) * nodesX, nodesX, fy, row);
      int at = y * window.width();
      for (int nx = 0; nx + 1 < nodesX; nx++) {
        int from = Math.max(window.x(), (firstX + nx) * step);
        int to = Math.min(window.right(), (firstX + nx + 1) * step);
        double start = from + 0.5 - (double) (firstX + nx) * step;
        for (int k = 0; k < nodes.stride; k++) {
          left[k] = row[nx * nodes.stride + k];
          slope[k] = (row[(nx + 1) * nodes.stride + k] - left[k]) / step;
        }
        at = heights.isPresent()
            ? overHeights(ground, left, slope, start, to - from, cols, rows, at)
            : flat(left, slope, start, to - from, cols, rows, at);
      }
    }
  }

  /** A run of pixels in one cell and row, the first {@code start} pixels from the cell's left. */
  private static int flat(
      double[] left,
      double[] slope,
      double start,
      int count,
      double[] cols,
      double[] rows,
      int at) {
    int i = at;
    for (int k = 0; k < count; k++, i++) {
      double u = start + k;
      cols[i] = left[0] + u * slope[0];
      rows[i] = left[1] + u * slope[1];
    }
    return i;
  }

  private int overHeights(
      HeightWindow ground,
      double[] left,
      double[] slope,
      double start,
      int count,
      double[] cols,
      double[] rows,
      int at) {
    double shift = heights.orElseThrow().undulation() - lowest;
    double half = range / slabs / 2;
    int place = OF_SLAB * slabs;
    int i = at;
    for (int k = 0; k < count; k++, i++) {
      double u = start + k;
      double h = (ground.at(left[place] + u * slope[place], left[place + 1] + u * slope[place + 1])
              + shift)
          / half;
      int slab = slabs == 1 ? 0 : Math.max(0, Math.min(slabs - 1, (int) (h / 2)));
      double t = h - 2 * slab - 1;
      int o = OF_SLAB * slab;
      cols[i] = left[o]
          + u * slope[o]
          + t * (left[o + 2] + u * slope[o + 2] + t * (left[o + 4] + u * slope[o + 4]));
      rows[i] = left[o + 1]
          + u * slope[o + 1]
          + t * (left[o + 3] + u * slope[o + 3] + t * (left[o + 5] + u * slope[o + 5]));
    }
    return i;
  }

  private static void between(Nodes nodes, int first, int nodesX, double fy, double[] row) {
    int n = nodes.stride;
    int low = first * n;
    int high = (first + nodesX) * n;
    for (int k = 0; k < nodesX * n; k++) {
      row[k] = nodes.values[low + k] + (nodes.values[high + k] - nodes.values[low + k]) * fy;
    }
  }

  /**
   * Numbers at each node: for every slab its six, then the place in the height model's pixels. Without heights: column and
   * row.
   */
  private record Nodes(double[] values, int stride, int count) {}

  private Nodes nodes(int level, int step, int firstX, int firstY, int nodesX, int nodesY) {
    int count = nodesX * nodesY;
    Affine affine = grid.affine().scaled(1L << level);
    double[] ground = new double[2 * count];
    for (int j = 0; j < nodesY; j++) {
      for (int i = 0; i < nodesX; i++) {
        double col = (double) (firstX + i) * step;
        double row = (double) (firstY + j) * step;
        ground[2 * (j * nodesX + i)] = affine.x(col, row);
        ground[2 * (j * nodesX + i) + 1] = affine.y(col, row);
      }
    }
    double[] inHeights = ground.clone();
    toGround.apply(ground, count);
    int stride = heights.isPresent() ? OF_SLAB * slabs + 2 : 2;
    double[] values = new double[stride * count];
    double[] image = new double[2];
    for (int i = 0; i < count; i++) {
      int at = stride * i;
      for (int slab = 0; slab < slabs; slab++) {
        parabola(
            ground[2 * i], ground[2 * i + 1], slab, range / slabs / 2, values, at + OF_SLAB * slab);
      }
      if (heights.isEmpty()) {
        model.toImage(ground[2 * i], ground[2 * i + 1], 0, image);
        values[at] = image[0];
        values[at + 1] = image[1];
      }
    }
    heights.ifPresent(h -> {
      toHeights.apply(inHeights, count);
      Affine toPixel = h.model().grid().affine().inverse();
      for (int i = 0; i < count; i++) {
        values[stride * (i + 1) - 2] = toPixel.x(inHeights[2 * i], inHeights[2 * i + 1]);
        values[stride * (i + 1) - 1] = toPixel.y(inHeights[2 * i], inHeights[2 * i + 1]);
      }
    });
    return new Nodes(values, stride, count);
  }

  private void everyPixel(int level, Window window, double[] cols, double[] rows, Request request) {
    int count = window.area();
    Affine affine = grid.affine().scaled(1L << level);
    double[] ground = new double[2 * count];
    for (int i = 0; i < count; i++) {
      double col = window.x() + i % window.width() + 0.5;
      double row = window.y() + i / window.width() + 0.5;
      ground[2 * i] = affine.x(col, row);
      ground[2 * i + 1] = affine.y(col, row);
    }
    double[] tall =
        heights.map(h -> heightsAt(h, ground.clone(), count, request)).orElse(null);
    toGround.apply(ground, count);
    double[] image = new double[2];
    for (int i = 0; i < count; i++) {
      model.toImage(ground[2 * i], ground[2 * i + 1], tall == null ? 0 : tall[i], image);
      cols[i] = image[0];
      rows[i] = image[1];
    }
  }

  private double[] heightsAt(Heights of, double[] places, int count, Request request) {
    toHeights.apply(places, count);
    Affine toPixel = of.model().grid().affine().inverse();
    for (int i = 0; i < count; i++) {
      double x = toPixel.x(places[2 * i], places[2 * i + 1]);
      places[2 * i + 1] = toPixel.y(places[2 * i], places[2 * i + 1]);
      places[2 * i] = x;
    }
    HeightWindow ground = HeightWindow.under(of, places, 2, count, request);
    double[] tall = new double[count];
    for (int i = 0; i < count; i++) {
      tall[i] = ground.at(places[2 * i], places[2 * i + 1]) + of.undulation();
    }
    return tall;
  }
}
