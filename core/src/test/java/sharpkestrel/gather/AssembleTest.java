package sharpkestrel.gather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
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
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** A scene of 50 x 40 pixels in two rows of parts of unlike sizes. */
class AssembleTest {

  private static final int WIDTH = 50;
  private static final int SPLIT_X = 32;
  private static final int SPLIT_Y = 16;
  private static final int HEIGHT = 40;

  @TempDir
  Path folder;

  private final List<String> warnings = new ArrayList<>();

  private final Job listening = Jobs.warning(warnings);

  private static double sample(int col, int row) {
    return 1 + 100 * row + col;
  }

  private void write(String name, Window part, BandRole... roles) {
    MemoryRaster raster = Made.on(
        Grid.ofPixels(part.width(), part.height()),
        SampleType.UINT16,
        (b, col, row) -> sample(part.x() + col, part.y() + row),
        roles);
    GeoTiffWriter.write(raster, folder.resolve(name), Compression.DEFLATE, Job.QUIET);
  }

  @BeforeEach
  void writeParts() {
    write("pan-R1C1.tif", new Window(0, 0, SPLIT_X, SPLIT_Y), BandRole.PAN);
    write("pan-R1C2.tif", new Window(SPLIT_X, 0, WIDTH - SPLIT_X, SPLIT_Y), BandRole.PAN);
    write("pan-R2C1.tif", new Window(0, SPLIT_Y, SPLIT_X, HEIGHT - SPLIT_Y), BandRole.PAN);
    write(
        "pan-R2C2.tif",
        new Window(SPLIT_X, SPLIT_Y, WIDTH - SPLIT_X, HEIGHT - SPLIT_Y),
        BandRole.PAN);
  }

  private Raster assembled() {
    return new Assemble(folder, "pan").run(listening);
  }

  @Test
  void partsMakeTheSceneTheyWereCutFrom() {
    Raster whole = Made.on(
        Grid.ofPixels(WIDTH, HEIGHT),
        SampleType.UINT16,
        (b, col, row) -> sample(col, row),
        BandRole.PAN);

    Pixels.assertSame(Made.samples(assembled()), Made.samples(whole));
  }

  /** Names of one's own: parts counted from 0, the image's name at the end or nowhere. */
  @ParameterizedTest
  @CsvSource({"tile_{row}_{column}_{image},tile_%d_%d_pan.tif", "{column}x{row}*,%2$dx%1$d new.tif"
  })
  void partsAreFoundByAPatternOfTheirNames(String pattern, String names) throws IOException {
    for (int part = 0; part < 4; part++) {
      String name = String.format("pan-R%dC%d.tif", 1 + part / 2, 1 + part % 2);
      Files.move(folder.resolve(name), folder.resolve(String.format(names, part / 2, part % 2)));
    }
    Raster whole = Made.on(
        Grid.ofPixels(WIDTH, HEIGHT),
        SampleType.UINT16,
        (b, col, row) -> sample(col, row),
        BandRole.PAN);

    Raster scene = (Raster) StepCatalogue.get("assemble")
        .make(Map.of(), Map.of("delivery", folder.toString(), "image", "pan", "pattern", pattern))
        .run(listening);

    Pixels.assertSame(Made.samples(scene), Made.samples(whole));
    assertThatThrownBy(() -> new Assemble(folder, "pan", Optional.of("tile_{row}")))
        .hasMessageContaining("row and column");
  }

  @Test
  void aWindowAcrossAllPartsIsThatOfTheWhole() {
    float[] seam =
        assembled().read(0, new Window(SPLIT_X - 2, SPLIT_Y - 1, 4, 2), Request.BACKGROUND)[0];

    for (int i = 0; i < seam.length; i++) {
      assertThat(seam[i]).isEqualTo((float) sample(SPLIT_X - 2 + i % 4, SPLIT_Y - 1 + i / 4));
    }
  }

  @Test
  void aPartThatIsThereTwiceIsLeftOutAndNamed() {
    write("pan-R1C1.tiff", new Window(5, 5, SPLIT_X, SPLIT_Y), BandRole.PAN);

    Raster scene = assembled();

    assertThat(warnings).anyMatch(w -> w.contains("R1C1 is there twice"));
    assertThat(Made.samples(scene)[0][0]).isEqualTo((float) sample(0, 0));
  }

  @Test
  void aSceneWithoutSensorModelSaysSo() {
    assembled();

    assertThat(warnings).anyMatch(w -> w.contains("No sensor model"));
  }

  @Test
  void partsOfUnlikeBandsAreRefused() {
    write(
        "pan-R1C2.tif",
        new Window(SPLIT_X, 0, WIDTH - SPLIT_X, SPLIT_Y),
        BandRole.RED,
        BandRole.GREEN);

    assertThatThrownBy(this::assembled)
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("has 2 bands");
  }

  @Test
  void anImageThatIsNotThereBringsThoseThatAre() {
    assertThatThrownBy(() -> new Assemble(folder, "thermal").run(listening))
        .hasMessageContaining("'thermal'")
        .hasMessageContaining("[pan]");
  }

  @Test
  void aDeliveryThatIsNotThereIsNamed() {
    Path nowhere = folder.resolve("nowhere");

    assertThat(Files.exists(nowhere)).isFalse();
    assertThatThrownBy(() -> new Assemble(nowhere, "pan").run(listening))
        .hasMessageContaining(nowhere.toString());
  }

  private void place(String name, Window part, double off) {
    Grid grid = new Grid(
        part.width(),
        part.height(),
        Affine.northUp(512_000 + 2 * part.x() + off, 6_702_000 - 2 * part.y(), 2),
        CrsName.epsg(32630));
    MemoryRaster raster = Made.on(
        grid,
        SampleType.UINT16,
        (b, col, row) -> sample(part.x() + col, part.y() + row),
        BandRole.PAN);
    GeoTiffWriter.write(raster, folder.resolve(name), Compression.DEFLATE, Job.QUIET);
  }

  @Test
  void partsWithoutRowAndColumnLieWhereTheySay() {
    place("sheet-north-a.tif", new Window(0, 0, 32, 20), 0);
    place("sheet-north-b.tif", new Window(32, 0, 18, 20), 0);
    place("sheet-south.tif", new Window(0, 20, 32, 20), 0);
    place("sheet-south-again.tif", new Window(0, 20, 32, 20), 0);

    Raster scene = new Assemble(folder, "sheet").run(listening);

    assertThat(scene.grid())
        .isEqualTo(new Grid(50, 40, Affine.northUp(512_000, 6_702_000, 2), CrsName.epsg(32630)));
    float[] pixels = Made.samples(scene)[0];
    for (int i = 0; i < pixels.length; i++) {
      boolean missing = i % 50 >= 32 && i / 50 >= 20;
      assertThat(pixels[i])
          .isEqualTo(Float.valueOf(missing ? Float.NaN : (float) sample(i % 50, i / 50)));
    }
    assertThat(warnings)
        .anyMatch(w -> w.contains("sheet-south") && w.contains("left out"))
        .anyMatch(w -> w.startsWith("18 % of the frame"));
  }

  @Test
  void partsBetweenTheOthersPixelsAreRefused() {
    place("sheet-a.tif", new Window(0, 0, 32, 20), 0);
    place("sheet-b.tif", new Window(32, 0, 18, 20), 0.7);

    assertThatThrownBy(() -> new Assemble(folder, "sheet").run(listening))
        .hasMessageContaining("sheet-b.tif")
        .hasMessageContaining("between");
  }

  @Test
  void partsThatTellNoPlaceAreRefused() {
    write("loose-a.tif", new Window(0, 0, 9, 9), BandRole.PAN);

    assertThatThrownBy(() -> new Assemble(folder, "loose").run(listening))
        .hasMessageContaining("loose-a.tif")
        .hasMessageContaining("not known");
  }
}
