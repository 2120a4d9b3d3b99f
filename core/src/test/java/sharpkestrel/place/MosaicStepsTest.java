package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

/** The steps about mosaics as the catalogue makes them, from texts and rasters. */
class MosaicStepsTest {

  private static final CrsName UTM = CrsName.epsg(32630);

  @TempDir
  Path folder;

  private static Raster scene(double west, double gain) {
    Grid grid = new Grid(220, 160, Affine.northUp(512_000 + west, 6_702_000, 1), UTM);
    return Made.on(
        grid,
        SampleType.UINT16,
        (b, col, row) ->
            Math.rint(gain * (300 + 90 * Math.sin((col + west) / 11) * Math.cos(row / 17.0))),
        BandRole.PAN);
  }

  private static Map<String, Object> scenes() {
    Map<String, Object> inputs = new HashMap<>();
    inputs.put("scenes:1", scene(0, 1));
    inputs.put("scenes:2", scene(90, 1.5));
    return inputs;
  }

  private static Object run(
      String step, Map<String, Object> inputs, Map<String, String> settings, Job job) {
    return StepCatalogue.get(step).make(inputs, settings).run(job);
  }

  @Test
  void aMosaicFindsItsOwnSeamsAndCarriesWhatTheyShow() {
    Raster mosaic = (Raster) run("mosaic", scenes(), Map.of(), Job.QUIET);
    SeamVisibility found = mosaic.attachments().get(SeamVisibility.class).orElseThrow();
    assertThat(found.before()).isGreaterThan(20);
    assertThat(found.after()).isLessThan(1.5);

    Path file = folder.resolve("mosaic.tif");
    GeoTiffWriter.write(mosaic, file, Compression.DEFLATE, Job.QUIET);
    Raster read = RasterFiles.open(file);
    assertThat(read.attachments().get(SeamVisibility.class)).contains(found);
    Pixels.assertSame(Made.samples(read), Made.samples(mosaic));
  }

  @Test
  void theSameSeamsMakeTheSameMosaic() {
    Map<String, Object> inputs = scenes();
    Raster alone = (Raster) run("mosaic", inputs, Map.of(), Job.QUIET);
    inputs.put("seam-areas", run("seams", scenes(), Map.of(), Job.QUIET));
    Raster given = (Raster) run("mosaic", inputs, Map.of(), Job.QUIET);
    Pixels.assertSame(Made.samples(given), Made.samples(alone));
  }

  @Test
  void seamAreasThatAreNotUsedAreToldOf() {
    Map<String, Object> inputs = scenes();
    inputs.put("seam-areas", run("seams", scenes(), Map.of(), Job.QUIET));
    List<String> warnings = new ArrayList<>();
    run("mosaic", inputs, Map.of("overlap", "mean"), Jobs.warning(warnings));
    assertThat(warnings).anyMatch(w -> w.contains("areas of the seams are not used"));
  }

  @Test
  void anAnchorThatThereIsNotAndASurfaceWithoutTerrainAreRefused() {
    assertThatThrownBy(() -> run("mosaic", scenes(), Map.of("anchor", "3"), Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("anchor is scene 3")
        .hasMessageContaining("only 2");
    Map<String, Object> inputs = scenes();
    inputs.put("surface", scene(0, 1));
    assertThatThrownBy(() -> run("seams", inputs, Map.of(), Job.QUIET))
        .hasMessageContaining("without the terrain");
    assertThatThrownBy(() -> run("mosaic", scenes(), Map.of("overlap", "most_nadir"), Job.QUIET))
        .hasMessageContaining("at what angle");
    assertThatThrownBy(() -> run("mosaic", scenes(), Map.of("extent", "0,0,10,10"), Job.QUIET))
        .hasMessageContaining("No scene reaches the area");
  }

  @Test
  void aFootprintIsWhatIsThereRatherThanTheFrame() {
    MemoryRaster whole = (MemoryRaster) scene(0, 1);
    float[][] planes = Made.samples(whole);
    for (int i = 0; i < planes[0].length; i++) {
      int x = i % 220;
      int y = i / 220;
      boolean missing = x < 30 || y >= 120 && x >= 150 || Math.hypot(x - 100, y - 60) < 12;
      planes[0][i] = missing ? Float.NaN : planes[0][i];
    }
    Raster holed = new MemoryRaster(whole.grid(), whole.bands(), Attachments.NONE, planes);
    OutlineSet outline =
        (OutlineSet) run("footprint", Map.of("scene", holed), Map.of("simplify", "0"), Job.QUIET);
    Geometry shape = outline.outlines().getFirst();
    long known = 0;
    for (float v : planes[0]) {
      known += Float.isNaN(v) ? 0 : 1;
    }
    // the hole's corners hang together by corners only here and there
    assertThat(shape.getArea()).isEqualTo(known);
    assertThat(outline.table().values("area")[0]).isCloseTo(known, within(known * 0.01));
    assertThat(shape.getEnvelopeInternal().getMinX()).isEqualTo(512_030);
    OutlineSet simple =
        (OutlineSet) run("footprint", Map.of("scene", holed), Map.of("simplify", "3"), Job.QUIET);
    assertThat(simple.outlines().getFirst().getNumPoints()).isLessThan(shape.getNumPoints());
    assertThat(simple.outlines().getFirst().isValid()).isTrue();
  }

  @Test
  void aRasterOfNothingHasNoFootprint() {
    Raster nothing = Made.on(
        new Grid(20, 20, Affine.northUp(512_000, 6_702_000, 1), UTM),
        SampleType.FLOAT32,
        (b, col, row) -> Double.NaN,
        BandRole.PAN);
    assertThatThrownBy(() -> run("footprint", Map.of("scene", nothing), Map.of(), Job.QUIET))
        .hasMessageContaining("No pixel");
  }

  @Test
  void aBlackFrameIsNoPartOfTheFootprint() {
    Grid grid = new Grid(300, 200, Affine.northUp(512_000, 6_702_000, 1), UTM);
    List<Band> plain =
        List.of(Band.of(BandRole.PAN, SampleType.UINT8).withType(SampleType.UINT8, Double.NaN));
    float[] pixels = new float[300 * 200];
    for (int i = 0; i < pixels.length; i++) {
      int x = i % 300;
      int y = i / 300;
      pixels[i] = x >= 40 && x < 260 && y >= 25 && y < 180 ? 90 : 0;
    }
    Raster framed = new MemoryRaster(grid, plain, Attachments.NONE, new float[][] {pixels});
    OutlineSet outline =
        (OutlineSet) run("footprint", Map.of("scene", framed), Map.of(), Job.QUIET);
    assertThat(outline.outlines().getFirst().getArea()).isCloseTo(220 * 155, within(1.0));
  }
}
