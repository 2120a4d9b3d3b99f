package sharpkestrel.sharpen.texture;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Measures of texture in the window about each pixel, one band each. Windows are cut off at the edges of the scene, no-data
 * is left out of them, and a pixel without data has none here either.
 */
public final class TextureRaster extends DerivedRaster {

  private final Raster values;
  private final List<Measure> measures;
  private final Levels levels;
  private final int radius;
  private final Direction direction;
  private final int distance;
  private final double low;
  private final double unit;

  /**
   * @param values one band
   * @param statistics of it
   * @param side of the window in pixels, odd
   * @param distance between the pixels of a pair
   */
  public TextureRaster(
      Raster values,
      Statistics statistics,
      List<Measure> measures,
      Levels levels,
      int side,
      Direction direction,
      int distance) {
    super(
        values.grid(),
        measures.stream()
            .map(m -> new Band(
                m.name().toLowerCase(Locale.ROOT),
                BandRole.OTHER,
                "",
                SampleType.FLOAT32,
                Double.NaN))
            .toList(),
        values.attachments(),
        Zoom.FULL_RESOLUTION.over(values.zoom()));
    this.values = values;
    this.measures = List.copyOf(measures);
    this.levels = levels;
    this.radius = side / 2;
    this.direction = direction;
    this.distance = distance;
    low = statistics.min();
    boolean whole = values.bands().get(0).type().isWhole();
    unit = whole ? 1 : Math.max(statistics.max() - low, 1e-30) / (1 << 20);
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    Window wide = window.grown(radius);
    float[] plane = values.read(level, wide, request)[0];
    int area = window.area();
    moments(plane, wide.width(), target, area);
    if (wants(target, m -> m.ofPairs() || m == Measure.ENTROPY)) {
      LevelTile tile = LevelTile.of(plane, wide.width(), radius, levels);
      if (wants(target, m -> m == Measure.ENTROPY)) {
        LevelCounts.entropy(tile, levels.count(), target[place(Measure.ENTROPY)]);
      }
      request.cancellation().check();
      pairs(tile, target, area, request);
    }
    boolean holes = Planes.hasNaN(plane);
    for (int b = 0; b < target.length && holes; b++) {
      if (target[b] != null) {
        leaveHoles(plane, wide.width(), window, target[b]);
      }
    }
  }

  private int place(Measure measure) {
    return measures.indexOf(measure);
  }

  private boolean wants(float[][] target, Predicate<Measure> kind) {
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null && kind.test(measures.get(b))) {
        return true;
      }
    }
    return false;
  }

  private void moments(float[] plane, int stride, float[][] target, int area) {
    ValueSums sums = new ValueSums(plane, stride, radius, low, unit);
    if (wants(target, m -> m == Measure.RANGE)) {
      sums.range(target[place(Measure.RANGE)]);
    }
    if (!wants(target, m -> m == Measure.MEAN || m == Measure.VARIANCE || m == Measure.DEVIATION)) {
      return;
    }
    float[] mean = new float[area];
    float[] variance = new float[area];
    sums.moments(mean, variance);
    for (int b = 0; b < target.length; b++) {
      if (target[b] == null) {
        continue;
      }
      switch (measures.get(b)) {
        case MEAN -> System.arraycopy(mean, 0, target[b], 0, area);
        case VARIANCE -> System.arraycopy(variance, 0, target[b], 0, area);
        case DEVIATION -> {
          for (int i = 0; i < area; i++) {
            target[b][i] = (float) Math.sqrt(variance[i]);
          }
        }
        default -> {}
      }
    }
  }

  private void pairs(LevelTile tile, float[][] target, int area, Request request) {
    List<Displacement> displacements = direction.displacements(distance);
    float[][] lowest = new float[target.length][];
    float[][] one = new float[target.length][];
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null && measures.get(b).ofPairs()) {
        one[b] = displacements.size() == 1 ? target[b] : new float[area];
        lowest[b] = new float[direction == Direction.RANGE ? area : 0];
        float start = direction == Direction.MEAN || displacements.size() == 1
            ? 0
            : direction == Direction.MIN ? Float.POSITIVE_INFINITY : Float.NEGATIVE_INFINITY;
        Arrays.fill(target[b], start);
        Arrays.fill(lowest[b], Float.POSITIVE_INFINITY);
      }
    }
    for (Displacement displacement : displacements) {
      request.cancellation().check();
      sums(tile, displacement, one, area);
      counts(tile, displacement, one);
      for (int b = 0; b < one.length && displacements.size() > 1; b++) {
        if (one[b] != null) {
          direction.combine(target[b], lowest[b], one[b]);
        }
      }
    }
    for (int b = 0; b < one.length && displacements.size() > 1; b++) {
      for (int i = 0; one[b] != null && i < area; i++) {
        target[b][i] = switch (direction) {
          case MEAN -> target[b][i] / displacements.size();
          case RANGE -> target[b][i] - lowest[b][i];
          default -> target[b][i];
        };
      }
    }
  }

  /** Measures that are means over pairs. */
  private void sums(LevelTile tile, Displacement displacement, float[][] target, int area) {
    PairSums sums = new PairSums(tile, displacement);
    int[][] planes = new int[PairSums.Term.values().length][];
    for (int b = 0; b < target.length; b++) {
      Measure measure = measures.get(b);
      if (target[b] == null || measure.needsCounts()) {
        continue;
      }
      for (PairSums.Term term : terms(measure)) {
        if (planes[term.ordinal()] == null) {
          planes[term.ordinal()] = new int[area];
          sums.of(term, planes[term.ordinal()]);
        }
      }
      fill(measure, planes, target[b]);
    }
  }

  private static List<PairSums.Term> terms(Measure measure) {
    return switch (measure) {
      case CONTRAST -> List.of(PairSums.Term.ONE, PairSums.Term.SQUARED_DIFFERENCE);
      case DISSIMILARITY -> List.of(PairSums.Term.ONE, PairSums.Term.DIFFERENCE);
      case HOMOGENEITY -> List.of(PairSums.Term.ONE, PairSums.Term.INVERSE);
      case PAIR_MEAN -> List.of(PairSums.Term.ONE, PairSums.Term.SUM);
      case PAIR_VARIANCE -> List.of(PairSums.Term.ONE, PairSums.Term.SUM, PairSums.Term.SQUARES);
      case CORRELATION ->
        List.of(PairSums.Term.ONE, PairSums.Term.SUM, PairSums.Term.SQUARES, PairSums.Term.PRODUCT);
      default ->
        List.of(PairSums.Term.ONE, PairSums.Term.DIFFERENCE, PairSums.Term.SQUARED_DIFFERENCE);
    };
  }

  private static void fill(Measure measure, int[][] planes, float[] out) {
    int[] ones = planes[PairSums.Term.ONE.ordinal()];
    int[] squared = planes[PairSums.Term.SQUARED_DIFFERENCE.ordinal()];
    int[] differences = planes[PairSums.Term.DIFFERENCE.ordinal()];
    int[] sums = planes[PairSums.Term.SUM.ordinal()];
    int[] squares = planes[PairSums.Term.SQUARES.ordinal()];
    switch (measure) {
      case CONTRAST -> means(squared, ones, 1, out);
      case DISSIMILARITY -> means(differences, ones, 1, out);
      case HOMOGENEITY ->
        means(planes[PairSums.Term.INVERSE.ordinal()], ones, 1.0 / PairSums.INVERSE_ONE, out);
      case PAIR_MEAN -> means(sums, ones, 0.5, out);
      case PAIR_VARIANCE -> {
        for (int i = 0; i < out.length; i++) {
          out[i] = (float) variance(sums[i], squares[i], ones[i]);
        }
      }
      case CORRELATION ->
        correlations(planes[PairSums.Term.PRODUCT.ordinal()], sums, squares, ones, out);
      default -> {
        for (int i = 0; i < out.length; i++) {
          double n = ones[i];
          double mean = differences[i] / n;
          out[i] = n == 0 ? Float.NaN : (float) Math.max(0, squared[i] / n - mean * mean);
        }
      }
    }
  }

  private static void means(int[] sums, int[] counts, double factor, float[] out) {
    for (int i = 0; i < out.length; i++) {
      out[i] = (float) (factor * sums[i] / counts[i]);
    }
  }

  private static void correlations(
      int[] products, int[] sums, int[] squares, int[] ones, float[] out) {
    for (int i = 0; i < out.length; i++) {
      double n = ones[i];
      double mean = sums[i] / (2 * n);
      double variance = variance(sums[i], squares[i], n);
      double covariance = products[i] / n - mean * mean;
      out[i] = n == 0 ? Float.NaN : variance < 1e-9 ? 1 : (float) (covariance / variance);
    }
  }

  /** NaN where there is no pair. */
  private static double variance(double sum, double squares, double n) {
    double mean = sum / (2 * n);
    return Math.max(0, squares / (2 * n) - mean * mean);
  }

  /** Measures that need how often each pair of levels occurs. */
  private void counts(LevelTile tile, Displacement displacement, float[][] target) {
    if (!wants(target, Measure::needsCounts)) {
      return;
    }
    int[] wanted = IntStream.range(0, target.length)
        .filter(b -> target[b] != null && measures.get(b).needsCounts())
        .toArray();
    Measure[] which = Arrays.stream(wanted).mapToObj(measures::get).toArray(Measure[]::new);
    PairCounts counts = new PairCounts(tile, displacement, levels.count(), Set.of(which));
    int width = tile.width();
    for (int y = 0; y < tile.height(); y++) {
      counts.measure(y);
      for (int k = 0; k < which.length; k++) {
        counts.of(which[k], target[wanted[k]], y * width);
      }
    }
  }

  private void leaveHoles(float[] plane, int stride, Window window, float[] out) {
    for (int y = 0; y < window.height(); y++) {
      int from = (y + radius) * stride + radius;
      for (int x = 0; x < window.width(); x++) {
        if (Float.isNaN(plane[from + x])) {
          out[y * window.width() + x] = Float.NaN;
        }
      }
    }
  }
}
