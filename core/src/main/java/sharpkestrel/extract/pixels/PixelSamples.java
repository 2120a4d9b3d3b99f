package sharpkestrel.extract.pixels;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Samples;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelOverlap;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Window;

/** Pixels that are looked at in place of all: those within samples, or some of all of a scene. */
public final class PixelSamples {

  private static final int TILE = 512;
  private static final int BLOCKS = 12;

  private PixelSamples() {}

  /**
   * The pixels within samples; of a class that has more than are wanted, some that lie evenly over it. All of one outline are one block,
   * those of outlines in one part of the scene too, so that what is kept back has no neighbours in what is learned from.
   *
   * @param most pixels of each class
   * @throws RasterException where no sample lies on the scene's data
   */
  public static Examples of(PixelFeatures features, Samples samples, int most, long seed, Job job) {
    Grid grid = features.scene().grid();
    LabelRaster drawn = samples.drawOn(grid, job);
    int[] pixels = LabelOverlap.pixels(drawn, samples.count(), job);
    double[] ofClass = new double[samples.classes().size()];
    for (int s = 0; s < samples.count(); s++) {
      ofClass[samples.classOf()[s]] += pixels[s + 1];
    }
    double[] share =
        Arrays.stream(ofClass).map(n -> Math.min(1, most / Math.max(1, n))).toArray();
    int[] blockOf = blocks(samples, grid);
    List<Window> tiles = tiles(grid);
    Part[] parts = new Part[tiles.size()];
    Parallel.run(tiles.size(), job, t -> {
      Window tile = tiles.get(t);
      int[] labels = new int[tile.area()];
      drawn.read(tile, labels);
      Part part = new Part(features.names().size());
      float[][] planes = null;
      for (int i = 0; i < labels.length; i++) {
        int sample = labels[i] - 1;
        int k = sample < 0 ? -1 : samples.classOf()[sample];
        long at = (long) (tile.y() + i / tile.width()) * grid.width() + tile.x() + i % tile.width();
        if (k < 0 || share[k] < 1 && chance(at, seed) >= share[k]) {
          continue;
        }
        planes = planes == null ? features.read(0, tile, job.request()) : planes;
        part.add(planes, i, k, blockOf[sample]);
      }
      parts[t] = part;
    });
    Examples found = joined(parts, features.names(), samples.classes());
    if (found.count() == 0) {
      throw new RasterException(
          "None of the " + samples.count()
              + " samples has a pixel with data in it: they lie elsewhere, or where there is no data. Open them over the scene to see where they are.");
    }
    return found;
  }

  /**
   * Some of the pixels of a scene, as they lie.
   *
   * @param share of all that are wanted
   * @param inside pixels that count have a number there; null for all
   * @return columns by feature
   */
  public static float[][] some(
      PixelFeatures features, LabelRaster inside, double share, long seed, Job job) {
    Grid grid = features.scene().grid();
    List<Window> tiles = tiles(grid);
    Part[] parts = new Part[tiles.size()];
    Parallel.run(tiles.size(), job, t -> {
      Window tile = tiles.get(t);
      int[] labels = new int[tile.area()];
      if (inside == null) {
        Arrays.fill(labels, 1);
      } else {
        inside.read(tile, labels);
      }
      Part part = new Part(features.names().size());
      float[][] planes = null;
      for (int i = 0; i < labels.length; i++) {
        long at = (long) (tile.y() + i / tile.width()) * grid.width() + tile.x() + i % tile.width();
        if (labels[i] > 0 && (share >= 1 || chance(at, seed) < share)) {
          planes = planes == null ? features.read(0, tile, job.request()) : planes;
          part.add(planes, i, 0, 0);
        }
      }
      parts[t] = part;
      job.progress("Looking at pixels", t, tiles.size());
    });
    return joined(parts, features.names(), List.of("all")).columns();
  }

  /** A number from 0 to 1 that a pixel has whichever way it is come upon. */
  private static double chance(long pixel, long seed) {
    return new SplittableRandom(pixel * 0x9e3779b97f4a7c15L ^ seed).nextDouble();
  }

  private static List<Window> tiles(Grid grid) {
    List<Window> tiles = new ArrayList<>();
    for (int y = 0; y < grid.height(); y += TILE) {
      for (int x = 0; x < grid.width(); x += TILE) {
        tiles.add(new Window(x, y, TILE, TILE).intersect(grid.window()));
      }
    }
    return tiles;
  }

  private static int[] blocks(Samples samples, Grid grid) {
    double side = Math.max(1, Math.max(grid.width(), grid.height()) / (double) BLOCKS);
    int[] blocks = new int[samples.count()];
    for (int s = 0; s < blocks.length; s++) {
      var middle = samples.shapes().get(s).getCentroid();
      int col = (int) (grid.affine().inverse().x(middle.getX(), middle.getY()) / side);
      int row = (int) (grid.affine().inverse().y(middle.getX(), middle.getY()) / side);
      blocks[s] = Math.clamp(row, 0, BLOCKS) * (BLOCKS + 1) + Math.clamp(col, 0, BLOCKS);
    }
    return blocks;
  }

  private static Examples joined(Part[] parts, List<String> names, List<String> classes) {
    int count = Arrays.stream(parts).mapToInt(part -> part.count).sum();
    float[][] columns = new float[names.size()][count];
    int[] classOf = new int[count];
    int[] blocks = new int[count];
    float[] weights = new float[count];
    Arrays.fill(weights, 1);
    int at = 0;
    for (Part part : parts) {
      for (int f = 0; f < columns.length; f++) {
        System.arraycopy(part.columns[f], 0, columns[f], at, part.count);
      }
      System.arraycopy(part.classOf, 0, classOf, at, part.count);
      System.arraycopy(part.blocks, 0, blocks, at, part.count);
      at += part.count;
    }
    return new Examples(names, columns, classes, classOf, weights, blocks);
  }

  /** What one tile gives. */
  private static final class Part {
    private float[][] columns;
    private int[] classOf = new int[16];
    private int[] blocks = new int[16];
    private int count;

    Part(int features) {
      columns = new float[features][16];
    }

    void add(float[][] planes, int pixel, int ofClass, int block) {
      if (Float.isNaN(planes[0][pixel])) {
        return;
      }
      if (count == classOf.length) {
        for (int f = 0; f < columns.length; f++) {
          columns[f] = Arrays.copyOf(columns[f], 2 * count);
        }
        classOf = Arrays.copyOf(classOf, 2 * count);
        blocks = Arrays.copyOf(blocks, 2 * count);
      }
      for (int f = 0; f < columns.length; f++) {
        columns[f][count] = planes[f][pixel];
      }
      classOf[count] = ofClass;
      blocks[count++] = block;
    }
  }
}
