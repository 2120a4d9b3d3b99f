package sharpkestrel.extract;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderSchool;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.regions.DrawnRegions;
import sharpkestrel.step.Group;
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
    family = "Every size",
    title = "Learn objects",
    makes = "Finder",
    version = 2,
    does =
        "Learns what things look like, whatever their size, from a scene in which all of them have been outlined, or some of them and some of"
            + " what is something else: nodes of the tree that fit an outline are right. 'find-objects' looks for them in this and other"
            + " scenes.")
public record LearnObjects(
    @In(does = "The tree: what 'segment' made, or the file it wrote (.tree.gpkg).")
    Cut tree,

    @In(does = "The scene that was segmented.") Raster scene,

    @Group HeightModels models,

    @In(
        does =
            "Outlines of things of the wanted classes in the scene, all or some of them; of some, also of things that are something else.",
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
            "CQL2 test of the outlines that are looked for; others are something else, e.g. material = 'metal'. auto: all, but for those of"
                + " the class 'other'.",
        initial = "auto")
    Optional<String> wanted,

    @Setting(
        label = "Labelled",
        does =
            "all: everything there is of the wanted classes has an outline, so that what has none is something else; some: a few of them"
                + " have, and what is something else is known only where it was outlined too. Of some, 10 and 10 are a start; label the"
                + " surest false finds and learn again.",
        initial = "all")
    Labelled labelled,

    @Setting(
        label = "Method",
        does =
            "How it is learned; auto takes gradient boosting where all are labelled, extremely randomised trees where some are.",
        initial = "auto")
    Optional<Learner> method,

    @Setting(
        label = "Seed",
        does = "Start of what is drawn by chance; the same gives the same model.",
        min = 0,
        max = 1e9,
        initial = "1")
    int seed)
    implements Step<Finder> {

  /** How much of what there is has been outlined. */
  public enum Labelled {
    ALL,
    SOME
  }

  private static final int LEAST = 5;
  private static final int LEAST_OF_SOME = 3;
  private static final String ONE = "thing";
  private static final String CLASS = "class";

  public LearnObjects {
    wanted.ifPresent(Cql2::parseTest);
  }

  @Override
  public Finder run(Job job) {
    boolean[] isWanted = isWanted();
    Samples samples = samples(select(isWanted, true));
    int least = labelled == Labelled.ALL ? LEAST : LEAST_OF_SOME;
    if (samples.count() < least) {
      throw new RasterException(
          samples.count() + " outlines are wanted; to learn from, " + least
              + " are needed at least, better a hundred. Outline more, or take another test ('wanted').");
    }
    OutlineSet others = select(isWanted, false);
    if (labelled == Labelled.SOME && others.count() == 0) {
      throw new RasterException(
          "Nothing is outlined that is something else, so that nothing tells where the wanted things end. Outline some of it with the class '"
              + Finder.OTHER + "', or say which are wanted ('wanted').");
    }
    return Finder.learn(
        List.of(school(samples, others, job)),
        samples.classes(),
        method.orElse(labelled == Labelled.ALL ? Learner.BOOSTING : Learner.EXTREME_TREES),
        "from " + samples.count() + " outlines "
            + (labelled == Labelled.ALL ? "" : "and " + others.count() + " of something else ")
            + "in one scene",
        seed,
        job);
  }

  private FinderSchool school(Samples samples, OutlineSet others, Job job) {
    DrawnRegions.requireSystemOf(scene.grid(), outlines);
    return FinderSchool.of(
        FinderSchool.features(scene, models, tree, Optional.empty(), job),
        tree,
        samples.shapes(),
        samples.classOf(),
        labelled == Labelled.ALL ? Optional.empty() : Optional.of(others.outlines()),
        job);
  }

  /** The column that holds the class; empty where there is none. */
  private Optional<String> column() {
    List<String> texts = outlines.table().columns().stream()
        .filter(Table.Column::isText)
        .map(Table.Column::name)
        .toList();
    return classColumn
        .or(() -> texts.contains(CLASS) ? Optional.of(CLASS) : Optional.empty())
        .or(() -> texts.size() == 1 ? Optional.of(texts.getFirst()) : Optional.empty());
  }

  private boolean[] isWanted() {
    boolean[] isWanted = new boolean[outlines.count()];
    if (wanted.isPresent()) {
      double[] passes = Cql2.parseTest(wanted.get()).evaluate(outlines.table());
      for (int i = 0; i < isWanted.length; i++) {
        isWanted[i] = passes[i] == 1;
      }
      return isWanted;
    }
    Optional<Table.Column> classes = column().map(outlines.table()::column);
    for (int i = 0; i < isWanted.length; i++) {
      int row = i;
      isWanted[i] = classes.map(c -> !c.text(row).equals(Finder.OTHER)).orElse(true);
    }
    return isWanted;
  }

  private Samples samples(OutlineSet some) {
    return some.count() > 0 && column().isPresent()
        ? Samples.of(some, column().get())
        : new Samples(some.outlines(), List.of(ONE), new int[some.count()]);
  }

  private OutlineSet select(boolean[] isWanted, boolean which) {
    int[] rows =
        IntStream.range(0, isWanted.length).filter(i -> isWanted[i] == which).toArray();
    return new OutlineSet(
        outlines.crs(),
        IntStream.of(rows).mapToObj(outlines.outlines()::get).toList(),
        outlines.table().select(rows));
  }
}
