package sharpkestrel.sharpen.texture;

import java.util.Arrays;
import java.util.EnumSet;
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
    Planes.leaveHoles(plane, radius, window.width(), target);
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
        float start = direction == Direction.MEAN
            ? 0
            : direction == Direction.MIN ? Float.POSITIVE_INFINITY : Float.NEGATIVE_INFINITY;
        if (displacements.size() > 1) {
          Arrays.fill(target[b], start);
        }
        Arrays.fill(lowest[b], Float.POSITIVE_INFINITY);
      }
    }
    for (Displacement displacement : displacements) {
      request.cancellation().check();
      pairs(tile, displacement, one);
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

  private void pairs(LevelTile tile, Displacement displacement, float[][] target) {
    int[] wanted = IntStream.range(0, target.length)
        .filter(b -> target[b] != null && measures.get(b).ofPairs())
        .toArray();
    if (wanted.length == 0) {
      return;
    }
    Set<PairSums.Term> terms = EnumSet.of(PairSums.Term.ONE);
    Set<Measure> counted = EnumSet.noneOf(Measure.class);
    for (int b : wanted) {
      terms.addAll(PairMeans.terms(measures.get(b)));
      if (measures.get(b).needsCounts()) {
        counted.add(measures.get(b));
      }
    }
    PairSums sums = new PairSums(tile, displacement, terms);
    PairMeans means = new PairMeans(sums, tile.width());
    PairCounts counts =
        counted.isEmpty() ? null : new PairCounts(tile, displacement, levels.count(), counted);
    for (int y = 0; y < tile.height(); y++) {
      sums.next();
      means.next();
      if (counts != null) {
        counts.next(sums.of(PairSums.Term.ONE), means.shares());
      }
      for (int b : wanted) {
        if (measures.get(b).needsCounts()) {
          counts.of(measures.get(b), target[b], y * tile.width());
        } else {
          means.of(measures.get(b), target[b], y * tile.width());
        }
      }
    }
  }
}
