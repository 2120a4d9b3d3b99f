package sharpkestrel.extract.learner;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.index.strtree.STRtree;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelOverlap;
import sharpkestrel.raster.PairTable;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.regions.DrawnRegions;

/**
 * What samples are worth before anything is made with them: how many there are and where, how far their classes are apart, which of them
 * contradict each other, and which look unlike their class.
 *
 * @param samples what was given a class
 * @param objects for each sample the objects that are samples of its class by it
 * @param own for each sample the probability of its own class by a learner that has not seen the ground about it; NaN where that is not
 *     known
 * @param looksLike for each sample the place of the class that the same learner gives it; -1 where that is not known
 * @param against for each sample another of another class at the same place; -1 for none
 * @param cells for each class the blocks of ground that have samples of it
 * @param allCells blocks of ground that have objects
 * @param apart how far classes are apart; empty where nothing could be learned
 * @param why nothing could be learned; empty where it could
 */
public record SampleEvidence(
    Samples samples,
    int[] objects,
    double[] own,
    int[] looksLike,
    int[] against,
    int[] cells,
    int allCells,
    Optional<ClassesApart> apart,
    String why) {

  private static final int PARTS = 5;

  /** Two samples that share more of the smaller one are at the same place. */
  private static final double SAME_PLACE = 0.2;

  /** What to learn with, for {@link #of}. */
  public interface Examining {
    Examples examples(ObjectSamples found);
  }

  /**
   * @param column of the class; empty for the usual one
   * @param examining makes examples of the objects that are samples
   * @throws RasterException where samples are in another system or have no class
   */
  public static SampleEvidence of(
      ObjectSet set,
      OutlineSet outlines,
      String column,
      Learner method,
      long seed,
      Examining examining,
      Job job) {
    Grid grid = set.labels().grid();
    DrawnRegions.requireSystemOf(grid, outlines);
    Samples samples = Samples.of(outlines, column);
    int n = samples.count();
    int classes = samples.classes().size();
    int[] blocks = ObjectSamples.blocks(set);
    int[] objects = new int[n];
    double[] own = new double[n];
    Arrays.fill(own, Double.NaN);
    int[] looksLike = new int[n];
    Arrays.fill(looksLike, -1);
    int[] cells = new int[classes];
    Optional<ClassesApart> apart = Optional.empty();
    String why = "";
    try {
      ObjectSamples found = ObjectSamples.of(set, outlines, column, job);
      int[] sampleOf = sampleOf(set, samples, found, job);
      for (int k = 0; k < classes; k++) {
        int ofClass = k;
        cells[k] = (int) IntStream.range(0, sampleOf.length)
            .filter(row -> sampleOf[row] >= 0 && found.classOf()[row] == ofClass)
            .map(row -> blocks[row])
            .distinct()
            .count();
      }
      for (int sample : sampleOf) {
        if (sample >= 0) {
          objects[sample]++;
        }
      }
      Examples examples = examining.examples(found);
      examples.check();
      apart = Optional.of(ClassesApart.of(examples));
      float[] shares = Folds.keptBack(examples, method, PARTS, seed, job);
      keep(shares, sampleOf, found, samples, own, looksLike);
    } catch (RasterException nothingToLearn) {
      why = nothingToLearn.getMessage();
    }
    return new SampleEvidence(
        samples,
        objects,
        own,
        looksLike,
        contradictions(samples),
        cells,
        (int) Arrays.stream(blocks).filter(block -> block >= 0).distinct().count(),
        apart,
        why);
  }

  /** For each object that is a sample the one that has most of it, -1 for others. */
  private static int[] sampleOf(ObjectSet set, Samples samples, ObjectSamples found, Job job) {
    int[] sampleOf = new int[set.count()];
    Arrays.fill(sampleOf, -1);
    int[] most = new int[set.count()];
    PairTable.Pairs pairs =
        LabelOverlap.of(set.labels(), samples.drawOn(set.labels().grid(), job), job);
    for (int i = 0; i < pairs.keys().length; i++) {
      int row = set.rowOf()[(int) (pairs.keys()[i] >>> 32)];
      int sample = (int) pairs.keys()[i] - 1;
      if (row >= 0
          && found.classOf()[row] >= 0
          && found.classOf()[row] == samples.classOf()[sample]
          && pairs.sides()[i] > most[row]) {
        most[row] = pairs.sides()[i];
        sampleOf[row] = sample;
      }
    }
    return sampleOf;
  }

  /** Probabilities of objects, in the order of the examples, as means of the samples that they are of. */
  private static void keep(
      float[] shares,
      int[] sampleOf,
      ObjectSamples found,
      Samples samples,
      double[] own,
      int[] looksLike) {
    int classes = samples.classes().size();
    int n = samples.count();
    float[] sums = new float[n * classes];
    int[] known = new int[n];
    int example = 0;
    for (int row = 0; row < sampleOf.length; row++) {
      if (found.classOf()[row] < 0) {
        continue;
      }
      int sample = sampleOf[row];
      if (sample >= 0 && !Float.isNaN(shares[example * classes])) {
        known[sample]++;
        for (int k = 0; k < classes; k++) {
          sums[sample * classes + k] += shares[example * classes + k];
        }
      }
      example++;
    }
    for (int sample = 0; sample < n; sample++) {
      if (known[sample] > 0) {
        own[sample] = sums[sample * classes + samples.classOf()[sample]] / known[sample];
        looksLike[sample] = Confusion.most(sums, sample * classes, classes);
      }
    }
  }

  private static int[] contradictions(Samples samples) {
    // outlines of pixels that meet at corners, and what was drawn across itself, have no area to
    // speak of before they are mended
    List<Geometry> shapes = samples.shapes().stream()
        .map(shape -> shape.isValid() ? shape : GeometryFixer.fix(shape))
        .toList();
    STRtree tree = new STRtree();
    for (int i = 0; i < shapes.size(); i++) {
      tree.insert(shapes.get(i).getEnvelopeInternal(), i);
    }
    int[] against = new int[samples.count()];
    Arrays.fill(against, -1);
    for (int i = 0; i < against.length; i++) {
      Geometry shape = shapes.get(i);
      for (Object near : tree.query(shape.getEnvelopeInternal())) {
        int other = (Integer) near;
        if (samples.classOf()[other] != samples.classOf()[i]
            && isSamePlace(shape, shapes.get(other))) {
          against[i] = other;
        }
      }
    }
    return against;
  }

  private static boolean isSamePlace(Geometry one, Geometry other) {
    if (one.getDimension() < 2 || other.getDimension() < 2) {
      return one.intersects(other);
    }
    double smaller = Math.min(one.getArea(), other.getArea());
    Geometry common = OverlayNGRobust.overlay(one, other, OverlayNG.INTERSECTION);
    return common.getArea() > SAME_PLACE * smaller;
  }

  /** Whether something speaks against a sample. */
  public boolean isDoubtful(int sample) {
    return !remark(sample).isEmpty();
  }

  /** What speaks against a sample, in words; empty where nothing does. */
  public String remark(int sample) {
    List<String> words = new ArrayList<>();
    String ofClass = samples.classes().get(samples.classOf()[sample]);
    if (against[sample] >= 0) {
      words.add("at the same place as a sample of '"
          + samples.classes().get(samples.classOf()[against[sample]]) + "'");
    }
    if (objects[sample] == 0 && why.isEmpty()) {
      words.add("no object is one by it");
    }
    if (looksLike[sample] >= 0 && looksLike[sample] != samples.classOf()[sample]) {
      words.add(String.format(
          Locale.ROOT,
          "looks like '%s' (%.0f %% %s)",
          samples.classes().get(looksLike[sample]),
          100 * own[sample],
          ofClass));
    }
    return String.join("; ", words);
  }
}
