package sharpkestrel.extract;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.everysize.BestSet;
import sharpkestrel.extract.everysize.FinderSchool;
import sharpkestrel.extract.everysize.NodeFeatures;
import sharpkestrel.extract.everysize.NodeOverlap;
import sharpkestrel.extract.everysize.Search;
import sharpkestrel.extract.learner.Likeness;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Things of every size that are like a few picked ones. */
@StepInfo(
    id = "find-alike",
    stage = Stage.EXTRACT,
    family = "Every size",
    title = "Find alike",
    makes = "Alike",
    does =
        "Ranks all nodes of the merge tree by how alike they are to one or a few picked things, and takes the set with the greatest total of"
            + " which none lies in another. Nothing needs to be measured before.")
public record FindAlike(
    @In(does = "The tree: what 'segment' made, or the file it wrote (.tree.gpkg).")
    Cut tree,

    @In(does = "The scene that was segmented.") Raster scene,

    @Group AlikeBy by)
    implements Step<ObjectSet> {

  /** A picked thing that no node fits better is in no node of its own. */
  private static final double LEAST_FIT = 0.2;

  @Override
  public ObjectSet run(Job job) {
    Samples samples = by.samples();
    DrawnRegions.requireSystemOf(scene.grid(), by.picks());
    NodeFeatures features =
        FinderSchool.features(scene, HeightModels.NONE, tree, Optional.empty(), job);
    int[] nodeOf = nodes(samples, features, job);
    int[] picked = places(samples, nodeOf, true);
    int[] rejected = places(samples, nodeOf, false);
    if (picked.length == 0) {
      throw new RasterException(
          "No node of the tree fits any of the picked things. Outline them as they lie in this scene, or pick objects of this tree.");
    }
    Likeness likeness = Likeness.of(features.columns(), picked, rejected, job);
    double[] above = new double[features.count()];
    Arrays.setAll(above, i -> likeness.likeness()[i] - by.least());
    int[] chosen = BestSet.choose(tree.tree(), features.nodes(), above);
    if (chosen.length == 0) {
      job.warn("Nothing is so alike. Lower the least likeness.");
    }
    return Search.objects(
        tree,
        features,
        chosen,
        List.of(new Table.Column(
            "likeness",
            "Likeness",
            "",
            IntStream.of(chosen).mapToDouble(i -> likeness.likeness()[i]).toArray())));
  }

  /** The measured node that fits each thing best, as a place among them; -1 for none. */
  private int[] nodes(Samples samples, NodeFeatures features, Job job) {
    NodeOverlap overlap =
        NodeOverlap.of(tree.tree(), tree.superpixels(), samples.drawOn(scene.grid(), job), job);
    int[] nodeOf = new int[samples.count()];
    double[] fit = new double[samples.count()];
    Arrays.fill(nodeOf, -1);
    for (int i = 0; i < features.count(); i++) {
      int node = features.nodes()[i];
      int sample = overlap.outline()[node];
      boolean isPoint = sample >= 0 && samples.shapes().get(sample).getArea() == 0;
      boolean fits = isPoint || overlap.best()[node] >= LEAST_FIT;
      if (sample >= 0 && fits && overlap.best()[node] > fit[sample]) {
        fit[sample] = overlap.best()[node];
        nodeOf[sample] = i;
      }
    }
    return nodeOf;
  }

  private int[] places(Samples samples, int[] nodeOf, boolean wanted) {
    return IntStream.range(0, nodeOf.length)
        .filter(s -> nodeOf[s] >= 0)
        .filter(s -> by.isWanted(samples.classes().get(samples.classOf()[s])) == wanted)
        .map(s -> nodeOf[s])
        .distinct()
        .sorted()
        .toArray();
  }
}
