package sharpkestrel.sharpen.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;

class MeasuresTest {

  private static final int WIDE = 34;
  private static final int HIGH = 27;
  private static final int LEVELS = 12;

  /** Patches, slopes and noise, with a hole. */
  private static float[][] values() {
    Random random = new Random(5);
    float[][] values = new float[HIGH][WIDE];
    for (int y = 0; y < HIGH; y++) {
      for (int x = 0; x < WIDE; x++) {
        double patch = x > 14 && y < 15 ? 70 : 20 + 2 * x;
        values[y][x] = (float) (patch + (y > 18 ? 0 : random.nextInt(25)));
      }
    }
    values[20][9] = Float.NaN;
    values[21][9] = Float.NaN;
    values[8][30] = Float.NaN;
    return values;
  }

  private static Raster scene(float[][] values) {
    return Made.placed(
        values[0].length, values.length, 0.5, (b, x, y) -> values[y][x], BandRole.PAN);
  }

  private static TextureRaster texture(
      float[][] values, Levels levels, int side, Direction direction, int distance) {
    Raster scene = scene(values);
    Statistics statistics = Statistics.of(scene, 0, Job.QUIET)[0];
    return new TextureRaster(
        scene, statistics, List.of(Measure.values()), levels, side, direction, distance);
  }

  private static int[][] sorted(float[][] values, Levels levels) {
    int[][] out = new int[values.length][values[0].length];
    for (int y = 0; y < values.length; y++) {
      levels.of(values[y], out[y]);
    }
    return out;
  }

  @ParameterizedTest
  @CsvSource({
    "EAST, 1, 12, 3",
    "NORTH_EAST, 1, 12, 3",
    "NORTH, 2, 12, 3",
    "NORTH_WEST, 3, 12, 3",
    "MEAN, 1, 12, 3",
    "MIN, 2, 12, 3",
    "MAX, 1, 12, 3",
    "RANGE, 2, 12, 3",
    // windows wider than the scene
    "EAST, 2, 5, 18",
    "MAX, 1, 40, 1",
    // sums over more numbers than a long has bits
    "NORTH, 1, 90, 4",
    "NORTH_WEST, 1, 90, 2"
  })
  void everyMeasureIsThatOfItsDefinitionInEveryWindow(
      Direction direction, int distance, int count, int radius) {
    float[][] values = values();
    Levels levels = Levels.ofWidth(20, 110, count);

    float[][] found = Made.samples(texture(values, levels, 2 * radius + 1, direction, distance));

    int[][] sorted = sorted(values, levels);
    for (Measure measure : Measure.values()) {
      for (int y = 0; y < HIGH; y++) {
        for (int x = 0; x < WIDE; x++) {
          double expected = Float.isNaN(values[y][x])
              ? Double.NaN
              : expected(measure, values, sorted, count, x, y, radius, direction, distance);
          double own = found[measure.ordinal()][y * WIDE + x];
          boolean same = Double.isNaN(expected)
              ? Double.isNaN(own)
              : Math.abs(own - expected) <= 1e-4 + 2e-5 * Math.abs(expected);
          assertThat(same)
              .as("%s at %d, %d is %s, by definition %s", measure, x, y, own, expected)
              .isTrue();
        }
      }
    }
  }

  private static double expected(
      Measure measure,
      float[][] values,
      int[][] sorted,
      int count,
      int x,
      int y,
      int radius,
      Direction direction,
      int distance) {
    if (measure == Measure.ENTROPY) {
      return PlainTexture.entropy(sorted, count, x, y, radius);
    }
    if (!measure.ofPairs()) {
      return PlainTexture.of(measure, values, x, y, radius);
    }
    double[] all = direction.displacements(distance).stream()
        .mapToDouble(
            d -> PlainTexture.of(measure, PlainTexture.matrix(sorted, count, x, y, radius, d)))
        .toArray();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    double sum = 0;
    for (double each : all) {
      low = Math.min(low, each);
      high = Math.max(high, each);
      sum += each;
    }
    return switch (direction) {
      case MIN -> low;
      case MAX -> high;
      case RANGE -> high - low;
      default -> sum / all.length;
    };
  }

  /** The image of four by four pixels by which the paper of 1973 explains its matrices. */
  private static float[][] workedExample() {
    return new float[][] {{0, 0, 1, 1}, {0, 0, 1, 1}, {0, 2, 2, 2}, {2, 2, 3, 3}};
  }

  @ParameterizedTest
  @CsvSource({
    // from its matrices: 24, 18, 24 and 18 ordered pairs
    "EAST, 14, 24",
    "NORTH_EAST, 8, 18",
    "NORTH, 24, 24",
    "NORTH_WEST, 32, 18"
  })
  void theWorkedExampleOfThePaperHasItsContrast(Direction direction, double squares, double pairs) {
    Levels levels = new Levels(new double[] {0.5, 1.5, 2.5});

    float[][] found = Made.samples(texture(workedExample(), levels, 9, direction, 1));

    assertThat((double) found[Measure.CONTRAST.ordinal()][5])
        .isCloseTo(squares / pairs, within(1e-6));
  }

  @Test
  void theWorkedExampleOfThePaperHasItsSecondMoment() {
    Levels levels = new Levels(new double[] {0.5, 1.5, 2.5});

    float[][] found = Made.samples(texture(workedExample(), levels, 9, Direction.EAST, 1));

    // squares of 4 2 1 0, 2 4 0 0, 1 0 6 1, 0 0 1 2 over 24²
    assertThat((double) found[Measure.SECOND_MOMENT.ordinal()][5])
        .isCloseTo(84.0 / 576, within(1e-6));
  }

  @ParameterizedTest
  @ValueSource(ints = {5, WindowSize.MOST})
  void whatIsOneColourHasNoTexture(int side) {
    float[][] flat = new float[2 * side][2 * side];
    for (float[] row : flat) {
      java.util.Arrays.fill(row, 40);
    }

    float[][] found =
        Made.samples(texture(flat, new Levels(new double[] {30, 50}), side, Direction.MEAN, 1));

    float[] middle = new float[found.length];
    for (Measure measure : Measure.values()) {
      middle[measure.ordinal()] = found[measure.ordinal()][side * 2 * side + side];
    }
    assertThat(middle).containsExactly(0, 40, 0, 0, 0, 0, 0, 1, 1, 0, 1, 1, 0, 0, 0, 0, 0);
  }

  @Test
  void tilesDoNotShow() {
    Levels levels = Levels.ofWidth(20, 110, LEVELS);
    Raster found = texture(values(), levels, 7, Direction.MEAN, 1);
    Window part = new Window(5, 9, 17, 11);

    float[][] cut = found.read(0, part, Request.BACKGROUND);

    float[][] whole = Made.samples(found);
    float[][] same = new float[cut.length][part.area()];
    for (int b = 0; b < cut.length; b++) {
      Planes.copy(whole[b], found.grid().window(), same[b], part);
    }
    Pixels.assertSame(cut, same);
  }

  @ParameterizedTest
  @EnumSource(Measure.class)
  void aMeasureByItselfIsTheSameAsAmongOthers(Measure measure) {
    Levels levels = Levels.ofWidth(20, 110, LEVELS);
    Raster scene = scene(values());
    Statistics statistics = Statistics.of(scene, 0, Job.QUIET)[0];

    float[][] alone = Made.samples(
        new TextureRaster(scene, statistics, List.of(measure), levels, 7, Direction.MEAN, 1));

    float[][] among = Made.samples(texture(values(), levels, 7, Direction.MEAN, 1));
    Pixels.assertSame(alone, new float[][] {among[measure.ordinal()]});
  }
}
