package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.LearnersCompared;
import sharpkestrel.extract.learner.ObjectSamples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Which way of learning is worth most on the samples there are, by object and by pixel. */
@StepInfo(
    id = "compare-learners",
    stage = Stage.EXTRACT,
    family = "Examples",
    title = "Compare learners",
    does =
        "Learns from the same samples in several ways and says what each is worth on blocks of ground that were kept back; for one of them"
            + " how that grows with the number of samples, and what is lost without each feature. With a scene the same is seen of pixels.")
public record CompareLearners(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @In(
        does = "Samples: outlines or points with a class.",
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    OutlineSet samples,

    @In(
        does = "A scene on the same ground, of which pixels within the samples are told too.",
        optional = true,
        byHand = true)
    Optional<Raster> scene,

    @Group LearnBy by,

    @Setting(
        label = "Methods",
        does =
            "Ways to learn that are compared, separated by commas: forest, extreme_trees, boosting, likelihood, nearest, vectors; auto"
                + " takes all but support vectors, which take long with many samples.",
        initial = "auto")
    List<String> methods)
    implements Step<LearnersCompared> {

  private static final List<Learner> USUAL = List.of(
      Learner.FOREST, Learner.EXTREME_TREES, Learner.BOOSTING, Learner.LIKELIHOOD, Learner.NEAREST);

  public CompareLearners {
    learners(methods);
  }

  private static List<Learner> learners(List<String> methods) {
    return methods.isEmpty() ? USUAL : methods.stream().map(Learner::named).toList();
  }

  @Override
  public LearnersCompared run(Job job) {
    ObjectSamples found = ObjectSamples.of(objects, samples, by.use().column(), job);
    Examples examples = LearnClasses.examples(objects, found, by);
    long seed = by.use().seed();
    List<LearnersCompared.Entry> entries = new ArrayList<>();
    for (Learner each : learners(methods)) {
      entries.add(LearnersCompared.entry(LearnersCompared.Unit.OBJECTS, examples, each, seed, job));
    }
    if (scene.isPresent()) {
      for (Learner each : learners(methods)) {
        Examples pixels = LearnPixelsBy.of(each).examples(scene.get(), samples, job);
        entries.add(LearnersCompared.entry(LearnersCompared.Unit.PIXELS, pixels, each, seed, job));
      }
    }
    return new LearnersCompared(
        entries,
        by.method(),
        LearnersCompared.curve(examples, by.method(), seed, job),
        LearnersCompared.needed(examples, by.method(), seed, job));
  }
}
