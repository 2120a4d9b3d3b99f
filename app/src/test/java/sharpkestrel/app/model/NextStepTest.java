package sharpkestrel.app.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
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
    Result result = new Result(
        name,
        name,
        StepCatalogue.get(step),
        inputs,
        Map.of(),
        Map.of(),
        new MemoryRaster(grid, all, Attachments.NONE, planes),
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
}
