package sharpkestrel.workshop.quality;

import java.util.Arrays;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.check.Compare;
import sharpkestrel.check.Scores;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.OutlineObjects;
import sharpkestrel.extract.RangeTest;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;

/** How well one range of one feature alone would do, its ends chosen by what scores best: a task this easy is no task. */
final class SingleFeature {

  private static final int STEPS = 12;

  record Best(String text, double f1) {
    static final Best UNKNOWN = new Best("not sought", Double.NaN);

    /** Two cells of a table. */
    String cells() {
      return Double.isNaN(f1)
          ? text + " | \u2013"
          : String.format(java.util.Locale.ROOT, "`%s` | %.3f", text, f1);
    }
  }

  private SingleFeature() {}

  static Best best(ObjectSet objects, Layer truth, Job job) {
    Best best = new Best("", 0);
    for (Table.Column column : objects.table().columns()) {
      if (column.name().equals("orientation") || column.name().equals("score")) {
        continue;
      }
      double[] sorted =
          Arrays.stream(column.values()).filter(v -> !Double.isNaN(v)).sorted().toArray();
      if (sorted.length == 0) {
        continue;
      }
      for (int i = 0; i < 2 * STEPS; i++) {
        // Roofs are few: the ends to try lie in the outer tenth of either side.
        double share = 0.10 * Math.pow(0.55, i % STEPS);
        int place = (int) (share * (sorted.length - 1));
        RangeTest test = i < STEPS
            ? new RangeTest(
                column.name(), sorted[sorted.length - 1 - place], Double.POSITIVE_INFINITY)
            : new RangeTest(column.name(), Double.NEGATIVE_INFINITY, sorted[place]);
        double f1 = score(objects, test, truth, job);
        if (f1 > best.f1()) {
          best = new Best(rounded(test), f1);
        }
      }
    }
    return best;
  }

  private static String rounded(RangeTest test) {
    boolean high = test.high() == Double.POSITIVE_INFINITY;
    return String.format(
        java.util.Locale.ROOT,
        "%s %s %.4g",
        test.feature(),
        high ? ">=" : "<=",
        high ? test.low() : test.high());
  }

  private static double score(ObjectSet objects, RangeTest test, Layer truth, Job job) {
    double[] values = objects.table().values(test.feature());
    int[] rows =
        IntStream.range(0, values.length).filter(i -> test.passes(values[i])).toArray();
    if (rows.length == 0 || rows.length > 20_000) {
      return 0;
    }
    OutlineSet outlines = new OutlineObjects(
            objects.select(rows),
            OutlineObjects.Form.SQUARED,
            0.6,
            true,
            0,
            10,
            Optional.of("area >= 20"))
        .run(Job.of(job.threads(), 512));
    Scores scores = new Compare(
            outlines,
            truth.outlines(),
            "material = 'metal' AND area >= 25 AND whole = 1",
            "material = 'metal' AND (area < 25 OR whole = 0)",
            0.5)
        .run(Job.QUIET);
    return Double.isNaN(scores.f1()) ? 0 : scores.f1();
  }
}
