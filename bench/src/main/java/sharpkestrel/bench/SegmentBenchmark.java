package sharpkestrel.bench;

import java.nio.ByteBuffer;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.global.opencv_imgproc;
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
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.regions.MeanShiftRaster;

/** Segmenting and measuring 2,048 x 2,048 pixels of four bands; one thread, warm. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
    value = 1,
    jvmArgsAppend = {"-Xmx6g", "-XX:+UseParallelGC"})
@Warmup(iterations = 2, time = 4)
@Measurement(iterations = 3, time = 4)
public class SegmentBenchmark {

  private static final int SIZE = 2048;
  private static final int OBJECTS = 50_000;
  private static final int RADIUS = 5;
  private static final int RANGE = 6;
  private static final Job ONE_THREAD = Job.of(1, 512);

  private Raster scene;
  private ObjectSet objects;
  private Cut cut;
  private Mat mat;

  @Setup
  public void fill() {
    opencv_core.setNumThreads(1);
    Blocks blocks = new Blocks(SIZE);
    float[][] planes = blocks.read(0, blocks.grid().window(), Request.BACKGROUND);
    scene = new MemoryRaster(blocks.grid(), blocks.bands(), Attachments.NONE, planes);
    cut = tree("likeness");
    objects = ObjectSet.of(cut.withGrain(SIZE * SIZE / 4.0 / OBJECTS));
    mat = new Mat(SIZE, SIZE, opencv_core.CV_8UC3);
    ByteBuffer bytes = mat.createBuffer();
    for (int i = 0; i < SIZE * SIZE; i++) {
      for (int b = 0; b < 3; b++) {
        bytes.put(3 * i + b, (byte) Math.min(255, planes[b][i] / 3));
      }
    }
  }

  private Cut tree(String criterion) {
    return (Cut) StepCatalogue.get("segment")
        .make(Map.of("scene", scene), Map.of("criterion", criterion))
        .run(ONE_THREAD);
  }

  @Benchmark
  public Cut mergeTree() {
    return tree("likeness");
  }

  @Benchmark
  public Cut mergeTreeLearned() {
    return tree("learned");
  }

  @Benchmark
  public Cut anotherGrain() {
    return cut.withGrain(33);
  }

  private Object measure(List<String> groups) {
    return StepCatalogue.get("measure")
        .make(
            Map.of("objects", objects, "scene", scene),
            Map.of("features", String.join(",", groups)))
        .run(ONE_THREAD);
  }

  /** Shape with hull, moments and holes, and means, ends and spreads of all bands: what is measured of regions elsewhere too. */
  @Benchmark
  public Object measureShapeAndSpectrum() {
    return measure(List.of("shape", "spectral"));
  }

  @Benchmark
  public Object measureAllButTexture() {
    return measure(List.of("shape", "outline", "spectral", "context"));
  }

  @Benchmark
  public Object measureAll() {
    return measure(List.of("shape", "outline", "spectral", "texture", "context"));
  }

  @Benchmark
  public float[][] meanShift() {
    return MeanShiftRaster.of(scene, RADIUS, RANGE, 5, ONE_THREAD)
        .read(0, scene.grid().window(), Request.BACKGROUND);
  }

  /** Three bands of 8 bits, with a pyramid of two levels. */
  @Benchmark
  public Mat meanShiftOpenCv() {
    Mat out = new Mat();
    opencv_imgproc.pyrMeanShiftFiltering(
        mat,
        out,
        RADIUS,
        RANGE * 2.55,
        1,
        new TermCriteria(TermCriteria.MAX_ITER + TermCriteria.EPS, 5, 1));
    return out;
  }
}
