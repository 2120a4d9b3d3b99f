package sharpkestrel.workshop.quality;

import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Scenario;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.World;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.InSystem;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

@Command(
    name = "place-quality",
    description =
        "Measures on held-out seeds how well scenes are placed: orthos, tie points, refined RPCs; writes what came out.",
    mixinStandardHelpOptions = true)
public final class PlaceQualityCommand implements Runnable {

  private static final double BIAS = 4;

  @Mixin
  HeldOut on = new HeldOut();

  @Option(names = "--out", description = "The page to write.")
  Path page = Path.of("docs/quality/place.md");

  @Spec
  CommandSpec spec;

  /** What was measured of some points: how many, in how many cells, their errors in pixels, and the time it took. */
  private record Points(int count, int cells, int land, double rms, double worst, double seconds) {
    String row(long seed) {
      return String.format(
          Locale.ROOT,
          "| %d | %d | %d of %d | %.2f | %.2f | %.1f |%n",
          seed,
          count,
          cells,
          land,
          rms,
          worst,
          seconds);
    }
  }

  private final Map<String, StringBuilder> tables = new LinkedHashMap<>();
  private Job job;
  private PrintWriter out;

  @Override
  public void run() {
    on.check();
    out = spec.commandLine().getOut();
    job = HeldOut.job(spec);
    for (long seed : on.seeds) {
      measure(seed);
    }
    AtomicFile.write(page, temporary -> Files.writeString(temporary, markdown()));
  }

  private void measure(long seed) {
    Survey survey = survey(seed, 0);
    World world = new World(seed, on.size, Scenario.WHOLE);
    Path folder = DemoData.home().resolve("runs/place-" + seed + "-" + on.size);
    Raster pan = image(survey, "scene-one", "pan");
    Raster panTwo = image(survey, "scene-two", "pan");
    Map<String, Object> heights = Map.of("heights", RasterFiles.open(survey.heights()));
    Raster ortho = ortho(pan, heights, "0.5", folder.resolve("ortho-one.tif"));
    Raster orthoTwo = ortho(panTwo, heights, "0.5", folder.resolve("ortho-two.tif"));
    table(
        "ortho",
        "| seed | marks found | RMS, pixels | worst |\n|---|---|---|---|\n",
        SurveyedMarks.row(seed, survey, ortho));
    table(
        "scene two on the ortho of scene one",
        POINTS,
        points(panTwo, ortho, heights, world.two().sensor()).row(seed));
    table(
        "air photo of 1962 on the ortho of scene one",
        POINTS,
        points(RasterFiles.open(survey.photo()), ortho, heights, world.photo()).row(seed));
    table(
        "refined",
        "| seed | points | RMS before, pixels | RMS after |\n|---|---|---|---|\n",
        refined(seed, heights, orthoTwo, world));
    for (String image : List.of("pan", "ms")) {
      Raster one = image.equals("pan")
          ? ortho
          : ortho(image(survey, "scene-one", image), heights, "2", folder.resolve("bands-one.tif"));
      Raster two = image.equals("pan")
          ? orthoTwo
          : ortho(image(survey, "scene-two", image), heights, "2", folder.resolve("bands-two.tif"));
      table(
          "mosaic",
          "| seed | image | differ by, % of the range | only balanced | before | roofs in both | cut | doubled | lost | seconds |\n"
              + "|---|---|---|---|---|---|---|---|---|---|\n",
          mosaic(seed, survey, image, one, two, folder));
    }
  }

  /** The two scenes laid together along the seams that are found, around the buildings of the register. */
  private String mosaic(
      long seed, Survey survey, String image, Raster one, Raster two, Path folder) {
    Map<String, Object> inputs = new LinkedHashMap<>();
    inputs.put("scenes:1", one);
    inputs.put("scenes:2", two);
    inputs.put("keep-whole", GeoPackage.read(survey.register(), "").outlines());
    inputs.put("surface", RasterFiles.open(survey.surface()));
    inputs.put("heights", RasterFiles.open(survey.heights()));
    long start = System.nanoTime();
    OutlineSet areas = (OutlineSet) run("seams", inputs, Map.of());
    inputs.put("seam-areas", areas);
    Raster mosaic = (Raster) run("mosaic", inputs, Map.of());
    GeoTiffWriter.write(
        mosaic, folder.resolve("mosaic-" + image + ".tif"), Compression.DEFLATE, job);
    double seconds = (System.nanoTime() - start) / 1e9;
    double balanced = ((Raster) run("mosaic", inputs, Map.of("level", "0")))
        .attachments()
        .get(SeamVisibility.class)
        .orElseThrow()
        .after();
    SeamVisibility seams = mosaic.attachments().get(SeamVisibility.class).orElseThrow();
    MosaicQuality.Roofs roofs = MosaicQuality.roofs(survey, areas);
    return String.format(
        Locale.ROOT,
        "| %d | %s | %.2f | %.2f | %.2f | %s | %.1f |%n",
        seed,
        image.equals("pan") ? "pan" : "six bands",
        seams.after(),
        balanced,
        seams.before(),
        roofs.cells(),
        seconds);
  }

  private static final String POINTS =
      "| seed | points | in cells of the overlapping land | RMS against the truth, pixels | worst | seconds |\n"
          + "|---|---|---|---|---|---|\n";

  private void table(String name, String head, String row) {
    tables.computeIfAbsent(name, key -> new StringBuilder(head)).append(row);
    out.print(name + " " + row);
    out.flush();
  }

  private Survey survey(long seed, double bias) {
    return on.survey(seed, bias, job);
  }

  private Raster image(Survey survey, String scene, String image) {
    return (Raster) run(
        "assemble", Map.of(), Map.of("delivery", survey.item(scene).toString(), "image", image));
  }

  private Object run(String step, Map<String, Object> inputs, Map<String, String> settings) {
    StepSpec found = StepCatalogue.get(step);
    return found.make(inputs, settings).run(job);
  }

  private Raster ortho(Raster pan, Map<String, Object> heights, String size, Path file) {
    Map<String, Object> inputs = new LinkedHashMap<>(heights);
    inputs.put("scene", pan);
    Raster lazy =
        (Raster) run("ortho", inputs, Map.of("undulation", undulation(), "pixel-size", size));
    GeoTiffWriter.write(lazy, file, Compression.DEFLATE, job);
    return RasterFiles.open(file);
  }

  private static String undulation() {
    return Double.toString(World.UNDULATION);
  }

  private TiePoints found(Raster scene, Raster reference, Map<String, Object> heights) {
    Map<String, Object> inputs = new LinkedHashMap<>(heights);
    inputs.put("scene", scene);
    inputs.put("reference", reference);
    return (TiePoints) run("tiepoints", inputs, Map.of("undulation", undulation()));
  }

  private Points points(Raster scene, Raster reference, Map<String, Object> heights, Sensor truth) {
    long start = System.nanoTime();
    TiePoints found = found(scene, reference, heights);
    double seconds = (System.nanoTime() - start) / 1e9;
    double[] image = new double[2];
    double squares = 0;
    double worst = 0;
    for (TiePoint point : found.points()) {
      truth.toImage(point.x(), point.y(), point.height(), image);
      double off = Math.hypot(image[0] - point.col(), image[1] - point.row());
      squares += off * off / found.points().size();
      worst = Math.max(worst, off);
    }
    LandCells land = LandCells.of(scene, reference, (Raster) heights.get("heights"), truth);
    return new Points(
        found.points().size(),
        land.covered(found),
        land.count(),
        Math.sqrt(squares),
        worst,
        seconds);
  }

  /** Scene one with an RPC that is off, mended by points found on the ortho of scene two. */
  private String refined(long seed, Map<String, Object> heights, Raster reference, World world) {
    Raster biased = image(survey(seed, BIAS), "scene-one", "pan");
    TiePoints found = found(biased, reference, heights);
    Raster mended = (Raster) run("refine", Map.of("scene", biased, "points", found), Map.of());
    return String.format(
        Locale.ROOT,
        "| %d | %d | %.2f | %.2f |%n",
        seed,
        found.points().size(),
        error(biased, found, world),
        error(mended, found, world));
  }

  /** RMS between a scene's RPC and the true sensor, at the points' places and at two heights. */
  private static double error(Raster scene, TiePoints at, World world) {
    Rpc rpc = scene.attachments().get(Rpc.class).orElseThrow();
    var model = InSystem.of(rpc, at.crs());
    double[] image = new double[2];
    double[] truth = new double[2];
    double squares = 0;
    int count = 0;
    for (TiePoint point : at.points()) {
      for (double h : new double[] {World.UNDULATION, World.UNDULATION + 300}) {
        model.toImage(point.x(), point.y(), h, image);
        world.one().sensor().toImage(point.x(), point.y(), h, truth);
        squares += Math.pow(image[0] - truth[0], 2) + Math.pow(image[1] - truth[1], 2);
        count++;
      }
    }
    return Math.sqrt(squares / count);
  }

  private String markdown() {
    StringBuilder text = new StringBuilder();
    text.append(
        on.onTuningSeeds
            ? "# How well scenes are placed, on seeds that settings may be tuned on: no report\n\n"
            : "# How well scenes are placed, on held-out seeds\n\n");
    text.append("`./kestrel place-quality --seeds ");
    text.append(on.seedsText());
    text.append(" --size ").append(on.size);
    text.append("` on Fenwrack Sound, scenes of 0.5 m, terrain model of 1 m.\n\n");
    tables.forEach((name, rows) -> {
      text.append("## ").append(TITLES.get(name)).append("\n\n");
      text.append(TEXTS.get(name)).append("\n\n").append(rows).append('\n');
    });
    return text.toString();
  }

  private static final Map<String, String> TITLES = Map.of(
      "ortho", "Orthorectified with an exact RPC",
      "scene two on the ortho of scene one", "Points found: scene two, another day, sun and view",
      "air photo of 1962 on the ortho of scene one",
          "Points found: an old air photo without a place",
      "refined", "An RPC that is off by " + (int) BIAS + " pixels, refined",
      "mosaic", "The two scenes as one");

  private static final Map<String, String> TEXTS = Map.of(
      "ortho",
      "Surveyed marks, discs of 3 m on the ground, located in the pixels of the ortho by fitting a disc on ground that may slope in brightness; 24 are laid,"
          + " those across which a shadow lies or beside which the ground is as bright are left out.",
      "scene two on the ortho of scene one",
      "Step `tiepoints` as it is shipped; each point's place in the scene against the true sensor's. Cells are the four by four of the"
          + " land that both show, those that hold any of it.",
      "air photo of 1962 on the ortho of scene one",
      "The same; the photo is turned, tilted, monochrome, scanned with dust, and 69 years older than the ortho.",
      "refined",
      "Scene one, mended by a shift from points found on the ortho of scene two; RPC against the true sensor at the points'"
          + " places, at sea level and 300 m.",
      "mosaic",
      "Steps `seams` and `mosaic` as they are shipped, anchored to scene one, around the council's register of buildings, which is"
          + " partly out of date and a few metres off, and what stands above the terrain by the surface model. Difference of the medians of both scenes in blocks of 25 m along"
          + " the seams, shadows left out, in percent of the range of values: its median over blocks and bands, along the"
          + " seams found once balanced and evened out there; along the same seams only balanced; and along the edge of"
          + " scene one as both came. Evening out smooths the same medians over 20 m that are compared, so the second number"
          + " tells how well the scenes agree and the first how much of a seam is left to see. Roofs of the truth that lie whole in"
          + " both scenes' orthos: a roof is cut where a scene shows more than a hundredth of it and less than all but"
          + " that.");
}
