package sharpkestrel.bench;

import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.Cut;

/** Merge trees of whole scenes up to 20,000 x 20,000 pixels in a heap of 5 GiB, cold: how time grows with pixels. */
@State(Scope.Thread)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
    value = 1,
    jvmArgsAppend = {"-Xmx5g", "-XX:+UseParallelGC"})
public class SegmentSizesBenchmark {

  private static final Job TWO_THREADS = Job.of(2, 512);

  @Param({"4096", "10000", "20000"})
  public int size;

  @Param("likeness")
  public String criterion;

  @Benchmark
  public Cut mergeTree() {
    return (Cut) StepCatalogue.get("segment")
        .make(Map.of("scene", new Blocks(size)), Map.of("criterion", criterion))
        .run(TWO_THREADS);
  }
}
