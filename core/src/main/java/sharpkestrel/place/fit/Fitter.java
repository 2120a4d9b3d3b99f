package sharpkestrel.place.fit;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.geo.FrameCamera;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.place.fit.Fit.Residual;
import sharpkestrel.place.fit.TiePoint.Use;

/**
 * Fits models to the control points of a scene. Maps of the plane correct what a base model says: the sensor model of
 * a raw scene, the georeference of a placed one, or the reference's own pixels where nothing is known. A camera needs no
 * base.
 */
public final class Fitter {

  private final TiePoints points;
  private final ImageModel base;
  private final boolean placed;
  private final List<TiePoint> control;
  private final double[][] from;
  private final double[][] to;

  /**
   * @param base in the system of the points
   */
  public Fitter(TiePoints points, ImageModel base) {
    this(points, base, false);
  }

  /**
   * @param placed whether the base is what the scene says of its own place
   */
  public Fitter(TiePoints points, ImageModel base, boolean placed) {
    this.placed = placed;
    if (!base.crs().equals(points.crs())) {
      throw new IllegalArgumentException(
          "The points are in " + points.crs() + ", the model in " + base.crs());
    }
    this.points = points;
    this.base = base;
    control = points.of(Use.CONTROL);
    from = new double[control.size()][];
    to = new double[control.size()][];
    for (int i = 0; i < from.length; i++) {
      from[i] = new double[2];
      base.toImage(control.get(i).x(), control.get(i).y(), height(control.get(i)), from[i]);
      to[i] = new double[] {control.get(i).col(), control.get(i).row()};
    }
  }

  private double height(TiePoint point) {
    return base.usesHeights() || !Double.isNaN(point.height()) ? point.height() : 0;
  }

  /**
   * @throws sharpkestrel.raster.RasterException where the points do not determine the model; the message says what to do
   */
  public Fit fit(ModelKind kind) {
    ImageModel model = model(kind);
    return fit(kind, model, leftOut(kind, model));
  }

  /** Whether the scene says where it lies. */
  public boolean isPlaced() {
    return placed;
  }

  /** Whether nothing better is known: what has a sensor model was not taken by a frame camera. */
  public boolean mayBeACamera() {
    return !base.usesHeights();
  }

  /** The same without asking what the model would say of points left out, which takes a fit for each. */
  public Fit fitOnly(ModelKind kind) {
    double[] unknown = new double[control.size()];
    java.util.Arrays.fill(unknown, Double.NaN);
    return fit(kind, model(kind), unknown);
  }

  private ImageModel model(ModelKind kind) {
    return kind == ModelKind.CAMERA
        ? resection(-1).solve()
        : new CorrectedModel(base, PlaneFits.fit(kind, from, to));
  }

  private Fit fit(ModelKind kind, ImageModel model, double[] leftOut) {
    List<Residual> residuals = new ArrayList<>();
    double[] image = new double[2];
    int at = 0;
    for (TiePoint point : points.points()) {
      model.toImage(point.x(), point.y(), point.height(), image);
      residuals.add(new Residual(
          point,
          image[0] - point.col(),
          image[1] - point.row(),
          point.use() == Use.CONTROL ? leftOut[at++] : Double.NaN));
    }
    Fit first = new Fit(kind, model, residuals, 0, 0);
    return new Fit(kind, model, residuals, first.rms(Use.CONTROL), Fit.rootMeanSquare(leftOut));
  }

  /** Without the control point of a number; with all for -1. */
  private Resection resection(int without) {
    List<double[]> ground = new ArrayList<>();
    List<double[]> image = new ArrayList<>();
    for (int i = 0; i < control.size(); i++) {
      TiePoint point = control.get(i);
      if (i != without) {
        if (Double.isNaN(point.height())) {
          throw new LeastSquares.Undetermined("Point " + point.id()
              + " has no height, which a camera needs. Give a height model that reaches it, or"
              + " switch the point off.");
        }
        ground.add(new double[] {point.x(), point.y(), point.height()});
        image.add(to[i]);
      }
    }
    return new Resection(
        points.crs(),
        points.width(),
        points.height(),
        ground.toArray(double[][]::new),
        image.toArray(double[][]::new));
  }

  /** How far each control point is off the model fitted without it. */
  private double[] leftOut(ModelKind kind, ImageModel whole) {
    double[] off = new double[from.length];
    if (kind == ModelKind.SPLINE) {
      double[][] known = ((SplineMap) ((CorrectedModel) whole).correction()).leftOut();
      for (int i = 0; i < off.length; i++) {
        off[i] = Math.hypot(known[i][0], known[i][1]);
      }
      return off;
    }
    double[] xy = new double[2];
    for (int i = 0; i < off.length; i++) {
      try {
        if (kind == ModelKind.CAMERA) {
          TiePoint point = control.get(i);
          Resection fewer = resection(i);
          if (control.size() <= kind.fewest()) {
            throw new LeastSquares.Undetermined("too few");
          }
          fewer.from((FrameCamera) whole).toImage(point.x(), point.y(), point.height(), xy);
        } else {
          PlaneFits.fit(kind, without(from, i), without(to, i)).apply(from[i][0], from[i][1], xy);
        }
        off[i] = Math.hypot(xy[0] - to[i][0], xy[1] - to[i][1]);
      } catch (LeastSquares.Undetermined oneFewer) {
        off[i] = Double.NaN;
      }
    }
    return off;
  }

  private static double[][] without(double[][] points, int left) {
    double[][] others = new double[points.length - 1][];
    for (int i = 0, k = 0; i < points.length; i++) {
      if (i != left) {
        others[k++] = points[i];
      }
    }
    return others;
  }
}
