package sharpkestrel.place.match;

import java.util.Arrays;
import java.util.function.IntFunction;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.PlaneFits;
import sharpkestrel.place.fit.PlaneMap;

/** How far matches are off what those that were kept have in common. */
final class Trend {

  private Trend() {}

  /**
   * @param kept numbers of the matches that were kept
   * @param dx (input) shift of each match
   * @return distance of each match's shift from the median of those kept
   */
  static double[] fromOneShift(int[] kept, double[] dx, double[] dy) {
    double x = median(kept, dx);
    double y = median(kept, dy);
    double[] off = new double[dx.length];
    for (int i = 0; i < off.length; i++) {
      off[i] = Math.hypot(dx[i] - x, dy[i] - y);
    }
    return off;
  }

  private static double median(int[] kept, double[] values) {
    double[] sorted = Arrays.stream(kept).mapToDouble(i -> values[i]).sorted().toArray();
    return sorted[sorted.length / 2];
  }

  /**
   * @param place of any match
   * @return distance of each match's shift from that of a plane through those kept
   */
  static double[] fromAPlane(int[] kept, double[] dx, double[] dy, IntFunction<double[]> place) {
    double[][] from = new double[kept.length][];
    double[][] shifts = new double[kept.length][];
    for (int k = 0; k < kept.length; k++) {
      from[k] = place.apply(kept[k]);
      shifts[k] = new double[] {dx[kept[k]], dy[kept[k]]};
    }
    PlaneMap plane = PlaneFits.fit(ModelKind.AFFINE, from, shifts);
    double[] off = new double[dx.length];
    double[] xy = new double[2];
    for (int i = 0; i < off.length; i++) {
      double[] at = place.apply(i);
      plane.apply(at[0], at[1], xy);
      off[i] = Math.hypot(dx[i] - xy[0], dy[i] - xy[1]);
    }
    return off;
  }
}
