package sharpkestrel.flow;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/** A scene of whole numbers with holes and no number set aside for them: what steps make of it is the same lazy and kept. */
class HolesThroughStepsTest {

  private static final BandRole[] ROLES = {
    BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED
  };
  private static final CrsName UTM = CrsName.epsg(32630);

  @TempDir
  Path folder;

  /** Hills of numbers with a disc and a corner missing; 0 is a number like any other. */
  private static Raster scene(
      int size, double pixel, double west, SampleType type, BandRole... roles) {
    float[][] planes = new float[roles.length][size * size];
    List<Band> bands = new ArrayList<>();
    Map<BandRole, Acquisition.Calibration> gains = new EnumMap<>(BandRole.class);
    for (int b = 0; b < roles.length; b++) {
      for (int i = 0; i < planes[b].length; i++) {
        double x = (i % size) * pixel;
        double y = (double) (i / size) * pixel;
        boolean hole = Math.hypot(x - 60, y - 70) < 14 || x + y < 20;
        double hills = 100 + 60 * Math.sin(x / 9 + b) * Math.cos(y / 7) + (i * 7919L) % 13;
        planes[b][i] = hole ? Float.NaN : (int) hills % 150;
      }
      bands.add(new Band(roles[b].label(), roles[b], "", type, Double.NaN));
      gains.put(roles[b], new Acquisition.Calibration(0.1, 0, 1500));
    }
    Attachments all = Attachments.NONE.with(
        Acquisition.class,
        new Acquisition(Instant.parse("2031-04-03T11:42:00Z"), 40, 170, 10, 90, gains));
    Grid grid = new Grid(size, size, Affine.northUp(west, 6_702_000, pixel), UTM);
    return new MemoryRaster(grid, bands, all, planes);
  }

  private static Raster scene(SampleType type) {
    return scene(240, 0.5, 512_000, type, ROLES);
  }

  private void assertTheSameKept(Raster lazy) {
    Path kept = folder.resolve("kept.tif");
    GeoTiffWriter.write(lazy, kept, Compression.ZSTD, Job.QUIET);

    Raster back = RasterFiles.open(kept);

    float[][] samples = Made.samples(lazy);
    assertThat(samples[0]).as("holes").contains(Float.NaN);
    assertThat(back.bands())
        .extracting(Band::name)
        .isEqualTo(lazy.bands().stream().map(Band::name).toList());
    assertThat(back.bands())
        .extracting(Band::role)
        .isEqualTo(lazy.bands().stream().map(Band::role).toList());
    Pixels.assertSame(Made.samples(back), samples);
    assertThat(ResultKinds.digest(back, Job.QUIET)).isEqualTo(ResultKinds.digest(lazy, Job.QUIET));
    // and what is made of either is the same
    Map<String, String> grain = Map.of("grain", "20");
    StepSpec segment = StepCatalogue.get("segment");
    Object one = segment.make(Map.of("scene", lazy), grain).run(Job.QUIET);
    Object two = segment.make(Map.of("scene", back), grain).run(Job.QUIET);
    assertThat(ResultKinds.digest(two, Job.QUIET)).isEqualTo(ResultKinds.digest(one, Job.QUIET));
  }

  private static Raster run(String step, Map<String, Object> inputs, Map<String, String> settings) {
    return (Raster) StepCatalogue.get(step).make(inputs, settings).run(Job.QUIET);
  }

  @ParameterizedTest
  @ValueSource(strings = {"calibrate", "local-contrast", "dehaze", "mean-shift", "builtup"})
  void stepsOverOneScene(String step) {
    for (SampleType type : new SampleType[] {SampleType.UINT8, SampleType.UINT16}) {
      assertTheSameKept(run(step, Map.of("scene", scene(type)), Map.of()));
    }
  }

  @Test
  void aPieceCutOut() {
    Raster piece = run(
        "clip",
        Map.of("scene", scene(SampleType.UINT8)),
        Map.of("extent", "512010,6701900,512110,6701990"));

    assertTheSameKept(piece);
  }

  @Test
  void anIndexAndATexture() {
    assertTheSameKept(run("index", Map.of("scene", scene(SampleType.UINT16)), Map.of()));
    assertTheSameKept(
        run("texture", Map.of("scene", scene(SampleType.UINT16)), Map.of("window", "5")));
  }

  @Test
  void aSceneWarpedOntoTheGround() {
    Raster scene = scene(SampleType.UINT16);
    List<TiePoint> points = new ArrayList<>();
    int[][] corners = {{10, 10}, {230, 12}, {15, 225}, {228, 231}, {120, 118}, {60, 190}};
    for (int[] corner : corners) {
      points.add(new TiePoint(
          points.size() + 1,
          corner[0],
          corner[1],
          512_000 + 0.5 * corner[0] - 0.05 * corner[1],
          6_702_000 - 0.5 * corner[1] - 0.05 * corner[0],
          Double.NaN,
          TiePoint.Use.CONTROL,
          Double.NaN));
    }

    Raster warped = run(
        "warp",
        Map.of("scene", scene, "points", new TiePoints(UTM, 240, 240, points)),
        Map.of("model", "affine", "pixel-size", "0.5"));

    assertTheSameKept(warped);
  }

  /** Columns go east and rows south, leaning by two thirds of a pixel a metre. */
  @Test
  void aRawSceneLaidOntoTheGround() {
    Rpc rpc = RpcFit.of(
            (col, row, height, degrees) -> {
              degrees[0] = -3 + 1e-5 * (col - 120 - height / 1.5);
              degrees[1] = 60 - 5e-6 * (row - 120);
            },
            240,
            240,
            0,
            100)
        .rpc();
    Raster placed = scene(SampleType.UINT8);
    Raster raw = new MemoryRaster(
        Grid.ofPixels(240, 240),
        placed.bands(),
        placed.attachments().with(Rpc.class, rpc),
        Made.samples(placed));

    assertTheSameKept(run(
        "ortho",
        Map.of("scene", raw),
        Map.of("height", "30", "crs", "EPSG:32630", "pixel-size", "0.5")));
  }

  @Test
  void aSharpenedScene() {
    Raster sharpened = run(
        "pansharpen",
        Map.of(
            "pan", scene(480, 0.25, 512_000, SampleType.UINT16, BandRole.PAN),
            "multispectral", scene(120, 1, 512_000, SampleType.UINT16, ROLES)),
        Map.of());

    assertTheSameKept(sharpened);
  }

  @Test
  void aMosaicOfTwoScenes() {
    Raster mosaic = run(
        "mosaic",
        Map.of(
            "scenes:1", scene(240, 0.5, 512_000, SampleType.UINT8, ROLES),
            "scenes:2", scene(240, 0.5, 512_060, SampleType.UINT8, ROLES)),
        Map.of("balance", "none"));

    assertTheSameKept(mosaic);
  }

  @Test
  void bandsStackedAndPartsAssembledWithOneMissing() throws IOException {
    List<String> files = new ArrayList<>();
    for (BandRole role : ROLES) {
      Path file = folder.resolve("sound_" + role.key() + ".tif");
      GeoTiffWriter.write(
          scene(240, 0.5, 512_000, SampleType.UINT8, role), file, Compression.LZW, Job.QUIET);
      files.add(file.toString());
    }
    assertTheSameKept(run("stack", Map.of(), Map.of("files", String.join(",", files))));

    Path delivery = Files.createDirectory(folder.resolve("delivery"));
    for (String part : new String[] {"R1C1", "R1C2", "R2C1"}) {
      GeoTiffWriter.write(
          scene(SampleType.UINT8),
          delivery.resolve("ms-" + part + ".tif"),
          Compression.DEFLATE,
          Job.QUIET);
    }
    assertTheSameKept(
        run("assemble", Map.of(), Map.of("delivery", delivery.toString(), "image", "ms")));
  }
}
