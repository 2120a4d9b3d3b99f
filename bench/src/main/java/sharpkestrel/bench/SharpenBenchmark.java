package sharpkestrel.bench;

import java.nio.ByteBuffer;
import java.nio.ShortBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.bytedeco.javacpp.PointerScope;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.global.opencv_imgproc;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_core.Rect;
import org.bytedeco.opencv.opencv_core.Size;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.BandsOf;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Statistics;
import sharpkestrel.sharpen.BuiltUp;
import sharpkestrel.sharpen.LocalContrast;
import sharpkestrel.sharpen.Texture;
import sharpkestrel.sharpen.TextureSource;
import sharpkestrel.sharpen.texture.Binning;
import sharpkestrel.sharpen.texture.Direction;
import sharpkestrel.sharpen.texture.Measure;

/** Local contrast, built-up index and texture beside the same by a well-known library; one thread each, all warm. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
    value = 1,
    jvmArgsAppend = {"-Xmx6g", "-XX:+UseParallelGC"})
@Warmup(iterations = 3, time = 4)
@Measurement(iterations = 4, time = 4)
public class SharpenBenchmark {

  private static final int LARGE = 8192;
  private static final int SMALL = 2048;
  private static final int PART = 256;
  private static final int LEVELS = 32;
  private static final int RADIUS = 4;
  private static final int[][] DISPLACEMENTS = {
    {1, 0}, {2, 0}, {0, 1}, {0, 2}, {1, 1}, {1, -1}, {1, 2}, {1, -2}, {2, 1}, {2, -1}
  };
  private static final List<String> OF_PAIRS = Arrays.stream(Measure.values())
      .filter(Measure::ofPairs)
      .map(Measure::name)
      .toList();
  private static final Job ONE_THREAD = Job.of(1, 512);

  private Raster large;
  private Raster small;
  private Raster part;
  private Mat largeMat;
  private Mat smallMat;
  private int[][] levels;

  private static float value(int x, int y) {
    long hash = x * 73_856_093L ^ y * 19_349_663L;
    hash ^= hash >>> 13;
    hash *= 0x5bd1e995L;
    hash ^= hash >>> 15;
    return (int) (600
        + 200 * Math.sin(x / 74.0) * Math.cos(y / 46.0)
        + 150 * Math.sin((x + y) / 10.0)
        + (hash & 63));
  }

  private static MemoryRaster raster(int size) {
    float[] plane = new float[size * size];
    for (int i = 0; i < plane.length; i++) {
      plane[i] = value(i % size, Math.floorDiv(i, size));
    }
    return new MemoryRaster(
        new Grid(size, size, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)),
        List.of(Band.of(BandRole.PAN, SampleType.UINT16)),
        Attachments.NONE,
        new float[][] {plane});
  }

  @Setup
  public void fill() {
    opencv_core.setNumThreads(1);
    large = raster(LARGE);
    small = raster(SMALL);
    part = raster(PART);
    largeMat = new Mat(LARGE, LARGE, opencv_core.CV_16UC1);
    ShortBuffer shorts = largeMat.createBuffer();
    for (int i = 0; i < LARGE * LARGE; i++) {
      shorts.put(i, (short) value(i % LARGE, Math.floorDiv(i, LARGE)));
    }
    smallMat = new Mat(SMALL, SMALL, opencv_core.CV_8UC1);
    ByteBuffer bytes = smallMat.createBuffer();
    for (int i = 0; i < SMALL * SMALL; i++) {
      bytes.put(i, (byte) (value(i % SMALL, Math.floorDiv(i, SMALL)) / 8));
    }
    levels = new int[PART][PART];
    for (int y = 0; y < PART; y++) {
      for (int x = 0; x < PART; x++) {
        levels[y][x] = (int) Math.max(0, Math.min(LEVELS - 1, (value(x, y) - 250) / 24));
      }
    }
  }

  private static int all(Raster raster) {
    int[] tiles = new int[1];
    Parallel.overTiles(raster, 0, "", ONE_THREAD, (tile, planes) -> tiles[0]++);
    return tiles[0];
  }

  /** 8,192 x 8,192, statistics of the scene, histograms and mapping. */
  @Benchmark
  public int localContrast() {
    Raster fresh = new BandsOf(large, 0);
    return Statistics.of(fresh, 0, ONE_THREAD).length
        + all(new LocalContrast(large, 64, 3, 0, LocalContrast.By.BAND).run(ONE_THREAD));
  }

  @Benchmark
  public int localContrastOpenCv() {
    // what is made inside is freed at the end, as its owner would
    try (PointerScope scope = new PointerScope()) {
      Mat out = new Mat();
      opencv_imgproc.createCLAHE(3, new Size(LARGE / 128, LARGE / 128)).apply(largeMat, out);
      return out.rows();
    }
  }

  /** 2,048 x 2,048, ten displacements, 9 x 9. */
  @Benchmark
  public int builtUp() {
    return all(new BuiltUp(
            new TextureSource(small, Optional.empty()), Optional.of("9"), 128, 0.5, Double.NaN)
        .run(ONE_THREAD));
  }

  @Benchmark
  public int builtUpOpenCv() {
    try (PointerScope scope = new PointerScope()) {
      return builtUpByBoxFilters().rows();
    }
  }

  private Mat builtUpByBoxFilters() {
    Mat values = new Mat();
    smallMat.convertTo(values, opencv_core.CV_32F);
    Mat lowest = null;
    for (int[] d : DISPLACEMENTS) {
      int wide = SMALL - Math.abs(d[0]);
      int tall = SMALL - Math.abs(d[1]);
      Mat a = new Mat(values, new Rect(0, Math.max(0, -d[1]), wide, tall));
      Mat b = new Mat(values, new Rect(d[0], Math.max(0, d[1]), wide, tall));
      Mat difference = new Mat();
      opencv_core.subtract(a, b, difference);
      opencv_core.multiply(difference, difference, difference);
      Mat mean = new Mat();
      opencv_imgproc.boxFilter(
          difference, mean, opencv_core.CV_32F, new Size(9 - Math.abs(d[0]), 9 - Math.abs(d[1])));
      Mat same = new Mat(mean, new Rect(0, 0, SMALL - 2, SMALL - 2));
      if (lowest == null) {
        lowest = same.clone();
      } else {
        opencv_core.min(lowest, same, lowest);
      }
    }
    return lowest;
  }

  /** 256 x 256, every measure of pairs, 9 x 9, 32 levels, one direction. */
  @Benchmark
  public int texture() {
    Texture.Pairs pairs =
        new Texture.Pairs(1, Direction.EAST, LEVELS, Binning.EQUAL_WIDTH, new ArrayList<>(), 0.5);
    return all(new Texture(new TextureSource(part, Optional.empty()), OF_PAIRS, "9", pairs)
        .run(ONE_THREAD));
  }

  /** The same measures of pairs from each window's matrix made afresh, on a strip of 256 x 8; times 32 for the whole. */
  @Benchmark
  public double textureAfresh() {
    double sum = 0;
    double[][] p = new double[LEVELS][LEVELS];
    for (int y = RADIUS; y < RADIUS + 8; y++) {
      for (int x = RADIUS; x < PART - RADIUS; x++) {
        sum += AfreshTexture.all(levels, p, x, y, RADIUS);
      }
    }
    return sum;
  }
}
