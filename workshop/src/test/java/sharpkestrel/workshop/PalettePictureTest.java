package sharpkestrel.workshop;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.awt.image.IndexColorModel;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class PalettePictureTest {

  private static final int WIDTH = 200;

  @Test
  void fewColoursStayAsTheyAre() throws IOException {
    int[] pixels = new int[WIDTH * 100];
    for (int i = 0; i < pixels.length; i++) {
      pixels[i] = 0xff000000 | (i % 16 * 15) << 16 | (i / WIDTH % 12 * 20) << 8 | 77;
    }

    BufferedImage back = read(PalettePicture.png(pixels, WIDTH, 1_000_000));

    for (int i = 0; i < pixels.length; i++) {
      assertThat(back.getRGB(i % WIDTH, i / WIDTH)).isEqualTo(pixels[i]);
    }
  }

  /** Noise over a slope beside a small patch of a colour of its own, as a button is beside a picture. */
  @Test
  void manyColoursAreNearWhatTheyWereAndFewerTheSmallerTheFileMustBe() throws IOException {
    Random random = new Random(3);
    int[] pixels = new int[WIDTH * 200];
    for (int i = 0; i < pixels.length; i++) {
      int tone = Math.clamp((int) (40 + i / WIDTH * 0.8 + 9 * random.nextGaussian()), 0, 255);
      boolean button = i % WIDTH < 10 && i / WIDTH < 10;
      pixels[i] =
          button ? 0xffa5502a : 0xff000000 | tone << 16 | (tone + 20 & 0xff) << 8 | tone / 2;
    }

    byte[] fine = PalettePicture.png(pixels, WIDTH, 1_000_000);
    byte[] small = PalettePicture.png(pixels, WIDTH, fine.length * 4 / 5);

    BufferedImage back = read(fine);
    assertThat(back.getColorModel()).isInstanceOf(IndexColorModel.class);
    double off = 0;
    for (int i = 0; i < pixels.length; i++) {
      for (int shift : new int[] {0, 8, 16}) {
        off += Math.abs(
            (pixels[i] >> shift & 0xff) - (back.getRGB(i % WIDTH, i / WIDTH) >> shift & 0xff));
      }
    }
    assertThat(off / pixels.length).isLessThan(3);
    assertThat(back.getRGB(5, 5)).isEqualTo(0xffa5502a);
    assertThat(small.length).isLessThanOrEqualTo(fine.length * 4 / 5);
    assertThat(colours(read(small))).isLessThan(colours(back)).isGreaterThan(16);
  }

  private static long colours(BufferedImage image) {
    int[] pixels = image.getRGB(0, 0, WIDTH, image.getHeight(), null, 0, WIDTH);
    return Arrays.stream(pixels).distinct().count();
  }

  private static BufferedImage read(byte[] png) throws IOException {
    return ImageIO.read(new ByteArrayInputStream(png));
  }
}
