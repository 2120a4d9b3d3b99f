package sharpkestrel.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.index.strtree.STRtree;
import sharpkestrel.expr.Cql2;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.outline.Overlap;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/**
 * Matches found outlines with true ones, each at most once, the best overlap first. True outlines that the filter
 * leaves out are neither wanted nor held against what was found on them: a found outline without a match that lies for
 * the most part on one of those is not counted.
 */
@StepInfo(
    id = "compare",
    stage = Stage.CHECK,
    title = "Compare",
    makes = "Scores",
    does =
        "Matches found outlines with true ones by overlap and gives precision, recall, F1, mean intersection over union"
            + " and error of area.")
public record Compare(
    @In(does = "What was found.") OutlineSet outlines,
    @In(does = "The true outlines.") OutlineSet truth,

    @Setting(
        label = "Wanted",
        does = "CQL2 test of the true outlines that count, e.g. material = 'metal' AND area >= 25.",
        initial = "auto")
    String wanted,

    @Setting(
        label = "Forgiven",
        does =
            "CQL2 test of true outlines on which a find is neither right nor wrong: cut off by the edge, or too small.",
        initial = "auto")
    String forgiven,

    @Setting(
        label = "Overlap",
        does = "Least intersection over union of a match.",
        min = 0.05,
        max = 0.99,
        initial = "0.5")
    double overlap)
    implements Step<Scores> {

  private record Pair(int found, int truth, double iou) {}

  @Override
  public Scores run(Job job) {
    if (!outlines.crs().equals(truth.crs())) {
      throw new RasterException("What was found is in "
          + outlines.crs()
          + ", the truth in "
          + truth.crs()
          + ". Compare outlines of the same product in the same system.");
    }
    boolean[] counts = matching(wanted, true);
    boolean[] excused = matching(forgiven, false);
    STRtree tree = new STRtree();
    for (int t = 0; t < truth.count(); t++) {
      tree.insert(truth.outlines().get(t).getEnvelopeInternal(), t);
    }
    tree.build();
    List<Pair> pairs = new ArrayList<>();
    boolean[] onExcused = new boolean[outlines.count()];
    for (int f = 0; f < outlines.count(); f++) {
      job.cancellation().check();
      Geometry found = outlines.outlines().get(f);
      for (Object candidate : tree.query(found.getEnvelopeInternal())) {
        int t = (Integer) candidate;
        Geometry real = truth.outlines().get(t);
        double common = Overlap.commonArea(found, real);
        double iou = common / (found.getArea() + real.getArea() - common);
        if (counts[t] && iou >= overlap) {
          pairs.add(new Pair(f, t, iou));
        }
        onExcused[f] |= excused[t] && common >= 0.5 * found.getArea();
      }
    }
    pairs.sort(Comparator.comparingDouble((Pair p) -> -p.iou())
        .thenComparingInt(Pair::found)
        .thenComparingInt(Pair::truth));
    return score(pairs, counts, onExcused);
  }

  private Scores score(List<Pair> pairs, boolean[] counts, boolean[] onExcused) {
    boolean[] foundTaken = new boolean[outlines.count()];
    boolean[] truthTaken = new boolean[truth.count()];
    double iou = 0;
    double area = 0;
    int matched = 0;
    for (Pair pair : pairs) {
      if (foundTaken[pair.found()] || truthTaken[pair.truth()]) {
        continue;
      }
      foundTaken[pair.found()] = true;
      truthTaken[pair.truth()] = true;
      double real = truth.outlines().get(pair.truth()).getArea();
      iou += pair.iou();
      area += (outlines.outlines().get(pair.found()).getArea() - real) / real;
      matched++;
    }
    List<Integer> wrong = IntStream.range(0, outlines.count())
        .filter(f -> !foundTaken[f] && !onExcused[f])
        .boxed()
        .toList();
    List<Geometry> missed = IntStream.range(0, truth.count())
        .filter(t -> counts[t] && !truthTaken[t])
        .mapToObj(truth.outlines()::get)
        .toList();
    return new Scores(
        matched + wrong.size(),
        matched + missed.size(),
        matched,
        matched == 0 ? Double.NaN : iou / matched,
        matched == 0 ? Double.NaN : area / matched,
        overlap,
        missed,
        wrong);
  }

  private boolean[] matching(String filter, boolean where) {
    boolean[] result = new boolean[truth.count()];
    boolean none = filter.isBlank() || filter.equals("auto");
    double[] values = none ? null : Cql2.parseTest(filter).evaluate(truth.table());
    for (int i = 0; i < result.length; i++) {
      result[i] = values == null ? where : values[i] == 1;
    }
    return result;
  }
}
