package sharpkestrel.place.fit;

import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import sharpkestrel.geo.FrameCamera;
import sharpkestrel.raster.CrsName;

/**
 * Space resection: pose and focal length of a camera from points of known ground place and height, by damped least
 * squares (Levenberg 1944, Marquardt 1963). Distortion of lens and film is drawn towards none by as much as such
 * distortions commonly are; so few points do not make them up.
 */
final class Resection {

  /** Pose and focal length. */
  static final int FEWEST = 4;

  private static final int STEPS = 200;
  /** From a camera that lacks one point only. */
  private static final int FEW_STEPS = 5;

  private static final double[] FOCAL_GUESSES = {1.0, 1.6, 2.6};
  /** Common size of radial distortion, stretch and shear. */
  private static final double[] COMMON = {0.03, 0.01, 0.01};

  private static final double LEAST_PULL = 0.02;
  private static final int UNKNOWNS = 10;

  private final CrsName crs;
  private final int width;
  private final int height;
  private final double[][] ground;
  private final double[][] image;
  private final double[] origin;
  private final double[] size;
  /** What a distortion of common size costs, pixels: about the error of the points themselves. */
  private double pull = 1;

  /**
   * @param ground (input) x, y and height of each point
   * @param image (input) column and row of each point
   */
  Resection(CrsName crs, int width, int height, double[][] ground, double[][] image) {
    this.crs = crs;
    this.width = width;
    this.height = height;
    this.ground = ground;
    this.image = image;
    origin = new double[3];
    for (double[] point : ground) {
      for (int k = 0; k < 3; k++) {
        origin[k] += point[k] / ground.length;
      }
    }
    double reach = 1;
    for (double[] point : ground) {
      reach = Math.max(reach, Math.hypot(point[0] - origin[0], point[1] - origin[1]));
    }
    // by which each unknown is divided, so that all changes are of about one size
    size = new double[] {reach, reach, reach, 1, 1, 1, Math.max(width, height), 1, 1, 1};
  }

  /**
   * @throws LeastSquares.Undetermined with fewer than four points, points on one line, or no solution in front of the lens
   */
  FrameCamera solve() {
    if (ground.length < FEWEST) {
      throw new LeastSquares.Undetermined("A camera over heights needs " + FEWEST
          + " points that are on; there are " + ground.length + ". Add points.");
    }
    double[][] plan = new double[ground.length][];
    for (int i = 0; i < plan.length; i++) {
      plan[i] = new double[] {ground[i][0], -ground[i][1]};
    }
    PolynomialMap.fit(1, plan, image);
    PlaneMap similar = PlaneFits.similarity(plan, image);
    double[] best = null;
    double least = Double.POSITIVE_INFINITY;
    for (double guess : FOCAL_GUESSES) {
      double[] p = refine(start(similar, guess * Math.max(width, height)), STEPS);
      double cost = cost(p);
      if (cost < least) {
        least = cost;
        best = p;
      }
    }
    if (best == null) {
      throw new LeastSquares.Undetermined(
          "No camera sees these points so. One of them may be wrong by far: switch off the worst and try again.");
    }
    return camera(settled(best, STEPS));
  }

  /** Refined once more with the pull that suits the points' own error. */
  private double[] settled(double[] p, int steps) {
    double squares = 0;
    double[] off = differences(p);
    for (int i = 0; i < 2 * ground.length; i++) {
      squares += off[i] * off[i] / ground.length;
    }
    pull = Math.max(LEAST_PULL, Math.sqrt(squares));
    return refine(p, steps);
  }

  /** Starting from a camera that is nearly right. */
  FrameCamera from(FrameCamera near) {
    return camera(settled(
        new double[] {
          (near.x() - origin[0]) / size[0],
          (near.y() - origin[1]) / size[1],
          (near.z() - origin[2]) / size[2],
          near.omega(),
          near.phi(),
          near.kappa(),
          near.focal() / size[6],
          near.radial(),
          near.stretch(),
          near.shear()
        },
        FEW_STEPS));
  }

  /** Looking straight down with a focal length, as the similarity has it. */
  private double[] start(PlaneMap similar, double focal) {
    double[] at = new double[2];
    double[] right = new double[2];
    similar.apply(origin[0], -origin[1], at);
    similar.apply(origin[0] + 1, -origin[1], right);
    double a = right[0] - at[0];
    double b = right[1] - at[1];
    double scale = Math.hypot(a, b);
    double kappa = Math.atan2(b, a);
    // of the middle of the scan
    double du = (width / 2.0 - at[0]) / (scale * scale);
    double dv = (height / 2.0 - at[1]) / (scale * scale);
    double[] p = new double[UNKNOWNS];
    p[0] = (a * du + b * dv) / size[0];
    p[1] = -(-b * du + a * dv) / size[1];
    p[2] = focal / scale / size[2];
    p[5] = kappa;
    p[6] = focal / size[6];
    return p;
  }

  private FrameCamera camera(double[] p) {
    return new FrameCamera(
        crs,
        width,
        height,
        origin[0] + p[0] * size[0],
        origin[1] + p[1] * size[1],
        origin[2] + p[2] * size[2],
        p[3],
        p[4],
        p[5],
        p[6] * size[6],
        p[7],
        p[8],
        p[9]);
  }

  /** Differences in pixels, then what the distortions cost, as if pixels too. */
  private double[] differences(double[] p) {
    FrameCamera camera = camera(p);
    double[] off = new double[2 * ground.length + COMMON.length];
    double[] at = new double[2];
    for (int i = 0; i < ground.length; i++) {
      camera.toImage(ground[i][0], ground[i][1], ground[i][2], at);
      off[2 * i] = at[0] - image[i][0];
      off[2 * i + 1] = at[1] - image[i][1];
    }
    for (int k = 0; k < COMMON.length; k++) {
      off[2 * ground.length + k] = pull * p[7 + k] / COMMON[k];
    }
    return off;
  }

  private double cost(double[] p) {
    double sum = 0;
    for (double off : differences(p)) {
      sum += off * off;
    }
    return p[6] > 0 && !Double.isNaN(sum) ? sum : Double.POSITIVE_INFINITY;
  }

  private double[] refine(double[] start, int steps) {
    double[] p = start.clone();
    double cost = cost(p);
    double damping = 1e-3;
    for (int step = 0; step < steps && damping < 1e12; step++) {
      double[] off = differences(p);
      DMatrixRMaj jacobian = jacobian(p);
      DMatrixRMaj normal = new DMatrixRMaj(UNKNOWNS, UNKNOWNS);
      CommonOps_DDRM.multInner(jacobian, normal);
      DMatrixRMaj right = new DMatrixRMaj(UNKNOWNS, 1);
      CommonOps_DDRM.multTransA(jacobian, new DMatrixRMaj(off.length, 1, true, off), right);
      boolean better = false;
      while (!better && damping < 1e12) {
        DMatrixRMaj damped = normal.copy();
        for (int k = 0; k < UNKNOWNS; k++) {
          damped.add(k, k, damping * (normal.get(k, k) + 1e-12));
        }
        DMatrixRMaj change = new DMatrixRMaj(UNKNOWNS, 1);
        double[] next = p.clone();
        if (CommonOps_DDRM.solve(damped, right, change)) {
          for (int k = 0; k < UNKNOWNS; k++) {
            next[k] -= change.get(k);
          }
        }
        double then = cost(next);
        better = then < cost;
        if (better) {
          boolean settled = cost - then < 1e-10 * cost;
          p = next;
          cost = then;
          damping *= 0.2;
          if (settled) {
            return p;
          }
        } else {
          damping *= 5;
        }
      }
    }
    return p;
  }

  private DMatrixRMaj jacobian(double[] p) {
    int rows = 2 * ground.length + COMMON.length;
    DMatrixRMaj jacobian = new DMatrixRMaj(rows, UNKNOWNS);
    for (int k = 0; k < UNKNOWNS; k++) {
      double h = 1e-6;
      double[] up = p.clone();
      double[] down = p.clone();
      up[k] += h;
      down[k] -= h;
      double[] above = differences(up);
      double[] below = differences(down);
      for (int r = 0; r < rows; r++) {
        jacobian.set(r, k, (above[r] - below[r]) / (2 * h));
      }
    }
    return jacobian;
  }
}
