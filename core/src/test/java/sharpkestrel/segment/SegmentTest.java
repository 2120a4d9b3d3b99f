package sharpkestrel.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.segment.regions.FeatureSpace;
import sharpkestrel.segment.regions.Superpixels;

class SegmentTest {

  /** Patches of colour with noise; a strip of no-data. */
  private static MemoryRaster patches(int width, int height, long seed) {
    Random random = new Random(seed);
    float[][] planes = new float[2][width * height];
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        double patch = 60 + 40 * ((x / 37 + 2 * (y / 29)) % 5);
        planes[0][i] = (float) (patch * (1 + 0.05 * random.nextGaussian()));
        planes[1][i] = (float) ((300 - patch) * (1 + 0.05 * random.nextGaussian()));
        if (x > width * 0.7 && x < width * 0.72) {
          planes[0][i] = Float.NaN;
        }
      }
    }
    Grid grid =
        new Grid(width, height, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    return new MemoryRaster(
        grid,
        List.of(
            Band.of(BandRole.RED, SampleType.FLOAT32), Band.of(BandRole.GREEN, SampleType.FLOAT32)),
        Attachments.NONE,
        planes);
  }

  private static Cut segment(MemoryRaster scene, double grain, Job job) {
    return Segments.of(scene, grain).run(job);
  }

  private static int[] labels(LabelRaster raster) {
    int[] all = new int[raster.grid().window().area()];
    raster.read(raster.grid().window(), all);
    return all;
  }

  @Test
  void finerObjectsNestInCoarserOnesAndHeightsNeverFall() {
    Cut cut = segment(patches(300, 240, 1), 50, Job.QUIET);
    MergeTree tree = cut.tree();

    for (int i = 1; i < tree.merges(); i++) {
      assertThat(tree.heightOfMerge(i)).isGreaterThanOrEqualTo(tree.heightOfMerge(i - 1));
    }
    Cut fine = cut.withGrain(12);
    Cut coarse = cut.withGrain(200);
    Map<Integer, Integer> parentOf = new HashMap<>();
    for (int leaf = 1; leaf <= tree.leaves(); leaf++) {
      Integer before = parentOf.put(fine.objectOf()[leaf], coarse.objectOf()[leaf]);
      assertThat(before == null || before == coarse.objectOf()[leaf]).isTrue();
    }
    assertThat(fine.objects()).isGreaterThan(coarse.objects());
  }

  @Test
  void aGrainIsTheLowestCutWithAtMostItsCount() {
    Cut cut = segment(patches(300, 240, 2), 50, Job.QUIET);
    double area = cut.tree().validPixels() * cut.ground().area();

    for (double grain : new double[] {8, 20, 75, 300, 2000}) {
      Cut at = cut.withGrain(grain);
      assertThat((long) at.objects()).isLessThanOrEqualTo((long) (area / grain));
      int merges = cut.tree().mergesUpTo(at.height());
      float height = cut.tree().heightOfMerge(merges - 1);
      int lower = merges - 1;
      while (lower > 0 && cut.tree().heightOfMerge(lower - 1) == height) {
        lower--;
      }
      assertThat((long) cut.tree().leaves() - lower).isGreaterThan((long) (area / grain));
    }
  }

  @Test
  void theSameObjectHasTheSameNumberInEveryCut() {
    Cut cut = segment(patches(200, 200, 3), 50, Job.QUIET);
    Cut other = cut.withGrain(80);
    Map<Integer, Set<Integer>> one = members(cut);
    Map<Integer, Set<Integer>> two = members(other);

    for (var entry : one.entrySet()) {
      if (two.containsKey(entry.getKey())) {
        assertThat(two.get(entry.getKey())).isEqualTo(entry.getValue());
      }
    }
  }

  private static Map<Integer, Set<Integer>> members(Cut cut) {
    Map<Integer, Set<Integer>> members = new HashMap<>();
    for (int leaf = 1; leaf <= cut.tree().leaves(); leaf++) {
      members
          .computeIfAbsent(cut.ids()[cut.objectOf()[leaf]], k -> new HashSet<>())
          .add(leaf);
    }
    return members;
  }

  @Test
  void threadsDoNotShowInTreeOrLabels() {
    MemoryRaster scene = patches(1100, 1060, 4);

    Cut one = segment(scene, 40, Job.of(1, 512));
    Cut two = segment(scene, 40, Job.of(2, 256));

    assertThat(labels(two.superpixels())).isEqualTo(labels(one.superpixels()));
    assertThat(two.objectOf()).isEqualTo(one.objectOf());
    assertThat(two.height()).isEqualTo(one.height());
  }

  @Test
  void blocksLeaveNoLines() {
    MemoryRaster scene = patches(1300, 400, 5);
    Cut cut = segment(scene, 40, Job.QUIET);
    int[] labels = labels(cut.superpixels());
    double[] share = new double[1300];
    for (int x = 1; x < 1300; x++) {
      for (int y = 0; y < 400; y++) {
        share[x] += labels[y * 1300 + x] != labels[y * 1300 + x - 1] ? 1.0 / 400 : 0;
      }
    }
    // Block lines lie every 256 columns; seeds repeat every 5, so lines meet them anywhere.
    double onLines = 0;
    double elsewhere = 0;
    for (int x = 10; x < 1290; x++) {
      if (x % 256 == 0) {
        onLines += share[x] / 5;
      } else {
        elsewhere += share[x] / 1275;
      }
    }

    assertThat(onLines).isLessThan(1.2 * elsewhere);
  }

  @Test
  void superpixelsAreConnectedAndLargeEnoughOnAverage() {
    Cut cut = segment(patches(600, 500, 6), 40, Job.QUIET);

    assertThat((double) cut.tree().validPixels() / cut.tree().leaves()).isGreaterThan(20);
    assertThat(components(labels(cut.superpixels()), 600, 500))
        .isEqualTo(cut.tree().leaves());
  }

  private static int components(int[] labels, int width, int height) {
    boolean[] seen = new boolean[labels.length];
    int count = 0;
    int[] stack = new int[labels.length];
    for (int start = 0; start < labels.length; start++) {
      if (seen[start] || labels[start] == 0) {
        continue;
      }
      count++;
      int top = 0;
      stack[top++] = start;
      seen[start] = true;
      while (top > 0) {
        int i = stack[--top];
        int x = i % width;
        int[] next = {
          x > 0 ? i - 1 : i,
          x + 1 < width ? i + 1 : i,
          i >= width ? i - width : i,
          i / width + 1 < height ? i + width : i
        };
        for (int j : next) {
          if (!seen[j] && labels[j] == labels[i]) {
            seen[j] = true;
            stack[top++] = j;
          }
        }
      }
    }
    return count;
  }

  @ParameterizedTest
  @CsvSource({"11,0", "12,0", "13,0", "14,1", "15,3"})
  void mergesAreThoseOfAPlainSearchForTheCheapestPair(long seed, double texture) {
    Criterion criterion = new Criterion(0.2, 1, 1, 0.2, 1, 1, texture);
    MemoryRaster scene = patches(60, 50, seed);
    FeatureSpace space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    ScratchLabels labels = new ScratchLabels(scene.grid());
    int regions = Superpixels.make(space, 5, 0.1, labels, Job.QUIET);
    List<Double> expected = new PlainMerging(space, labels, criterion).heights();

    RegionGraph graph = RegionGraph.of(space, labels, regions, Job.QUIET);
    MergeTree tree = new TreeBuilder(graph, criterion).build(Job.QUIET);

    assertThat(tree.merges()).isEqualTo(expected.size());
    for (int i = 0; i < expected.size(); i++) {
      assertThat((double) tree.heightOfMerge(i))
          .isCloseTo(expected.get(i), within(2e-3 * (1 + expected.get(i))));
    }
  }

  @ParameterizedTest
  @ValueSource(longs = {11, 12})
  void theTreeIsTheSameWhetherRegionsWithManyNeighboursAreWalkedOrNot(long seed) {
    MemoryRaster scene = patches(200, 150, seed);
    FeatureSpace space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    ScratchLabels labels = new ScratchLabels(scene.grid());
    int regions = Superpixels.make(space, 3, 0.1, labels, Job.QUIET);

    int[] walked = parents(new TreeBuilder(
        RegionGraph.of(space, labels, regions, Job.QUIET),
        Criterion.STANDARD,
        Optional.empty(),
        1 << 20));
    int[] never = parents(new TreeBuilder(
        RegionGraph.of(space, labels, regions, Job.QUIET),
        Criterion.STANDARD,
        Optional.empty(),
        0));
    int[] asIs = parents(
        new TreeBuilder(RegionGraph.of(space, labels, regions, Job.QUIET), Criterion.STANDARD));

    assertThat(walked).hasSizeGreaterThan(4_000);
    assertThat(never).isEqualTo(walked);
    assertThat(asIs).isEqualTo(walked);
  }

  private static int[] parents(TreeBuilder builder) {
    MergeTree tree = builder.build(Job.QUIET);
    return IntStream.range(0, tree.nodes()).map(tree::parent).toArray();
  }

  @Test
  void aSceneOfNoDataIsRefusedClearly() {
    MemoryRaster empty = new MemoryRaster(
        Grid.ofPixels(40, 40),
        List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[][] {filled(1600, Float.NaN)});

    assertThatThrownBy(() -> segment(empty, 10, Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("no-data");
  }

  @Test
  void oneColourIsOneObjectAtTheTop() {
    MemoryRaster flat = new MemoryRaster(
        Grid.ofPixels(64, 48),
        List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[][] {filled(64 * 48, 7)});

    Cut cut = segment(flat, 1000, Job.QUIET);

    assertThat(cut.objects()).isEqualTo(1);
    assertThat(cut.tree().validPixels()).isEqualTo(64 * 48);
  }

  private static float[] filled(int n, float value) {
    float[] plane = new float[n];
    java.util.Arrays.fill(plane, value);
    return plane;
  }

  /** Adds up every array that the graph, the builder and the tree hold, for a scene of six bands. */
  @Test
  void mergingTakesUnder250BytesASuperpixel() throws IllegalAccessException {
    int size = 512;
    Random random = new Random(9);
    float[][] planes = new float[6][size * size];
    List<Band> bands = new ArrayList<>();
    for (float[] plane : planes) {
      for (int i = 0; i < plane.length; i++) {
        plane[i] = 100 + random.nextFloat();
      }
      bands.add(Band.of(BandRole.OTHER, SampleType.FLOAT32));
    }
    MemoryRaster scene =
        new MemoryRaster(Grid.ofPixels(size, size), bands, Attachments.NONE, planes);
    FeatureSpace space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    ScratchLabels labels = new ScratchLabels(scene.grid());
    int regions = Superpixels.make(space, 5, 0.1, labels, Job.QUIET);
    RegionGraph graph = RegionGraph.of(space, labels, regions, Job.QUIET);
    TreeBuilder builder = new TreeBuilder(graph, Criterion.STANDARD);

    MergeTree tree = builder.build(Job.QUIET);

    Map<Object, Long> arrays = new java.util.IdentityHashMap<>();
    for (Object holder : List.of(graph, builder, tree)) {
      for (java.lang.reflect.Field field : holder.getClass().getDeclaredFields()) {
        field.setAccessible(true);
        if (field.getType() == int[].class) {
          arrays.put(field.get(holder), 4L * ((int[]) field.get(holder)).length);
        } else if (field.getType() == float[].class) {
          arrays.put(field.get(holder), 4L * ((float[]) field.get(holder)).length);
        }
      }
    }
    long bytes = arrays.values().stream().mapToLong(Long::longValue).sum();
    assertThat(arrays.size()).isGreaterThan(12);
    assertThat((double) bytes / regions).isBetween(100.0, 250.0);
  }

  /** Water and a wood side by side under haze that thickens: each stays whole while there are more objects than things. */
  @Test
  void landUnderHazeIsNotPartedAlongStraightLines() {
    Random random = new Random(6);
    double[][] noise = new double[3][200 * 160];
    for (double[] plane : noise) {
      Arrays.setAll(plane, i -> random.nextGaussian());
    }
    MemoryRaster photo = Made.on(
        Grid.ofPixels(200, 160),
        SampleType.UINT8,
        (b, col, row) -> {
          int i = row * 200 + col;
          double[] n = noise[b];
          double smooth =
              col == 0 || row == 0 ? n[i] : (n[i] + n[i - 1] + n[i - 200] + n[i - 201]) / 2;
          double haze = row / 160.0 * 0.7;
          double ground = col < 100 ? 60 * Math.exp(0.3 * smooth) : 35 + smooth;
          return Math.round(Math.clamp(ground * (1 - haze) + 200 * haze, 1, 255));
        },
        BandRole.RED,
        BandRole.GREEN,
        BandRole.BLUE);

    double beyond = best(photo, List.of());
    double plain = best(photo, List.of("texture=0"));

    assertThat(beyond).isGreaterThan(plain + 0.1);
  }

  /** The mean over both halves of the best overlap with an object, of ten. */
  private static double best(MemoryRaster photo, List<String> weights) {
    Cut cut = Segments.with(photo, photo.grid().pixels() / 10.0, weights).run(Job.QUIET);
    int[] labels = new int[200 * 160];
    int[] superpixels = labels(cut.superpixels());
    Arrays.setAll(labels, i -> cut.objectOf()[superpixels[i]]);
    double sum = 0;
    for (int half = 0; half < 2; half++) {
      java.util.Map<Integer, int[]> counts = new java.util.HashMap<>();
      for (int i = 0; i < labels.length; i++) {
        counts.computeIfAbsent(labels[i], any -> new int[2])[i % 200 < 100 ? 0 : 1]++;
      }
      int own = half;
      sum += counts.values().stream()
          .mapToDouble(c -> c[own] / (16_000.0 + c[1 - own]))
          .max()
          .orElse(0);
    }
    return sum / 2;
  }

  /** Reflectance, digital numbers, standardised values: the unit is not what is looked at. */
  @ParameterizedTest
  @CsvSource({"64,1,0", "40,1,0", "1,8,0", "1,1,-300"})
  void objectsDoNotDependOnTheUnitOfTheNumbers(double all, double red, double offset) {
    MemoryRaster scene = patches(120, 100, 21);
    float[][] planes = Made.samples(scene);
    MemoryRaster other = Made.on(
        scene.grid(),
        SampleType.FLOAT32,
        (b, col, row) -> planes[b][row * 120 + col] * all * (b == 0 ? red : 1) + offset,
        scene.bands().stream().map(band -> band.role()).toArray(BandRole[]::new));

    int[] labels = objects(scene);
    int[] others = objects(other);

    int either = 0;
    int both = 0;
    for (int i = 1; i < labels.length; i++) {
      boolean border = labels[i] != labels[i - 1];
      boolean otherBorder = others[i] != others[i - 1];
      either += border || otherBorder ? 1 : 0;
      both += border && otherBorder ? 1 : 0;
    }
    assertThat(both / (double) either).isGreaterThan(offset == 0 ? 0.97 : 0.6);
  }

  private static int[] objects(MemoryRaster scene) {
    Cut cut = segment(scene, 250, Job.QUIET);
    return Arrays.stream(labels(cut.superpixels())).map(l -> cut.objectOf()[l]).toArray();
  }
}
