package sharpkestrel.demo.survey;

import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.Arrays;
import javax.imageio.ImageIO;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.io.AtomicFile;
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
  private static final int[] NATURAL = {3, 2, 1};
  /** Shares of pixels that are black and white. */
  private static final double[] ENDS = {0.004, 0.99};

  private static final double GAMMA = 0.8;

  private final Exposure exposure;
  private final int size;

  public ThreeScales(Exposure exposure) {
    this.exposure = exposure;
    size = exposure.scene().sensor().width();
  }

  /** Writes a PNG of three panels of {@value #PANEL} pixels. */
  public void write(Path path, Job job) {
    BufferedImage image = new BufferedImage(3 * PANEL + 2 * GAP, PANEL, BufferedImage.TYPE_INT_RGB);
    float[][] whole = whole(job);
    double[][] stretch = stretch(whole);
    paint(image, 0, whole, stretch);
    paint(image, PANEL + GAP, exposed(PANEL * Scene.RATIO, false, job), stretch);
    paint(image, 2 * (PANEL + GAP), exposed(PANEL, true, job), stretch);
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
        panel[b][i] = planes[NATURAL[b]][y * side + x];
      }
    }
    return panel;
  }

  /** A square about the middle as the detectors record it. */
  private float[][] exposed(int wanted, boolean sharp, Job job) {
    int side = Math.min(wanted, size) / BLOCK * BLOCK;
    int from = (size - side) / 2 / Scene.RATIO * Scene.RATIO;
    int across = side / BLOCK;
    int pixel = sharp ? 1 : Scene.RATIO;
    int width = side / pixel;
    float[][] panel = new float[3][PANEL * PANEL];
    int inset = (PANEL - width) / 2;
    Parallel.run(across * across, job, k -> {
      int x0 = k % across * BLOCK;
      int y0 = k / across * BLOCK;
      float[][] made = exposure.numbers(new Window(from + x0, from + y0, BLOCK, BLOCK));
      int part = BLOCK / pixel;
      for (int y = 0; y < part; y++) {
        for (int x = 0; x < part; x++) {
          int to = (inset + y0 / pixel + y) * PANEL + inset + x0 / pixel + x;
          for (int b = 0; b < 3; b++) {
            panel[b][to] =
                sharp ? sharpened(made, x, y, NATURAL[b]) : made[NATURAL[b] + 1][y * part + x];
          }
        }
      }
    });
    return panel;
  }

  private static float sharpened(float[][] made, int x, int y, int band) {
    int ms = BLOCK / Scene.RATIO;
    int at = y / Scene.RATIO * ms + x / Scene.RATIO;
    float mean = (made[2][at] + made[3][at] + made[4][at]) / 3;
    return made[band + 1][at] * made[0][y * BLOCK + x] / Math.max(1, mean);
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
