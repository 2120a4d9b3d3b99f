package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;
import sharpkestrel.raster.Window;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Measures every object: spectrum, indices, form and texture, in one pass over the scene. */
@StepInfo(
    id = "measure",
    stage = Stage.SEGMENT,
    title = "Measure",
    does =
        "Measures every object: mean and spread of each band, brightness, variation (spread over mean), normalised differences, area, perimeter,"
            + " length, width, elongation, compactness, rectangularity, orientation, hull area, solidity, eccentricity, holes, and"
            + " co-occurrence contrast.")
public record Measure(
    @In(does = "The objects to measure.") ObjectSet objects,

    @In(does = "The scene to measure them on, on the same grid.")
    Raster scene,

    @Setting(
        label = "Texture levels",
        does =
            "Grey levels for the co-occurrence measure, over the middle 98 % of the scene's brightness.",
        min = 4,
        max = 256,
        initial = "32")
    int textureLevels)
    implements Step<ObjectSet> {

  private static final int STRIP = 256;

  @Override
  public ObjectSet run(Job job) {
    Grid grid = objects.labels().grid();
    if (grid.width() != scene.grid().width() || grid.height() != scene.grid().height()) {
      throw new RasterException(String.format(
          Locale.ROOT,
          "The objects lie on %d x %d pixels, the scene on %d x %d. Measure on the scene that was segmented.",
          grid.width(),
          grid.height(),
          scene.grid().width(),
          scene.grid().height()));
    }
    if (objects.count() == 0) {
      throw new RasterException("There are no objects to measure: the object set is empty.");
    }
    Sums sums = gather(grid, job);
    List<Table.Column> columns =
        new ArrayList<>(ShapeFeatures.of(objects, ObjectGeometry.of(objects)));
    columns.addAll(spectral(sums));
    return objects.withTable(new Table(objects.count(), columns));
  }

  private static final class Sums {
    final int first;
    final long[] counts;
    final double[][] sum;
    final double[][] square;
    final long[] pairs;
    final long[] contrast;

    Sums(int first, int objects, int bands) {
      this.first = first;
      counts = new long[objects];
      sum = new double[bands][objects];
      square = new double[bands][objects];
      pairs = new long[objects];
      contrast = new long[objects];
    }

    void add(Sums part) {
      for (int i = 0; i < part.counts.length; i++) {
        int to = part.first + i;
        counts[to] += part.counts[i];
        pairs[to] += part.pairs[i];
        contrast[to] += part.contrast[i];
        for (int b = 0; b < sum.length; b++) {
          sum[b][to] += part.sum[b][i];
          square[b][to] += part.square[b][i];
        }
      }
    }
  }

  /** Sums in strips of fixed rows, joined in order, so that they do not depend on threads. */
  private Sums gather(Grid grid, Job job) {
    int bands = scene.bands().size();
    // Of every pixel: reduced levels of a lazy and of a written scene differ.
    Statistics[] statistics = Statistics.of(scene, 0, job);
    double low = 0;
    double high = 0;
    for (Statistics s : statistics) {
      low += s.valid() == 0 ? 0 : s.histogram().quantile(0.01) / bands;
      high += s.valid() == 0 ? 0 : s.histogram().quantile(0.99) / bands;
    }
    float from = (float) low;
    float perLevel = high > low ? (float) (textureLevels / (high - low)) : 0;
    Sums total = new Sums(0, objects.count(), bands);
    int strips = Math.ceilDiv(grid.height(), STRIP);
    // a few strips at a time, so that their sums do not pile up
    int batch = Math.max(1, 2 * job.threads());
    for (int start = 0; start < strips; start += batch) {
      int count = Math.min(batch, strips - start);
      Sums[] parts = new Sums[count];
      int base = start;
      Parallel.run(count, job, i -> parts[i] = strip(grid, base + i, from, perLevel, job));
      for (Sums part : parts) {
        total.add(part);
      }
      job.progress("Measuring", start + count, strips);
    }
    return total;
  }

  private Sums strip(Grid grid, int index, float from, float perLevel, Job job) {
    int width = grid.width();
    Window rows = new Window(0, index * STRIP, width, STRIP).intersect(grid.window());
    Window more = new Window(0, rows.y(), width, rows.height() + 1);
    int bands = scene.bands().size();
    float[][] planes = scene.read(0, more, job.request());
    int[] labels = new int[more.area()];
    objects.labels().read(more, labels);
    int[] rowOf = objects.rowOf();
    int low = Integer.MAX_VALUE;
    int high = -1;
    for (int i = 0; i < labels.length; i++) {
      labels[i] = rowOf[labels[i]];
      if (labels[i] >= 0 && i < rows.area()) {
        low = Math.min(low, labels[i]);
        high = Math.max(high, labels[i]);
      }
    }
    Sums sums = new Sums(high < 0 ? 0 : low, high < 0 ? 0 : high - low + 1, bands);
    short[] grey = greys(planes, from, perLevel);
    for (int y = 0; y < rows.height(); y++) {
      for (int x = 0; x < width; x++) {
        int i = y * width + x;
        if (labels[i] < 0) {
          continue;
        }
        int object = labels[i] - low;
        sums.counts[object]++;
        for (int b = 0; b < bands; b++) {
          double v = planes[b][i];
          sums.sum[b][object] += v;
          sums.square[b][object] += v * v;
        }
        // Four directions one pixel apart; each pair once, as contrast is the same both ways.
        for (int d = 0; d < 4; d++) {
          int nx = x + (d == 0 ? 1 : d - 2);
          int j = d == 0 ? i + 1 : i + width + d - 2;
          if (nx >= 0 && nx < width && labels[j] == labels[i]) {
            int step = grey[i] - grey[j];
            sums.pairs[object]++;
            sums.contrast[object] += (long) step * step;
          }
        }
      }
    }
    return sums;
  }

  private short[] greys(float[][] planes, float from, float perLevel) {
    int n = planes[0].length;
    short[] grey = new short[n];
    for (int i = 0; i < n; i++) {
      float mean = 0;
      for (float[] plane : planes) {
        mean += plane[i];
      }
      mean /= planes.length;
      grey[i] = (short) Math.max(0, Math.min(textureLevels - 1, (int) ((mean - from) * perLevel)));
    }
    return grey;
  }

  private List<Table.Column> spectral(Sums sums) {
    int n = objects.count();
    List<Table.Column> columns = new ArrayList<>();
    double[] brightness = new double[n];
    double[] variation = new double[n];
    List<Band> bands = scene.bands();
    for (int b = 0; b < bands.size(); b++) {
      double[] mean = new double[n];
      double[] spread = new double[n];
      for (int i = 0; i < n; i++) {
        mean[i] = sums.sum[b][i] / sums.counts[i];
        double variance = sums.square[b][i] / sums.counts[i] - mean[i] * mean[i];
        spread[i] = Math.sqrt(Math.max(0, variance));
        brightness[i] += mean[i] / bands.size();
        variation[i] += mean[i] > 0 ? spread[i] / mean[i] / bands.size() : Double.NaN;
      }
      String key = key(bands, b);
      columns.add(new Table.Column(
          key + "_mean", title(bands.get(b)) + ", mean", bands.get(b).unit(), mean));
      columns.add(new Table.Column(
          key + "_spread", title(bands.get(b)) + ", spread", bands.get(b).unit(), spread));
    }
    columns.add(new Table.Column("brightness", "Brightness", bands.get(0).unit(), brightness));
    columns.add(new Table.Column("variation", "Variation", "", variation));
    difference(columns, "ndvi", "Vegetation index", sums, BandRole.NEAR_INFRARED, BandRole.RED);
    difference(columns, "ndwi", "Water index", sums, BandRole.GREEN, BandRole.NEAR_INFRARED);
    ratio(columns, sums, BandRole.BLUE, BandRole.RED);
    double[] contrast = new double[n];
    for (int i = 0; i < n; i++) {
      contrast[i] = sums.pairs[i] == 0 ? 0 : (double) sums.contrast[i] / sums.pairs[i];
    }
    columns.add(new Table.Column("texture_contrast", "Co-occurrence contrast", "", contrast));
    return columns;
  }

  private static String key(List<Band> bands, int b) {
    BandRole role = bands.get(b).role();
    boolean unique = bands.stream().filter(band -> band.role() == role).count() == 1;
    return role != BandRole.OTHER && unique
        ? role.key()
        : bands.get(b).name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
  }

  private static String title(Band band) {
    String name = band.role() == BandRole.OTHER ? band.name() : band.role().label();
    return name.isEmpty() ? "Band" : Character.toUpperCase(name.charAt(0)) + name.substring(1);
  }

  private void difference(
      List<Table.Column> columns,
      String name,
      String title,
      Sums sums,
      BandRole one,
      BandRole two) {
    OptionalInt a = scene.bandOf(one);
    OptionalInt b = scene.bandOf(two);
    if (a.isEmpty() || b.isEmpty()) {
      return;
    }
    double[] values = new double[objects.count()];
    for (int i = 0; i < values.length; i++) {
      double x = sums.sum[a.getAsInt()][i];
      double y = sums.sum[b.getAsInt()][i];
      values[i] = x + y > 0 ? (x - y) / (x + y) : Double.NaN;
    }
    columns.add(new Table.Column(name, title, "", values));
  }

  private void ratio(List<Table.Column> columns, Sums sums, BandRole one, BandRole two) {
    OptionalInt a = scene.bandOf(one);
    OptionalInt b = scene.bandOf(two);
    if (a.isEmpty() || b.isEmpty()) {
      return;
    }
    double[] values = new double[objects.count()];
    for (int i = 0; i < values.length; i++) {
      double y = sums.sum[b.getAsInt()][i];
      values[i] = y > 0 ? sums.sum[a.getAsInt()][i] / y : Double.NaN;
    }
    columns.add(new Table.Column(one.key() + "_" + two.key(), "Blue / red", "", values));
  }
}
