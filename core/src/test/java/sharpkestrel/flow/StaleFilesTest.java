package sharpkestrel.flow;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.SampleType;

/** A result made from files is told from one made from the same names with other content. */
class StaleFilesTest {

  @TempDir
  Path folder;

  private Path scene;

  @BeforeEach
  void writeAScene() {
    scene = write("scene.tif", 0);
  }

  private Path write(String name, int add) {
    Path file = folder.resolve(name);
    GeoTiffWriter.write(
        Made.on(Grid.ofPixels(64, 64), SampleType.UINT8, (b, x, y) -> x + y + add, BandRole.PAN),
        file,
        Compression.NONE,
        Job.QUIET);
    return file;
  }

  private static String state(String step, String setting, Map<String, String> settings) {
    StepSpec.Option option = StepCatalogue.get(step).options().stream()
        .filter(o -> o.name().equals(setting))
        .findFirst()
        .orElseThrow();
    return Origin.stateOfSetting(option, settings);
  }

  private String opened() {
    return state("open", "file", Map.of("file", scene.toString()));
  }

  @Test
  void aFileWrittenAgainInPlaceWithItsOldTimeIsAnother() throws IOException {
    String before = opened();
    FileTime time = Files.getLastModifiedTime(scene);
    try (RandomAccessFile file = new RandomAccessFile(scene.toFile(), "rw")) {
      file.seek(file.length() - 1);
      file.write(99);
    }
    Files.setLastModifiedTime(scene, time);

    assertThat(opened()).isNotEqualTo(before);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "scene.tfw",
        "scene_RPC.TXT",
        "scene.tif.msk",
        "scene.tif.ovr",
        "scene.tif.aux.xml",
        "scene.tif.about.json"
      })
  void whatIsPutBesideAFileCounts(String name) throws IOException {
    String before = opened();

    Files.writeString(folder.resolve(name), "1 0 0 -1 0 0");

    String with = opened();
    assertThat(with).isNotEqualTo(before);
    Files.writeString(folder.resolve(name), "2 0 0 -2 0 0");
    assertThat(opened()).isNotEqualTo(with);
  }

  @Test
  void aPartOfADeliveryThatIsWrittenAgainCounts() {
    write("pan-R1C1.tif", 0);
    write("pan-R1C2.tif", 0);
    Map<String, String> settings = Map.of("delivery", folder.toString(), "image", "pan");
    String before = state("assemble", "delivery", settings);

    write("pan-R1C2.tif", 1);

    assertThat(state("assemble", "delivery", settings)).isNotEqualTo(before);
  }

  @Test
  void filesOfOneNameInTwoFoldersAreTwo() throws IOException {
    Path other = Files.createDirectory(folder.resolve("other")).resolve("scene.tif");
    Files.copy(scene, other);
    Files.setLastModifiedTime(other, Files.getLastModifiedTime(scene));

    assertThat(state("open", "file", Map.of("file", other.toString()))).isNotEqualTo(opened());
  }

  @Test
  void aFileThatIsAsItWasIsTheSame() {
    assertThat(opened()).isEqualTo(opened());
  }
}
