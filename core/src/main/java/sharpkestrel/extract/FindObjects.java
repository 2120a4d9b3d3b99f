package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.everysize.BestSet;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderFile;
import sharpkestrel.extract.everysize.NodeFeatures;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.MergeTree;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Things of every size, found among all nodes of a merge tree. */
@StepInfo(
    id = "find-objects",
    stage = Stage.EXTRACT,
    title = "Find objects",
    makes = "Found",
    does =
        "Scores all nodes of the merge tree, not one cut, and takes the set with the greatest total score of which none lies in another:"
            + " sheds, houses and halls come out each at its size. What to look for comes from a model.")
public record FindObjects(
    @In(does = "The tree: what 'segment' made, or the file it wrote (.tree.gpkg).")
    Cut tree,

    @In(does = "The scene that was segmented.") Raster scene,

    @In(
        does =
            "What to look for: a model of 'learn-objects'; the one that ships finds roofs by their material, and has seen made-up"
                + " scenes with pixels of half a metre alone.",
        optional = true,
        without = "roofs, shipped",
        byHand = true)
    Optional<Finder> model,

    @Setting(
        label = "Classes",
        does = "Which of the model's classes are wanted, separated by commas; auto is all.",
        initial = "auto")
    List<String> classes,

    @Setting(
        label = "Least score",
        does =
            "Nodes that score less are not taken: the intersection over union that a node is thought to have with a wanted thing.",
        min = 0,
        max = 1,
        initial = "0.5")
    double leastScore,

    @Setting(
        label = "Least probability",
        does =
            "Nodes that are less surely of their likeliest class are not taken; more keeps classes purer and finds less.",
        min = 0,
        max = 1,
        initial = "0.3")
    double leastProbability,

    @Setting(
        label = "Least area",
        does = "Smaller ones are left out afterwards.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "0")
    double leastArea)
    implements Step<ObjectSet> {

  @Override
  public ObjectSet run(Job job) {
    Finder finder = model.orElseGet(FinderFile::ofRoofs);
    NodeFeatures features = finder.features(scene, tree, job);
    Finder.Said said = finder.of(features, job);
    List<String> outside = finder.outside(features);
    if (!outside.isEmpty()) {
      job.warn(
          "This scene lies beyond what the model has seen ("
              + finder.classifier().about()
              + "): " + Classifier.shortList(outside)
              + ". What it finds is a guess: look at some of it, or learn from outlines in this scene with 'learn-objects'.");
    }
    return choose(finder, features, said, job);
  }

  private boolean[] wanted(Finder finder) {
    List<String> known = finder.classes();
    List<String> asked = classes.stream().map(String::strip).toList();
    for (String each : asked) {
      if (!known.contains(each)) {
        throw new RasterException(
            "The model does not know '" + each + "'; it finds " + String.join(", ", known) + ".");
      }
    }
    boolean[] wanted = new boolean[known.size()];
    for (int k = 0; k < wanted.length; k++) {
      wanted[k] = asked.isEmpty() || asked.contains(known.get(k));
    }
    return wanted;
  }

  private ObjectSet choose(Finder finder, NodeFeatures features, Finder.Said said, Job job) {
    Cut cut = tree;
    boolean[] wanted = wanted(finder);
    double[] scores = new double[features.count()];
    double[] above = new double[scores.length];
    for (int i = 0; i < scores.length; i++) {
      boolean counts = wanted[said.classOf()[i]] && said.probability()[i] >= leastProbability;
      scores[i] = counts ? said.score(i) : 0;
      above[i] = scores[i] - leastScore;
    }
    MergeTree merges = cut.tree();
    int[] chosen = Arrays.stream(BestSet.choose(merges, features.nodes(), above))
        .filter(i -> features.areas()[i] >= leastArea)
        .toArray();
    if (chosen.length == 0) {
      job.warn(
          "Nothing was found: no node scores " + leastScore
              + " or more. Lower the least score, or label what is looked for in this scene and learn again.");
    }
    List<String> names = new ArrayList<>();
    for (int i : chosen) {
      names.add(finder.classes().get(said.classOf()[i]));
    }
    return objects(
        cut,
        features,
        chosen,
        List.of(
            Table.Column.ofTexts("class", "Class", names),
            column("score", "Score", "", chosen, i -> scores[i]),
            column("probability", "Probability", "", chosen, i -> said.probability()[i]),
            column("fit", "Fit", "", chosen, i -> said.fit()[i])));
  }

  /**
   * Nodes as objects, with their areas.
   *
   * @param chosen places among the features' nodes, none of which lies in another
   * @param more columns with a value for each of them
   */
  static ObjectSet objects(Cut cut, NodeFeatures features, int[] chosen, List<Table.Column> more) {
    int[] nodes = Arrays.stream(chosen).map(i -> features.nodes()[i]).toArray();
    int[] ofLeaves = BestSet.ofLeaves(cut.tree(), nodes);
    int[] rowOf = new int[ofLeaves.length + 1];
    rowOf[0] = -1;
    System.arraycopy(ofLeaves, 0, rowOf, 1, ofLeaves.length);
    int[] ids = Arrays.stream(nodes).map(node -> node + 1).toArray();
    List<Table.Column> columns = new ArrayList<>();
    columns.add(
        column("area", "Area", cut.ground().areaUnit(), chosen, i -> features.areas()[i]));
    columns.addAll(more);
    return new ObjectSet(
        cut.superpixels(), rowOf, ids, new Table(chosen.length, columns), cut.ground());
  }

  private static Table.Column column(
      String name,
      String title,
      String unit,
      int[] chosen,
      java.util.function.IntToDoubleFunction of) {
    return new Table.Column(
        name, title, unit, IntStream.of(chosen).mapToDouble(of).toArray());
  }
}
