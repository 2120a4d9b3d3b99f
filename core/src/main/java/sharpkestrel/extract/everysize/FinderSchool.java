package sharpkestrel.extract.everysize;

import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.MergeTree;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * A scene in which everything there is of some classes has been outlined. Nodes of its tree that fit an outline are examples of its
 * class, those that fit none of something else.
 */
public final class FinderSchool {

  /** A node that overlaps so much is one of the class. */
  static final double RIGHT = 0.6;

  /** One that overlaps less is not. */
  static final double WRONG = 0.3;

  /** Of these all are learned from: parts of things, and things with what is beside them. */
  static final double NEAR = 0.03;

  /** The same of every node of a tree. */
  public static final int LEAST_PIXELS = 24;

  /** Of what overlaps nothing so many are learned from. */
  private static final int FAR = 4000;

  final MergeTree tree;
  final NodeFeatures features;
  private final float[] overlaps;
  private final int[] classes;

  private FinderSchool(MergeTree tree, NodeFeatures features, float[] overlaps, int[] classes) {
    this.tree = tree;
    this.features = features;
    this.overlaps = overlaps;
    this.classes = classes;
  }

  /**
   * @param classOf for each outline the place of its class; -1 where a node that fits it is neither right nor wrong
   */
  public static FinderSchool of(
      Raster scene, Cut cut, OutlineSet outlines, int[] classOf, Job job) {
    DrawnRegions.requireSystemOf(scene.grid(), outlines);
    NodeOverlap overlap = NodeOverlap.of(cut.tree(), cut.superpixels(), outlines.outlines(), job);
    NodeFeatures features = features(scene, cut, job);
    float[] overlaps = new float[features.count()];
    int[] classes = new int[features.count()];
    for (int i = 0; i < overlaps.length; i++) {
      int node = features.nodes()[i];
      overlaps[i] = overlap.best()[node];
      classes[i] = overlap.outline()[node] < 0 ? -1 : classOf[overlap.outline()[node]];
    }
    return new FinderSchool(cut.tree(), features, overlaps, classes);
  }

  /** What is measured of the nodes of a scene's tree. */
  public static NodeFeatures features(Raster scene, Cut cut, Job job) {
    if (!cut.superpixels().grid().equals(scene.grid())) {
      throw new RasterException(
          "The merge tree lies on other pixels than the scene. Give the scene that was segmented.");
    }
    GroundSize ground = GroundSize.of(scene);
    double azimuth =
        scene.attachments().get(Acquisition.class).map(Acquisition::sunAzimuth).orElse(Double.NaN);
    return NodeFeatures.of(
        cut.tree(),
        cut.superpixels(),
        FeatureSpace.of(scene, java.util.Map.of(), job),
        ground,
        azimuth,
        LEAST_PIXELS,
        LARGEST_SHARE * scene.grid().pixels() * ground.area(),
        job);
  }

  /** What is larger is no thing in a scene but a part of it. */
  private static final double LARGEST_SHARE = 0.02;

  /** How much a node overlaps what it fits best, 0 for what does not count. */
  double overlap(int i) {
    return classes[i] < 0 ? 0 : overlaps[i];
  }

  /** Whether nothing is known of a node: it fits something that is neither right nor wrong, or neither well nor badly. */
  boolean isForgiven(int i) {
    return classes[i] < 0 && overlaps[i] >= WRONG;
  }

  int classOf(int i) {
    return classes[i];
  }

  /** Nodes to learn classes from: those that are right, those that are near and wrong, some of all others. */
  int[] lessons(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    long far =
        IntStream.range(0, overlaps.length).filter(i -> overlaps[i] < NEAR).count();
    double share = (double) FAR / Math.max(1, far);
    return IntStream.range(0, overlaps.length)
        .filter(i -> overlaps[i] < NEAR
            ? random.nextDouble() < share
            : overlaps[i] <= WRONG || overlaps[i] >= RIGHT && classes[i] >= 0)
        .toArray();
  }

  /** Nodes to learn overlaps from: all that touch something, some of all others. */
  int[] touching(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    long far =
        IntStream.range(0, overlaps.length).filter(i -> overlaps[i] < NEAR).count();
    double share = (double) FAR / Math.max(1, far);
    return IntStream.range(0, overlaps.length)
        .filter(i -> !isForgiven(i) && (overlaps[i] >= NEAR || random.nextDouble() < share))
        .toArray();
  }

  /** Of the nodes that are surely wrong those that look most like something. */
  int[] hardest(float[] likeness, int count, double least, int[] learned) {
    boolean[] known = new boolean[overlaps.length];
    Arrays.stream(learned).forEach(i -> known[i] = true);
    List<Integer> wrong = new java.util.ArrayList<>();
    for (int i = 0; i < overlaps.length; i++) {
      if (!known[i] && overlaps[i] <= WRONG && likeness[i] > least) {
        wrong.add(i);
      }
    }
    wrong.sort(java.util.Comparator.comparingDouble((Integer i) -> -likeness[i]));
    return wrong.stream().limit(count).mapToInt(Integer::intValue).sorted().toArray();
  }
}
