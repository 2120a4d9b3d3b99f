package sharpkestrel.place.match;

import java.util.function.IntFunction;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.PlaneFits;
import sharpkestrel.place.fit.PlaneMap;

/** How far matches are off a plane through those that were kept. */
final class Trend {

  private Trend() {}

  /**
   * @param kept numbers of the matches that the plane goes through
   * @param from (input) places of the kept matches
   * @param dx (input) shift of each match
   * @param place of any match
   * @return distance of each match's shift from the plane's
   */
  static double[] residuals(
      int count,
      int[] kept,
      double[][] from,
      double[] dx,
      double[] dy,
      IntFunction<double[]> place) {
    double[][] shifts = new double[kept.length][];
    for (int k = 0; k < kept.length; k++) {
      shifts[k] = new double[] {dx[kept[k]], dy[kept[k]]};
    }
    PlaneMap plane = PlaneFits.fit(ModelKind.AFFINE, from, shifts);
    double[] off = new double[count];
    double[] xy = new double[2];
    for (int i = 0; i < count; i++) {
      double[] at = place.apply(i);
      plane.apply(at[0], at[1], xy);
      off[i] = Math.hypot(dx[i] - xy[0], dy[i] - xy[1]);
    }
    return off;
  }
}
