package sharpkestrel.demo.survey;

import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import javax.imageio.ImageIO;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.sensor.Channel;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Window;

/**
 * One scene at three scales side by side in natural colour: the whole of it, its multispectral pixels one for one, and
 * its panchromatic pixels one for one, coloured by the ratio of the panchromatic to the multispectral ones.
 */
public final class ThreeScales {

  private static final int PANEL = 512;
  private static final int GAP = 6;
  private static final int BLOCK = 256;
  /** Shares of pixels that are black and white. */
  private static final double[] ENDS = {0.004, 0.99};

  private static final double GAMMA = 0.8;

  private final Exposure exposure;
  private final int size;
  private final int ratio;
  private final int first;
  private final int[] natural;

  public ThreeScales(Exposure exposure) {
    this.exposure = exposure;
    size = exposure.scene().sensor().width();
    Instrument instrument = exposure.scene().instrument();
    ratio = instrument.ratio();
    first = instrument.pan().isPresent() ? 1 : 0;
    List<BandRole> roles = instrument.bands().stream().map(Channel::role).toList();
    natural = new int[] {
      roles.indexOf(BandRole.RED), roles.indexOf(BandRole.GREEN), roles.indexOf(BandRole.BLUE)
    };
  }

  /** Writes a PNG of three panels of {@value #PANEL} pixels. */
  public void write(Path path, Job job) {
    BufferedImage image = new BufferedImage(3 * PANEL + 2 * GAP, PANEL, BufferedImage.TYPE_INT_RGB);
    float[][] whole = whole(job);
    double[][] stretch = stretch(whole);
    paint(image, 0, whole, stretch);
    paint(image, PANEL + GAP, bands(job), stretch);
    paint(image, 2 * (PANEL + GAP), sharp(), stretch);
    AtomicFile.write(path, temporary -> ImageIO.write(image, "png", temporary.toFile()));
  }

  private float[][] whole(Job job) {
    int step = Math.max(1, size / PANEL);
    int side = size / step;
    float[][] planes = exposure.sketch(step, job);
    float[][] panel = new float[3][PANEL * PANEL];
    for (int b = 0; b < 3; b++) {
      for (int i = 0; i < PANEL * PANEL; i++) {
        int x = Math.min(side - 1, i % PANEL * side / PANEL);
        int y = Math.min(side - 1, i / PANEL * side / PANEL);
        panel[b][i] = planes[natural[b]][y * side + x];
      }
    }
    return panel;
  }

  /** A square about the middle in multispectral pixels. */
  private float[][] bands(Job job) {
    int side = Math.min(PANEL * ratio, size) / BLOCK * BLOCK;
    int from = (size - side) / 2 / ratio * ratio;
    int across = side / BLOCK;
    int part = BLOCK / ratio;
    float[][] panel = new float[3][PANEL * PANEL];
    int inset = (PANEL - side / ratio) / 2;
    Parallel.run(across * across, job, k -> {
      int x0 = k % across * BLOCK;
      int y0 = k / across * BLOCK;
      float[][] made = exposure.numbers(new Window(from + x0, from + y0, BLOCK, BLOCK));
      for (int y = 0; y < part; y++) {
        int to = (inset + y0 / ratio + y) * PANEL + inset + x0 / ratio;
        for (int b = 0; b < 3; b++) {
          System.arraycopy(made[natural[b] + first], y * part, panel[b], to, part);
        }
      }
    });
    return panel;
  }

  /** A square about the middle in panchromatic pixels: bands times what the panchromatic pixel is to those about it. */
  private float[][] sharp() {
    int side = Math.min(PANEL, size / ratio * ratio);
    int from = (size - side) / 2 / ratio * ratio;
    float[][] made = exposure.numbers(new Window(from, from, side, side));
    int ms = side / ratio;
    float[] low = new float[ms * ms];
    for (int i = 0; i < side * side; i++) {
      low[i / side / ratio * ms + i % side / ratio] += made[0][i] / (ratio * ratio);
    }
    float[][] panel = new float[3][PANEL * PANEL];
    int inset = (PANEL - side) / 2;
    for (int y = 0; y < side; y++) {
      for (int x = 0; x < side; x++) {
        double gain = made[0][y * side + x] / Math.max(1, between(low, ms, x, y));
        for (int b = 0; b < 3; b++) {
          panel[b][(inset + y) * PANEL + inset + x] =
              (float) (gain * between(made[natural[b] + first], ms, x, y));
        }
      }
    }
    return panel;
  }

  /** Bilinear between the multispectral pixels, at the middle of a panchromatic one. */
  private double between(float[] plane, int width, int x, int y) {
    double px = Math.max(0, Math.min(width - 1.001, (x + 0.5) / ratio - 0.5));
    double py = Math.max(0, Math.min(width - 1.001, (y + 0.5) / ratio - 0.5));
    int i = (int) py * width + (int) px;
    double fx = px - (int) px;
    double fy = py - (int) py;
    double top = plane[i] + (plane[i + 1] - plane[i]) * fx;
    double bottom = plane[i + width] + (plane[i + width + 1] - plane[i + width]) * fx;
    return top + (bottom - top) * fy;
  }

  private static double[][] stretch(float[][] planes) {
    double[][] ends = new double[3][2];
    for (int b = 0; b < 3; b++) {
      float[] sorted = planes[b].clone();
      Arrays.sort(sorted);
      for (int k = 0; k < 2; k++) {
        ends[b][k] = sorted[(int) (ENDS[k] * (sorted.length - 1))];
      }
    }
    return ends;
  }

  private static void paint(BufferedImage image, int left, float[][] planes, double[][] stretch) {
    for (int i = 0; i < PANEL * PANEL; i++) {
      int rgb = 0;
      for (int b = 0; b < 3; b++) {
        double t = (planes[b][i] - stretch[b][0]) / (stretch[b][1] - stretch[b][0]);
        rgb = rgb << 8 | (int) (255 * Math.pow(Math.max(0, Math.min(1, t)), GAMMA));
      }
      image.setRGB(left + i % PANEL, i / PANEL, rgb);
    }
  }
}
