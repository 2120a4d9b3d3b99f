package sharpkestrel.flow;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.check.Scores;
import sharpkestrel.gather.Clip;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.Step;

class KeptResultsTest {

  @TempDir
  Path folder;

  private final List<String> warnings = new ArrayList<>();
  private KeptResults kept;
  private Raster scene;

  private final Job job = Jobs.warning(warnings);

  @BeforeEach
  void aSceneOfSixFields() {
    kept = new KeptResults(folder);
    scene = Made.placed(
        120,
        90,
        0.5,
        (b, col, row) -> 20 + 30 * (col / 40) + 70 * (row / 45) + 0.5 * ((3 * col + 5 * row) % 7),
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  private static Origin origin(String step, Map<String, String> settings, String from) {
    return new Origin(StepCatalogue.get(step), settings, Map.of("scene", from));
  }

  private Object backAndForth(String step, Object value) {
    Origin.Fingerprint fingerprint = origin(step, Map.of(), "a").fingerprint();
    kept.keep(fingerprint, value, job);
    Class<?> type = StepCatalogue.get(step).resultType();
    return kept.find(fingerprint, type, anyStep(), job).orElseThrow();
  }

  private Step<?> anyStep() {
    return new Clip(scene, Optional.empty());
  }

  private Cut cut() {
    return (Cut) StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("grain", "200"))
        .run(job);
  }

  private ObjectSet measured(Cut cut) {
    return (ObjectSet) StepCatalogue.get("measure")
        .make(Map.of("objects", cut, "scene", scene), Map.of())
        .run(job);
  }

  private static int[] rows(ObjectSet set) {
    Window all = set.labels().grid().window();
    int[] labels = new int[all.area()];
    set.labels().read(all, labels);
    for (int i = 0; i < labels.length; i++) {
      labels[i] = set.rowOf()[labels[i]];
    }
    return labels;
  }

  @Test
  void aRasterComesBackSampleForSample() {
    Raster back = (Raster) backAndForth("clip", scene);

    assertThat(back.grid()).isEqualTo(scene.grid());
    assertThat(back.bands())
        .extracting(b -> b.role())
        .containsExactly(BandRole.RED, BandRole.NEAR_INFRARED);
    Pixels.assertSame(Made.samples(back), Made.samples(scene));
  }

  @Test
  void measuredObjectsComeBackWithTheirPixelsNumbersTitlesAndUnits() {
    ObjectSet set = measured(cut());

    ObjectSet back = (ObjectSet) backAndForth("measure", set);

    assertThat(back.ids()).isEqualTo(set.ids());
    assertThat(rows(back)).isEqualTo(rows(set));
    assertThat(back.table().columns()).hasSameSizeAs(set.table().columns());
    for (var column : set.table().columns()) {
      assertThat(back.table().values(column.name())).isEqualTo(column.values());
      assertThat(back.table().column(column.name()).title()).isEqualTo(column.title());
      assertThat(back.table().column(column.name()).unit()).isEqualTo(column.unit());
    }
  }

  @Test
  void outlinesComeBackAndCanBeKeptAgain() {
    OutlineSet outlines = (OutlineSet) ResultKinds.as(measured(cut()), OutlineSet.class);

    OutlineSet back = (OutlineSet) backAndForth("outline", outlines);
    OutlineSet again = (OutlineSet) backAndForth("outline", back);

    assertThat(again.outlines()).isEqualTo(outlines.outlines());
    assertThat(again.table().columns())
        .extracting(c -> c.name())
        .isEqualTo(outlines.table().columns().stream().map(c -> c.name()).toList());
    assertThat(again.crs()).isEqualTo(outlines.crs());
  }

  @Test
  void everyGrainOfATreeIsKeptInTheSameFilesButIsAResultOfItsOwn() {
    Origin.Fingerprint fine = origin("segment", Map.of("grain", "20"), "a").fingerprint();
    Origin.Fingerprint coarse = origin("segment", Map.of("grain", "400"), "a").fingerprint();
    Origin.Fingerprint other =
        origin("segment", Map.of("superpixel", "50"), "a").fingerprint();

    assertThat(fine.file()).isEqualTo(coarse.file()).isNotEqualTo(other.file());
    assertThat(fine.key()).isNotEqualTo(coarse.key());

    Cut made = cut();
    kept.keep(fine, made, job);
    Step<?> wanted =
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of("grain", "400"));
    Cut found = (Cut) kept.find(coarse, Cut.class, wanted, job).orElseThrow();

    assertThat(found.grain()).isEqualTo(400);
    assertThat(found.ids()).isEqualTo(made.withGrain(400).ids());
  }

  @Test
  void anotherSettingAnotherInputAndAnotherStateOfAFileAreAnotherResult() throws IOException {
    Path file = Files.writeString(folder.resolve("heights.tif"), "one");
    String before = FileState.of(file);
    Files.writeString(file, "three");

    assertThat(Stream.of(
                origin("ortho", Map.of("pixel-size", "0.5"), "a"),
                origin("ortho", Map.of("pixel-size", "2"), "a"),
                origin("ortho", Map.of("pixel-size", "0.5"), "b"),
                origin("clip", Map.of("pixel-size", "0.5"), "a"))
            .map(o -> o.fingerprint().key()))
        .doesNotHaveDuplicates();
    assertThat(FileState.of(file)).isNotEqualTo(before);
    assertThat(origin("ortho", Map.of("b", "1", "a", "2"), "x").fingerprint())
        .isEqualTo(origin("ortho", Map.of("a", "2", "b", "1"), "x").fingerprint());
  }

  @Test
  void aNameThatLeadsOutOfTheFolderIsNoKeptResult() {
    Origin.Fingerprint good = origin("clip", Map.of(), "a").fingerprint();
    kept.keep(good, scene, job);
    Origin.Fingerprint evil = new Origin.Fingerprint("key", "../rasters/" + good.file());

    assertThat(kept.has(evil)).isFalse();
    assertThat(kept.find(evil, Raster.class, anyStep(), job)).isEmpty();
  }

  @Test
  void aDamagedFileCountsAsNoneAndIsSaid() throws IOException {
    Origin.Fingerprint fingerprint = origin("clip", Map.of(), "a").fingerprint();
    kept.keep(fingerprint, scene, job);
    Path file = folder.resolve("rasters").resolve(fingerprint.file() + ".tif");
    Files.write(file, new byte[] {'I', 'I', 42, 0, 8, 0});

    assertThat(kept.find(fingerprint, Raster.class, anyStep(), job)).isEmpty();
    assertThat(warnings).hasSize(1);
    assertThat(warnings.get(0)).contains(file.toString());
  }

  @Test
  void pruningLeavesWhatIsWantedWhatIsBeingWrittenAndWhatIsNotOurs() throws IOException {
    Origin.Fingerprint wanted = origin("clip", Map.of(), "a").fingerprint();
    Origin.Fingerprint unwanted = origin("clip", Map.of(), "b").fingerprint();
    kept.keep(wanted, scene, job);
    kept.keep(unwanted, scene, job);
    Path rasters = folder.resolve("rasters");
    Path ours = Files.createFile(rasters.resolve("my notes.tif"));
    long alive = ProcessHandle.current().pid();
    Path written = Files.createFile(rasters.resolve(".clip-x.tif." + alive + ".part"));
    Path left = Files.createFile(rasters.resolve(".clip-x.tif.999999999.part.0"));

    kept.prune(Set.of(wanted.file()));

    assertThat(kept.has(wanted)).isTrue();
    assertThat(kept.has(unwanted)).isFalse();
    assertThat(ours).exists();
    assertThat(written).exists();
    assertThat(left).doesNotExist();
  }

  @Test
  void scoresAndRastersThatCostNothingAreNotWorthAFile() {
    assertThat(KeptResults.isWorthIt(scene)).isFalse();
    assertThat(KeptResults.isWorthIt(cut())).isTrue();
    assertThat(KeptResults.keeps(Scores.class)).isFalse();
    assertThat(KeptResults.keeps(Raster.class)).isTrue();
  }
}
