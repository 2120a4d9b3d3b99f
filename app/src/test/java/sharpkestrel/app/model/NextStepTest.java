package sharpkestrel.app.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

/** What is proposed next for what is shown. */
class NextStepTest {

  private static final Grid PLACED =
      new Grid(8, 8, Affine.northUp(512_000, 6_702_000, 2), CrsName.epsg(32630));

  private final Workspace workspace = new Workspace();

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  private Result scene(String name, String step, Grid grid, int bands, Map<String, Result> inputs) {
    List<Band> all = java.util.stream.IntStream.range(0, bands)
        .mapToObj(b -> Band.of(bands == 1 ? BandRole.PAN : BandRole.OTHER, SampleType.UINT8))
        .toList();
    float[][] planes = new float[bands][64];
    return result(name, step, inputs, new MemoryRaster(grid, all, Attachments.NONE, planes));
  }

  private Result result(String name, String step, Map<String, Result> inputs, Object value) {
    Result result = new Result(
        name,
        name,
        StepCatalogue.get(step),
        inputs,
        Map.of(),
        Map.of(),
        value,
        new Origin.Fingerprint(name, name));
    workspace.results().add(result);
    workspace.display().show(result);
    return result;
  }

  private Optional<String> next() {
    return NextStep.of(workspace).map(next -> next.step().id());
  }

  @Test
  void aPlacedSceneIsDividedIntoObjects() {
    scene("ortho", "open", PLACED, 3, Map.of());

    assertThat(next()).contains("segment");
  }

  /** A photo without a place is registered where there is something to register it to, else used as it is. */
  @Test
  void aPhotoWithoutAPlaceIsRegisteredWhereThatCanBe() {
    Grid pixels = Grid.ofPixels(8, 8);
    Result photo = scene("photo", "open", pixels, 3, Map.of());
    assertThat(next()).contains("segment");

    scene("ortho", "open", PLACED, 3, Map.of());
    workspace.display().show(photo);
    assertThat(next()).contains("tiepoints");
    assertThat(NextStep.of(workspace).orElseThrow().why()).contains("No place");
  }

  @Test
  void bandsAreSharpenedWhereAFinerBandIsAtHand() {
    scene("pan", "open", PLACED, 1, Map.of());
    Result bands = scene("bands", "open", PLACED, 4, Map.of());

    assertThat(next()).contains("pansharpen");

    scene("sharp", "pansharpen", PLACED, 4, Map.of("multispectral", bands));
    assertThat(next()).contains("segment");
    workspace.display().show(bands);
    assertThat(next()).as("of what something was made of already").isEmpty();
  }

  @Test
  void nothingIsProposedForWhatIsNoResult() {
    assertThat(next()).isEmpty();
    Result only = scene("ortho", "open", PLACED, 3, Map.of());
    workspace.results().remove(only);
    assertThat(next()).isEmpty();
  }

  /** What was learned is put to use by the step that works on such things as it was learned from. */
  @Test
  void aModelIsPutToUse() {
    Result ortho = scene("ortho", "open", PLACED, 3, Map.of());
    Examples examples = Examples.of(
        List.of("light"), new float[][] {{0, 0.1f, 0.9f, 1}}, List.of("dark", "bright"), new int[] {
          0, 0, 1, 1
        });
    Classifier classifier = Classifier.learn(examples, Learner.NEAREST, "", 1, false, Job.QUIET);

    result("pixels", "learn-pixels", Map.of("scene", ortho), classifier);
    assertThat(next()).contains("classify-pixels");

    // objects are not made here, so that a scene stands for them
    result("classes", "learn-classes", Map.of("objects", ortho), classifier);
    assertThat(next()).contains("classify-objects");
  }
}
