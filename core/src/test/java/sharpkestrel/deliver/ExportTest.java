package sharpkestrel.deliver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Pixels;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.Segments;

class ExportTest {

  @TempDir
  Path folder;

  private static Raster scene() {
    return Made.placed(
        64, 48, 0.5, (b, col, row) -> col < 30 ? 10 + (col + row) % 3 : 200, BandRole.RED);
  }

  private static Cut halves() {
    return Segments.of(scene(), 300).run(Job.QUIET);
  }

  private Path export(Object result, String name) {
    return new Export(result, folder.resolve(name), "things", Compression.ZSTD).run(Job.QUIET);
  }

  @Test
  void aRasterIsWrittenToTheLastSample() {
    Path file = export(scene(), "scene.TIF");

    Pixels.assertSame(Made.samples(RasterFiles.open(file)), Made.samples(scene()));
  }

  @Test
  void objectsAreWrittenAsATableOrAsNumbers() {
    Cut cut = halves();

    Path table = export(cut, "objects.gpkg");
    Path numbers = export(ObjectSet.of(cut), "objects.tif");

    double[] ids = GeoPackage.read(table, "").table().values("id");
    assertThat(ids).hasSize(cut.objects());
    float[] written = Made.samples(RasterFiles.open(numbers))[0];
    int[] labels = new int[64 * 48];
    cut.superpixels().read(cut.superpixels().grid().window(), labels);
    for (int i = 0; i < labels.length; i++) {
      assertThat((double) written[i]).isEqualTo(ids[cut.objectOf()[labels[i]]]).isPositive();
    }
  }

  @Test
  void anEndingThatDoesNotGoWithTheResultIsRefusedAndNothingIsLeft() {
    assertThatThrownBy(() -> export(scene(), "scene.gpkg"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining(".tif");
    assertThat(Files.exists(folder.resolve("scene.gpkg"))).isFalse();
    assertThatThrownBy(() -> export("a text", "text.txt")).hasMessageContaining("String");
  }
}
