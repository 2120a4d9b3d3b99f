package sharpkestrel.extract.everysize;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.learn.Card;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.segment.regions.FeatureSpace;

/**
 * A scene in which things of some classes have been outlined: everything there is of them, or some, with some of what is something else.
 * Nodes of its tree that fit an outline are examples of its class. Where all have been outlined, those that fit none are examples of
 * something else; else those that fit outlines of something else, all that lies in these or holds them, and what is part of an outlined
 * thing or has much about it.
 */
public final class FinderSchool {

  /** A node that overlaps so much is one of the class. */
  static final double RIGHT = 0.6;

  /** One that overlaps less is not. */
  static final double WRONG = 0.3;

  /** Of these all are learned from: parts of things, and things with what is beside them. */
  static final double NEAR = 0.03;

  /** Smaller nodes have no form. */
  private static final int LEAST_PIXELS = 24;

  /** Of the scene; what is larger is no thing in it but a part of it. */
  private static final double LARGEST_SHARE = 0.25;

  /** Of what overlaps nothing so many are learned from. */
  private static final int FAR = 4000;

  final NodeFeatures features;
  private final float[] overlaps;
  private final int[] classes;

  /** For each node how well it fits what is something else; null where everything has been outlined. */
  private final float[] others;

  private FinderSchool(NodeFeatures features, float[] overlaps, int[] classes, float[] others) {
    this.features = features;
    this.overlaps = overlaps;
    this.classes = classes;
    this.others = others;
  }

  /**
   * One in which everything has been outlined.
   *
   * @param classOf for each outline the place of its class
   */
  public static FinderSchool of(
      Raster scene, HeightModels models, Cut cut, OutlineSet outlines, int[] classOf, Job job) {
    DrawnRegions.requireSystemOf(scene.grid(), outlines);
    return of(
        features(scene, models, cut, Optional.empty(), job),
        cut,
        outlines.outlines(),
        classOf,
        Optional.empty(),
        job);
  }

  /**
   * @param features of the cut's tree
   * @param classOf for each outline the place of its class
   * @param somethingElse outlines of what is something else, where not everything has been outlined
   */
  public static FinderSchool of(
      NodeFeatures features,
      Cut cut,
      List<Geometry> outlines,
      int[] classOf,
      Optional<List<Geometry>> somethingElse,
      Job job) {
    NodeOverlap overlap = NodeOverlap.of(cut.tree(), cut.superpixels(), outlines, job);
    float[] overlaps = new float[features.count()];
    int[] classes = new int[features.count()];
    for (int i = 0; i < overlaps.length; i++) {
      int node = features.nodes()[i];
      overlaps[i] = overlap.best()[node];
      classes[i] = overlap.outline()[node] < 0 ? -1 : classOf[overlap.outline()[node]];
    }
    return new FinderSchool(
        features,
        overlaps,
        classes,
        somethingElse.map(list -> fits(features, cut, list, job)).orElse(null));
  }

  private static float[] fits(NodeFeatures features, Cut cut, List<Geometry> outlines, Job job) {
    NodeOverlap overlap = NodeOverlap.of(cut.tree(), cut.superpixels(), outlines, job);
    float[] fits = new float[features.count()];
    for (int i = 0; i < fits.length; i++) {
      fits[i] = overlap.best()[features.nodes()[i]];
    }
    return fits;
  }

  /**
   * What is measured of the nodes of a scene's tree.
   *
   * @param models that tell heights above the ground, where there are any
   * @param model what a model has seen that they are measured for; empty to learn from them
   */
  public static NodeFeatures features(
      Raster scene, HeightModels models, Cut cut, Optional<Card> model, Job job) {
    if (!cut.superpixels().grid().equals(scene.grid())) {
      throw new RasterException(
          "The merge tree lies on other pixels than the scene. Give the scene that was segmented.");
    }
    GroundSize ground = GroundSize.of(scene);
    double azimuth =
        scene.attachments().get(Acquisition.class).map(Acquisition::sunAzimuth).orElse(Double.NaN);
    double own = ground.inMetres() ? ground.mean() : 1;
    return NodeFeatures.of(
        cut.tree(),
        cut.superpixels(),
        FeatureSpace.of(scene, Map.of(), models.aboveGround(scene.grid()), List.of(), job),
        ground,
        model.map(card -> card.pixelOf(ground)).orElse(own),
        azimuth,
        LEAST_PIXELS,
        LARGEST_SHARE * scene.grid().pixels() * ground.area(),
        job);
  }

  /** How much a node overlaps what it fits best. */
  double overlap(int i) {
    return overlaps[i];
  }

  int classOf(int i) {
    return classes[i];
  }

  /** Nodes to learn classes from: those that are right, those that are near and wrong, some of all others. */
  int[] lessons(long seed) {
    return some(seed, i -> overlaps[i] <= WRONG || overlaps[i] >= RIGHT);
  }

  /** Nodes to learn overlaps from: all that touch something, some of all others. */
  int[] touching(long seed) {
    return some(seed, i -> true);
  }

  /** Of the nodes that touch nothing some, of the others those that are asked for. */
  private int[] some(long seed, IntPredicate near) {
    SplittableRandom random = new SplittableRandom(seed);
    long far =
        IntStream.range(0, overlaps.length).filter(i -> overlaps[i] < NEAR).count();
    double share = (double) FAR / Math.max(1, far);
    return IntStream.range(0, overlaps.length)
        .filter(i -> overlaps[i] >= NEAR
            ? near.test(i)
            : isPartial() ? others[i] >= NEAR : random.nextDouble() < share)
        .toArray();
  }

  /** Whether only some of what there is has been outlined. */
  boolean isPartial() {
    return others != null;
  }

  /** Of the nodes that are surely wrong those that look most like something. */
  int[] hardest(float[] likeness, int count, double least, int[] learned) {
    if (isPartial()) {
      // what looks most like a thing may well be one
      return new int[0];
    }
    boolean[] known = new boolean[overlaps.length];
    Arrays.stream(learned).forEach(i -> known[i] = true);
    List<Integer> wrong = new ArrayList<>();
    for (int i = 0; i < overlaps.length; i++) {
      if (!known[i] && overlaps[i] <= WRONG && likeness[i] > least) {
        wrong.add(i);
      }
    }
    wrong.sort(Comparator.comparingDouble((Integer i) -> -likeness[i]));
    return wrong.stream().limit(count).mapToInt(Integer::intValue).sorted().toArray();
  }
}
