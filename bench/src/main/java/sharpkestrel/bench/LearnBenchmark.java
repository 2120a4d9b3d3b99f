package sharpkestrel.bench;

import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.bytedeco.javacpp.indexer.FloatIndexer;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_core.TermCriteria;
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
import sharpkestrel.extract.cluster.ClusterSettings;
import sharpkestrel.extract.cluster.Clusters;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.Examples;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.raster.Job;

/**
 * What somebody waits for who labels: a forest learned from 5,000 rows of 40 features that tells 100,000, one thread; all objects coloured
 * anew after a sample, two threads; ten clusters of half a million pixels of four bands, one thread, beside OpenCV's.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
    value = 1,
    jvmArgsAppend = {"-Xmx6g", "-XX:+UseParallelGC"})
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 3, time = 5)
public class LearnBenchmark {

  private static final int CLASSES = 6;
  private static final int CLUSTERS = 10;
  private static final int PIXELS = 500_000;
  private static final Job ONE_THREAD = Job.of(1, 512);
  private static final Job TWO_THREADS = Job.of(2, 512);

  private Examples rows;
  private float[][] all;
  private Examples clicks;
  private float[][] objects;
  private float[][] million;
  private float[][] pixels;
  private Mat mat;

  @Setup
  public void fill() {
    rows = examples(5_000, 40, 1);
    all = examples(100_000, 40, 2).columns();
    clicks = examples(60, 60, 3);
    objects = examples(50_000, 60, 4).columns();
    million = examples(1_000_000, 60, 5).columns();
    pixels = examples(PIXELS, 4, 6).columns();
    opencv_core.setNumThreads(1);
    mat = new Mat(PIXELS, 4, opencv_core.CV_32F);
    try (FloatIndexer to = mat.createIndexer()) {
      for (int i = 0; i < PIXELS; i++) {
        for (int f = 0; f < 4; f++) {
          to.put(i, f, pixels[f][i]);
        }
      }
    }
  }

  /** Rows whose features lean on their class, the first more than the last. */
  static Examples examples(int count, int features, long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    float[][] columns = new float[features][count];
    int[] classOf = new int[count];
    for (int i = 0; i < count; i++) {
      classOf[i] = i % CLASSES;
      for (int f = 0; f < features; f++) {
        columns[f][i] =
            (float) (random.nextGaussian() + classOf[i] * (f % 7 - 3) * 0.6 / (1 + f / 8.0));
      }
    }
    return Examples.of(
        IntStream.range(0, features).mapToObj(f -> "f" + f).toList(),
        columns,
        List.of("a", "b", "c", "d", "e", "f"),
        classOf);
  }

  private static float[] told(
      Examples from, Learner how, boolean weighs, float[][] columns, Job job) {
    return Classifier.learn(from, how, "", 1, weighs, job).shares(columns, job);
  }

  @Benchmark
  public float[] forest() {
    return told(rows, Learner.FOREST, false, all, ONE_THREAD);
  }

  @Benchmark
  public float[] recolour50000() {
    return told(clicks, Learner.EXTREME_TREES, false, objects, TWO_THREADS);
  }

  @Benchmark
  public float[] recolourMillion() {
    // as the first, unweighed answer to a sample is made where objects are so many
    return Classifier.learn(clicks, Learner.EXTREME_TREES, "", 1, false, 0.4, TWO_THREADS)
        .shares(million, TWO_THREADS);
  }

  @Benchmark
  public Clusters kMeans() {
    return Clusters.find(pixels, ClusterSettings.kMeans(CLUSTERS, 1), ONE_THREAD);
  }

  @Benchmark
  public double openCvKMeans() {
    TermCriteria end = new TermCriteria(TermCriteria.EPS + TermCriteria.MAX_ITER, 30, 0.001);
    try (Mat labels = new Mat();
        Mat centres = new Mat()) {
      return opencv_core.kmeans(
          mat, CLUSTERS, labels, end, 1, opencv_core.KMEANS_PP_CENTERS, centres);
    }
  }
}
