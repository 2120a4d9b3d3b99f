package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.expr.Table;

/** Gradients and local variance of grey levels within every object. */
final class EdgeFeatures implements ObjectStrips.Collector<EdgeFeatures.Part> {

  static final int DIRECTIONS = 8;

  /** Pixels with a gradient, their lengths, doubled angles, variances and how many; then lengths by direction. */
  private static final int SUMS = 6 + DIRECTIONS;

  private final GreyLevels greys;
  private final double[] sums;

  /** Sums of the objects from {@code low} on. */
  record Part(int low, double[] sums) {}

  EdgeFeatures(int objects, GreyLevels greys) {
    this.greys = greys;
    sums = new double[objects * SUMS];
  }

  static String share(int direction) {
    return "edges_" + Math.round(direction * 180.0 / DIRECTIONS);
  }

  @Override
  public Part strip(ObjectStrips.Strip strip) {
    float[] grey = greys.of(strip.planes());
    int stride = strip.stride();
    double[] part = new double[strip.count() * SUMS];
    for (int k = 0; k < strip.count(); k++) {
      int at = k * SUMS;
      for (int i = strip.starts()[k]; i < strip.starts()[k + 1]; i++) {
        int place = strip.order()[i];
        add(grey, place, stride, part, at);
      }
    }
    return new Part(strip.low(), part);
  }

  private static void add(float[] grey, int place, int stride, double[] part, int at) {
    float dx = (grey[place + 1] - grey[place - 1]) / 2;
    float dy = (grey[place + stride] - grey[place - stride]) / 2;
    double square = (double) dx * dx + (double) dy * dy;
    // the differences are NaN at the edge of the data
    if (square >= 0) {
      double length = Math.sqrt(square);
      part[at]++;
      part[at + 1] += length;
      if (length > 0) {
        // an edge runs across its gradient; the gradient's angle is taken clockwise from north,
        // rows running south
        part[at + 2] += (dy * dy - dx * dx) / length;
        part[at + 3] += -2 * dx * dy / length;
        double along = Math.toDegrees(Math.atan2(dx, -dy)) + 90;
        int bin = (int) (((along % 180) + 180) % 180 / 180 * DIRECTIONS);
        part[at + 6 + Math.min(DIRECTIONS - 1, bin)] += length;
      }
    }
    double sum = 0;
    double squares = 0;
    for (int v = -1; v <= 1; v++) {
      for (int u = -1; u <= 1; u++) {
        double d = grey[place + v * stride + u] - grey[place];
        sum += d;
        squares += d * d;
      }
    }
    double variance = squares / 9 - sum * sum / 81;
    if (variance >= 0) {
      part[at + 4] += variance;
      part[at + 5]++;
    }
  }

  @Override
  public void join(Part part) {
    for (int i = 0; i < part.sums.length; i++) {
      sums[part.low * SUMS + i] += part.sums[i];
    }
  }

  List<Table.Column> columns() {
    int n = sums.length / SUMS;
    double[] variance = new double[n];
    double[] density = new double[n];
    double[] direction = new double[n];
    double[] agreement = new double[n];
    double[][] shares = new double[DIRECTIONS][n];
    for (int i = 0; i < n; i++) {
      int at = i * SUMS;
      double lengths = sums[at + 1];
      variance[i] = sums[at + 5] > 0 ? sums[at + 4] / sums[at + 5] : Double.NaN;
      density[i] = sums[at] > 0 ? lengths / sums[at] : Double.NaN;
      // the doubled angle of the gradient, half a turn on for the edge across it
      double gradient = Math.toDegrees(Math.atan2(sums[at + 3], sums[at + 2])) / 2;
      direction[i] = lengths > 0 ? ((gradient + 90) % 180 + 180) % 180 : Double.NaN;
      agreement[i] = lengths > 0 ? Math.hypot(sums[at + 2], sums[at + 3]) / lengths : Double.NaN;
      for (int k = 0; k < DIRECTIONS; k++) {
        shares[k][i] = lengths > 0 ? sums[at + 6 + k] / lengths : Double.NaN;
      }
    }
    List<Table.Column> columns = new ArrayList<>(List.of(
        FeatureCatalogue.column("local_variance", variance),
        FeatureCatalogue.column("edge_density", density),
        FeatureCatalogue.column("edge_direction", direction),
        FeatureCatalogue.column("edge_agreement", agreement)));
    for (int k = 0; k < DIRECTIONS; k++) {
      columns.add(FeatureCatalogue.column(share(k), shares[k]));
    }
    return columns;
  }
}
