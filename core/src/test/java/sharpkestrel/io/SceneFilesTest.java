package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

class SceneFilesTest {

  @TempDir
  Path folder;

  private static Rpc rpc() {
    Random random = new Random(5);
    double[] tag = new double[92];
    double[] head = {1, 0.5, 2048, 2048, 60.4, -2.7, 110, 2100, 2100, 0.02, 0.04, 200};
    System.arraycopy(head, 0, tag, 0, head.length);
    for (int i = 12; i < tag.length; i++) {
      tag[i] = (i - 12) % 20 == 0 ? 1 : 1e-4 * random.nextGaussian();
    }
    return Rpc.ofTag(tag);
  }

  @Test
  void anRpcTextReadsBackAsTheSameModel() {
    Path file = folder.resolve("scene_RPC.TXT");

    RpcText.write(rpc(), file);

    assertThat(RpcText.read(file).toTag()).containsExactly(rpc().toTag());
  }

  @Test
  void unitsAfterNumbersAndOtherLinesAreOverlooked() throws IOException {
    Path file = folder.resolve("scene_RPC.TXT");
    RpcText.write(rpc(), file);
    String text = Files.readString(file)
        .replace("LINE_OFF: 2048.0", "LINE_OFF: +002048.00 pixels")
        .replace("LAT_OFF: 60.4", "LAT_OFF: 60.4000 degrees");
    Files.writeString(file, "satellite image model\n\n" + text);

    assertThat(RpcText.read(file).toTag()).containsExactly(rpc().toTag());
  }

  @Test
  void aMissingCoefficientIsNamed() throws IOException {
    Path file = folder.resolve("scene_RPC.TXT");
    RpcText.write(rpc(), file);
    Files.writeString(file, Files.readString(file).replaceAll("SAMP_DEN_COEFF_7: .*\n", ""));

    assertThatThrownBy(() -> RpcText.read(file))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("SAMP_DEN_COEFF_7");
  }

  @Test
  void aNumberThatIsNoneIsShown() throws IOException {
    Path file = folder.resolve("scene_RPC.TXT");
    Files.writeString(file, "LINE_OFF: many\n");

    assertThatThrownBy(() -> RpcText.read(file)).hasMessageContaining("many");
  }

  @Test
  void aStacItemGivesTimeSunViewGainsAndParts() throws IOException {
    Path file = folder.resolve("item.json");
    Files.writeString(file, """
        {"type": "Feature", "stac_version": "1.0.0", "id": "scene-nine",
         "properties": {"datetime": "2031-04-03T11:42:00Z", "view:sun_elevation": 36.5,
           "view:sun_azimuth": 171, "view:off_nadir": 18.25, "view:azimuth": 92},
         "assets": {"ms-R1C1": {"href": "parts/ms-R1C1.tif", "roles": ["data"],
           "eo:bands": [{"name": "B1", "common_name": "blue", "solar_illumination": 1950},
                        {"name": "B2", "common_name": "nir", "solar_illumination": 1080}],
           "raster:bands": [{"scale": 0.21, "offset": 1.5}, {"scale": 0.1}]}}}""");

    StacItem item = StacItem.read(file);

    assertThat(item.id()).isEqualTo("scene-nine");
    assertThat(item.acquisition().time()).isEqualTo("2031-04-03T11:42:00Z");
    assertThat(item.acquisition().sunElevation()).isEqualTo(36.5);
    assertThat(item.acquisition().viewOffNadir()).isEqualTo(18.25);
    var blue = item.acquisition().calibrationOf(BandRole.BLUE).orElseThrow();
    assertThat(blue.gain()).isEqualTo(0.21);
    assertThat(blue.offset()).isEqualTo(1.5);
    assertThat(blue.irradiance()).isEqualTo(1950);
    assertThat(item.acquisition().calibrationOf(BandRole.NEAR_INFRARED)).isPresent();
    assertThat(item.assets().get(0).path()).isEqualTo(folder.resolve("parts/ms-R1C1.tif"));
    assertThat(item.assets().get(0).bands().get(1).role()).isEqualTo(BandRole.NEAR_INFRARED);
  }

  @Test
  void aFileThatIsNoStacItemSaysWhatOneNeeds() throws IOException {
    Path file = folder.resolve("item.json");
    Files.writeString(file, "{\"type\": \"Catalog\"}");

    assertThatThrownBy(() -> StacItem.read(file)).hasMessageContaining("\"assets\"");
  }

  @Test
  void aPictureLiesWhereItsWorldFileSays() throws IOException {
    BufferedImage image = new BufferedImage(7, 5, BufferedImage.TYPE_INT_RGB);
    for (int i = 0; i < 35; i++) {
      image.setRGB(i % 7, i / 7, i << 16 | 2 * i << 8 | 3 * i);
    }
    Path file = folder.resolve("photo.png");
    ImageIO.write(image, "png", file.toFile());
    Files.writeString(folder.resolve("photo.pgw"), "0.5\n0\n0\n-0.5\n512000.25\n6701999.75\n");

    Raster raster = RasterFiles.open(file);

    // A world file gives the centre of the first pixel; the grid begins at its corner.
    assertThat(raster.grid().affine().x(0, 0)).isCloseTo(512_000, within(1e-9));
    assertThat(raster.grid().affine().y(0, 0)).isCloseTo(6_702_000, within(1e-9));
    assertThat(raster.bands().get(0).type()).isEqualTo(SampleType.UINT8);
    float[][] samples = Made.samples(raster);
    assertThat(samples[0][34]).isEqualTo(34);
    assertThat(samples[1][34]).isEqualTo(68);
    assertThat(samples[2][34]).isEqualTo(102);
  }

  @Test
  void aPictureThatIsNoneIsNamed() throws IOException {
    Path file = folder.resolve("photo.png");
    Files.writeString(file, "no picture");

    assertThatThrownBy(() -> RasterFiles.open(file)).hasMessageContaining("photo.png");
  }
}
