package sharpkestrel.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;

/** What {@code kestrel info} says of a file whose every number is known. */
class InfoTest {

  private static final int WIDTH = 1300;
  private static final int HEIGHT = 700;

  @TempDir
  Path folder;

  private final StringWriter out = new StringWriter();
  private final StringWriter err = new StringWriter();
  private Path scene;

  /** Red is the column's number, the other band 7 but without data in its first row. */
  @BeforeEach
  void writeScene() {
    float[][] planes = new float[2][WIDTH * HEIGHT];
    for (int i = 0; i < planes[0].length; i++) {
      planes[0][i] = i % WIDTH;
      planes[1][i] = i < WIDTH ? Float.NaN : 7;
    }
    scene = folder.resolve("scene.tif");
    GeoTiffWriter.write(
        new MemoryRaster(
            new Grid(WIDTH, HEIGHT, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630)),
            List.of(
                new Band("red", BandRole.RED, "", SampleType.UINT16, 65535),
                new Band("near infrared", BandRole.NEAR_INFRARED, "", SampleType.UINT16, 65535)),
            Attachments.NONE,
            planes),
        scene,
        Compression.DEFLATE,
        Job.QUIET);
  }

  private int info(String... arguments) {
    CommandLine line = Main.commandLine();
    line.setOut(new PrintWriter(out));
    line.setErr(new PrintWriter(err));
    String[] all = new String[arguments.length + 1];
    all[0] = "info";
    System.arraycopy(arguments, 0, all, 1, arguments.length);
    return line.execute(all);
  }

  private JsonNode json() throws IOException {
    String last = out.toString().strip().lines().reduce((a, b) -> b).orElseThrow();
    return new ObjectMapper().readTree(last);
  }

  @Test
  void theObjectAtTheEndHoldsPlaceBandsAndStatistics() throws IOException {
    assertThat(info(scene.toString(), "--exact", "--json")).isZero();

    JsonNode node = json();
    assertThat(node.path("width").asInt()).isEqualTo(WIDTH);
    assertThat(node.path("height").asInt()).isEqualTo(HEIGHT);
    assertThat(node.path("pixel_width").asDouble()).isEqualTo(0.5);
    assertThat(node.path("crs").asText()).isEqualTo("EPSG:32630");
    assertThat(node.path("extent"))
        .extracting(JsonNode::asDouble)
        .containsExactly(512_000.0, 6_701_650.0, 512_650.0, 6_702_000.0);
    assertThat(node.path("rpc").asBoolean()).isFalse();
    JsonNode red = node.path("bands").get(0);
    assertThat(red.path("role").asText()).isEqualTo("red");
    assertThat(red.path("type").asText()).contains("16");
    assertThat(red.path("min").asDouble()).isZero();
    assertThat(red.path("max").asDouble()).isEqualTo(WIDTH - 1);
    assertThat(red.path("mean").asDouble()).isCloseTo((WIDTH - 1) / 2.0, within(1e-9));
    // The spread of the whole numbers 0 to n-1 is the root of (n*n - 1) / 12.
    assertThat(red.path("standard_deviation").asDouble())
        .isCloseTo(Math.sqrt((WIDTH * (double) WIDTH - 1) / 12), within(1e-6));
    JsonNode infrared = node.path("bands").get(1);
    assertThat(infrared.path("valid").asLong()).isEqualTo((long) WIDTH * (HEIGHT - 1));
    assertThat(infrared.path("standard_deviation").asDouble()).isZero();
    assertThat(infrared.path("no_data").asDouble()).isEqualTo(65535);
  }

  @Test
  void peopleReadLayoutOverviewsRolesAndTheShareWithoutData() {
    assertThat(info(scene.toString())).isZero();

    assertThat(out.toString())
        .contains("1300 x 700 pixels")
        .contains("512 x 512")
        .contains("deflate")
        // 650 x 350, 325 x 175, 163 x 88
        .contains("overviews   3")
        .contains("near infrared")
        .contains("of every pixel")
        .contains("0.1 %");
  }

  @Test
  void aPictureWithoutAPlaceSaysSo() throws IOException {
    BufferedImage image = new BufferedImage(20, 10, BufferedImage.TYPE_INT_RGB);
    image.setRGB(3, 3, 0x102030);
    Path picture = folder.resolve("photo.png");
    ImageIO.write(image, "png", picture.toFile());

    assertThat(info(picture.toString(), "--json")).isZero();

    assertThat(out.toString()).contains("does not say where it lies");
    assertThat(json().path("crs").isNull()).isTrue();
    assertThat(json().path("bands")).hasSize(3);
    assertThat(json().path("bands").get(2).path("max").asInt()).isEqualTo(0x30);
  }

  @Test
  void aTruncatedFileIsOneClearLineWithItsName() throws IOException {
    byte[] whole = Files.readAllBytes(scene);
    Path cut = folder.resolve("cut.tif");
    Files.write(cut, java.util.Arrays.copyOf(whole, 200));

    assertThat(info(cut.toString())).isEqualTo(1);

    assertThat(err.toString().strip().lines()).hasSize(1);
    assertThat(err.toString()).contains("cut.tif");
  }
}
