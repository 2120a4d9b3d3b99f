package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.check.Scores;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.KeptResults;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.Runner;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.Job;

/** How well the shipped chain finds a target against its background, from drawn areas to outlines. */
@Command(
    name = "target-quality",
    description = {
      "Draws some metal roofs, other roofs and grounds on held-out surveys as somebody would who knows them, runs a sheet that goes from",
      "these to outlines, and writes docs/quality/target-SIZE.md."
    },
    mixinStandardHelpOptions = true)
public final class TargetQualityCommand implements Runnable {

  private static final double LEAST_AREA = 25;

  /** Metres of ground drawn around, and between it and the nearest roof. */
  private static final double RADIUS = 5;

  private static final double CLEAR = 4;

  @Mixin
  HeldOut on;

  @Option(
      names = "--sheet",
      description = "The run sheet; its variables survey and samples are given.")
  Path sheet = Path.of("docs/examples/target-probability.json");

  @Option(names = "--drawn", description = "How many areas of each of the three kinds.")
  int kinds = 30;

  @Option(names = "--rounds", description = "How often false finds are drawn as something else.")
  int rounds = 2;

  @Option(names = "--corrections", description = "How many of them each time.")
  int corrections = 15;

  @Option(names = "--users", description = "How often other areas are drawn.")
  int users = 2;

  @Option(names = "--out", description = "Folder of the page.")
  Path folder = Path.of("docs/quality");

  @Spec
  CommandSpec spec;

  private record Row(long seed, int user, int areas, Scores scores) {}

  @Override
  public void run() {
    on.check();
    PrintWriter out = spec.commandLine().getOut();
    Job job = HeldOut.job(spec);
    List<Row> rows = new ArrayList<>();
    for (long seed : on.seeds) {
      Survey survey = on.survey(seed, 0, job);
      OutlineSet truth = SharpenedOrtho.TERRAIN_ORTHO.roofs(survey).outlines();
      for (int user = 0; user < users; user++) {
        Drawn areas = drawn(truth, new Random(15_485_863L * user + seed));
        for (int round = 0; round <= rounds; round++) {
          Found found = find(survey, seed + "-" + on.size + "-" + user + "-" + round, areas, job);
          Row row = new Row(seed, user, areas.shapes.size(), found.scores);
          rows.add(row);
          out.printf(
              Locale.ROOT,
              "seed %d, user %d, %d areas: F1 %.3f (precision %.3f, recall %.3f)%n",
              seed,
              user + 1,
              row.areas,
              row.scores.f1(),
              row.scores.precision(),
              row.scores.recall());
          out.flush();
          correct(found, areas, truth, new Random(user + 31L * round));
        }
      }
    }
    write(rows);
  }

  /** Areas with their classes, as they grow. */
  private record Drawn(List<Geometry> shapes, List<String> classes) {

    void add(Geometry shape, String ofClass) {
      shapes.add(shape);
      classes.add(ofClass);
    }
  }

  private record Found(OutlineSet outlines, Scores scores) {}

  private Found find(Survey survey, String name, Drawn areas, Job job) {
    Path run = DemoData.home().resolve("runs/target-" + name);
    Path samples = run.resolve("samples.gpkg");
    Layer layer = new Layer(
        "samples",
        GeoPackage.read(survey.truth("scene-one", "roofs-terrain-ortho.gpkg"), "")
            .crs(),
        areas.shapes,
        new Table(
            areas.shapes.size(), List.of(Table.Column.ofTexts("class", "Class", areas.classes))),
        Map.of());
    GeoPackage.write(layer, samples);
    Map<String, Object> results = new Runner(new KeptResults(run.resolve("kept")), List.of(run))
        .run(
            RunSheet.read(sheet),
            Map.of(
                "survey", survey.folder().toString(),
                "samples", samples.toString(),
                "out", run.toString()),
            job,
            (entry, value) -> {});
    return new Found(last(results, OutlineSet.class), last(results, Scores.class));
  }

  private static <T> T last(Map<String, Object> results, Class<T> type) {
    return results.values().stream()
        .filter(type::isInstance)
        .map(type::cast)
        .reduce((before, next) -> next)
        .orElseThrow();
  }

  /** Some of the false finds are drawn as something else: what they are of, wherever no metal roof lies. */
  private void correct(Found found, Drawn areas, OutlineSet truth, Random random) {
    STRtree metal = new STRtree();
    for (int i = 0; i < truth.count(); i++) {
      if (truth.table().column("material").text(i).equals("metal")) {
        metal.insert(
            truth.outlines().get(i).getEnvelopeInternal(), truth.outlines().get(i));
      }
    }
    metal.build();
    List<Integer> wrong = new ArrayList<>(found.scores.wrong());
    Collections.shuffle(wrong, random);
    int left = corrections;
    for (int row : wrong) {
      Geometry shape = found.outlines.outlines().get(row);
      List<?> near = metal.query(shape.getEnvelopeInternal());
      boolean isOther = near.stream().noneMatch(roof -> ((Geometry) roof).intersects(shape));
      if (isOther && left-- > 0) {
        areas.add(shape, "something else");
      }
    }
  }

  private Drawn drawn(OutlineSet truth, Random random) {
    Drawn areas = new Drawn(new ArrayList<>(), new ArrayList<>());
    List<Integer> whole = IntStream.range(0, truth.count())
        .filter(i ->
            truth.table().values("area")[i] >= LEAST_AREA && truth.table().values("whole")[i] == 1)
        .boxed()
        .toList();
    for (boolean metal : new boolean[] {true, false}) {
      List<Integer> of = new ArrayList<>(whole.stream()
          .filter(i -> truth.table().column("material").text(i).equals("metal") == metal)
          .toList());
      Collections.shuffle(of, random);
      for (int i : of.subList(0, Math.min(kinds, of.size()))) {
        areas.add(truth.outlines().get(i), metal ? "metal roof" : "other roof");
      }
    }
    STRtree roofs = new STRtree();
    Envelope all = new Envelope();
    truth.outlines().forEach(outline -> {
      roofs.insert(outline.getEnvelopeInternal(), outline);
      all.expandToInclude(outline.getEnvelopeInternal());
    });
    GeometryFactory points = new GeometryFactory();
    for (int k = 0; k < kinds; ) {
      Geometry place = points
          .createPoint(new Coordinate(
              all.getMinX() + random.nextDouble() * all.getWidth(),
              all.getMinY() + random.nextDouble() * all.getHeight()))
          .buffer(RADIUS);
      Envelope around = new Envelope(place.getEnvelopeInternal());
      around.expandBy(CLEAR);
      if (roofs.query(around).isEmpty()) {
        areas.add(place, "ground");
        k++;
      }
    }
    return areas;
  }

  private void write(List<Row> rows) {
    StringBuilder page = new StringBuilder("# A target against its background\n\n");
    page.append("Made by `./kestrel target-quality --size=").append(on.size).append(" --seeds=");
    page.append(on.seedsText())
        .append(" --drawn=")
        .append(kinds)
        .append(" --users=")
        .append(users);
    page.append("`. A made-up user draws ").append(kinds);
    page.append(
        " metal roofs, as many other roofs and as many grounds; the shipped sheet goes on from these to outlines; then up to ");
    page.append(corrections)
        .append(" of the false finds are drawn as something else, ")
        .append(rounds);
    page.append(" times. Metal roofs of 25 m² and more, overlap of 0.5 and more.");
    page.append(on.tuningNote());
    page.append(
        "\n\n| seed | user | areas | F1 | precision | recall |\n|---|---|---|---|---|---|\n");
    double[] sums = new double[rounds + 1];
    for (int i = 0; i < rows.size(); i++) {
      Row row = rows.get(i);
      sums[i % sums.length] += row.scores.f1() * sums.length / rows.size();
      page.append(String.format(
          Locale.ROOT,
          "| %d | %d | %d | %.3f | %.3f | %.3f |%n",
          row.seed,
          row.user + 1,
          row.areas,
          row.scores.f1(),
          row.scores.precision(),
          row.scores.recall()));
    }
    for (int round = 0; round < sums.length; round++) {
      page.append(String.format(
          Locale.ROOT,
          "| **mean** | | after %d rounds of corrections | **%.3f** | | |%n",
          round,
          sums[round]));
    }
    HeldOut.write(spec, folder.resolve("target-" + on.size + ".md"), page);
  }
}
