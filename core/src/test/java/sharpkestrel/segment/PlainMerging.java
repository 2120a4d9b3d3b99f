package sharpkestrel.segment;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.regions.FeatureSpace;

/** Merging as a search over all pairs at every step, every cost from the pixels themselves. */
final class PlainMerging {

  private final FeatureSpace space;
  private final Criterion criterion;
  private final int width;
  private final int[] region;
  private final int[] superpixel;
  private final float[] features;
  private final int d;
  private final Map<Integer, Integer> valuedAt = new HashMap<>();

  PlainMerging(FeatureSpace space, LabelRaster labels, Criterion criterion) {
    this.space = space;
    this.criterion = criterion;
    Window all = labels.grid().window();
    width = all.width();
    region = new int[all.area()];
    labels.read(all, region);
    superpixel = region.clone();
    features = space.read(all, Job.QUIET.request());
    d = space.dimensions();
  }

  /** The height of every merge. */
  List<Double> heights() {
    Map<Long, Double> costs = new TreeMap<>();
    for (long pair : pairs()) {
      costs.put(pair, cost(pair));
    }
    for (int r : region) {
      if (r > 0) {
        valuedAt.merge(r, 1, Integer::sum);
      }
    }
    List<Double> heights = new ArrayList<>();
    double height = 0;
    while (!costs.isEmpty()) {
      long best = -1;
      for (var entry : costs.entrySet()) {
        best = best < 0 || entry.getValue() < costs.get(best) ? entry.getKey() : best;
      }
      height = Math.max(height, costs.get(best));
      heights.add(height);
      int a = (int) (best >>> 32);
      int b = (int) best;
      int keep = pixels(a) >= pixels(b) ? a : b;
      int lose = keep == a ? b : a;
      Map<Long, Double> before = new TreeMap<>(costs);
      for (int i = 0; i < region.length; i++) {
        region[i] = region[i] == lose ? keep : region[i];
      }
      boolean stale = pixels(keep) > 1.04 * valuedAt.get(keep);
      costs.clear();
      for (long pair : pairs()) {
        boolean ofKept = (int) (pair >>> 32) == keep || (int) pair == keep;
        int other = (int) (pair >>> 32) == keep ? (int) pair : (int) (pair >>> 32);
        boolean changed = ofKept && before.containsKey(key(other, lose));
        costs.put(pair, !ofKept || !changed && !stale ? before.get(pair) : cost(pair));
      }
      if (stale) {
        valuedAt.put(keep, pixels(keep));
      }
    }
    return heights;
  }

  private static long key(int a, int b) {
    return (long) Math.min(a, b) << 32 | Math.max(a, b);
  }

  private List<Long> pairs() {
    List<Long> pairs = new ArrayList<>();
    for (int i = 0; i < region.length; i++) {
      for (int j : new int[] {i % width + 1 < width ? i + 1 : i, i + width}) {
        if (j < region.length && region[i] != region[j] && region[i] > 0 && region[j] > 0) {
          pairs.add(key(region[i], region[j]));
        }
      }
    }
    return pairs.stream().distinct().toList();
  }

  private int pixels(int r) {
    int count = 0;
    for (int each : region) {
      count += each == r ? 1 : 0;
    }
    return count;
  }

  private double cost(long pair) {
    int a = (int) (pair >>> 32);
    int b = (int) pair;
    double na = pixels(a);
    double nb = pixels(b);
    double sum = 0;
    int length = 0;
    for (FeatureSpace.Part part : space.parts()) {
      double distance = 0;
      double within = 0;
      for (int k = part.from(); k < part.to(); k++) {
        double ma = mean(a, k);
        double mb = mean(b, k);
        distance += (ma - mb) * (ma - mb);
        for (int i = 0; i < region.length; i++) {
          double m = region[i] == a ? ma : mb;
          within += region[i] == a || region[i] == b
              ? Math.pow(features[i * d + k] - m, 2) / (na + nb)
              : 0;
        }
      }
      double contrast = 0;
      length = 0;
      int inner = 0;
      double texture = 0;
      for (int i = 0; i < region.length; i++) {
        for (int step : new int[] {1, width}) {
          int j = i + step;
          boolean beside = step == 1 ? i % width + 1 < width : j < region.length;
          if (beside && key(region[i], region[j]) == pair) {
            length++;
            contrast += across(part, behind(i, -step), behind(j, step));
          }
          if (beside
              && (region[i] == a || region[i] == b)
              && region[j] == region[i]
              && superpixel[j] != superpixel[i]) {
            inner++;
            texture += across(part, behind(i, -step), behind(j, step));
          }
        }
      }
      double floor = Criterion.floor(part.kind());
      sum += criterion.weight(part.kind())
          * Math.sqrt(distance)
          * (Double.isInfinite(floor) || criterion.texture() == 0 || inner == 0
              ? contrast / length
              : Math.max(
                  0.1 * contrast / length,
                  contrast / length - criterion.texture() * texture / (inner + 2000)))
          / (Double.isInfinite(floor) ? 1 : floor + within);
    }
    return na * nb / (na + nb) * sum / length * shape(a, b);
  }

  /** One pixel further away from a border, if there is data. */
  private int behind(int i, int step) {
    int j = i + step;
    boolean row = Math.abs(step) != 1 || j >= 0 && j / width == i / width;
    return j >= 0 && j < region.length && row && region[j] > 0 ? j : i;
  }

  private double across(FeatureSpace.Part part, int i, int j) {
    double square = 0;
    for (int k = part.from(); k < part.to(); k++) {
      square += Math.pow(features[i * d + k] - features[j * d + k], 2);
    }
    return Math.sqrt(square);
  }

  private double mean(int r, int k) {
    double sum = 0;
    for (int i = 0; i < region.length; i++) {
      sum += region[i] == r ? features[i * d + k] : 0;
    }
    return sum / pixels(r);
  }

  /** Second moments of all pixels as unit squares. */
  private double shape(int a, int b) {
    double n = 0;
    double x = 0;
    double y = 0;
    for (int i = 0; i < region.length; i++) {
      if (region[i] == a || region[i] == b) {
        n++;
        x += i % width;
        y += i / width;
      }
    }
    double xx = 1.0 / 12;
    double yy = 1.0 / 12;
    double xy = 0;
    for (int i = 0; i < region.length; i++) {
      if (region[i] == a || region[i] == b) {
        xx += Math.pow(i % width - x / n, 2) / n;
        yy += Math.pow(i / width - y / n, 2) / n;
        xy += (i % width - x / n) * (i / width - y / n) / n;
      }
    }
    return 144 * (xx * yy - xy * xy) / (n * n);
  }
}
