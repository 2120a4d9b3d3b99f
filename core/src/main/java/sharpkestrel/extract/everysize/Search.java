package sharpkestrel.extract.everysize;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;

/**
 * All nodes of a tree with what a finder says of them; which of them are taken is then a matter of one pass over the tree, whatever the
 * least score.
 */
public record Search(Finder finder, Cut tree, NodeFeatures features, Finder.Said said) {

  /** Measures and scores all nodes; says where the scene is unlike what the finder has seen. */
  public static Search of(Finder finder, Cut tree, Raster scene, HeightModels models, Job job) {
    NodeFeatures features = finder.features(scene, models, tree, job);
    Finder.Said said = finder.of(features, job);
    List<String> outside = finder.outside(features);
    if (!outside.isEmpty()) {
      job.warn(
          "This scene lies beyond what the model has seen ("
              + finder.classifier().about()
              + "): " + Classifier.shortList(outside)
              + ". What it finds is a guess: look at some of it, or learn from outlines in this scene with 'learn-objects'.");
    }
    return new Search(finder, tree, features, said);
  }

  /**
   * Which of the finder's classes are wanted.
   *
   * @param asked names; none for all
   * @throws RasterException for one that it does not know
   */
  public boolean[] wanted(List<String> asked) {
    List<String> known = finder.classes();
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

  /**
   * The disjoint nodes with the greatest total score.
   *
   * @param wanted which classes count
   * @param leastScore NaN for the finder's usual one, and {@code leastProbability} likewise
   * @param leastArea of what is kept of them
   */
  public ObjectSet choose(
      boolean[] wanted, double leastScore, double leastProbability, double leastArea) {
    double fromScore = Double.isNaN(leastScore) ? finder.usualScore() : leastScore;
    double fromProbability =
        Double.isNaN(leastProbability) ? finder.usualProbability() : leastProbability;
    double[] scores = new double[features.count()];
    double[] above = new double[scores.length];
    for (int i = 0; i < scores.length; i++) {
      boolean counts = wanted[said.classOf()[i]] && said.probability()[i] >= fromProbability;
      scores[i] = counts ? said.score(i) : 0;
      above[i] = scores[i] - fromScore;
    }
    int[] chosen = Arrays.stream(BestSet.choose(tree.tree(), features.nodes(), above))
        .filter(i -> features.areas()[i] >= leastArea)
        .toArray();
    List<String> names = new ArrayList<>();
    for (int i : chosen) {
      names.add(finder.classes().get(said.classOf()[i]));
    }
    return objects(
        tree,
        features,
        chosen,
        List.of(
            Table.Column.ofTexts(ClassMap.CLASS, "Class", names),
            Table.Column.ofTexts(
                ClassMap.COLOUR, "Colour", ClassMap.coloursOf(names, finder.classes())),
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
  public static ObjectSet objects(
      Cut cut, NodeFeatures features, int[] chosen, List<Table.Column> more) {
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
      String name, String title, String unit, int[] chosen, IntToDoubleFunction of) {
    return new Table.Column(
        name, title, unit, IntStream.of(chosen).mapToDouble(of).toArray());
  }
}
