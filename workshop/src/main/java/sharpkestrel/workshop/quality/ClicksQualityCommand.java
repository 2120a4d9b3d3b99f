package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.check.Compare;
import sharpkestrel.check.Scores;
import sharpkestrel.demo.Survey;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderSchool;
import sharpkestrel.extract.everysize.NodeFeatures;
import sharpkestrel.extract.everysize.NodeOverlap;
import sharpkestrel.extract.everysize.Search;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;

/** How many metal roofs are found from a few clicks in the same scene, by somebody who is made up and clicks right. */
@Command(
    name = "clicks-quality",
    description = {
      "Lets a simulated user click some metal roofs and some other objects, finds the rest, lets the surest false finds be clicked too,",
      "and writes docs/quality/clicks-SIZE.md. A click on a roof takes the node that fits it best."
    },
    mixinStandardHelpOptions = true)
public final class ClicksQualityCommand implements Runnable {

  private static final String WANTED = "material = 'metal' AND area >= 25 AND whole = 1";
  private static final String FORGIVEN = "material = 'metal' AND (area < 25 OR whole = 0)";
  private static final double LEAST_AREA = 20;

  @Mixin
  HeldOut on;

  @Option(names = "--trials", description = "Users, each with other clicks.")
  int trials = 2;

  @Option(names = "--out", description = "Folder of the page.")
  Path folder = Path.of("docs/quality");

  @Spec
  CommandSpec spec;

  /** How somebody goes on: roofs and others at first, rounds of corrections, clicks in each. */
  private record Way(int roofs, int others, int rounds, int corrections) {}

  private static final List<Way> WAYS = List.of(new Way(10, 10, 1, 10), new Way(30, 30, 2, 15));

  private record Row(long seed, int trial, String how, double half, double most) {}

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    List<Measured> scenes = new ArrayList<>();
    for (long seed : on.seeds) {
      scenes.add(measured(seed, job));
    }
    List<Row> rows = new ArrayList<>();
    for (int s = 0; s < scenes.size(); s++) {
      Measured scene = scenes.get(s);
      Measured next = scenes.get((s + 1) % scenes.size());
      for (int trial = 0; trial < trials; trial++) {
        for (Way way : WAYS) {
          User user = new User(scene, trial, job);
          for (Row row : user.go(way)) {
            rows.add(row);
            tell(out, row);
          }
          if (way == WAYS.getLast() && next != scene) {
            Row elsewhere = user.elsewhere(next);
            rows.add(elsewhere);
            tell(out, elsewhere);
          }
        }
      }
    }
    write(rows);
  }

  private static void tell(PrintWriter out, Row row) {
    out.printf(
        Locale.ROOT,
        "seed %d, user %d, %s: F1 %.3f, at 0.7 %.3f%n",
        row.seed,
        row.trial + 1,
        row.how,
        row.half,
        row.most);
    out.flush();
  }

  /** A scene with its tree, all nodes measured. */
  private record Measured(long seed, OutlineSet truth, Cut cut, NodeFeatures features) {}

  private Measured measured(long seed, Job job) {
    Survey survey = on.survey(seed, 0, job);
    Raster scene = SharpenedOrtho.TERRAIN_ORTHO.of(survey, job);
    Cut cut = (Cut) StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("criterion", "learned"))
        .run(job);
    return new Measured(
        seed,
        SharpenedOrtho.TERRAIN_ORTHO.roofs(survey).outlines(),
        cut,
        FinderSchool.features(scene, HeightModels.NONE, cut, Optional.empty(), job));
  }

  /** Somebody who knows which roofs are of metal. */
  private static final class User {
    private final long seed;
    private final int trial;
    private final OutlineSet truth;
    private final Cut cut;
    private final NodeFeatures features;
    private final NodeOverlap overlap;
    private final Job job;
    private final Random random;

    /** For each true outline the place of the node that fits it best. */
    private final Map<Integer, Integer> best = new HashMap<>();

    private final Map<Integer, Integer> placeOf = new HashMap<>();
    private final List<Integer> roofs = new ArrayList<>();
    private final List<Integer> others = new ArrayList<>();

    User(Measured scene, int trial, Job job) {
      seed = scene.seed;
      truth = scene.truth;
      cut = scene.cut;
      features = scene.features;
      this.trial = trial;
      this.job = job;
      random = new Random(7919L * trial + 13);
      overlap = NodeOverlap.of(cut.tree(), cut.superpixels(), truth.outlines(), job);
      Map<Integer, Float> fit = new HashMap<>();
      for (int i = 0; i < features.count(); i++) {
        int node = features.nodes()[i];
        placeOf.put(node, i);
        int outline = overlap.outline()[node];
        if (outline >= 0 && overlap.best()[node] > fit.getOrDefault(outline, 0.4f)) {
          fit.put(outline, overlap.best()[node]);
          best.put(outline, i);
        }
      }
    }

    private boolean isMetal(int outline) {
      return truth.table().column("material").text(outline).equals("metal");
    }

    private void clickRoofs(int count) {
      List<Integer> all = new ArrayList<>(IntStream.range(0, truth.count())
          .filter(o -> isMetal(o)
              && truth.table().values("area")[o] >= 25
              && truth.table().values("whole")[o] == 1
              && best.containsKey(o))
          .boxed()
          .toList());
      Collections.shuffle(all, random);
      all.stream().limit(count).forEach(o -> roofs.add(best.get(o)));
    }

    /** Objects of the tree's cut that are not of metal. */
    private void clickOthers(int count) {
      List<Integer> all = new ArrayList<>();
      for (int id : cut.ids()) {
        Integer place = placeOf.get(id - 1);
        if (place != null && features.areas()[place] >= LEAST_AREA) {
          int outline = overlap.outline()[id - 1];
          if (outline < 0 || !isMetal(outline) || overlap.best()[id - 1] < 0.05) {
            all.add(place);
          }
        }
      }
      Collections.shuffle(all, random);
      others.addAll(all.subList(0, Math.min(count, all.size())));
    }

    List<Row> go(Way way) {
      clickRoofs(way.roofs);
      clickOthers(way.others);
      List<Row> rows = new ArrayList<>();
      for (int round = 0; round <= way.rounds; round++) {
        ObjectSet found = found(finder(), cut, features);
        OutlineSet outlines = (OutlineSet) ResultKinds.as(found, OutlineSet.class);
        Scores half = scores(outlines, 0.5);
        rows.add(new Row(
            seed,
            trial,
            roofs.size() + others.size() + " clicks",
            half.f1(),
            scores(outlines, 0.7).f1()));
        if (round < way.rounds) {
          correct(found, new HashSet<>(half.wrong()), way.corrections);
        }
      }
      return rows;
    }

    /** The same clicks put to use in a scene in which nobody clicked. */
    Row elsewhere(Measured other) {
      ObjectSet found = found(finder(), other.cut, other.features);
      OutlineSet outlines = (OutlineSet) ResultKinds.as(found, OutlineSet.class);
      return new Row(
          other.seed,
          trial,
          roofs.size() + others.size() + " clicks in " + seed,
          new Compare(outlines, other.truth, WANTED, FORGIVEN, 0.5).run(job).f1(),
          new Compare(outlines, other.truth, WANTED, FORGIVEN, 0.7).run(job).f1());
    }

    private Finder finder() {
      FinderSchool school = FinderSchool.of(
          features,
          cut,
          outlines(roofs),
          new int[roofs.size()],
          Optional.of(outlines(others)),
          job);
      return Finder.learn(
          List.of(school), List.of("metal"), Learner.EXTREME_TREES, "from clicks", 1, job);
    }

    private ObjectSet found(Finder finder, Cut in, NodeFeatures measured) {
      return new Search(finder, in, measured, finder.of(measured, job))
          .choose(new boolean[] {true}, Double.NaN, Double.NaN, LEAST_AREA);
    }

    /** The surest false finds are clicked: what is no metal roof as such, a roof found badly as it should be. */
    private void correct(ObjectSet found, Set<Integer> wrong, int most) {
      double[] scores = found.table().values("score");
      List<Integer> order = wrong.stream()
          .sorted(Comparator.comparingDouble((Integer row) -> -scores[row]))
          .toList();
      int clicked = 0;
      for (int row : order) {
        if (clicked == most) {
          break;
        }
        int node = found.ids()[row] - 1;
        int outline = overlap.outline()[node];
        boolean metal = outline >= 0 && isMetal(outline) && overlap.best()[node] > 0.2;
        if (!metal) {
          others.add(placeOf.get(node));
          clicked++;
        } else if (best.containsKey(outline) && !roofs.contains(best.get(outline))) {
          roofs.add(best.get(outline));
          clicked++;
        }
      }
    }

    private List<Geometry> outlines(List<Integer> places) {
      List<Geometry> outlines = new ArrayList<>();
      for (int place : places) {
        ObjectSet one = Search.objects(cut, features, new int[] {place}, List.of());
        outlines.add(
            ((OutlineSet) ResultKinds.as(one, OutlineSet.class)).outlines().getFirst());
      }
      return outlines;
    }

    private Scores scores(OutlineSet outlines, double least) {
      return new Compare(outlines, truth, WANTED, FORGIVEN, least).run(job);
    }
  }

  private void write(List<Row> rows) {
    StringBuilder page = new StringBuilder("# Metal roofs from a few clicks\n\n");
    page.append("Made by `./kestrel clicks-quality --size=").append(on.size).append(" --seeds=");
    page.append(on.seedsText()).append(" --trials=").append(trials).append("`. ");
    page.append(
        "A made-up user clicks metal roofs and other objects of the scene, then the surest false finds, all of them right; all else is");
    page.append(
        " found by `learn-objects` with some labelled and `find-objects` as they are set. Roofs of 25 m² and more.");
    page.append(on.tuningNote());
    page.append("\n\n| seed | user | clicks | F1 at 0.5 | F1 at 0.7 |\n|---|---|---|---|---|\n");
    for (Row row : rows) {
      page.append(String.format(
          Locale.ROOT,
          "| %d | %d | %s | %.3f | %.3f |%n",
          row.seed,
          row.trial + 1,
          row.how,
          row.half,
          row.most));
    }
    Path file = folder.resolve("clicks-" + on.size + ".md");
    HeldOut.write(spec, file, page);
  }
}
