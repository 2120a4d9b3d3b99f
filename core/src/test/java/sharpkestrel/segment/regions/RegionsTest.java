package sharpkestrel.segment.regions;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.ScratchLabels;

class RegionsTest {

  private static final GeometryFactory GEOMETRY = new GeometryFactory();

  /** Squares of 20 pixels in three tones with noise, and a corner without data. */
  static MemoryRaster board(int width, int height, double noise) {
    Random random = new Random(5);
    double[] tones = {60, 110, 200};
    return Made.placed(
        width,
        height,
        0.5,
        (b, col, row) -> col + row < 6
            ? Double.NaN
            : tones[(col / 20 + 2 * (row / 20) + b) % 3] * (1 + noise * random.nextGaussian()),
        BandRole.RED,
        BandRole.GREEN);
  }

  static Regions by(Method method, int least) {
    return new Regions(
        Optional.empty(), method, 25, 0.1, 3, 20, 5, 1, 60, 0.8, List.of(85.0, 150.0), 10, least);
  }

  static int[] labels(Regions regions, MemoryRaster scene, Optional<MemoryRaster> values) {
    ScratchLabels labels = new ScratchLabels(scene.grid());
    FeatureSpace space = FeatureSpace.of(scene, Map.of(), Job.QUIET);
    int count = regions.make(scene, values.map(v -> v), space, labels, Job.QUIET);
    int[] all = new int[scene.grid().window().area()];
    labels.read(scene.grid().window(), all);
    assertThat(labels.maxLabel()).isEqualTo(count);
    assertThat(Arrays.stream(all).filter(l -> l > 0).distinct().count()).isEqualTo(count);
    return all;
  }

  @ParameterizedTest
  @EnumSource(
      value = Method.class,
      names = {"MEAN_SHIFT", "WATERSHED", "GRAPH", "CUT_VALUES"})
  void squaresOfOneToneEachAreFoundWhateverTheMethod(Method method) {
    MemoryRaster scene = board(80, 60, 0.02);

    int[] labels = labels(by(method, 20), scene, Optional.empty());

    // well inside each square there is one region, and the squares beside it are others
    Map<Integer, Integer> squareOf = new HashMap<>();
    for (int square = 0; square < 12; square++) {
      int middle = (square / 4 * 20 + 10) * 80 + square % 4 * 20 + 10;
      assertThat(squareOf.put(labels[middle], square)).isNull();
      for (int dy = -6; dy <= 6; dy++) {
        for (int dx = -6; dx <= 6; dx++) {
          assertThat(labels[middle + dy * 80 + dx]).isEqualTo(labels[middle]);
        }
      }
    }
    assertThat(labels[0]).isZero();
  }

  @ParameterizedTest
  @EnumSource(
      value = Method.class,
      names = {"MERGE_TREE", "MEAN_SHIFT", "WATERSHED", "SLIC", "GRAPH", "CUT_VALUES"})
  void regionsHangTogether(Method method) {
    MemoryRaster scene = board(70, 50, 0.1);

    int[] labels = labels(by(method, 0), scene, Optional.empty());

    ScratchLabels again = new ScratchLabels(scene.grid());
    again.write(scene.grid().window(), labels);
    int pieces = Pieces.ofEqual(again, Job.QUIET);
    assertThat(pieces).isEqualTo(Arrays.stream(labels).max().orElseThrow());
  }

  @ParameterizedTest
  @EnumSource(
      value = Method.class,
      names = {"MEAN_SHIFT", "WATERSHED", "SLIC", "GRAPH", "CUT_VALUES", "GRID"})
  void oneColourIsWhatTheMethodMakesOfNothing(Method method) {
    MemoryRaster flat = Made.placed(50, 40, 0.5, (b, col, row) -> 7, BandRole.PAN);

    int[] labels = labels(by(method, 0), flat, Optional.empty());

    int expected = method == Method.SLIC ? 80 : method == Method.GRID ? 6 : 1;
    assertThat(Arrays.stream(labels).distinct().count()).isEqualTo(expected);
  }

  /** Climbs written down anew, without early stops but those of the definition; values of both signs and some far off. */
  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 4, 5, 6})
  void meanShiftIsThatOfAPlainClimb(int bands) {
    Random random = new Random(bands);
    MemoryRaster scene = Made.placed(
        24,
        18,
        0.5,
        (b, col, row) -> {
          if (col == 3 && row < 4) {
            return b == bands / 2 ? Double.NaN : 7;
          }
          double far = col == 20 && row == 15 ? 1e5 : 0;
          return 100 * b - 150 + 40 * (col / 8) + 10 * random.nextGaussian() + far;
        },
        Arrays.copyOf(BandRole.values(), bands));
    MeanShiftRaster filtered = MeanShiftRaster.of(scene, 2, 15 + 5 * bands, 3, Job.QUIET);

    float[][] made = Made.samples(filtered);

    float[][] planes = Made.samples(scene);
    float[] scales = filtered.scales();
    double[][] colours = new double[24 * 18][bands];
    for (int i = 0; i < colours.length; i++) {
      int pixel = i;
      Arrays.setAll(colours[i], b -> planes[b][pixel] * scales[b]);
    }
    for (int i = 0; i < colours.length; i++) {
      double[] expected = climbed(colours, i, 3);
      for (int b = 0; b < bands; b++) {
        if (Double.isNaN(expected[0])) {
          assertThat(made[b][i]).isNaN();
        } else {
          assertThat((double) made[b][i])
              .isCloseTo(expected[b] / scales[b], within(1e-4 / scales[b]));
        }
      }
    }
  }

  /** Where a pixel of a scene of 24 x 18 ends with a radius of 2; not a number for no-data. */
  private static double[] climbed(double[][] colours, int pixel, int steps) {
    double[] at = colours[pixel];
    if (Arrays.stream(at).anyMatch(Double::isNaN)) {
      return new double[] {Double.NaN};
    }
    double x = pixel % 24;
    double y = pixel / 24;
    for (int step = 0; step < steps; step++) {
      double[] sum = new double[at.length];
      double[] place = new double[2];
      int count = 0;
      for (int i = 0; i < colours.length; i++) {
        if (Math.abs(i % 24 - Math.round(x)) <= 2
            && Math.abs(i / 24 - Math.round(y)) <= 2
            && distance(colours[i], at) < 1) {
          count++;
          place[0] += i % 24;
          place[1] += i / 24;
          double[] colour = colours[i];
          Arrays.setAll(sum, b -> sum[b] + colour[b]);
        }
      }
      int n = count;
      double[] next = Arrays.stream(sum).map(v -> v / n).toArray();
      boolean still = Math.abs(place[0] / n - x) < 0.5
          && Math.abs(place[1] / n - y) < 0.5
          && distance(next, at) < 0.05;
      x = place[0] / n;
      y = place[1] / n;
      at = next;
      if (still) {
        break;
      }
    }
    return at;
  }

  private static double distance(double[] a, double[] b) {
    double sum = 0;
    for (int i = 0; i < a.length; i++) {
      sum += (a[i] - b[i]) * (a[i] - b[i]);
    }
    return Math.sqrt(sum);
  }

  /** A deep basin beside a shallower one in the gradient: a ramp of light that is steep, flat, steep, less flat, steep. */
  @Test
  void basinsAreJoinedWhereTheShallowerIsLessDeepThanTheDepth() {
    double[] steps = {5, 5, 1, 1, 1, 3, 2, 2, 2, 3, 8, 8};
    double[] light = new double[60];
    for (int i = 1; i < light.length; i++) {
      light[i] = light[i - 1] + steps[(i - 1) / 5];
    }
    // logarithms undo the exponential: a step of one is about 0.08, the basins are 0.17 and 0.08
    // deep
    MemoryRaster ramp =
        Made.placed(60, 300, 0.5, (b, col, row) -> 1e4 * Math.exp(light[col] / 100), BandRole.PAN);

    int shallow = (int) Arrays.stream(watershed(ramp, 0.05)).distinct().count();
    int deep = (int) Arrays.stream(watershed(ramp, 0.12)).distinct().count();

    assertThat(shallow).isEqualTo(2);
    assertThat(deep).isEqualTo(1);
  }

  private static int[] watershed(MemoryRaster scene, double depth) {
    return labels(
        new Regions(
            Optional.empty(), Method.WATERSHED, 25, 0.1, 3, 6, 5, depth, 60, 0, List.of(), 10, 0),
        scene,
        Optional.empty());
  }

  @Test
  void numbersBecomeTheirPiecesAndZeroNone() {
    MemoryRaster scene = board(40, 40, 0);
    MemoryRaster numbers = Made.placed(
        40,
        40,
        0.5,
        (b, col, row) -> row < 10 ? 0 : col < 10 || col >= 30 ? 7 : 300,
        BandRole.OTHER);

    int[] labels = labels(by(Method.NUMBERS, 0), scene, Optional.of(numbers));

    assertThat(Arrays.stream(labels).max().orElseThrow()).isEqualTo(3);
    assertThat(labels[5 * 40 + 20]).isZero();
    assertThat(labels[20 * 40 + 5]).isNotEqualTo(labels[20 * 40 + 35]);
  }

  @Test
  void outlinesBecomeObjectsAndThoseElsewhereAreLeftOut() {
    MemoryRaster scene = board(40, 40, 0);
    double west = 512_000;
    double north = 6_702_000;
    var here = GEOMETRY.toGeometry(new Envelope(west + 5, west + 10, north - 15, north - 5));
    var elsewhere = GEOMETRY.toGeometry(new Envelope(west + 500, west + 510, north, north + 10));
    var table = new Table(2, List.of());
    Regions regions = new Regions(
        Optional.of(new OutlineSet(scene.grid().crs(), List.of(elsewhere, here), table)),
        Method.OUTLINES,
        25,
        0.1,
        3,
        6,
        5,
        1,
        60,
        0,
        List.of(),
        10,
        0);

    int[] labels = labels(regions, scene, Optional.empty());

    assertThat(Arrays.stream(labels).filter(l -> l == 1).count()).isEqualTo(10 * 20);
    assertThat(Arrays.stream(labels).max().orElseThrow()).isEqualTo(1);
  }

  @Test
  void outlinesThatMissTheSceneAreRefused() {
    MemoryRaster scene = board(40, 40, 0);
    var far = GEOMETRY.toGeometry(new Envelope(0, 1, 0, 1));
    Regions regions = new Regions(
        Optional.of(new OutlineSet(CrsName.epsg(32630), List.of(far), new Table(1, List.of()))),
        Method.OUTLINES,
        25,
        0.1,
        3,
        6,
        5,
        1,
        60,
        0,
        List.of(),
        10,
        0);

    assertThatThrownBy(() -> labels(regions, scene, Optional.empty()))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("lie elsewhere");
  }

  @Test
  void methodsSayWhatTheyNeed() {
    assertThatThrownBy(() -> new Regions(
            Optional.empty(), Method.OUTLINES, 25, 0.1, 3, 6, 5, 1, 60, 0, List.of(), 10, 0))
        .hasMessageContaining("--outlines");
    assertThatThrownBy(() -> new Regions(
            Optional.empty(), Method.CUT_VALUES, 25, 0.1, 3, 6, 5, 1, 60, 0, List.of(), 10, 0))
        .hasMessageContaining("--cuts");
    assertThatThrownBy(() -> labels(by(Method.NUMBERS, 0), board(40, 40, 0), Optional.empty()))
        .hasMessageContaining("--layer");
  }

  @Test
  void smallRegionsGoToTheNeighbourWithTheLongestBorder() {
    int[] drawn = {
      1, 1, 1, 2, 2,
      1, 3, 3, 2, 2,
      1, 1, 3, 2, 2,
      0, 0, 0, 0, 4
    };
    ScratchLabels labels = new ScratchLabels(Grid.ofPixels(5, 4));
    labels.write(labels.grid().window(), drawn);

    int count = SmallRegions.join(labels, 4, 3, Job.QUIET);

    int[] after = new int[20];
    labels.read(labels.grid().window(), after);
    // 4 touches 2; 3 has five sides with 1 and two with 2
    assertThat(after).containsExactly(1, 1, 1, 2, 2, 1, 1, 1, 2, 2, 1, 1, 1, 2, 2, 0, 0, 0, 0, 2);
    assertThat(count).isEqualTo(2);
  }

  @Test
  void allNoDataIsRefusedByMeanShift() {
    MemoryRaster none = Made.on(
        Grid.ofPixels(20, 20), SampleType.FLOAT32, (b, col, row) -> Double.NaN, BandRole.PAN);

    assertThatThrownBy(() -> MeanShiftRaster.of(none, 3, 6, 5, Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("no-data");
  }
}
