package sharpkestrel.demo.survey;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import sharpkestrel.raster.Window;

/** The marks that compression as of JPEG leaves in three bands of 8 bits. */
final class Squeezed {

  /** Sides of what is compressed as one: blocks and their halved colours fit into it. */
  static final int SIDE = 16;

  private Squeezed() {}

  /**
   * Compresses planes and unpacks them again.
   *
   * @param window whose corners are multiples of {@value #SIDE}, so that blocks are the same whichever window they are in
   * @param quality 1 to 100
   */
  static float[][] through(float[][] planes, Window window, int quality) {
    BufferedImage image =
        new BufferedImage(window.width(), window.height(), BufferedImage.TYPE_INT_RGB);
    for (int i = 0; i < window.area(); i++) {
      int rgb = (int) planes[0][i] << 16 | (int) planes[1][i] << 8 | (int) planes[2][i];
      image.setRGB(i % window.width(), i / window.width(), rgb);
    }
    BufferedImage marked = unpacked(packed(image, quality));
    float[][] after = new float[3][window.area()];
    for (int i = 0; i < window.area(); i++) {
      int rgb = marked.getRGB(i % window.width(), i / window.width());
      // 0 is kept for no data
      after[0][i] = Math.max(1, rgb >> 16 & 255);
      after[1][i] = Math.max(1, rgb >> 8 & 255);
      after[2][i] = Math.max(1, rgb & 255);
    }
    return after;
  }

  private static byte[] packed(BufferedImage image, int quality) {
    ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ImageOutputStream out = ImageIO.createImageOutputStream(bytes)) {
      ImageWriteParam how = writer.getDefaultWriteParam();
      how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
      how.setCompressionQuality(quality / 100f);
      writer.setOutput(out);
      writer.write(null, new IIOImage(image, null, null), how);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    } finally {
      writer.dispose();
    }
    return bytes.toByteArray();
  }

  private static BufferedImage unpacked(byte[] bytes) {
    try {
      return ImageIO.read(new ByteArrayInputStream(bytes));
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
  }
}
