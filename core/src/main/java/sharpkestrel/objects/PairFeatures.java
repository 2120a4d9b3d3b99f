package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;

/**
 * Co-occurrence of grey levels within every object: pairs of pixels one apart, both in the object, each counted both ways
 * (Haralick, Shanmugam and Dinstein 1973, IEEE Trans. SMC 3(6), 610-621).
 */
final class PairFeatures implements ObjectStrips.Collector<Map<Integer, PairFeatures.Counts>> {

  private final GreyLevels greys;
  private final int[] steps;
  private final double[][] values;
  private final Map<Integer, int[]> open = new HashMap<>();

  private static final String[] NAMES = {
    "texture_contrast",
    "texture_dissimilarity",
    "texture_homogeneity",
    "texture_second_moment",
    "texture_entropy",
    "texture_correlation"
  };

  /** Cells of a matrix that are not 0, and what is in them. */
  record Counts(int[] cells, int[] counts) {}

  PairFeatures(int objects, GreyLevels greys, PairDirections directions) {
    this.greys = greys;
    steps = directions.steps();
    values = new double[NAMES.length][objects];
  }

  @Override
  public Map<Integer, Counts> strip(ObjectStrips.Strip strip) {
    float[] grey = greys.of(strip.planes());
    int levels = greys.levels();
    int[] matrix = new int[levels * levels];
    int[] touched = new int[matrix.length];
    Map<Integer, Counts> cut = new TreeMap<>();
    for (int k = 0; k < strip.count(); k++) {
      int count = 0;
      int object = strip.low() + k;
      for (int i = strip.starts()[k]; i < strip.starts()[k + 1]; i++) {
        int place = strip.order()[i];
        if (Float.isNaN(grey[place])) {
          continue;
        }
        int level = greys.level(grey[place]);
        for (int s = 0; s < steps.length; s += 2) {
          int other = place + steps[s] + steps[s + 1] * strip.stride();
          if (strip.objects()[other] != object || Float.isNaN(grey[other])) {
            continue;
          }
          int second = greys.level(grey[other]);
          // the lower half is the upper one turned
          int cell = Math.min(level, second) * levels + Math.max(level, second);
          if (matrix[cell]++ == 0) {
            touched[count++] = cell;
          }
        }
      }
      if (strip.whole()[k]) {
        finish(object, matrix, touched, count);
      } else if (count > 0) {
        int[] counts = new int[count];
        for (int c = 0; c < count; c++) {
          counts[c] = matrix[touched[c]];
        }
        cut.put(object, new Counts(Arrays.copyOf(touched, count), counts));
      }
      for (int c = 0; c < count; c++) {
        matrix[touched[c]] = 0;
      }
    }
    return cut;
  }

  @Override
  public void join(Map<Integer, Counts> part) {
    part.forEach((object, counts) -> {
      int[] matrix = open.computeIfAbsent(object, any -> new int[greys.levels() * greys.levels()]);
      for (int c = 0; c < counts.cells.length; c++) {
        matrix[counts.cells[c]] += counts.counts[c];
      }
    });
  }

  private void finish(int object, int[] matrix, int[] cells, int count) {
    int levels = greys.levels();
    double total = 0;
    double sum = 0;
    double square = 0;
    for (int c = 0; c < count; c++) {
      int i = cells[c] / levels;
      int j = cells[c] % levels;
      double n = matrix[cells[c]];
      total += n;
      sum += n * (i + j) / 2.0;
      square += n * (i * i + j * j) / 2.0;
    }
    if (total == 0) {
      values[2][object] = 1;
      values[3][object] = 1;
      values[5][object] = 1;
      return;
    }
    double mean = sum / total;
    double variance = square / total - mean * mean;
    double covariance = 0;
    for (int c = 0; c < count; c++) {
      int i = cells[c] / levels;
      int j = cells[c] % levels;
      double p = matrix[cells[c]] / total;
      double d = j - i;
      values[0][object] += p * d * d;
      values[1][object] += p * d;
      values[2][object] += p / (1 + d * d);
      // off the diagonal a pair stands in two cells, half of it in each
      values[3][object] += i == j ? p * p : p * p / 2;
      values[4][object] -= p * Math.log(i == j ? p : p / 2);
      covariance += p * (i - mean) * (j - mean);
    }
    values[5][object] = variance > 1e-12 ? covariance / variance : 1;
  }

  /** Ends what strips had cut, and gives the columns. */
  List<Table.Column> columns() {
    open.forEach((object, matrix) -> {
      int[] cells = IntStream.range(0, matrix.length).filter(c -> matrix[c] > 0).toArray();
      finish(object, matrix, cells, cells.length);
    });
    open.clear();
    List<Table.Column> columns = new ArrayList<>();
    for (int v = 0; v < NAMES.length; v++) {
      columns.add(FeatureCatalogue.column(NAMES[v], values[v]));
    }
    return columns;
  }
}
