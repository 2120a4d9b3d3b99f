package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.Likeness;
import sharpkestrel.extract.learner.ObjectSamples;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Objects that are like a few picked ones. */
@StepInfo(
    id = "rank-alike",
    stage = Stage.EXTRACT,
    family = "Tests",
    title = "More like this",
    makes = "Alike",
    does =
        "Ranks objects by how alike they are to one or a few picked ones, the most alike first: what differs little among the picked and much"
            + " from the rest counts most, and what tells the rejected apart.")
public record RankAlike(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @Group AlikeBy by)
    implements Step<ObjectSet> {

  @Override
  public ObjectSet run(Job job) {
    var samples = by.samples();
    List<String> texts =
        IntStream.of(samples.classOf()).mapToObj(samples.classes()::get).toList();
    OutlineSet picks = new OutlineSet(
        by.picks().crs(),
        samples.shapes(),
        new Table(texts.size(), List.of(Table.Column.ofTexts("class", "Class", texts))));
    ObjectSamples found = ObjectSamples.of(objects, picks, "class", job);
    int[] classOf = found.classOf();
    int[] picked = IntStream.range(0, classOf.length)
        .filter(i -> classOf[i] >= 0 && by.isWanted(found.classes().get(classOf[i])))
        .toArray();
    int[] rejected = IntStream.range(0, classOf.length)
        .filter(i -> classOf[i] >= 0 && !by.isWanted(found.classes().get(classOf[i])))
        .toArray();
    if (picked.length == 0) {
      throw new RasterException(
          "None of the picked things that are wanted lies on an object. Pick objects of this set.");
    }
    Likeness likeness = Likeness.of(LearnClasses.columns(objects.table()), picked, rejected, job);
    return ranked(likeness.likeness(), job);
  }

  private ObjectSet ranked(float[] likeness, Job job) {
    int[] kept = IntStream.range(0, likeness.length)
        .filter(i -> likeness[i] >= by.least())
        .boxed()
        .sorted(Comparator.comparingDouble((Integer i) -> -likeness[i]))
        .mapToInt(Integer::intValue)
        .toArray();
    double[] alike = new double[likeness.length];
    double[] rank = new double[likeness.length];
    Arrays.setAll(alike, i -> likeness[i]);
    for (int place = 0; place < kept.length; place++) {
      rank[kept[place]] = place + 1;
    }
    if (kept.length == 0) {
      job.warn("Nothing is so alike. Lower the least likeness.");
    }
    List<Table.Column> added = new ArrayList<>();
    added.add(new Table.Column("likeness", "Likeness", "", alike));
    added.add(new Table.Column("rank", "Rank", "", rank));
    return objects.withTable(objects.table().with(added)).select(kept);
  }
}
