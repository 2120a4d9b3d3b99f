package sharpkestrel.demo.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.light.Air;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.scene.Cloud;
import sharpkestrel.demo.scene.Conditions;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.FrameCamera;
import sharpkestrel.demo.things.Things;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** The film of an air photo over the head of the cove. */
class PhotoFileTest {

  private static final int SIZE = 420;

  @TempDir
  static Path folder;

  private static Exposure exposure;
  private static float[] light;
  private static float[] scanned;
  private static double[] tones;

  @BeforeAll
  static void expose() {
    Coast coast = new Coast(5);
    double e = coast.east(160, 0);
    double n = coast.north(160, 0);
    Ground ground = new Ground(5, Extent.around(e, n, 260));
    double above = 400;
    FrameCamera camera = new FrameCamera(
        SIZE,
        SIZE,
        new double[] {e, n, ground.height(e, n) + above},
        0,
        0,
        Math.toRadians(-40),
        above / 0.62,
        0.02,
        new double[] {1, 0, 0, 1});
    Sun sun = new Sun(42, 190);
    Conditions conditions = new Conditions(
        Instant.parse("1962-05-14T13:10:00Z"),
        sun,
        new Air(sun, 0, 0.16),
        1,
        90,
        5,
        200,
        0.2,
        Cloud.NONE);
    Scene scene = new Scene("photo", camera, conditions, 1, new double[Material.BANDS][2]);
    exposure = new Exposure(scene, ground, new Things(), 0);
    light = exposure.pan(new Window(0, 0, SIZE, SIZE));
    Path path = folder.resolve("photo.tif");
    new PhotoFile(exposure, 5).write(path, Job.of(2, 256));
    Raster raster = RasterFiles.open(path);
    scanned = raster.read(0, raster.grid().window(), Request.BACKGROUND)[0];
  }

  /** Spearman's correlation: film is not linear, but it never turns bright into dark. */
  @Test
  void theFilmKeepsTheOrderOfTones() {
    double[] a = ranks(light);
    double[] b = ranks(scanned);
    double mean = (a.length - 1) / 2.0;
    double both = 0;
    double own = 0;
    for (int i = 0; i < a.length; i++) {
      both += (a[i] - mean) * (b[i] - mean);
      own += (a[i] - mean) * (a[i] - mean);
    }
    assertThat(both / own).isBetween(0.75, 0.999);
  }

  private static double[] ranks(float[] values) {
    Integer[] order = new Integer[values.length];
    for (int i = 0; i < order.length; i++) {
      order[i] = i;
    }
    java.util.Arrays.sort(order, (x, y) -> Float.compare(values[x], values[y]));
    double[] ranks = new double[values.length];
    for (int i = 0; i < order.length; i++) {
      ranks[order[i]] = i;
    }
    return ranks;
  }

  @Test
  void dustAndScratchesStandOutOfTheirSurroundings() {
    int white = 0;
    for (int y = 2; y < SIZE - 2; y++) {
      for (int x = 2; x < SIZE - 2; x++) {
        int i = y * SIZE + x;
        double off = scanned[i] - expected(light[i]);
        white += off > 80 ? 1 : 0;
      }
    }
    // 34 specks on a megapixel, of some pixels each, and four scratches
    assertThat(white).isBetween(100, SIZE * SIZE / 30);
  }

  /** The middle tone of all pixels of about this light. */
  private static double expected(float of) {
    if (tones == null) {
      tones = new double[64];
      int[] counts = new int[64];
      for (int i = 0; i < light.length; i++) {
        int bin = bin(light[i]);
        tones[bin] += scanned[i];
        counts[bin]++;
      }
      for (int k = 0; k < 64; k++) {
        tones[k] /= Math.max(1, counts[k]);
      }
    }
    return tones[bin(of)];
  }

  private static int bin(float v) {
    return (int) Math.max(0, Math.min(63, 40 + 10 * Math.log(v / 0.1)));
  }

  @Test
  void silverHasAGrain() {
    double squares = 0;
    int count = 0;
    for (int y = 0; y < SIZE; y += 3) {
      for (int x = 0; x + 1 < SIZE; x += 3) {
        int i = y * SIZE + x;
        double rough = Math.abs(Math.log(light[i] / light[i + 1]));
        double step = scanned[i] - scanned[i + 1];
        if (rough < 0.01 && Math.abs(step) < 60) {
          squares += step * step;
          count++;
        }
      }
    }
    assertThat(count).isGreaterThan(500);
    // neighbours of equal light differ by the grain alone: some numbers of 256
    assertThat(Math.sqrt(squares / count)).isBetween(3.0, 16.0);
  }

  @Test
  void theLensDarkensTheCorners() {
    double corner = 0;
    double middle = 0;
    int corners = 0;
    int middles = 0;
    for (int y = 0; y < SIZE; y++) {
      for (int x = 0; x < SIZE; x++) {
        int i = y * SIZE + x;
        double out = Math.hypot(x - SIZE / 2.0, y - SIZE / 2.0) / SIZE;
        double off = scanned[i] - expected(light[i]);
        if (Math.abs(off) > 60) {
          continue;
        }
        if (out > 0.6) {
          corner += off;
          corners++;
        } else if (out < 0.2) {
          middle += off;
          middles++;
        }
      }
    }
    assertThat(corner / corners).isLessThan(middle / middles - 3);
  }
}
