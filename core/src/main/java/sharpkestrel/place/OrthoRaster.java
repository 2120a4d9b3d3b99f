package sharpkestrel.place;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Resampling;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Each pixel of the result is followed to the ground, its height looked up, and the sensor model asked where the raw
 * scene saw it.
 *
 * <p>The model is evaluated only at nodes, {@value #STEP} result pixels apart from the grid's origin, and at three
 * heights that span the height model. Between nodes image coordinates are interpolated bilinearly, between heights by
 * a parabola: over a few hundred metres the model is smooth to far below a hundredth of a pixel, which a test holds.
 * Nodes start at the grid's origin, never at a tile's, so tiles agree to the last bit.
 */
final class OrthoRaster extends DerivedRaster {

  private static final int STEP = 32;

  private final Raster scene;
  private final Rpc rpc;
  private final Heights heights;
  private final CoordinateMap toDegrees;
  private final CoordinateMap toModel;
  private final Resampling resampling;
  private final double nativeRatio;

  OrthoRaster(
      Raster scene,
      Rpc rpc,
      Heights heights,
      Crs system,
      Grid grid,
      Attachments attachments,
      Resampling resampling) {
    super(grid, scene.bands(), attachments, Zoom.RESAMPLING.over(scene.zoom()));
    this.scene = scene;
    this.rpc = rpc;
    this.heights = heights;
    this.toDegrees = system.to(Crs.of(Crs.WGS84));
    this.toModel = system.to(Crs.of(heights.model().grid().crs()));
    this.resampling = resampling;
    this.nativeRatio = ratioAtCentre();
  }

  /** Raw pixels in a result pixel, at the middle of the result. */
  private double ratioAtCentre() {
    Affine affine = grid().affine();
    double col = grid().width() / 2.0;
    double row = grid().height() / 2.0;
    double[] ground = {
      affine.x(col, row), affine.y(col, row),
      affine.x(col + 1, row), affine.y(col + 1, row),
      affine.x(col, row + 1), affine.y(col, row + 1)
    };
    toDegrees.apply(ground, 3);
    double h = (heights.lowest() + heights.highest()) / 2;
    double[] at = new double[2];
    double[] right = new double[2];
    double[] below = new double[2];
    rpc.toImage(ground[0], ground[1], h, at);
    rpc.toImage(ground[2], ground[3], h, right);
    rpc.toImage(ground[4], ground[5], h, below);
    double area =
        Math.abs((right[0] - at[0]) * (below[1] - at[1]) - (right[1] - at[1]) * (below[0] - at[0]));
    return Math.sqrt(area);
  }

  /** The raw scene's level whose pixels are nearest below the result's in size. */
  private int sourceLevel(int level) {
    double ratio = nativeRatio * (1 << level);
    int source = (int) Math.floor(Math.log(ratio) / Math.log(2) + 0.1);
    return Math.max(0, Math.min(scene.levels() - 1, source));
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    int count = window.area();
    double[] cols = new double[count];
    double[] rows = new double[count];
    toImage(level, window, cols, rows, request);
    int sourceLevel = sourceLevel(level);
    double scale = 1.0 / (1 << sourceLevel);
    for (int i = 0; i < count; i++) {
      cols[i] *= scale;
      rows[i] *= scale;
    }
    Window whole = scene.grid().atLevel(sourceLevel).window();
    Window source = Window.under(cols, rows, count, resampling.reach(), whole);
    if (source.isEmpty()) {
      Planes.fillNaN(target);
      return;
    }
    float[][] planes = Planes.like(target, source.area());
    scene.read(sourceLevel, source, planes, request);
    for (int i = 0; i < count; i++) {
      cols[i] -= source.x();
      rows[i] -= source.y();
    }
    resampling.sample(planes, source.width(), source.height(), cols, rows, count, target);
  }

  /** Raw image coordinates at full size of the window's pixel centres; NaN where no height is known. */
  void toImage(int level, Window window, double[] cols, double[] rows, Request request) {
    int firstX = Math.floorDiv(window.x(), STEP);
    int firstY = Math.floorDiv(window.y(), STEP);
    int nodesX = Math.floorDiv(window.right() - 1, STEP) + 2 - firstX;
    int nodesY = Math.floorDiv(window.bottom() - 1, STEP) + 2 - firstY;
    Nodes nodes = nodes(level, firstX, firstY, nodesX, nodesY);
    HeightWindow ground = heightsUnder(nodes, request);
    double half = (heights.highest() - heights.lowest()) / 2;
    double middle = heights.lowest() + half;
    for (int y = 0; y < window.height(); y++) {
      double v = window.y() + y + 0.5;
      int ny = Math.floorDiv(window.y() + y, STEP);
      double fy = (v - (double) ny * STEP) / STEP;
      for (int x = 0; x < window.width(); x++) {
        double u = window.x() + x + 0.5;
        int nx = Math.floorDiv(window.x() + x, STEP);
        double fx = (u - (double) nx * STEP) / STEP;
        int i = (ny - firstY) * nodesX + nx - firstX;
        double w00 = (1 - fx) * (1 - fy);
        double w10 = fx * (1 - fy);
        double w01 = (1 - fx) * fy;
        double w11 = fx * fy;
        int j = i + nodesX;
        double h = ground.at(
            w00 * nodes.mx[i] + w10 * nodes.mx[i + 1] + w01 * nodes.mx[j] + w11 * nodes.mx[j + 1],
            w00 * nodes.my[i] + w10 * nodes.my[i + 1] + w01 * nodes.my[j] + w11 * nodes.my[j + 1]);
        double t = (h + heights.undulation() - middle) / half;
        int at = y * window.width() + x;
        cols[at] = 0;
        rows[at] = 0;
        for (int k = 0; k < 3; k++) {
          double p = k == 0 ? t * (t - 1) / 2 : k == 1 ? 1 - t * t : t * (t + 1) / 2;
          double[] c = nodes.cols[k];
          double[] r = nodes.rows[k];
          cols[at] += p * (w00 * c[i] + w10 * c[i + 1] + w01 * c[j] + w11 * c[j + 1]);
          rows[at] += p * (w00 * r[i] + w10 * r[i + 1] + w01 * r[j] + w11 * r[j + 1]);
        }
      }
    }
  }

  /** Image coordinates at three heights, and coordinates in the height model's pixels, at nodes. */
  private record Nodes(double[][] cols, double[][] rows, double[] mx, double[] my) {}

  private Nodes nodes(int level, int firstX, int firstY, int nodesX, int nodesY) {
    int count = nodesX * nodesY;
    Affine affine = grid().affine().scaled(1L << level);
    double[] ground = new double[2 * count];
    for (int j = 0; j < nodesY; j++) {
      for (int i = 0; i < nodesX; i++) {
        double col = (double) (firstX + i) * STEP;
        double row = (double) (firstY + j) * STEP;
        ground[2 * (j * nodesX + i)] = affine.x(col, row);
        ground[2 * (j * nodesX + i) + 1] = affine.y(col, row);
      }
    }
    double[] model = ground.clone();
    toDegrees.apply(ground, count);
    toModel.apply(model, count);
    Affine toPixel = heights.model().grid().affine().inverse();
    Nodes nodes =
        new Nodes(new double[3][count], new double[3][count], new double[count], new double[count]);
    double[] image = new double[2];
    for (int i = 0; i < count; i++) {
      nodes.mx[i] = toPixel.x(model[2 * i], model[2 * i + 1]);
      nodes.my[i] = toPixel.y(model[2 * i], model[2 * i + 1]);
      for (int k = 0; k < 3; k++) {
        double h = heights.lowest() + k * (heights.highest() - heights.lowest()) / 2;
        rpc.toImage(ground[2 * i], ground[2 * i + 1], h, image);
        nodes.cols[k][i] = image[0];
        nodes.rows[k][i] = image[1];
      }
    }
    return nodes;
  }

  private HeightWindow heightsUnder(Nodes nodes, Request request) {
    double left = Double.POSITIVE_INFINITY;
    double top = left;
    double right = -left;
    double bottom = -left;
    for (int i = 0; i < nodes.mx.length; i++) {
      left = Math.min(left, nodes.mx[i]);
      right = Math.max(right, nodes.mx[i]);
      top = Math.min(top, nodes.my[i]);
      bottom = Math.max(bottom, nodes.my[i]);
    }
    Raster model = heights.model();
    Window window = left > right
        ? new Window(0, 0, 0, 0)
        : new Window(
                (int) Math.floor(Math.max(left, -8)) - 2,
                (int) Math.floor(Math.max(top, -8)) - 2,
                (int) Math.max(0, Math.min(right, model.grid().width() + 8.0) - Math.max(left, -8))
                    + 5,
                (int) Math.max(0, Math.min(bottom, model.grid().height() + 8.0) - Math.max(top, -8))
                    + 5)
            .intersect(model.grid().window());
    float[] plane = new float[window.area()];
    if (!window.isEmpty()) {
      float[][] target = new float[model.bands().size()][];
      target[0] = plane;
      model.read(0, window, target, request);
    }
    return new HeightWindow(plane, window);
  }

  /** Heights of a part of the model, bilinear between pixel centres, held constant in the outermost half pixel. */
  private record HeightWindow(float[] plane, Window window) {

    double at(double mx, double my) {
      double px = mx - window.x() - 0.5;
      double py = my - window.y() - 0.5;
      int width = window.width();
      int height = window.height();
      if (!(px >= -0.5 && py >= -0.5 && px <= width - 0.5 && py <= height - 0.5)) {
        return Double.NaN;
      }
      px = Math.max(0, Math.min(width - 1.0, px));
      py = Math.max(0, Math.min(height - 1.0, py));
      int x = (int) Math.min(px, Math.max(0, width - 2.0));
      int y = (int) Math.min(py, Math.max(0, height - 2.0));
      double fx = px - x;
      double fy = py - y;
      int i = y * width + x;
      int dx = width > 1 ? 1 : 0;
      int dy = height > 1 ? width : 0;
      return (plane[i] * (1 - fx) + plane[i + dx] * fx) * (1 - fy)
          + (plane[i + dy] * (1 - fx) + plane[i + dy + dx] * fx) * fy;
    }
  }
}
