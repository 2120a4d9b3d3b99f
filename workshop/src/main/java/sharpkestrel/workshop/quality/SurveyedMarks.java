package sharpkestrel.workshop.quality;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import sharpkestrel.demo.Survey;
import sharpkestrel.io.Json;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * Surveyed marks, white discs of 3 m, as they show in an ortho's pixels: a disc whose edge the optics blur is fitted to the
 * pixels about each, on ground whose brightness may slope, by least squares (as targets are located in photogrammetry).
 */
final class SurveyedMarks {

  private static final int REACH = 6;
  private static final int SIDE = 2 * REACH + 1;
  /** Pixels of 0.5 m. */
  private static final double RADIUS = 3;
  /** Pixels over which its edge goes from white to ground. */
  private static final double EDGE = 2;

  /** On ground nearly as bright as itself a mark is not located. */
  private static final double FAINT = 0.6;
  /** Correlation with a disc from which a mark counts as whole. */
  private static final double LIKE_A_DISC = 0.95;

  private static final int STEPS = 12;
  private static final double SMALL = 0.01;

  private SurveyedMarks() {}

  static String row(long seed, Survey survey, Raster ortho) {
    JsonNode marks = Json.read(survey.checkPoints()).path("marks");
    Affine toPixel = ortho.grid().affine().inverse();
    List<Double> off = new ArrayList<>();
    for (JsonNode mark : marks) {
      double col = toPixel.x(mark.path("east").asDouble(), mark.path("north").asDouble());
      double row = toPixel.y(mark.path("east").asDouble(), mark.path("north").asDouble());
      double[] at = locate(ortho, col, row);
      if (!Double.isNaN(at[0])) {
        off.add(Math.hypot(at[0] - col, at[1] - row));
      }
    }
    double squares = off.stream().mapToDouble(o -> o * o / off.size()).sum();
    return String.format(
        Locale.ROOT,
        "| %d | %d | %.3f | %.2f |%n",
        seed,
        off.size(),
        Math.sqrt(squares),
        off.stream().mapToDouble(o -> o).max().orElse(Double.NaN));
  }

  /** Column and row of a mark's middle; NaN where it is not seen whole. */
  private static double[] locate(Raster ortho, double col, double row) {
    double[] nowhere = {Double.NaN, Double.NaN};
    Window window =
        new Window((int) Math.floor(col) - REACH, (int) Math.floor(row) - REACH, SIDE, SIDE);
    float[] plane = ortho.read(0, window, Request.BACKGROUND)[0];
    float[] sorted = plane.clone();
    Arrays.sort(sorted);
    float ground = sorted[sorted.length / 2];
    float peak = sorted[sorted.length - 1];
    if (Float.isNaN(peak) || ground > FAINT * peak) {
      return nowhere;
    }
    double[] fit = fitted(plane, ground, peak);
    return likeness(plane, fit[0], fit[1]) < LIKE_A_DISC
        ? nowhere
        : new double[] {window.x() + fit[0], window.y() + fit[1]};
  }

  /** Middle, height above the ground, and the ground as a plane: by Gauss-Newton steps from a centroid. */
  private static double[] fitted(float[] plane, float ground, float peak) {
    double[] p = new double[6];
    double weight = 0;
    for (int i = 0; i < plane.length; i++) {
      double away = Math.hypot(i % SIDE - REACH, i / SIDE - REACH);
      boolean bright = plane[i] > ground + 0.35f * (peak - ground) && away < REACH;
      double w = bright ? plane[i] - ground : 0;
      weight += w;
      p[0] += w * (i % SIDE + 0.5);
      p[1] += w * (i / SIDE + 0.5);
    }
    p[0] /= weight;
    p[1] /= weight;
    p[2] = peak - ground;
    p[3] = ground;
    DMatrixRMaj jacobian = new DMatrixRMaj(plane.length, 6);
    DMatrixRMaj off = new DMatrixRMaj(plane.length, 1);
    DMatrixRMaj step = new DMatrixRMaj(6, 1);
    for (int k = 0; k < STEPS; k++) {
      for (int i = 0; i < plane.length; i++) {
        double disc = disc(i, p[0], p[1]);
        double u = i % SIDE + 0.5 - REACH;
        double v = i / SIDE + 0.5 - REACH;
        off.set(i, 0, plane[i] - (p[2] * disc + p[3] + p[4] * u + p[5] * v));
        jacobian.set(i, 0, p[2] * (disc(i, p[0] + SMALL, p[1]) - disc) / SMALL);
        jacobian.set(i, 1, p[2] * (disc(i, p[0], p[1] + SMALL) - disc) / SMALL);
        jacobian.set(i, 2, disc);
        jacobian.set(i, 3, 1);
        jacobian.set(i, 4, u);
        jacobian.set(i, 5, v);
      }
      if (!CommonOps_DDRM.solve(jacobian, off, step)) {
        return p;
      }
      for (int m = 0; m < p.length; m++) {
        p[m] += step.get(m, 0);
      }
    }
    return p;
  }

  /** Of a pixel, from 1 inside of a disc to 0 outside. */
  private static double disc(int pixel, double col, double row) {
    double away = Math.hypot(pixel % SIDE + 0.5 - col, pixel / SIDE + 0.5 - row);
    double t = Math.max(-1, Math.min(1, (RADIUS - away) / EDGE));
    return 0.5 + 0.25 * t * (3 - t * t);
  }

  /** Correlation with a disc about a place: low where a shadow lies across the mark, or bright ground beside it. */
  private static double likeness(float[] plane, double col, double row) {
    double n = plane.length;
    double a = 0;
    double b = 0;
    double aa = 0;
    double bb = 0;
    double ab = 0;
    for (int i = 0; i < plane.length; i++) {
      double disc = disc(i, col, row);
      a += plane[i];
      b += disc;
      aa += (double) plane[i] * plane[i];
      bb += disc * disc;
      ab += plane[i] * disc;
    }
    return (ab - a * b / n) / Math.sqrt((aa - a * a / n) * (bb - b * b / n));
  }
}
