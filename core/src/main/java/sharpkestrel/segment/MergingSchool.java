package sharpkestrel.segment;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelOverlap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.PairTable.Pairs;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.learn.Card;
import sharpkestrel.segment.learn.Lessons;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.Trainer;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.segment.regions.FeatureSpace;
import sharpkestrel.segment.regions.Regions;

/** A scene with outlines, whose superpixels are merged again and again to learn from what comes up. */
public final class MergingSchool {

  private static final int EPOCHS = 8;

  /** Share of the wrong merges that are refused, run by run of a round. */
  private static final double[] REFUSED = {1, 0.7};

  private final FeatureSpace space;
  private final RegionGraph graph;
  private final Rims rims;
  private final GroundSize ground;
  private final int[] outlineOf;
  private final int outlines;

  private MergingSchool(
      FeatureSpace space, RegionGraph graph, Rims rims, GroundSize ground, int[] outlineOf) {
    this.space = space;
    this.graph = graph;
    this.rims = rims;
    this.ground = ground;
    this.outlineOf = outlineOf;
    outlines = (int) Arrays.stream(outlineOf).filter(i -> i > 0).distinct().count();
  }

  /**
   * @param outlines of things, in the scene's system
   */
  public static MergingSchool of(Raster scene, OutlineSet outlines, Job job) {
    DrawnRegions.requireSystemOf(scene.grid(), outlines);
    FeatureSpace space = FeatureSpace.of(scene, Map.of(), job);
    ScratchLabels labels = new ScratchLabels(scene.grid());
    int count = Regions.superpixels(Regions.SUPERPIXEL, Regions.COMPACTNESS)
        .make(scene, Optional.empty(), space, labels, job);
    RegionGraph graph = RegionGraph.of(space, labels, count, job);
    Rims rims = Rims.of(graph, space, labels, sunAzimuth(scene), job);
    return new MergingSchool(
        space, graph, rims, GroundSize.of(scene), outlinesOf(labels, graph.counts, outlines, job));
  }

  /** Degrees clockwise from north, NaN where the scene does not say. */
  static double sunAzimuth(Raster scene) {
    return scene
        .attachments()
        .get(Acquisition.class)
        .map(Acquisition::sunAzimuth)
        .orElse(Double.NaN);
  }

  /** For each superpixel the outline that more than half of it lies in, from 1 on; 0 for none. */
  private static int[] outlinesOf(LabelRaster labels, int[] pixels, OutlineSet outlines, Job job) {
    ScratchLabels drawn = new ScratchLabels(labels.grid());
    DrawnRegions.draw(outlines.outlines(), drawn, job);
    Pairs pairs = LabelOverlap.of(labels, drawn, job);
    int[] outlineOf = new int[pixels.length];
    for (int i = 0; i < pairs.keys().length; i++) {
      int superpixel = (int) (pairs.keys()[i] >>> 32) - 1;
      if (2 * pairs.sides()[i] > pixels[superpixel]) {
        outlineOf[superpixel] = (int) pairs.keys()[i];
      }
    }
    return outlineOf;
  }

  private Card card() {
    return Card.of(ground, space.roles(), space.contrast());
  }

  /** Outlines that have most of a superpixel. */
  public int outlines() {
    return outlines;
  }

  /**
   * Learns from all scenes together.
   *
   * @param about what they are, for the model's reader
   */
  public static MergingModel learn(List<MergingSchool> schools, int rounds, String about, Job job) {
    Card card = schools.stream().map(MergingSchool::card).reduce(Card::with).orElseThrow();
    Lessons all = new Lessons(PairEvidence.NAMES.size());
    Optional<MergingModel> model = Optional.empty();
    for (int round = 0; round < rounds; round++) {
      int runs = schools.size() * REFUSED.length;
      Lessons[] learned = new Lessons[runs];
      Optional<MergingModel> soFar = model;
      int seed = 1000 * round;
      Parallel.run(runs, job, i -> {
        MergingSchool school = schools.get(i / REFUSED.length);
        learned[i] = school.run(soFar, card, REFUSED[i % REFUSED.length], seed + i, job);
      });
      for (Lessons lessons : learned) {
        all.addAll(lessons);
      }
      job.progress("Learning merging", round + 1, rounds);
      model = Optional.of(new MergingModel(
          about + ", " + all.count() + " pairs",
          card,
          PairEvidence.NAMES,
          Trainer.train(all, EPOCHS, job)));
    }
    return model.orElseThrow();
  }

  private Lessons run(Optional<MergingModel> model, Card card, double refused, long seed, Job job) {
    RegionGraph own = graph.copy();
    Rims ownRims = rims.copyFor(own);
    PairEvidence evidence = new PairEvidence(own, ownRims, space, card.pixelOf(ground));
    double usualPixels = Arrays.stream(graph.counts).average().orElse(1);
    Teacher teacher = new Teacher(outlineOf, evidence, usualPixels, refused, seed);
    new TreeBuilder(
            own, Criterion.STANDARD, Optional.of(new LearnedCosts(evidence, ownRims, model)))
        .build(job, Optional.of(teacher));
    return teacher.lessons();
  }
}
