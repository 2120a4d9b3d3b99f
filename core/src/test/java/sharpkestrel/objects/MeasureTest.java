package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;

/** Against plain counts over all pixels, on objects that strips of rows cut and objects that they do not. */
class MeasureTest {

  private static final int WIDTH = 90;
  private static final int HEIGHT = 600;
  private static final int OBJECTS = 60;

  /** Pixels go to the nearest of some points; the first object has none around it, one corner has no object. */
  private static int[] cells() {
    Random random = new Random(8);
    int[] xs = random.ints(OBJECTS, 0, WIDTH).toArray();
    int[] ys = random.ints(OBJECTS, 0, HEIGHT).toArray();
    int[] labels = new int[WIDTH * HEIGHT];
    for (int i = 0; i < labels.length; i++) {
      int x = i % WIDTH;
      int y = i / WIDTH;
      int best = 0;
      double least = Double.MAX_VALUE;
      for (int k = 0; k < OBJECTS; k++) {
        double d = Math.hypot(x - xs[k], (y - ys[k]) / 2.0);
        if (d < least) {
          least = d;
          best = k + 1;
        }
      }
      labels[i] = x + y < 30 ? 0 : best;
    }
    return labels;
  }

  private static final int[] LABELS = cells();

  private static final MemoryRaster SCENE = scene();

  private static MemoryRaster scene() {
    Random random = new Random(2);
    return Made.placed(
        WIDTH,
        HEIGHT,
        0.5,
        (b, col, row) -> random.nextInt(50) == 0 && b == 0
            ? Double.NaN
            : 100 + 40 * (LABELS[row * WIDTH + col] % 5) + (10 + 5 * b) * random.nextGaussian(),
        BandRole.RED,
        BandRole.NEAR_INFRARED);
  }

  private static ObjectSet objects() {
    ScratchLabels labels = new ScratchLabels(SCENE.grid());
    labels.write(SCENE.grid().window(), LABELS);
    labels.setMaxLabel(OBJECTS);
    int[] rowOf = new int[OBJECTS + 1];
    int[] ids = new int[OBJECTS];
    Arrays.setAll(rowOf, l -> l - 1);
    Arrays.setAll(ids, i -> 1000 + i);
    Table none = new Table(OBJECTS, List.of());
    return new ObjectSet(labels, rowOf, ids, none, new GroundSize(0.5, 0.5));
  }

  private static Table measured(
      Optional<MemoryRaster> surface, Optional<String> beside, double sun) {
    return new Measure(
            objects(),
            SCENE,
            new HeightModels(
                surface.map(s -> s),
                surface.map(s ->
                    Made.placed(WIDTH, HEIGHT, 0.5, (b, c, r) -> 10 + 0.1 * c, BandRole.HEIGHT))),
            Optional.empty(),
            List.of(),
            beside,
            sun,
            16,
            PairDirections.ALL)
        .run(Job.QUIET)
        .table();
  }

  private static double[] valuesOf(float[] plane, int object) {
    List<Double> values = new ArrayList<>();
    for (int i = 0; i < LABELS.length; i++) {
      if (LABELS[i] == object + 1 && !Float.isNaN(plane[i])) {
        values.add((double) plane[i]);
      }
    }
    return values.stream().mapToDouble(Double::doubleValue).sorted().toArray();
  }

  @Test
  void bandsAreMeasuredFromEveryPixelWithData() {
    Table t = measured(Optional.empty(), Optional.empty(), Double.NaN);
    float[] red = Made.samples(SCENE)[0];

    for (int i = 0; i < OBJECTS; i++) {
      double[] values = valuesOf(red, i);
      double mean = Arrays.stream(values).average().orElseThrow();
      double variance =
          Arrays.stream(values).map(v -> (v - mean) * (v - mean)).average().orElseThrow();
      assertThat(t.values("red_mean")[i]).isCloseTo(mean, within(1e-6));
      assertThat(t.values("red_spread")[i]).isCloseTo(Math.sqrt(variance), within(1e-5));
      assertThat(t.values("red_min")[i]).isEqualTo(values[0]);
      assertThat(t.values("red_max")[i]).isEqualTo(values[values.length - 1]);
      for (int p : new int[] {10, 50, 90}) {
        double rank = p / 100.0 * (values.length - 1);
        int below = (int) rank;
        double expected = values[below]
            + (rank - below) * (values[Math.min(below + 1, values.length - 1)] - values[below]);
        assertThat(t.values("red_p" + p)[i]).isCloseTo(expected, within(1e-4));
      }
    }
  }

  @Test
  void neighboursAndContrastAreThoseOfEveryPixelSide() {
    Table t = measured(Optional.empty(), Optional.empty(), Double.NaN);

    int[][] sides = new int[OBJECTS][OBJECTS];
    for (int i = 0; i < LABELS.length; i++) {
      int right = i % WIDTH + 1 < WIDTH ? LABELS[i + 1] : 0;
      int below = i + WIDTH < LABELS.length ? LABELS[i + WIDTH] : 0;
      for (int other : new int[] {right, below}) {
        if (LABELS[i] > 0 && other > 0 && other != LABELS[i]) {
          sides[LABELS[i] - 1][other - 1]++;
          sides[other - 1][LABELS[i] - 1]++;
        }
      }
    }
    double[] means = t.values("red_mean");
    for (int i = 0; i < OBJECTS; i++) {
      double total = Arrays.stream(sides[i]).sum();
      double around = 0;
      for (int k = 0; k < OBJECTS; k++) {
        around += sides[i][k] / total * means[k];
      }
      assertThat(t.values("neighbours")[i])
          .isEqualTo(Arrays.stream(sides[i]).filter(s -> s > 0).count());
      assertThat(t.values("red_contrast")[i]).isCloseTo(means[i] - around, within(1e-6));
    }
  }

  @Test
  void textureIsThatOfAMatrixOfEveryPair() {
    Table t = measured(Optional.empty(), Optional.empty(), Double.NaN);

    float[][] planes = Made.samples(SCENE);
    GreyLevels greys = GreyLevels.of(Statistics.of(SCENE, 0, Job.QUIET), 16);
    float[] grey = greys.of(planes);
    for (int object = 0; object < OBJECTS; object++) {
      double[][] matrix = new double[16][16];
      double total = 0;
      for (int i = 0; i < LABELS.length; i++) {
        for (int dy = -1; dy <= 1; dy++) {
          for (int dx = -1; dx <= 1; dx++) {
            int x = i % WIDTH + dx;
            int y = i / WIDTH + dy;
            int j = y * WIDTH + x;
            boolean pair = (dx != 0 || dy != 0)
                && x >= 0
                && x < WIDTH
                && y >= 0
                && y < HEIGHT
                && LABELS[i] == object + 1
                && LABELS[j] == object + 1
                && !Float.isNaN(grey[i])
                && !Float.isNaN(grey[j]);
            if (pair) {
              matrix[greys.level(grey[i])][greys.level(grey[j])]++;
              total++;
            }
          }
        }
      }
      double contrast = 0;
      double homogeneity = 0;
      double moment = 0;
      double entropy = 0;
      double mean = 0;
      for (int a = 0; a < 16; a++) {
        for (int b = 0; b < 16; b++) {
          double p = matrix[a][b] / total;
          contrast += p * (a - b) * (a - b);
          homogeneity += p / (1 + (a - b) * (a - b));
          moment += p * p;
          entropy -= p > 0 ? p * Math.log(p) : 0;
          mean += p * a;
        }
      }
      double covariance = 0;
      double variance = 0;
      for (int a = 0; a < 16; a++) {
        for (int b = 0; b < 16; b++) {
          covariance += matrix[a][b] / total * (a - mean) * (b - mean);
          variance += matrix[a][b] / total * (a - mean) * (a - mean);
        }
      }
      assertThat(t.values("texture_contrast")[object]).isCloseTo(contrast, within(1e-9));
      assertThat(t.values("texture_homogeneity")[object]).isCloseTo(homogeneity, within(1e-9));
      assertThat(t.values("texture_second_moment")[object]).isCloseTo(moment, within(1e-9));
      assertThat(t.values("texture_entropy")[object]).isCloseTo(entropy, within(1e-9));
      assertThat(t.values("texture_correlation")[object])
          .isCloseTo(covariance / variance, within(1e-6));
    }
  }

  @Test
  void heightIsOverTheGroundAndSlopeThatOfTheSurface() {
    // a plane that rises 0.3 m a metre to the east and 0.4 to the south, over ground that rises 0.2
    // to the east
    MemoryRaster surface = Made.placed(
        WIDTH, HEIGHT, 0.5, (b, col, row) -> 20 + 0.15 * col + 0.2 * row, BandRole.HEIGHT);

    Table t = measured(Optional.of(surface), Optional.empty(), Double.NaN);

    for (int i = 0; i < OBJECTS; i++) {
      double sum = 0;
      double count = 0;
      for (int k = 0; k < LABELS.length; k++) {
        if (LABELS[k] == i + 1) {
          sum += 10 + 0.05 * (k % WIDTH) + 0.2 * (k / WIDTH);
          count++;
        }
      }
      assertThat(t.values("height_mean")[i]).isCloseTo(sum / count, within(1e-3));
      assertThat(t.values("slope")[i]).isCloseTo(Math.toDegrees(Math.atan(0.5)), within(1e-2));
      assertThat(t.values("roughness")[i]).isLessThan(0.01);
    }
  }

  @Test
  void distancesAreToTheNearestPixelOfWhatPasses() {
    Table t = measured(Optional.empty(), Optional.of("red_mean > 240"), Double.NaN);
    double[] means = t.values("red_mean");
    Set<Integer> passing = new TreeSet<>();
    for (int i = 0; i < OBJECTS; i++) {
      if (means[i] > 240) {
        passing.add(i + 1);
      }
    }
    assertThat(passing.size()).isBetween(2, OBJECTS / 2);
    List<Integer> theirs = java.util.stream.IntStream.range(0, LABELS.length)
        .filter(i -> passing.contains(LABELS[i]))
        .boxed()
        .collect(Collectors.toList());
    for (int object : new int[] {0, 7, 21, 40, 59}) {
      double least = Double.MAX_VALUE;
      for (int i = 0; i < LABELS.length; i++) {
        if (LABELS[i] == object + 1) {
          for (int j : theirs) {
            least = Math.min(least, Math.hypot(i % WIDTH - j % WIDTH, i / WIDTH - j / WIDTH));
          }
        }
      }
      assertThat(t.values("beside_distance")[object]).isCloseTo(least / 2, within(1e-4));
    }
    double[] shares = t.values("beside_share");
    assertThat(Arrays.stream(shares).min().orElseThrow()).isGreaterThanOrEqualTo(0);
    assertThat(Arrays.stream(shares).max().orElseThrow()).isBetween(0.1, 1.0);
  }

  @Test
  void ofTwoBlocksTheOneThatThrowsAShadowIsTold() {
    int size = 120;
    boolean[] dark = new boolean[size * size];
    int[] labels = new int[size * size];
    for (int y = 0; y < size; y++) {
      for (int x = 0; x < size; x++) {
        boolean west = x >= 20 && x < 40 && y >= 40 && y < 60;
        boolean east = x >= 80 && x < 100 && y >= 40 && y < 60;
        labels[y * size + x] = west ? 1 : east ? 2 : 3;
        dark[y * size + x] = x >= 20 && x < 40 && y >= 30 && y < 40;
      }
    }
    MemoryRaster scene = Made.placed(
        size,
        size,
        0.5,
        (b, col, row) -> dark[row * size + col] ? 5 : labels[row * size + col] == 3 ? 90 : 120,
        BandRole.PAN);
    ScratchLabels drawn = new ScratchLabels(scene.grid());
    drawn.write(new Window(0, 0, size, size), labels);
    drawn.setMaxLabel(3);
    ObjectSet set = new ObjectSet(
        drawn,
        new int[] {-1, 0, 1, 2},
        new int[] {1, 2, 3},
        new Table(3, List.of()),
        new GroundSize(0.5, 0.5));

    // the sun in the south
    double[] shares = new Measure(
            set,
            scene,
            HeightModels.NONE,
            Optional.empty(),
            List.of("context"),
            Optional.empty(),
            180,
            32,
            PairDirections.ALL)
        .run(Job.QUIET)
        .table()
        .values("shadow_share");

    assertThat(shares[0]).isEqualTo(1);
    assertThat(shares[1]).isZero();
  }

  @Test
  void edgesOfStripesRunAlongThem() {
    MemoryRaster stripes = Made.placed(
        64, 64, 0.5, (b, col, row) -> 100 + 50 * Math.sin((col + row) / 4.0), BandRole.PAN);
    ScratchLabels labels = new ScratchLabels(stripes.grid());
    int[] ones = new int[64 * 64];
    Arrays.fill(ones, 1);
    labels.write(stripes.grid().window(), ones);
    labels.setMaxLabel(1);
    ObjectSet set = new ObjectSet(
        labels,
        new int[] {-1, 0},
        new int[] {1},
        new Table(1, List.of()),
        new GroundSize(0.5, 0.5));

    Table t = Measures.of(set, stripes, 32).run(Job.QUIET).table();

    // stripes of equal column + row run from the south-west to the north-east
    assertThat(t.values("edge_direction")[0]).isCloseTo(45, within(0.5));
    assertThat(t.values("edge_agreement")[0]).isGreaterThan(0.99);
    assertThat(t.values("edges_45")[0] + t.values("edges_23")[0]).isGreaterThan(0.95);
  }

  @Test
  void finerObjectsHaveTheNumbersOfTheCoarserOne() {
    ObjectSet fine = objects();
    int[] halves = new int[OBJECTS + 1];
    Arrays.setAll(halves, l -> l == 0 ? -1 : l <= OBJECTS / 2 ? 0 : 1);
    ObjectSet coarse = Measures.of(
            new ObjectSet(
                fine.labels(), halves, new int[] {1, 2}, new Table(2, List.of()), fine.ground()),
            SCENE,
            16)
        .run(Job.QUIET);

    Table t = new Measure(
            fine,
            SCENE,
            HeightModels.NONE,
            Optional.of(coarse),
            List.of("shape", "context"),
            Optional.empty(),
            Double.NaN,
            16,
            PairDirections.ALL)
        .run(Job.QUIET)
        .table();

    double[] areas = coarse.table().values("area");
    assertThat(t.values("coarser_area")[3]).isEqualTo(areas[0]);
    assertThat(t.values("coarser_red_mean")[45]).isEqualTo(coarse.table().values("red_mean")[1]);
    assertThat(t.values("share_of_coarser")[45])
        .isCloseTo(t.values("area")[45] / areas[1], within(1e-12));
  }

  @Test
  void everyColumnIsInTheCatalogue() {
    Table t = measured(
        Optional.of(Made.placed(WIDTH, HEIGHT, 0.5, (b, c, r) -> 20 + c, BandRole.HEIGHT)),
        Optional.of("red_mean > 240"),
        120);

    List<String> known =
        FeatureCatalogue.all().stream().map(FeatureCatalogue.Feature::name).toList();
    for (Table.Column column : t.columns()) {
      String name = column.name().replaceFirst("^(red|near_infrared)_", "BAND_");
      assertThat(known).contains(name);
    }
    assertThat(t.columns().size()).isGreaterThan(60);
  }

  @Test
  void wrongWishesAreNamed() {
    assertThatThrownBy(() -> new Measure(
            objects(),
            SCENE,
            HeightModels.NONE,
            Optional.empty(),
            List.of("colour"),
            Optional.empty(),
            Double.NaN,
            16,
            PairDirections.ALL))
        .hasMessageContaining("'colour'")
        .hasMessageContaining("spectral");
    assertThatThrownBy(() -> measured(Optional.empty(), Optional.of("greenness > 3"), Double.NaN))
        .hasMessageContaining("'greenness'")
        .hasMessageContaining("brightness")
        .hasMessageContaining("There are: area, perimeter");
    assertThatThrownBy(() -> new Measure(
                objects(),
                SCENE,
                HeightModels.NONE,
                Optional.empty(),
                List.of("height"),
                Optional.empty(),
                Double.NaN,
                16,
                PairDirections.ALL)
            .run(Job.QUIET))
        .hasMessageContaining("--surface");
  }
}
