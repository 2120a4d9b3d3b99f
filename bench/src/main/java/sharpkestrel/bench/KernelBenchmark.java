package sharpkestrel.bench;

import java.util.Random;
import java.util.concurrent.TimeUnit;
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
import sharpkestrel.raster.Resampling;

/** Resampling of one tile of 512 x 512 with 4 bands. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 3)
@Measurement(iterations = 5)
public class KernelBenchmark {

  private static final int SIZE = 512;

  private final float[][] planes = new float[4][(SIZE + 8) * (SIZE + 8)];
  private final float[][] out = new float[4][SIZE * SIZE];
  private final double[] xs = new double[SIZE * SIZE];
  private final double[] ys = new double[SIZE * SIZE];

  @Setup
  public void fill() {
    Random random = new Random(1);
    for (float[] plane : planes) {
      for (int i = 0; i < plane.length; i++) {
        plane[i] = random.nextInt(2048);
      }
    }
    for (int i = 0; i < xs.length; i++) {
      xs[i] = 4 + i % SIZE + 0.3;
      ys[i] = 4 + Math.floorDiv(i, SIZE) + 0.7;
    }
  }

  @Benchmark
  public float[][] cubic() {
    Resampling.CUBIC.sample(planes, SIZE + 8, SIZE + 8, xs, ys, xs.length, out);
    return out;
  }

  @Benchmark
  public float[][] bilinear() {
    Resampling.BILINEAR.sample(planes, SIZE + 8, SIZE + 8, xs, ys, xs.length, out);
    return out;
  }
}
