package sharpkestrel.workshop.quality;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.MergingSchool;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;

/** Makes the merging model that ships. */
@Command(
    name = "learn-roofs",
    description =
        "Makes the merging model that ships: learns from the roofs of demo surveys, never of held-out ones.",
    mixinStandardHelpOptions = true)
public final class LearnRoofsCommand implements Runnable {

  /** What scenes have besides all their bands, one after another. */
  private static final List<List<BandRole>> FEWER = List.of(
      List.of(),
      List.of(BandRole.RED, BandRole.GREEN, BandRole.BLUE),
      List.of(),
      List.of(BandRole.GREEN));

  @Option(names = "--seeds", split = ",", description = "Surveys to learn from, seeds below 101.")
  List<Long> seeds = List.of(1L, 2L, 3L, 4L, 5L, 6L, 7L, 8L, 9L);

  @Option(names = "--size", description = "Panchromatic pixels along one side.")
  int size = 2048;

  @Option(names = "--rounds", description = "How often regions are merged and learned from.")
  int rounds = 3;

  @Option(names = "--out", description = "The file to write.")
  Path file = Path.of("core/src/main/resources/sharpkestrel/segment/learn/roofs.json");

  @Spec
  CommandSpec spec;

  @Override
  public void run() {
    Job job = HeldOut.job(spec);
    List<MergingSchool> schools = new ArrayList<>();
    int roofs = 0;
    for (long seed : seeds) {
      if (seed >= DemoData.FIRST_HELD_OUT) {
        throw new RasterException("Seed " + seed
            + " is held out: reports are made on it, so nothing may be learned from it. Give seeds below "
            + DemoData.FIRST_HELD_OUT + ".");
      }
      Survey survey = SurveyMaker.make(DemoData.surveys(), new Survey.Order(seed, size), job);
      SharpenedOrtho product = SharpenedOrtho.TERRAIN_ORTHO;
      Raster scene = product.of(survey, job);
      MergingSchool school = MergingSchool.of(scene, product.roofs(survey).outlines(), job);
      schools.add(school);
      roofs += school.outlines();
      // a quarter of the scenes also as a photo has them, a quarter as a single band
      List<BandRole> fewer = FEWER.get((int) (seed % FEWER.size()));
      if (!fewer.isEmpty()) {
        schools.add(MergingSchool.of(with(scene, fewer), product.roofs(survey).outlines(), job));
      }
    }
    MergingModel model = MergingSchool.learn(
        schools,
        rounds,
        roofs + " roofs in " + seeds.size() + " scenes of Fenwrack Sound with pixels of 0.5 m, "
            + rounds + " rounds, some of them also without infrared or as one band",
        job);
    MergingModelFile.write(model, file);
    spec.commandLine().getOut().println(file + ": " + model.about());
  }

  private static Raster with(Raster scene, List<BandRole> roles) {
    int[] places = roles.stream()
        .mapToInt(role -> scene.bands().stream().map(Band::role).toList().indexOf(role))
        .toArray();
    return new BandsOf(scene, places);
  }
}
