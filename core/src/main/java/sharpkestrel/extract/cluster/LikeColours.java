package sharpkestrel.extract.cluster;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.DecompositionFactory_DDRM;
import org.ejml.interfaces.decomposition.SingularValueDecomposition_F64;

/**
 * Colours that follow likeness: points are laid out along the three directions in which they differ most, which become lightness and the
 * two axes of colour of CIELAB (CIE 15:2004), so that what is near looks alike.
 */
final class LikeColours {

  private static final double DARKEST = 35;
  private static final double LIGHTEST = 85;
  private static final double COLOURED = 55;

  private LikeColours() {}

  /** Colours as {@code #RRGGBB}. */
  static List<String> of(float[][] points) {
    int n = points.length;
    int d = n == 0 ? 0 : points[0].length;
    double[][] along = new double[3][n];
    if (n > 1) {
      DMatrixRMaj centred = new DMatrixRMaj(n, d);
      for (int f = 0; f < d; f++) {
        double mean = 0;
        for (float[] point : points) {
          mean += point[f] / n;
        }
        for (int i = 0; i < n; i++) {
          centred.set(i, f, points[i][f] - mean);
        }
      }
      SingularValueDecomposition_F64<DMatrixRMaj> svd =
          DecompositionFactory_DDRM.svd(n, d, false, true, true);
      svd.decompose(centred.copy());
      DMatrixRMaj directions = svd.getV(null, true);
      double[] values = svd.getSingularValues();
      Integer[] order = new Integer[svd.numberOfSingularValues()];
      for (int i = 0; i < order.length; i++) {
        order[i] = i;
      }
      java.util.Arrays.sort(order, (a, b) -> Double.compare(values[b], values[a]));
      for (int axis = 0; axis < Math.min(3, order.length); axis++) {
        double sign = 0;
        for (int f = 0; f < d; f++) {
          sign += directions.get(order[axis], f);
        }
        for (int i = 0; i < n; i++) {
          for (int f = 0; f < d; f++) {
            // brighter in all is lighter, whichever way the direction came out
            along[axis][i] +=
                (sign < 0 ? -1 : 1) * directions.get(order[axis], f) * centred.get(i, f);
          }
        }
      }
    }
    double[] lightness = spreadOver(along[0], DARKEST, LIGHTEST);
    double[] first = spreadOver(along[1], -COLOURED, COLOURED);
    double[] second = spreadOver(along[2], -COLOURED, COLOURED);
    List<String> colours = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      colours.add(hex(lightness[i], first[i], second[i]));
    }
    return colours;
  }

  private static double[] spreadOver(double[] values, double low, double high) {
    double least = java.util.Arrays.stream(values).min().orElse(0);
    double most = java.util.Arrays.stream(values).max().orElse(0);
    double[] out = new double[values.length];
    for (int i = 0; i < out.length; i++) {
      double share = most > least ? (values[i] - least) / (most - least) : 0.5;
      out[i] = low + share * (high - low);
    }
    return out;
  }

  private static String hex(double lightness, double a, double b) {
    double fy = (lightness + 16) / 116;
    double x = 0.95047 * backward(fy + a / 500);
    double y = backward(fy);
    double z = 1.08883 * backward(fy - b / 200);
    return String.format(
        Locale.ROOT,
        "#%02X%02X%02X",
        channel(3.2406 * x - 1.5372 * y - 0.4986 * z),
        channel(-0.9689 * x + 1.8758 * y + 0.0415 * z),
        channel(0.0557 * x - 0.2040 * y + 1.0570 * z));
  }

  private static double backward(double t) {
    return t > 6.0 / 29 ? t * t * t : 3 * (6.0 / 29) * (6.0 / 29) * (t - 4.0 / 29);
  }

  private static int channel(double linear) {
    double clamped = Math.clamp(linear, 0, 1);
    double shown =
        clamped <= 0.0031308 ? 12.92 * clamped : 1.055 * Math.pow(clamped, 1 / 2.4) - 0.055;
    return (int) Math.round(255 * shown);
  }
}
