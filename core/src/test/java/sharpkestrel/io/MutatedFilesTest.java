package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/** Damaged and hostile files: a clear error or some pixels, never a crash, a hang or an endless allocation. */
class MutatedFilesTest {

  private static final int FILES = Integer.getInteger("kestrel.mutations", 20_000);

  private static final int BATCH = 50;

  @TempDir
  Path folder;

  @Test
  void noMutationDoesMoreThanFailClearly() throws IOException {
    List<Path> golden;
    try (Stream<Path> files = Files.list(Path.of("src/test/resources/golden"))) {
      golden = files.sorted().toList();
    }
    byte[][] originals = new byte[golden.size()][];
    for (int i = 0; i < originals.length; i++) {
      originals[i] = Files.readAllBytes(golden.get(i));
    }
    int refused = 0;
    Path[] files = new Path[BATCH];
    for (int n = 0; n < FILES; n++) {
      Random random = new Random(n);
      byte[] bytes = mutated(originals[n % originals.length], random);
      Path file = folder.resolve("m" + n % BATCH + ".tif");
      Files.deleteIfExists(file);
      Files.write(file, bytes);
      files[n % BATCH] = file;
      if (n % BATCH == BATCH - 1) {
        String seeds = "seeds " + (n - BATCH + 1) + " to " + n + " hang";
        // Two seconds a file, and no file may take them all up.
        refused +=
            assertTimeoutPreemptively(Duration.ofSeconds(2 * BATCH), () -> refused(files), seeds);
      }
    }
    assertThat(refused).isGreaterThan(FILES / 20);
  }

  private static byte[] mutated(byte[] original, Random random) {
    byte[] bytes = original.clone();
    if (random.nextInt(8) == 0) {
      return java.util.Arrays.copyOf(bytes, random.nextInt(bytes.length));
    }
    int changes = 1 + random.nextInt(6);
    for (int i = 0; i < changes; i++) {
      // Headers and directories lie in the first few hundred bytes, and are where harm is done.
      int at = random.nextBoolean()
          ? random.nextInt(Math.min(600, bytes.length))
          : random.nextInt(bytes.length);
      bytes[at] =
          (byte) (random.nextBoolean() ? random.nextInt(256) : random.nextBoolean() ? 0xff : 0);
    }
    return bytes;
  }

  private static int refused(Path[] files) {
    int count = 0;
    for (Path file : files) {
      count += refuses(file) ? 1 : 0;
    }
    return count;
  }

  private static boolean refuses(Path file) {
    try {
      Raster raster = RasterFiles.open(file);
      int level = raster.levels() - 1;
      Window corner = new Window(0, 0, 40, 40);
      raster.read(0, corner, Request.BACKGROUND);
      if (raster.grid().pixels() < 1_000_000) {
        raster.read(level, corner, Request.BACKGROUND);
      }
      return false;
    } catch (RasterException clear) {
      assertThat(clear.getMessage()).contains(file.toString());
      return true;
    }
  }
}
