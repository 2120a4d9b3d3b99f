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
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
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

  /** Blocks of 7 to 12 pixels in one of many tones, with noise. */
  private static float value(int band, int x, int y) {
    long block = (x + y / 5 % 3) / 9 * 73_856_093L ^ (y + x / 7 % 4) / 10 * 19_349_663L;
    block = (block ^ block >>> 13) * 0x5bd1e995L;
    long pixel = (x * 83_492_791L ^ y * 49_979_687L) + band * 7919L;
    pixel = (pixel ^ pixel >>> 13) * 0x5bd1e995L;
    return 200 + ((block >>> 7 + 3 * band) & 511) + ((pixel >>> 9) & 31);
  }

  @Setup
  public void fill() {
    opencv_core.setNumThreads(1);
    BandRole[] roles = {BandRole.BLUE, BandRole.GREEN, BandRole.RED, BandRole.NEAR_INFRARED};
    float[][] planes = new float[roles.length][SIZE * SIZE];
    for (int b = 0; b < roles.length; b++) {
      for (int i = 0; i < SIZE * SIZE; i++) {
        planes[b][i] = value(b, i % SIZE, Math.floorDiv(i, SIZE));
      }
    }
    scene = new MemoryRaster(
        new Grid(SIZE, SIZE, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)),
        java.util.Arrays.stream(roles).map(r -> Band.of(r, SampleType.UINT16)).toList(),
        Attachments.NONE,
        planes);
    cut = tree();
    objects = ObjectSet.of(cut.withGrain(SIZE * SIZE / 4.0 / OBJECTS));
    mat = new Mat(SIZE, SIZE, opencv_core.CV_8UC3);
    ByteBuffer bytes = mat.createBuffer();
    for (int i = 0; i < SIZE * SIZE; i++) {
      for (int b = 0; b < 3; b++) {
        bytes.put(3 * i + b, (byte) Math.min(255, planes[b][i] / 3));
      }
    }
  }

  private Cut tree() {
    return (Cut)
        StepCatalogue.get("segment").make(Map.of("scene", scene), Map.of()).run(ONE_THREAD);
  }

  @Benchmark
  public Cut mergeTree() {
    return tree();
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
