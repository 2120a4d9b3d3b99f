package sharpkestrel.demo.survey;

import java.nio.file.Path;
import java.util.List;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.noise.Noise;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/**
 * An old air photo as it was scanned: film answers light along an S-shaped curve, the lens darkens the corners, silver
 * has a grain, and there are dust, hairs and scratches. It says nothing about where it is.
 */
public final class PhotoFile {

  private static final double GRAIN = 5.5;
  private static final double CONTRAST = 2.3;
  private static final double DUST_PER_MEGAPIXEL = 34;

  private final Exposure exposure;
  private final Noise silver;
  private final SmoothTexture uneven;
  private final long seed;
  private final int width;
  private final int height;
  private double middle;

  public PhotoFile(Exposure exposure, long seed) {
    this.exposure = exposure;
    this.seed = seed;
    Sensor sensor = exposure.scene().sensor();
    width = sensor.width();
    height = sensor.height();
    silver = new Noise(seed * 31 + 42);
    uneven = new SmoothTexture(seed * 31 + 43);
  }

  public void write(Path path, Job job) {
    middle = middleTone();
    float[] marks = marks();
    MadeRaster raster = new MadeRaster(
        Grid.ofPixels(width, height),
        List.of(Band.of(BandRole.PAN, SampleType.UINT8)),
        Attachments.NONE,
        window -> new float[][] {scan(window, marks)});
    GeoTiffWriter.write(raster, path, Compression.DEFLATE, new QuietJob(job));
  }

  /** The light that the photographer exposed for: the mean of land, from a few samples. */
  private double middleTone() {
    double sum = 0;
    int count = 0;
    for (int k = 1; k < 5; k++) {
      for (int j = 1; j < 5; j++) {
        for (float v : exposure.pan(new Window(width * k / 5, height * j / 5, 8, 8))) {
          sum += Math.log(v);
          count++;
        }
      }
    }
    return sum / count;
  }

  private float[] scan(Window window, float[] marks) {
    float[] light = exposure.pan(window);
    for (int y = 0; y < window.height(); y++) {
      for (int x = 0; x < window.width(); x++) {
        int col = window.x() + x;
        int row = window.y() + y;
        int i = y * window.width() + x;
        double dx = (col - width / 2.0) / width;
        double dy = (row - height / 2.0) / height;
        double falloff = 1 - 0.55 * (dx * dx + dy * dy);
        double exposed = Math.log(Math.max(1e-6, light[i] * falloff)) - middle;
        double tone = 255 / (1 + Math.exp(-CONTRAST * (exposed - 0.1)));
        double developed = tone
            + 6 * uneven.octaves(col / 420.0, row / 420.0, 3)
            + GRAIN
                * (silver.gaussianAt(col, row) + 0.7 * silver.gaussianAt(col / 2, row / 2 + 99_999))
                * (0.5 + tone / 300);
        light[i] = (float) Math.max(0, Math.min(255, developed + marks[row * width + col]));
      }
    }
    return light;
  }

  /** What is added by dust (white on a print from a negative), hairs and scratches along the film. */
  private float[] marks() {
    float[] marks = new float[width * height];
    Chance chance = Chance.of(seed, 81);
    int specks = (int) (DUST_PER_MEGAPIXEL * width * height / 1e6) + 6;
    for (int k = 0; k < specks; k++) {
      dot(
          marks,
          chance.between(0, width),
          chance.between(0, height),
          chance.between(0.6, 2.6),
          chance.happens(0.75) ? 170 : -120);
    }
    for (int k = 0; k < specks / 12 + 2; k++) {
      double x = chance.between(0, width);
      double y = chance.between(0, height);
      double course = chance.between(0, 6.3);
      int length = chance.whole(25, 110);
      for (int i = 0; i < length; i++) {
        course += 0.12 * chance.gaussian();
        x += Math.cos(course);
        y += Math.sin(course);
        dot(marks, x, y, 0.8, 120);
      }
    }
    for (int k = 0; k < 4; k++) {
      double x = chance.between(0, width);
      double lean = chance.between(-0.02, 0.02);
      double from = chance.between(0, 0.5) * height;
      double to = from + chance.between(0.2, 0.5) * height;
      for (double y = from; y < to; y += 0.7) {
        dot(marks, x + lean * (y - from), y, 0.6, 90);
      }
    }
    return marks;
  }

  private void dot(float[] marks, double x, double y, double radius, double strength) {
    for (int row = (int) (y - radius - 1); row <= y + radius + 1; row++) {
      for (int col = (int) (x - radius - 1); col <= x + radius + 1; col++) {
        if (row >= 0 && col >= 0 && row < height && col < width) {
          double d = Math.hypot(col + 0.5 - x, row + 0.5 - y);
          double share = Math.max(0, Math.min(1, radius + 0.5 - d));
          int i = row * width + col;
          float mark = (float) (share * strength);
          marks[i] = Math.abs(mark) > Math.abs(marks[i]) ? mark : marks[i];
        }
      }
    }
  }
}
