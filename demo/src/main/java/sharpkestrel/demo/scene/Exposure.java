package sharpkestrel.demo.scene;

import java.util.function.ToIntFunction;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.sensor.Channel;
import sharpkestrel.demo.sensor.Detector;
import sharpkestrel.demo.sensor.Instrument;
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

  private static final double STRAY = 0.05;
  private static final double STRAY_REACH = 2.6;
  private static final int HALO = 11;

  private final Scene scene;
  private final SceneTiles tiles;
  private final double undulation;
  private final Instrument instrument;
  private final Detector[] detectors;

  /**
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public Exposure(Scene scene, Ground ground, Things things, double undulation) {
    this.scene = scene;
    this.undulation = undulation;
    tiles = new SceneTiles(ground, things, scene, undulation);
    instrument = scene.instrument();
    int first = instrument.pan().isPresent() ? 0 : 1;
    detectors = new Detector[1 + instrument.bands().size() - first];
    for (int k = 0; k < detectors.length; k++) {
      int b = k + first;
      int width = b == 0 ? scene.sensor().width() : scene.sensor().width() / instrument.ratio() + 1;
      detectors[k] = new Detector(
          ground.seed(),
          scene.name().hashCode() * 16L + b,
          width,
          instrument.answer().full(),
          instrument.answer().curve());
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

    /** What a channel sees of it. */
    float[] seen(Channel channel) {
      float[] sum = new float[width * height];
      for (int b = 0; b < light.length; b++) {
        float share = channel.response()[b];
        if (share != 0) {
          float[] from = light[b];
          for (int i = 0; i < sum.length; i++) {
            sum[i] += share * from[i];
          }
        }
      }
      return sum;
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

  /** Whether a plane is the panchromatic one. */
  private boolean isPan(int plane) {
    return plane == 0 && instrument.pan().isPresent();
  }

  /** The number of a plane's band; -1 for the panchromatic one. */
  private int band(int plane) {
    return instrument.pan().isPresent() ? plane - 1 : plane;
  }

  /** Finest pixels along a side of a pixel of a plane. */
  private int ratio(int plane) {
    return isPan(plane) ? 1 : instrument.ratio();
  }

  private Channel channel(int plane) {
    return isPan(plane) ? instrument.pan().orElseThrow() : instrument.bands().get(band(plane));
  }

  /**
   * Numbers of a window of the finest image, whose sides are multiples of the ratio: the panchromatic plane, where there is one,
   * then those of the bands, which are smaller where they are coarser.
   */
  public float[][] numbers(Window window) {
    float[][] planes = light(window);
    for (int k = 0; k < planes.length; k++) {
      int ratio = ratio(k);
      int width = window.width() / ratio;
      double scale = scene.scale(band(k));
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
    float[][] planes = new float[detectors.length][];
    Instrument.Answer answer = instrument.answer();
    for (int k = 0; k < planes.length; k++) {
      int ratio = ratio(k);
      planes[k] = fine.expose(
          fine.seen(channel(k)),
          Optics.FINE * ratio,
          HALO,
          isPan(k) ? answer.panBlur() : answer.blur(),
          isPan(k) ? new double[] {0, 0} : scene.shifts()[band(k)],
          window.width() / ratio,
          window.height() / ratio);
    }
    return planes;
  }

  /**
   * Numbers without blur, noise, shift or tone curve: the mean of the light in each pixel, all bands at the finest size.
   *
   * @return a plane of the window's size for each
   */
  public float[][] ideal(Window window) {
    Fine fine = new Fine(window, 0);
    float[][] planes = new float[detectors.length][];
    for (int k = 0; k < planes.length; k++) {
      planes[k] = halved(fine.seen(channel(k)), fine.width, fine.height);
      double scale = scene.scale(band(k));
      for (int i = 0; i < planes[k].length; i++) {
        planes[k][i] = (float) (scale * planes[k][i]);
      }
    }
    return planes;
  }

  /** Light of a window, all colours together, without blur and noise, as a film or a plan would see it. */
  public float[] pan(Window window) {
    Fine fine = new Fine(window, 0);
    return halved(fine.seen(Instrument.SIX_BANDS.pan().orElseThrow()), fine.width, fine.height);
  }

  /**
   * Mean numbers, without blur and noise, at image points.
   *
   * @param points column and row in turn
   * @return panchromatic where there is one, then the bands
   */
  public double[] mean(double[] points) {
    double[] mean = new double[detectors.length];
    Tracer tracer = new Tracer(tiles, scene.conditions());
    double[] ray = new double[4];
    for (int i = 0; i < points.length; i += 2) {
      scene.sensor().ray(points[i], points[i + 1], ray);
      aboveGeoid(ray);
      tracer.begin();
      tracer.trace(ray);
      for (int k = 0; k < mean.length; k++) {
        mean[k] += seen(tracer, k) * 2.0 / points.length * scene.scale(band(k));
      }
    }
    return mean;
  }

  private double seen(Tracer tracer, int plane) {
    float[] response = channel(plane).response();
    double sum = 0;
    for (int b = 0; b < Material.BANDS; b++) {
      sum += response[b] * tracer.signal[b];
    }
    return sum;
  }

  /** What the middle of each pixel meets. */
  private interface Meets {
    void at(int pixel, Tracer tracer);
  }

  /** What the middle of each pixel meets: its number on the cover map, and its height above the geoid. */
  public float[][] met(Window window) {
    float[][] planes = new float[2][window.area()];
    met(window, (pixel, tracer) -> {
      planes[0][pixel] = tracer.material.cover;
      planes[1][pixel] = (float) tracer.height;
    });
    return planes;
  }

  /**
   * What the middle of each pixel meets, as numbers that a material has, and the share of the sun's light that does not get there, 0
   * to 1.
   */
  public float[][] covered(Window window, ToIntFunction<Material> number) {
    float[][] planes = new float[2][window.area()];
    met(window, (pixel, tracer) -> {
      planes[0][pixel] = number.applyAsInt(tracer.material);
      planes[1][pixel] = (float) (1 - tracer.lit);
    });
    return planes;
  }

  private void met(Window window, Meets meets) {
    Tracer tracer = new Tracer(tiles, scene.conditions());
    double[] ray = new double[4];
    for (int y = 0; y < window.height(); y++) {
      Sensor.Row row = scene.sensor().row(window.y() + y + 0.5);
      tracer.begin();
      for (int x = 0; x < window.width(); x++) {
        row.ray(window.x() + x + 0.5, ray);
        aboveGeoid(ray);
        tracer.trace(ray);
        meets.at(y * window.width() + x, tracer);
      }
    }
  }

  /**
   * A quick look: one ray for a square of pixels, without noise.
   *
   * @param step side of the square in panchromatic pixels
   * @return numbers of the bands
   */
  public float[][] sketch(int step, Job job) {
    int wide = scene.sensor().width() / step;
    int high = scene.sensor().height() / step;
    int bands = instrument.bands().size();
    int first = detectors.length - bands;
    float[][] planes = new float[bands][wide * high];
    double[] scales = new double[bands];
    for (int b = 0; b < bands; b++) {
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
          for (int b = 0; b < bands; b++) {
            planes[b][y * wide + x] =
                (float) detectors[b + first].curved(scales[b] * seen(tracer, b + first));
          }
        }
      }
    });
    return planes;
  }
}
