package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.ClassesApart;
import sharpkestrel.extract.learner.SampleEvidence;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** What each sample is worth, and what speaks against it. */
@StepInfo(
    id = "weigh-samples",
    stage = Stage.EXTRACT,
    family = "Examples",
    title = "Weigh samples",
    makes = "Samples, weighed",
    does =
        "Tells of each sample how probable its class is by a learner that has not seen the ground about it, what it looks like instead,"
            + " which samples contradict each other and which lie on no object; of each class how far it is from the nearest other"
            + " (Jeffries-Matusita, 0 to 2, by the three features that part them best) and over how much ground it is spread.")
public record WeighSamples(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @In(
        does = "Samples: outlines or points with a class.",
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    OutlineSet samples,

    @Group LearnBy by)
    implements Step<OutlineSet> {

  @Override
  public OutlineSet run(Job job) {
    SampleEvidence evidence = evidence(objects, samples, by, job);
    long doubtful = IntStream.range(0, evidence.samples().count())
        .filter(evidence::isDoubtful)
        .count();
    if (!evidence.why().isEmpty()) {
      job.warn("Nothing could be learned from these samples: " + evidence.why());
    } else if (doubtful > 0) {
      job.warn(doubtful + " of " + evidence.samples().count()
          + " samples have something that speaks against them: see the column of remarks.");
    }
    return new OutlineSet(
        samples.crs(),
        evidence.samples().shapes(),
        new Table(evidence.samples().count(), columns(evidence)));
  }

  /** The same to look at. */
  public static SampleEvidence evidence(
      ObjectSet objects, OutlineSet samples, LearnBy by, Job job) {
    return SampleEvidence.of(
        objects,
        samples,
        by.use().column(),
        by.method(),
        by.use().seed(),
        found -> LearnClasses.examples(objects, found, by),
        job);
  }

  private static List<Table.Column> columns(SampleEvidence evidence) {
    Samples samples = evidence.samples();
    int n = samples.count();
    List<String> classes = new ArrayList<>();
    List<String> looksLike = new ArrayList<>();
    List<String> remarks = new ArrayList<>();
    List<String> nearest = new ArrayList<>();
    double[] objects = new double[n];
    double[] apart = new double[n];
    double[] ground = new double[n];
    for (int i = 0; i < n; i++) {
      int ofClass = samples.classOf()[i];
      classes.add(samples.classes().get(ofClass));
      int like = evidence.looksLike()[i];
      looksLike.add(like < 0 ? null : samples.classes().get(like));
      remarks.add(evidence.isDoubtful(i) ? evidence.remark(i) : null);
      objects[i] = evidence.objects()[i];
      ClassesApart distances = evidence.apart().orElse(null);
      int next = distances == null ? -1 : distances.nearest(ofClass);
      nearest.add(next < 0 ? null : samples.classes().get(next));
      apart[i] = next < 0 ? Double.NaN : distances.distance()[ofClass][next];
      ground[i] = (double) evidence.cells()[ofClass] / evidence.allCells();
    }
    return List.of(
        Table.Column.ofTexts("class", "Class", classes),
        new Table.Column("own", "Probability of its class", "", evidence.own()),
        Table.Column.ofTexts("looks_like", "Looks like", looksLike),
        Table.Column.ofTexts("remark", "Speaks against it", remarks),
        new Table.Column("objects", "Objects by it", "", objects),
        Table.Column.ofTexts("nearest", "Nearest class", nearest),
        new Table.Column("apart", "Apart from that", "", apart),
        new Table.Column("spread", "Share of the ground", "", ground));
  }
}
