package sharpkestrel.demo.scene;

import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.sensor.Detector;
import sharpkestrel.demo.sensor.Optics;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.demo.things.Things;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Window;

/**
 * Exposes a scene window by window. Rays are followed on a grid of {@value Optics#FINE} x {@value Optics#FINE} samples
 * a panchromatic pixel and of some pixels around; the optics blur them, with a little light strayed wide; each band
 * looks a little beside the others; detectors turn light into numbers. A pixel is the same whichever window it is
 * made in.
 */
public final class Exposure {

  /** Blur across and along the track in pixels; along it the detectors also move while they look. */
  private static final double[] PAN_BLUR = {0.42, 0.50};

  private static final double[] MS_BLUR = {0.34, 0.40};
  private static final double STRAY = 0.05;
  private static final double STRAY_REACH = 2.6;
  private static final int HALO = 11;

  private final Scene scene;
  private final SceneTiles tiles;
  private final double undulation;
  private final Detector[] detectors = new Detector[1 + Material.BANDS];

  /**
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public Exposure(Scene scene, Ground ground, Things things, double undulation) {
    this.scene = scene;
    this.undulation = undulation;
    tiles = new SceneTiles(ground, things, scene, undulation);
    for (int b = 0; b < detectors.length; b++) {
      int width = b == 0 ? scene.sensor().width() : scene.sensor().width() / Scene.RATIO + 1;
      detectors[b] = new Detector(ground.seed(), scene.name().hashCode() * 16L + b, width);
    }
  }

  public Scene scene() {
    return scene;
  }

  /** Light on a grid finer than the pixels, for one thread. */
  private final class Fine {
    final int width;
    final int height;
    final float[][] light = new float[Material.BANDS][];

    Fine(Window window, int halo) {
      width = (window.width() + 2 * halo) * Optics.FINE;
      height = (window.height() + 2 * halo) * Optics.FINE;
      for (int b = 0; b < light.length; b++) {
        light[b] = new float[width * height];
      }
      Tracer tracer = new Tracer(tiles, scene.conditions());
      double[] ray = new double[4];
      for (int y = 0; y < height; y++) {
        Sensor.Row row = scene.sensor().row(window.y() - halo + (y + 0.5) / Optics.FINE);
        tracer.begin();
        for (int x = 0; x < width; x++) {
          row.ray(window.x() - halo + (x + 0.5) / Optics.FINE, ray);
          aboveGeoid(ray);
          tracer.trace(ray);
          for (int b = 0; b < light.length; b++) {
            light[b][y * width + x] = tracer.signal[b];
          }
        }
      }
    }

    float[] pan() {
      float[] pan = new float[width * height];
      for (int b = 0; b < light.length; b++) {
        float share = Scene.PAN_SHARE[b];
        float[] from = light[b];
        for (int i = 0; i < pan.length; i++) {
          pan[i] += share * from[i];
        }
      }
      return pan;
    }

    float[] expose(
        float[] from, int pixel, int halo, double[] blur, double[] shift, int wide, int high) {
      float[] sharp = new float[wide * high];
      float[] stray = new float[wide * high];
      int origin = halo * Optics.FINE;
      double reach = STRAY_REACH * Optics.FINE / pixel;
      double[] far = {reach, reach};
      Optics.expose(from, width, height, pixel, origin, blur, shift, sharp, wide, high);
      Optics.expose(
          halved(from, width, height),
          width / 2,
          height / 2,
          pixel / 2,
          origin / 2,
          far,
          shift,
          stray,
          wide,
          high);
      for (int i = 0; i < sharp.length; i++) {
        sharp[i] = (float) ((1 - STRAY) * sharp[i] + STRAY * stray[i]);
      }
      return sharp;
    }
  }

  /** Strayed light is so smooth that a coarser grid will do. */
  private static float[] halved(float[] from, int width, int height) {
    float[] half = new float[width / 2 * (height / 2)];
    for (int y = 0; y < height / 2; y++) {
      for (int x = 0; x < width / 2; x++) {
        int at = 2 * y * width + 2 * x;
        half[y * (width / 2) + x] =
            0.25f * (from[at] + from[at + 1] + from[at + width] + from[at + width + 1]);
      }
    }
    return half;
  }

  /** Sensors work above the ellipsoid, the ground above the geoid. */
  private void aboveGeoid(double[] ray) {
    ray[0] += undulation * ray[2];
    ray[1] += undulation * ray[3];
  }

  /**
   * Numbers of a window of the panchromatic image, whose sides are multiples of 4: one plane, then six small ones.
   */
  public float[][] numbers(Window window) {
    float[][] planes = light(window);
    for (int k = 0; k < planes.length; k++) {
      int ratio = k == 0 ? 1 : Scene.RATIO;
      int width = window.width() / ratio;
      double scale = scene.scale(k - 1);
      for (int i = 0; i < planes[k].length; i++) {
        planes[k][i] = detectors[k].number(
            scale * planes[k][i], window.x() / ratio + i % width, window.y() / ratio + i / width);
      }
    }
    return planes;
  }

  /** The same before the detectors: light by band, in units of the tracer's signal. */
  float[][] light(Window window) {
    Fine fine = new Fine(window, HALO);
    int width = window.width();
    int height = window.height();
    float[][] planes = new float[1 + Material.BANDS][];
    planes[0] =
        fine.expose(fine.pan(), Optics.FINE, HALO, PAN_BLUR, new double[] {0, 0}, width, height);
    for (int b = 0; b < Material.BANDS; b++) {
      planes[b + 1] = fine.expose(
          fine.light[b],
          Optics.FINE * Scene.RATIO,
          HALO,
          MS_BLUR,
          scene.shifts()[b],
          width / Scene.RATIO,
          height / Scene.RATIO);
    }
    return planes;
  }

  /**
   * Numbers without blur, noise or shift: the mean of the light in each pixel, panchromatic and six bands alike.
   *
   * @return seven planes of the window's size
   */
  public float[][] ideal(Window window) {
    Fine fine = new Fine(window, 0);
    float[][] planes = new float[1 + Material.BANDS][];
    planes[0] = halved(fine.pan(), fine.width, fine.height);
    for (int b = 0; b < Material.BANDS; b++) {
      planes[b + 1] = halved(fine.light[b], fine.width, fine.height);
    }
    for (int k = 0; k < planes.length; k++) {
      double scale = scene.scale(k - 1);
      for (int i = 0; i < planes[k].length; i++) {
        planes[k][i] = (float) (scale * planes[k][i]);
      }
    }
    return planes;
  }

  /** Panchromatic numbers of a window without blur and noise, as a film or a plan would see it. */
  public float[] pan(Window window) {
    Fine fine = new Fine(window, 0);
    return halved(fine.pan(), fine.width, fine.height);
  }

  /**
   * Mean numbers, without blur and noise, at image points.
   *
   * @param points column and row in turn
   * @return panchromatic, then the six bands
   */
  public double[] mean(double[] points) {
    double[] mean = new double[1 + Material.BANDS];
    Tracer tracer = new Tracer(tiles, scene.conditions());
    double[] ray = new double[4];
    for (int i = 0; i < points.length; i += 2) {
      scene.sensor().ray(points[i], points[i + 1], ray);
      aboveGeoid(ray);
      tracer.begin();
      tracer.trace(ray);
      for (int b = 0; b < Material.BANDS; b++) {
        double share = tracer.signal[b] * 2.0 / points.length;
        mean[0] += Scene.PAN_SHARE[b] * share * scene.scale(-1);
        mean[b + 1] += share * scene.scale(b);
      }
    }
    return mean;
  }

  /** What the middle of each pixel meets: its number on the cover map, and its height above the geoid. */
  public float[][] met(Window window) {
    float[][] planes = new float[2][window.area()];
    Tracer tracer = new Tracer(tiles, scene.conditions());
    double[] ray = new double[4];
    for (int y = 0; y < window.height(); y++) {
      Sensor.Row row = scene.sensor().row(window.y() + y + 0.5);
      tracer.begin();
      for (int x = 0; x < window.width(); x++) {
        row.ray(window.x() + x + 0.5, ray);
        aboveGeoid(ray);
        tracer.trace(ray);
        planes[0][y * window.width() + x] = tracer.material.cover;
        planes[1][y * window.width() + x] = (float) tracer.height;
      }
    }
    return planes;
  }

  /**
   * A quick look: one ray for a square of pixels, without noise.
   *
   * @param step side of the square in panchromatic pixels
   * @return numbers of the six bands
   */
  public float[][] sketch(int step, Job job) {
    int wide = scene.sensor().width() / step;
    int high = scene.sensor().height() / step;
    float[][] planes = new float[Material.BANDS][wide * high];
    double[] scales = new double[Material.BANDS];
    for (int b = 0; b < scales.length; b++) {
      scales[b] = scene.scale(b);
    }
    int strip = Math.max(1, GroundTile.SIDE * 2 / step);
    Parallel.run(Math.ceilDiv(high, strip), job, k -> {
      Tracer tracer = new Tracer(tiles, scene.conditions());
      double[] ray = new double[4];
      for (int y = k * strip; y < Math.min(high, (k + 1) * strip); y++) {
        Sensor.Row row = scene.sensor().row((y + 0.5) * step);
        tracer.begin();
        for (int x = 0; x < wide; x++) {
          row.ray((x + 0.5) * step, ray);
          aboveGeoid(ray);
          tracer.trace(ray);
          for (int b = 0; b < Material.BANDS; b++) {
            planes[b][y * wide + x] = (float) (scales[b] * tracer.signal[b]);
          }
        }
      }
    });
    return planes;
  }
}
