package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

/**
 * Files written to a disk that is a few pages too small, and some that just do: what was there before stays whole until the new
 * one is, and nobody is told that a broken one is good. Needs the right to mount a small disk.
 */
class FullDiskTest {

  private static final int PAGE = 4096;

  private static final GeometryFactory SHAPES = new GeometryFactory();

  @TempDir
  Path folder;

  private Path disk;

  /** What is written, and how it is read back. */
  enum Kind {
    SINGLE_LEVEL("a.tif") {
      @Override
      void write(Path file) {
        GeoTiffWriter.write(noise(400), file, Compression.NONE, false, Job.QUIET);
      }

      @Override
      void check(Path file) {
        Pixels.assertSame(Made.samples(RasterFiles.open(file)), Made.samples(noise(400)));
      }
    },
    WITH_OVERVIEWS("a.tif") {
      @Override
      void write(Path file) {
        GeoTiffWriter.write(noise(700), file, Compression.DEFLATE, true, Job.QUIET);
      }

      @Override
      void check(Path file) {
        Pixels.assertSame(Made.samples(RasterFiles.open(file)), Made.samples(noise(700)));
      }
    },
    TABLE_OF_SHAPES("a.gpkg") {
      @Override
      void write(Path file) {
        GeoPackage.write(layer(), file);
      }

      @Override
      void check(Path file) {
        Layer back = GeoPackage.read(file, "");
        assertThat(back.geometries()).isEqualTo(layer().geometries());
        assertThat(back.table().values("n")).isEqualTo(layer().table().values("n"));
      }
    },
    COLUMNS("a.arrow") {
      @Override
      void write(Path file) {
        new ArrowTable(layer().table(), Map.of()).write(file, Job.QUIET);
      }

      @Override
      void check(Path file) {
        assertThat(ArrowTable.read(file, Job.QUIET).table().values("n"))
            .isEqualTo(layer().table().values("n"));
      }
    },
    TEXT("a.json") {
      @Override
      void write(Path file) {
        GeoJson.write(layer(), file);
      }

      @Override
      void check(Path file) {
        assertThat(Json.read(file).path("features").size()).isEqualTo(layer().size());
      }
    };

    final String name;

    Kind(String name) {
      this.name = name;
    }

    abstract void write(Path file);

    abstract void check(Path file);
  }

  private static Raster noise(int size) {
    Random random = new Random(size);
    float[] samples = new float[size * size];
    for (int i = 0; i < samples.length; i++) {
      samples[i] = random.nextInt(1, 60_000);
    }
    return Made.on(
        Grid.ofPixels(size, size),
        SampleType.UINT16,
        (b, x, y) -> samples[y * size + x],
        BandRole.PAN);
  }

  private static Layer layer() {
    List<Geometry> shapes = new ArrayList<>();
    for (int i = 0; i < 2_000; i++) {
      shapes.add(SHAPES.toGeometry(new Envelope(i, i + 0.5, 2 * i, 2 * i + 1)));
    }
    double[] n = IntStream.range(0, 2_000).mapToDouble(i -> i / 7.0).toArray();
    return new Layer(
        "shapes",
        CrsName.NONE,
        shapes,
        new Table(2_000, List.of(new Table.Column("n", "N", "", n))),
        Map.of());
  }

  private static boolean run(String... command) throws IOException, InterruptedException {
    return new ProcessBuilder(command).redirectErrorStream(true).start().waitFor() == 0;
  }

  @BeforeEach
  void mountOnce() throws IOException, InterruptedException {
    disk = Files.createDirectory(folder.resolve("disk"));
    boolean may = Files.isExecutable(Path.of("/bin/mount")) && mount(64);
    assumeThat(may).as("the right to mount").isTrue();
    unmount();
  }

  private boolean mount(int pages) throws IOException, InterruptedException {
    return run("mount", "-t", "tmpfs", "-o", "size=" + pages * PAGE, "tmpfs", disk.toString());
  }

  /** Files that were read are still mapped, so the disk goes once they are let go. */
  @AfterEach
  void unmount() throws IOException, InterruptedException {
    run("umount", "-l", disk.toString());
  }

  @ParameterizedTest
  @EnumSource(Kind.class)
  void aFileIsWholeOrItIsSaidThatItIsNot(Kind kind) throws IOException, InterruptedException {
    int enough = leastPages(kind);
    int failed = 0;
    for (int pages = enough + 1; pages > enough - 6; pages--) {
      assertThat(mount(pages)).isTrue();
      Path file = disk.resolve(kind.name);
      Files.writeString(file, "good");
      try {
        kind.write(file);
        kind.check(file);
      } catch (RasterException said) {
        failed++;
        assertThat(said).hasMessageContaining(file.getFileName().toString());
        assertThat(file).hasContent("good");
        assertThat(disk.toFile().list()).containsExactly(kind.name);
      }
      unmount();
    }
    assertThat(failed).isBetween(5, 6);
  }

  /** The smallest disk on which a file can be written, found by halving. */
  private int leastPages(Kind kind) throws IOException, InterruptedException {
    int low = 2;
    int high = 4_000;
    while (high - low > 1) {
      int middle = (low + high) / 2;
      assertThat(mount(middle)).isTrue();
      Path file = disk.resolve(kind.name);
      try {
        Files.writeString(file, "good");
        kind.write(file);
        high = middle;
      } catch (RasterException full) {
        low = middle;
      }
      unmount();
    }
    return high;
  }
}
