package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.check.SegmentFit;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.segment.learn.MergingModel;

class LearnMergingTest {

  private static final int SIDE = 400;
  private static final int CELL = 40;

  /** Roofs with a lit and a shaded side on ground of much the same tone, each with a shadow as dark as its shaded side. */
  private record Town(Raster scene, OutlineSet roofs) {

    static Town of(long seed) {
      Random random = new Random(seed);
      double[][] light = new double[SIDE][SIDE];
      double[][] warmth = new double[SIDE][SIDE];
      for (int i = 0; i < SIDE * SIDE; i++) {
        light[i / SIDE][i % SIDE] = 100;
        warmth[i / SIDE][i % SIDE] = 1;
      }
      List<Geometry> roofs = new ArrayList<>();
      for (int cell = 0; cell < SIDE / CELL * (SIDE / CELL); cell++) {
        int width = 16 + random.nextInt(9);
        int height = 14 + random.nextInt(7);
        int left = cell % (SIDE / CELL) * CELL + 4 + random.nextInt(6);
        int top = cell / (SIDE / CELL) * CELL + 4 + random.nextInt(4);
        double tone = 80 + 60 * random.nextDouble();
        double warm = 1 + 0.15 * random.nextGaussian();
        fill(light, left, top + height, width, 6, 45);
        fill(light, left, top, width, height / 2, tone);
        fill(light, left, top + height / 2, width, height - height / 2, 0.5 * tone);
        fill(warmth, left, top, width, height, warm);
        double west = 512_000 + 0.5 * left;
        double north = 6_702_000 - 0.5 * top;
        roofs.add(new GeometryFactory()
            .toGeometry(new Envelope(west, west + 0.5 * width, north - 0.5 * height, north)));
      }
      MemoryRaster scene = Made.placed(
          SIDE,
          SIDE,
          0.5,
          (b, col, row) -> light[row][col]
              * (b == 0 ? 1 : b == 1 ? warmth[row][col] : 1.1)
              * (1 + 0.03 * random.nextGaussian()),
          BandRole.BLUE,
          BandRole.RED,
          BandRole.NEAR_INFRARED);
      return new Town(
          scene, new OutlineSet(CrsName.epsg(32630), roofs, new Table(roofs.size(), List.of())));
    }

    private static void fill(
        double[][] values, int left, int top, int width, int height, double value) {
      for (int y = top; y < Math.min(SIDE, top + height); y++) {
        for (int x = left; x < Math.min(SIDE, left + width); x++) {
          values[y][x] = value;
        }
      }
    }

    SegmentFit.Fit fit(Map<String, Object> inputs, Map<String, String> settings) {
      Cut cut = (Cut) StepCatalogue.get("segment").make(inputs, settings).run(Job.QUIET);
      return SegmentFit.of(cut, roofs.outlines(), Job.QUIET).atHeight(cut.height());
    }

    double recallByLikeness() {
      return fit(Map.of("scene", scene), Map.of("grain", "200")).recall();
    }

    double recallBy(MergingModel model) {
      return fit(
              Map.of("scene", scene, "model", model),
              Map.of("grain", "200", "criterion", "learned"))
          .recall();
    }
  }

  @Test
  void bothSidesOfRoofsAreJoinedInATownThatWasNotLearnedFrom() {
    Town learned = Town.of(1);
    MergingModel model = (MergingModel) StepCatalogue.get("learn-merging")
        .make(Map.of("scene", learned.scene, "outlines", learned.roofs), Map.of("rounds", "2"))
        .run(Job.QUIET);

    Town other = Town.of(2);
    double plain = other.recallByLikeness();
    double with = other.recallBy(model);

    assertThat(plain).isLessThan(0.2);
    assertThat(with).isGreaterThan(0.75);
    assertThat(model.about()).contains("100 outlines");
  }

  @Test
  void tooFewOutlinesAndOnesInAnotherSystemAreRefused() {
    Town town = Town.of(1);
    OutlineSet few = new OutlineSet(
        town.roofs.crs(), town.roofs.outlines().subList(0, 9), new Table(9, List.of()));
    OutlineSet elsewhere =
        new OutlineSet(CrsName.epsg(32631), town.roofs.outlines(), town.roofs.table());

    assertThatThrownBy(() -> new LearnMerging(town.scene, few, 2).run(Job.QUIET))
        .hasMessageContaining("Of 9 outlines 9")
        .hasMessageContaining("at least 10");
    assertThatThrownBy(() -> new LearnMerging(town.scene, elsewhere, 2).run(Job.QUIET))
        .hasMessageContaining("EPSG:32631")
        .hasMessageContaining("scene's system");
  }

  @Test
  void withoutAGrainObjectsAreOfTheSizeThatRoofsWereFoundAt() {
    Town town = Town.of(3);

    Cut learned = (Cut) StepCatalogue.get("segment")
        .make(Map.of("scene", town.scene), Map.of("criterion", "learned"))
        .run(Job.QUIET);
    Cut plain = (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", town.scene), Map.of()).run(Job.QUIET);

    assertThat(learned.grain()).isEqualTo(150);
    assertThat(plain.grain()).isEqualTo(60);
    assertThat(learned.objects()).isLessThanOrEqualTo(SIDE * SIDE / 4 / 150);
  }

  /** Ten roofs of the hundred: the two sides of those that were not shown are joined, too. */
  @Test
  void tenOutlinesAreEnoughToBeBetterThanNone() {
    Town learned = Town.of(4);
    OutlineSet ten = new OutlineSet(
        learned.roofs.crs(), learned.roofs.outlines().subList(20, 30), new Table(10, List.of()));
    MergingModel model = new LearnMerging(learned.scene, ten, 3).run(Job.QUIET);
    Town other = Town.of(5);

    double plain = other.recallByLikeness();
    double with = other.recallBy(model);

    assertThat(with).isGreaterThan(plain + 0.2);
    assertThat(model.card().bands()).containsExactly("blue", "red", "near_infrared");
  }

  /** Photos and single bands are merged, and it is said what of them was not learned from. */
  @Test
  void anyBandsWillDoAndWhatWasNotSeenIsSaid() {
    Town town = Town.of(6);
    float[][] planes = Made.samples(town.scene);
    Raster photo = Made.on(
        Grid.ofPixels(SIDE, SIDE),
        SampleType.UINT8,
        (b, col, row) -> 0.6 * planes[0][row * SIDE + col],
        BandRole.OTHER);
    List<String> warnings = new ArrayList<>();

    Cut cut = (Cut) StepCatalogue.get("segment")
        .make(Map.of("scene", photo), Map.of("criterion", "learned"))
        .run(Jobs.warning(warnings));

    assertThat(cut.objects()).isBetween(100, SIDE * SIDE / 60);
    assertThat(warnings)
        .anySatisfy(text -> assertThat(text)
            .contains("outside of what the merging model has seen")
            .contains("has no place")
            .contains("learn-merging"));
  }

  /** The unit of the numbers and the gain of a band do not matter to what was learned. */
  @Test
  void whatWasLearnedDoesNotDependOnTheUnitOfTheNumbers() {
    Town town = Town.of(7);
    float[][] planes = Made.samples(town.scene);
    Raster other = Made.placed(
        SIDE,
        SIDE,
        0.5,
        (b, col, row) -> planes[b][row * SIDE + col] * 40 * (b == 2 ? 3 : 1),
        BandRole.BLUE,
        BandRole.RED,
        BandRole.NEAR_INFRARED);
    Map<String, String> settings = Map.of("criterion", "learned", "grain", "150");

    double one = town.fit(Map.of("scene", town.scene), settings).recall();
    double two = town.fit(Map.of("scene", other), settings).recall();

    assertThat(two).isCloseTo(one, within(0.05));
  }
}
