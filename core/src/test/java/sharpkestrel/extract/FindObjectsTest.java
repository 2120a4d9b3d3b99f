package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.check.Compare;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderFile;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.segment.Cut;

/** Bright and red sheds and halls on a meadow, among dark ponds and pale squares of the same forms. */
class FindObjectsTest {

  private static final int SIDE = 420;
  private static final int CELL = 42;

  @TempDir
  Path folder;

  /**
   * @param models of what stands 5 m on level ground: the roofs
   */
  private record Village(Raster scene, Cut tree, OutlineSet roofs, HeightModels models) {}

  private static Village village(long seed) {
    return village(seed, false);
  }

  /**
   * @param twins whether the pale squares look as metal roofs do
   */
  private static Village village(long seed, boolean twins) {
    float[] surface = new float[SIDE * SIDE];
    Arrays.fill(surface, 10);
    Random random = new Random(seed);
    float[][] planes = new float[3][SIDE * SIDE];
    for (int i = 0; i < SIDE * SIDE; i++) {
      double grain = 1 + 0.06 * random.nextGaussian();
      planes[0][i] = (float) (300 * grain);
      planes[1][i] = (float) (420 * grain);
      planes[2][i] = (float) (900 * grain);
    }
    List<Geometry> outlines = new ArrayList<>();
    List<String> classes = new ArrayList<>();
    float[][] colours = {{900, 900, 950}, {850, 420, 500}, {120, 140, 60}, {700, 760, 1500}};
    for (int cell = 0; cell < (SIDE / CELL) * (SIDE / CELL); cell++) {
      // from sheds of 7 x 6 pixels to halls of 33 x 28
      int wide = 7 + random.nextInt(27);
      int tall = Math.max(6, (int) (wide * (0.6 + 0.3 * random.nextDouble())));
      int left = cell % (SIDE / CELL) * CELL + 3 + random.nextInt(CELL - 5 - wide);
      int top = cell / (SIDE / CELL) * CELL + 3 + random.nextInt(CELL - 5 - tall);
      int kind = random.nextInt(4);
      boolean isTwin = twins && kind == 3;
      float[] colour = colours[isTwin ? 0 : kind];
      for (int y = top; y < top + tall; y++) {
        for (int x = left; x < left + wide; x++) {
          surface[y * SIDE + x] += kind < 2 ? 5 : 0;
          for (int b = 0; b < 3; b++) {
            // the far side of a roof is darker
            double shade = (kind < 2 || isTwin) && y > top + tall / 2 ? 0.75 : 1;
            planes[b][y * SIDE + x] =
                (float) (colour[b] * shade * (1 + 0.05 * random.nextGaussian()));
          }
        }
      }
      if (kind < 2) {
        outlines.add(new GeometryFactory()
            .toGeometry(new Envelope(
                512_000 + 0.5 * left,
                512_000 + 0.5 * (left + wide),
                6_702_000 - 0.5 * (top + tall),
                6_702_000 - 0.5 * top)));
        classes.add(kind == 0 ? "metal" : "tile");
      }
    }
    Grid grid = new Grid(SIDE, SIDE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    Raster scene = new MemoryRaster(
        grid,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32),
            Band.of(BandRole.GREEN, SampleType.FLOAT32),
            Band.of(BandRole.NEAR_INFRARED, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
    Cut tree = (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(Job.QUIET);
    Table table =
        new Table(outlines.size(), List.of(Table.Column.ofTexts("roof", "Roof", classes)));
    return new Village(
        scene,
        tree,
        new OutlineSet(grid.crs(), outlines, table),
        new HeightModels(
            Optional.of(heights(grid, surface)),
            Optional.of(heights(grid, new float[SIDE * SIDE]))));
  }

  private static Raster heights(Grid grid, float[] metres) {
    return new MemoryRaster(
        grid,
        List.of(Band.of(BandRole.OTHER, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[][] {metres});
  }

  private static Finder learned(Village village, Learner method) {
    return learned(village, HeightModels.NONE, method);
  }

  private static Finder learned(Village village, HeightModels models, Learner method) {
    return new LearnObjects(
            village.tree,
            village.scene,
            models,
            village.roofs,
            Optional.empty(),
            Optional.empty(),
            LearnObjects.Labelled.ALL,
            Optional.of(method),
            1)
        .run(Job.QUIET);
  }

  /** Some metal roofs, and some of what is something else. */
  private static OutlineSet few(Village village, int metal, List<Geometry> others) {
    List<Geometry> shapes = new ArrayList<>();
    List<String> classes = new ArrayList<>();
    for (int i = 0; i < village.roofs.count() && shapes.size() < metal; i++) {
      if (village.roofs.table().column("roof").text(i).equals("metal")) {
        shapes.add(village.roofs.outlines().get(i));
        classes.add("metal");
      }
    }
    for (Geometry each : others) {
      shapes.add(each);
      classes.add(Finder.OTHER);
    }
    return new OutlineSet(
        village.roofs.crs(),
        shapes,
        new Table(shapes.size(), List.of(Table.Column.ofTexts("class", "Class", classes))));
  }

  private static ObjectSet foundFrom(Village village, OutlineSet few) {
    Finder finder = new LearnObjects(
            village.tree,
            village.scene,
            HeightModels.NONE,
            few,
            Optional.empty(),
            Optional.empty(),
            LearnObjects.Labelled.SOME,
            Optional.empty(),
            1)
        .run(Job.QUIET);
    return new FindObjects(
            village.tree,
            village.scene,
            HeightModels.NONE,
            Optional.of(finder),
            List.of(),
            0.3,
            0.5,
            0)
        .run(Job.QUIET);
  }

  @Test
  void aFewClicksAndTheirCorrectionsFindTheOthersInTheSameScene() {
    Village village = village(5);
    List<Geometry> others = new ArrayList<>();
    for (int i = 0; others.size() < 4; i++) {
      if (village.roofs.table().column("roof").text(i).equals("tile")) {
        others.add(village.roofs.outlines().get(i));
      }
    }
    ObjectSet first = foundFrom(village, few(village, 6, others));
    // the surest finds that lie on no metal roof are something else
    OutlineSet outlines = (OutlineSet) ResultKinds.as(first, OutlineSet.class);
    List<Integer> wrong =
        new ArrayList<>(new Compare(outlines, village.roofs, "roof = 'metal'", "auto", 0.5)
            .run(Job.QUIET)
            .wrong());
    double[] scores = first.table().values("score");
    wrong.sort((a, b) -> Double.compare(scores[b], scores[a]));
    wrong.stream().limit(8).forEach(i -> others.add(outlines.outlines().get(i)));

    ObjectSet corrected = foundFrom(village, few(village, 6, others));

    assertThat(f1(corrected, village, "roof = 'metal'"))
        .isGreaterThan(0.8)
        .isGreaterThanOrEqualTo(f1(first, village, "roof = 'metal'"));
  }

  @Test
  void whatIsLikeTwoPickedRoofsIsFoundAmongAllNodes() {
    Village village = village(6);
    OutlineSet picks = few(village, 2, List.of());

    ObjectSet alike = new FindAlike(
            village.tree,
            village.scene,
            new AlikeBy(picks, Optional.empty(), Optional.empty(), 0.3))
        .run(Job.QUIET);

    OutlineSet found = (OutlineSet) ResultKinds.as(alike, OutlineSet.class);
    var scores = new Compare(found, village.roofs, "roof = 'metal'", "auto", 0.5).run(Job.QUIET);
    assertThat(scores.precision()).isGreaterThan(0.6);
    assertThat(alike.count()).isGreaterThan(3);
    assertThat(java.util.Arrays.stream(alike.table().values("likeness")).max().orElse(0))
        .isGreaterThan(0.99);
  }

  @Test
  void ofSomeLabelledSomethingElseMustBeAmongThem() {
    Village village = village(4);
    assertThatThrownBy(() -> foundFrom(village, few(village, 6, List.of())))
        .hasMessageContaining("Nothing is outlined that is something else");
  }

  private static double f1(ObjectSet found, Village village, String wanted) {
    OutlineSet outlines = (OutlineSet) ResultKinds.as(found, OutlineSet.class);
    return new Compare(outlines, village.roofs, wanted, "auto", 0.5)
        .run(Job.QUIET)
        .f1();
  }

  @Test
  void roofsOfEverySizeAreFoundInAVillageThatWasNotLearnedFrom() {
    Village other = village(2);
    Finder finder = learned(village(1), Learner.BOOSTING);

    ObjectSet found = new FindObjects(
            other.tree, other.scene, HeightModels.NONE, Optional.of(finder), List.of(), 0.5, 0.3, 0)
        .run(Job.QUIET);
    ObjectSet metal = new FindObjects(
            other.tree,
            other.scene,
            HeightModels.NONE,
            Optional.of(finder),
            List.of("metal"),
            0.5,
            0.3,
            0)
        .run(Job.QUIET);

    assertThat(f1(found, other, "auto")).isGreaterThan(0.85);
    assertThat(f1(metal, other, "roof = 'metal'")).isGreaterThan(0.85);
    assertThat(metal.table().column("class").categories()).containsExactly("metal");
    double[] areas = found.table().values("area");
    assertThat(java.util.Arrays.stream(areas).max().orElse(0)
            / java.util.Arrays.stream(areas).min().orElse(1))
        .as("sheds and halls")
        .isGreaterThan(6);
  }

  @Test
  void heightsTellRoofsFromWhatLooksAsTheyDoAndLiesOnTheGround() {
    Village village = village(7, true);
    Village other = village(8, true);
    Finder blind = learned(village, Learner.BOOSTING);
    Finder seeing = learned(village, village.models, Learner.BOOSTING);

    ObjectSet flat = new FindObjects(
            other.tree, other.scene, HeightModels.NONE, Optional.of(blind), List.of(), 0.5, 0.3, 0)
        .run(Job.QUIET);
    ObjectSet standing = new FindObjects(
            other.tree, other.scene, other.models, Optional.of(seeing), List.of(), 0.5, 0.3, 0)
        .run(Job.QUIET);

    assertThat(f1(standing, other, "auto")).isGreaterThan(0.85);
    assertThat(f1(flat, other, "auto")).isLessThan(f1(standing, other, "auto") - 0.1);
    assertThatThrownBy(() -> new FindObjects(
                other.tree,
                other.scene,
                HeightModels.NONE,
                Optional.of(seeing),
                List.of(),
                0.5,
                0.3,
                0)
            .run(Job.QUIET))
        .hasMessageContaining("looks at heights");
    List<String> warned = new ArrayList<>();
    new FindObjects(
            other.tree, other.scene, other.models, Optional.of(blind), List.of(), 0.5, 0.3, 0)
        .run(Jobs.warning(warned));
    assertThat(warned).anyMatch(text -> text.contains("learned without heights"));
  }

  @Test
  void aFinderComesBackFromItsFileAndFindsTheSame() throws Exception {
    Village village = village(3);
    Finder finder = learned(village, Learner.FOREST);
    Path file = folder.resolve("roofs.json");

    FinderFile.write(finder, file);
    Finder read = FinderFile.read(file);

    assertThat(FinderFile.text(read)).isEqualTo(FinderFile.text(finder));
    FindObjects first = new FindObjects(
        village.tree,
        village.scene,
        HeightModels.NONE,
        Optional.of(finder),
        List.of(),
        0.5,
        0.3,
        0);
    FindObjects second = new FindObjects(
        village.tree, village.scene, HeightModels.NONE, Optional.of(read), List.of(), 0.5, 0.3, 0);
    assertThat(ResultKinds.digest(first.run(Job.QUIET), Job.QUIET))
        .isEqualTo(ResultKinds.digest(second.run(Job.QUIET), Job.QUIET));
    String text = Files.readString(file);
    Files.writeString(file, text.replaceFirst("\"left\" : \"....", "\"left\" : \""));
    assertThatThrownBy(() -> FinderFile.read(file))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("damaged");
  }

  @Test
  void whatCannotBeLookedForIsSaid() {
    Village village = village(4);
    Finder finder = learned(village, Learner.FOREST);

    assertThatThrownBy(() -> new FindObjects(
                village.tree,
                village.scene,
                HeightModels.NONE,
                Optional.of(finder),
                List.of("turf"),
                0.5,
                0.3,
                0)
            .run(Job.QUIET))
        .hasMessageContaining("turf")
        .hasMessageContaining("metal, tile");
    OutlineSet few = new OutlineSet(
        village.roofs.crs(),
        village.roofs.outlines().subList(0, 3),
        village.roofs.table().select(new int[] {0, 1, 2}));
    assertThatThrownBy(() ->
            learned(new Village(village.scene, village.tree, few, village.models), Learner.FOREST))
        .hasMessageContaining("3 outlines");
  }
}
