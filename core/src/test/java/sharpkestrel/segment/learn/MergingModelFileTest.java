package sharpkestrel.segment.learn;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.segment.learn.Network.Layer;

class MergingModelFileTest {

  @TempDir
  Path folder;

  private static MergingModel model() {
    Layer first =
        new Layer(2, 3, new float[] {1, -2.5f, 3, 1e-9f, 7e8f, 0.1f}, new float[] {1, 2, 3});
    Layer last = new Layer(3, 1, new float[] {0.3f, 0.2f, -0.1f}, new float[] {4});
    return new MergingModel(
        "two roofs",
        new Card(
            Optional.of(new Card.Range(0.3, 0.5)),
            List.of("red", "blue"),
            new Card.Range(1.5, 1.75)),
        List.of("area", "light"),
        new Network(new float[] {1, 2}, new float[] {3, 0.25f}, List.of(first, last)));
  }

  @Test
  void aModelComesBackToTheLastDigit() {
    Path file = folder.resolve("roofs.json");

    MergingModelFile.write(model(), file);

    assertThat(MergingModelFile.read(file)).isEqualTo(model());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "merging model|something else|holds no merging model",
        "-2.5|\"much\"|number 2 of \"weights\" is not one",
        "0.3, 0.5|0.5, 0.3|its card has no \"pixel_metres\"",
        "1.75|\"wide\"|its card has no \"contrast\"",
        "0.25|1, 2|do not lead from 2 features",
        "0.3, |''|layer 2 has 2 weights where 3 x 1 are needed",
        "7.0E8|1e99|number 5 of \"weights\" is not one"
      })
  void aDamagedFileIsRefusedWithWhatIsWrong(String was, String is, String complaint)
      throws IOException {
    Path file = folder.resolve("roofs.json");
    MergingModelFile.write(model(), file);
    String text = Files.readString(file);
    assertThat(text).contains(was);
    Files.writeString(file, text.replace(was, is));

    assertThatThrownBy(() -> MergingModelFile.read(file))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("roofs.json")
        .hasMessageContaining(complaint);
  }

  @Test
  void aCardSaysWhatOfASceneWasNotSeen() {
    Card card = model().card();
    GroundSize half = new GroundSize(0.5, 0.5, true);

    assertThat(card.outside(Card.of(half, List.of("red", "blue", "green"), 1.6)))
        .isEmpty();
    assertThat(card.outside(Card.of(new GroundSize(28.5, 28.5, true), List.of("red", "blue"), 1.6)))
        .containsExactly("its pixels are of 28.5 m, not 0.3 to 0.5 m");
    assertThat(card.outside(Card.of(new GroundSize(1, 1, false), List.of("red"), 3)))
        .satisfiesExactly(
            place -> assertThat(place).contains("has no place"),
            band -> assertThat(band).isEqualTo("it has no band blue"),
            range -> assertThat(range).contains("20.1 times apart, not 4.5 to 5.8"));
    assertThat(card.pixelOf(half)).isEqualTo(0.5);
    assertThat(card.pixelOf(new GroundSize(28.5, 28.5, true))).isEqualTo(0.75);
    assertThat(card.with(Card.of(new GroundSize(1, 1, true), List.of("green"), 2)))
        .isEqualTo(new Card(
            Optional.of(new Card.Range(0.3, 1)),
            List.of("red", "blue", "green"),
            new Card.Range(1.5, 2)));
  }

  @Test
  void aFileThatIsNoTextIsRefused() throws IOException {
    Path file = folder.resolve("roofs.gpkg");
    Files.write(file, new byte[] {(byte) 0xff, 0, (byte) 0xfe, 12});

    assertThatThrownBy(() -> MergingModelFile.read(file))
        .isInstanceOf(FileFormatException.class)
        .hasMessageContaining("roofs.gpkg is not JSON");
  }
}
