package sharpkestrel.extract;

import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Cql2;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderSchool;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Learns what things look like among all nodes of a merge tree. */
@StepInfo(
    id = "learn-objects",
    stage = Stage.EXTRACT,
    title = "Learn objects",
    makes = "Finder",
    does =
        "Learns what things look like, whatever their size, from a scene in which all of them have been outlined: nodes of the tree that"
            + " fit an outline are right, those that fit none are not. 'find-objects' looks for them in this and other scenes.")
public record LearnObjects(
    @In(does = "The tree: what 'segment' made, or the file it wrote (.tree.gpkg).")
    Cut tree,

    @In(does = "The scene that was segmented.") Raster scene,

    @In(
        does =
            "Outlines of all things of the wanted classes in the scene: what has none is taken as something else.",
        byHand = true,
        suits = Suits.OBJECTS)
    OutlineSet outlines,

    @Setting(
        label = "Class column",
        does =
            "Column that holds the class; auto is 'class', or the only column of texts; where there is none all are of one class.",
        initial = "auto")
    Optional<String> classColumn,

    @Setting(
        label = "Wanted",
        does =
            "CQL2 test of the outlines that are looked for; others are something else, e.g. material = 'metal'.",
        initial = "auto")
    Optional<String> wanted,

    @Setting(
        label = "Method",
        does =
            "How it is learned; gradient boosting is best with many outlines, extreme trees with few.",
        initial = "boosting")
    Learner method,

    @Setting(
        label = "Seed",
        does = "Start of what is drawn by chance; the same gives the same model.",
        min = 0,
        max = 1e9,
        initial = "1")
    int seed)
    implements Step<Finder> {

  private static final int LEAST = 5;
  private static final String ONE = "thing";

  public LearnObjects {
    wanted.ifPresent(Cql2::parseTest);
  }

  @Override
  public Finder run(Job job) {
    Samples samples = samples();
    int[] classOf = samples.classOf();
    if (samples.count() < LEAST) {
      throw new RasterException(
          samples.count() + " outlines are wanted; to learn from, " + LEAST
              + " are needed at least, better a hundred. Outline more, or take another test ('wanted').");
    }
    OutlineSet all = new OutlineSet(
        outlines.crs(), samples.shapes(), new sharpkestrel.expr.Table(samples.count(), List.of()));
    FinderSchool school = FinderSchool.of(scene, tree, all, classOf, job);
    return Finder.learn(
        List.of(school),
        samples.classes(),
        method,
        "from " + samples.count() + " outlines in one scene",
        seed,
        job);
  }

  private Samples samples() {
    OutlineSet some = wanted.map(this::passing).orElse(outlines);
    boolean named = classColumn.isPresent()
        || some.table().columns().stream().anyMatch(c -> c.isText() && c.name().equals("class"))
        || some.table().columns().stream().filter(c -> c.isText()).count() == 1;
    return named
        ? Samples.of(some, classColumn.orElse(""))
        : new Samples(some.outlines(), List.of(ONE), new int[some.count()]);
  }

  private OutlineSet passing(String test) {
    double[] passes = Cql2.parseTest(test).evaluate(outlines.table());
    int[] rows = java.util.stream.IntStream.range(0, passes.length)
        .filter(i -> passes[i] == 1)
        .toArray();
    return new OutlineSet(
        outlines.crs(),
        java.util.Arrays.stream(rows).mapToObj(outlines.outlines()::get).toList(),
        outlines.table().select(rows));
  }
}
