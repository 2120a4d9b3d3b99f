package sharpkestrel.place.match;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.place.fit.ModelKind;
import sharpkestrel.place.fit.PlaneFits;
import sharpkestrel.place.fit.PlaneMap;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/** Points between pictures of one made ground of plots and paths, where every place is known. */
class FindTiePointsTest {

  private static final int GROUND = 900;
  private static final CrsName UTM = CrsName.epsg(32630);

  /** Turned rectangles over one another, over slow tones. */
  private static final float[] TONES = tones();

  @TempDir
  Path folder;

  private static float[] tones() {
    Random random = new Random(31);
    float[] tones = new float[GROUND * GROUND];
    for (int i = 0; i < tones.length; i++) {
      tones[i] = (float) (90 + 20 * Math.sin(i % GROUND / 61.0) * Math.cos(i / GROUND / 47.0));
    }
    for (int k = 0; k < 2600; k++) {
      double x = random.nextDouble() * GROUND;
      double y = random.nextDouble() * GROUND;
      double angle = random.nextDouble() * Math.PI;
      double length = 4 + 22 * random.nextDouble();
      double width = 2 + 9 * random.nextDouble();
      float tone = 30 + 150 * random.nextFloat();
      for (int row = (int) Math.max(0, y - 30); row < Math.min(GROUND, y + 30); row++) {
        for (int col = (int) Math.max(0, x - 30); col < Math.min(GROUND, x + 30); col++) {
          double u = (col - x) * Math.cos(angle) + (row - y) * Math.sin(angle);
          double v = (row - y) * Math.cos(angle) - (col - x) * Math.sin(angle);
          if (Math.abs(u) < length && Math.abs(v) < width) {
            tones[row * GROUND + col] = tone;
          }
        }
      }
    }
    return tones;
  }

  /** The mean over a square of a pixel's side about a place of the ground. */
  private static double tone(double x, double y) {
    double sum = 0;
    for (double dy : new double[] {-0.25, 0.25}) {
      for (double dx : new double[] {-0.25, 0.25}) {
        double u = Math.clamp(x + dx - 0.5, 0, GROUND - 2);
        double v = Math.clamp(y + dy - 0.5, 0, GROUND - 2);
        int i = (int) v * GROUND + (int) u;
        double fx = u - (int) u;
        double fy = v - (int) v;
        sum += (1 - fy) * ((1 - fx) * TONES[i] + fx * TONES[i + 1])
            + fy * ((1 - fx) * TONES[i + GROUND] + fx * TONES[i + GROUND + 1]);
      }
    }
    return sum / 4;
  }

  /** A picture whose pixels lie on the ground where a map says; with noise, and tones of its own. */
  private static MemoryRaster picture(Grid grid, PlaneMap toGround, double gain, long seed) {
    Random random = new Random(seed);
    double[] xy = new double[2];
    return Made.on(
        grid,
        SampleType.UINT8,
        (b, col, row) -> {
          toGround.apply(col + 0.5, row + 0.5, xy);
          return Math.round(
              Math.clamp(20 + gain * tone(xy[0], xy[1]) + 3 * random.nextGaussian(), 1, 255));
        },
        BandRole.GREEN);
  }

  private static PlaneMap shift(double x, double y) {
    return (u, v, xy) -> {
      xy[0] = u + x;
      xy[1] = v + y;
    };
  }

  private static TiePoints points(Raster scene, Raster reference, Map<String, String> settings) {
    return (TiePoints) StepCatalogue.get("tiepoints")
        .make(Map.of("scene", scene, "reference", reference), settings)
        .run(Job.QUIET);
  }

  @Test
  void everyCellWithTextureHasAPointWhereASceneIsOffByASmallShift() {
    Grid grid = new Grid(400, 400, Affine.northUp(512_000, 6_702_000, 0.5), UTM);
    MemoryRaster reference = picture(grid, shift(250, 250), 0.7, 1);
    MemoryRaster scene = picture(grid, shift(257.3, 245.4), 0.5, 2);

    TiePoints found = points(scene, reference, Map.of());

    int[] inCell = new int[16];
    Affine toPixel = grid.affine().inverse();
    for (TiePoint point : found.points()) {
      double col = toPixel.x(point.x(), point.y());
      double row = toPixel.y(point.x(), point.y());
      inCell[(int) (row / 100) * 4 + (int) (col / 100)]++;
      assertThat(Math.hypot(point.col() - (col - 7.3), point.row() - (row + 4.6)))
          .isLessThan(0.35);
    }
    assertThat(Arrays.stream(inCell).min().orElseThrow()).isPositive();
    assertThat(found.points().size()).isGreaterThan(20);
  }

  /** A reference without a system: its pixels are the ground, and what is warped lies on them. */
  @Test
  void theReferencesPixelsAreTheGroundWhereItHasNoSystem() {
    MemoryRaster reference = picture(Grid.ofPixels(500, 450), shift(200, 220), 0.7, 3);
    double turn = Math.toRadians(25);
    PlaneMap turned = (u, v, xy) -> {
      xy[0] = 450 + 1.2 * ((u - 260) * Math.cos(turn) - (v - 240) * Math.sin(turn));
      xy[1] = 445 + 1.2 * ((u - 260) * Math.sin(turn) + (v - 240) * Math.cos(turn));
    };
    MemoryRaster scene = picture(Grid.ofPixels(520, 480), turned, 0.6, 4);

    TiePoints found = points(scene, reference, Map.of());
    Path file = folder.resolve("points.json");
    TiePointFile.write(found, file);
    Map<String, Object> inputs = new HashMap<>(
        Map.of("scene", scene, "points", TiePointFile.read(file), "reference", reference));
    Raster warped = (Raster)
        StepCatalogue.get("warp").make(inputs, Map.of("model", "similarity")).run(Job.QUIET);

    assertThat(found.crs().isKnown()).isFalse();
    assertThat(warped.grid()).isEqualTo(reference.grid());
    assertThat(meanDifference(warped, reference, 60)).isLessThan(6);
    inputs.remove("reference");
    assertThatThrownBy(() -> StepCatalogue.get("warp").make(inputs, Map.of()).run(Job.QUIET))
        .hasMessageContaining("--reference");
  }

  /** Mean difference of tones without their gain, away from the edge. */
  private static double meanDifference(Raster one, Raster other, int margin) {
    float[] a = Made.samples(one)[0];
    float[] b = Made.samples(other)[0];
    double sum = 0;
    int count = 0;
    for (int row = margin; row < 450 - margin; row++) {
      for (int col = margin; col < 500 - margin; col++) {
        int i = row * 500 + col;
        sum += Math.abs((a[i] - 20) / 0.6 - (b[i] - 20) / 0.7);
        count++;
      }
    }
    return sum / count;
  }

  /** Two cameras that lean some fifty degrees, one to the north and one to the east. */
  @Test
  void picturesTakenFromTheSideAreFoundInEachOther() {
    double[][] frame = {{0, 0}, {440, 0}, {440, 440}, {0, 440}};
    PlaneMap north = PlaneFits.fit(
        ModelKind.PROJECTIVE, frame, new double[][] {{100, 60}, {680, 60}, {550, 720}, {230, 720}});
    PlaneMap east = PlaneFits.fit(
        ModelKind.PROJECTIVE, frame, new double[][] {{60, 220}, {720, 100}, {720, 680}, {60, 550}});
    MemoryRaster reference = picture(Grid.ofPixels(440, 440), north, 0.7, 5);
    MemoryRaster scene = picture(Grid.ofPixels(440, 440), east, 0.6, 6);

    List<TiePoint> found = points(scene, reference, Map.of()).points();

    double[] ours = new double[2];
    double[] theirs = new double[2];
    double[] off = found.stream()
        .mapToDouble(p -> {
          east.apply(p.col(), p.row(), ours);
          north.apply(p.x(), p.y(), theirs);
          return Math.hypot(ours[0] - theirs[0], ours[1] - theirs[1]);
        })
        .sorted()
        .toArray();
    assertThat(off.length).isGreaterThanOrEqualTo(20);
    assertThat(off[off.length / 2]).isLessThan(0.8);
    assertThat(off[off.length * 9 / 10]).isLessThan(2);
  }
}
