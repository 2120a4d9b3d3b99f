package sharpkestrel.workshop;

import java.awt.image.BufferedImage;
import java.awt.image.IndexColorModel;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;

/**
 * A picture as a PNG with a palette: boxes of colours are halved at their median along their longest side, the box in which
 * colours differ most first (Heckbert 1982, SIGGRAPH, 297-307). The commonest colours, those of buttons and marks, stay exactly
 * as they are. Fewer colours are taken until the file is small enough.
 */
final class PalettePicture {

  private static final int[] COLOURS = {256, 192, 144, 112, 88, 72, 56, 40};

  /** Share of the palette for colours that stay as they are, and pixels that such a one has at least. */
  private static final double EXACT = 0.5;

  private static final int LEAST_PIXELS = 48;

  private static final double VIVID = 12;

  private PalettePicture() {}

  /**
   * @param pixels red, green and blue in a number, row by row
   * @param most bytes of the file, which is larger only where no palette that is tried makes it so small
   */
  static byte[] png(int[] pixels, int width, int most) throws IOException {
    byte[] file = {};
    for (int colours : COLOURS) {
      file = encoded(indexed(pixels, width, palette(pixels, colours)));
      if (file.length <= most) {
        break;
      }
    }
    return file;
  }

  /** Colours of a palette and for each of the picture's own, in rising order, which one stands for it. */
  record Palette(int[] colours, int[] own, int[] standsFor) {}

  static Palette palette(int[] pixels, int most) {
    int[] sorted = pixels.clone();
    for (int i = 0; i < sorted.length; i++) {
      sorted[i] &= 0xffffff;
    }
    Arrays.sort(sorted);
    int[] own = Arrays.stream(sorted).distinct().toArray();
    long[] counts = new long[own.length];
    int at = 0;
    for (int colour : sorted) {
      at += own[at] == colour ? 0 : 1;
      counts[at]++;
    }
    Integer[] order = new Integer[own.length];
    Arrays.setAll(order, i -> i);
    Arrays.sort(
        order, (a, b) -> Double.compare(worth(own[b], counts[b]), worth(own[a], counts[a])));
    List<Box> boxes = new ArrayList<>();
    int exact = 0;
    while (exact < own.length - 1
        && exact < EXACT * most
        && worth(own[order[exact]], counts[order[exact]]) > 0) {
      boxes.add(new Box(order, own, counts, exact, ++exact));
    }
    boxes.add(new Box(order, own, counts, exact, own.length));
    while (boxes.size() < most) {
      Box widest = boxes.getFirst();
      for (Box box : boxes) {
        widest = box.worth > widest.worth ? box : widest;
      }
      if (widest.worth == 0) {
        break;
      }
      boxes.remove(widest);
      boxes.addAll(widest.halves());
    }
    int[] colours = new int[boxes.size()];
    int[] standsFor = new int[own.length];
    for (int k = 0; k < colours.length; k++) {
      colours[k] = boxes.get(k).mean();
      for (int i = boxes.get(k).from; i < boxes.get(k).to; i++) {
        standsFor[order[i]] = k;
      }
    }
    return new Palette(colours, own, standsFor);
  }

  /** How much a colour is to stay as it is: common ones, and vivid ones as marks are. */
  private static double worth(int colour, long count) {
    int high = Math.max(channel(colour, 0), Math.max(channel(colour, 1), channel(colour, 2)));
    int low = Math.min(channel(colour, 0), Math.min(channel(colour, 1), channel(colour, 2)));
    return count >= LEAST_PIXELS ? count * (1 + VIVID * (high - low) / 255.0) : 0;
  }

  private static int channel(int colour, int which) {
    return colour >> (16 - 8 * which) & 0xff;
  }

  /** Colours of an order from one place to another. */
  private static final class Box {
    final Integer[] order;
    final int[] own;
    final long[] counts;
    final int from;
    final int to;
    final int longest;
    final double worth;

    Box(Integer[] order, int[] own, long[] counts, int from, int to) {
      this.order = order;
      this.own = own;
      this.counts = counts;
      this.from = from;
      this.to = to;
      int axis = 0;
      double most = 0;
      for (int c = 0; c < 3; c++) {
        double n = 0;
        double sum = 0;
        double squares = 0;
        for (int i = from; i < to; i++) {
          double v = channel(own[order[i]], c);
          // a patch of one colour, however large, needs one colour
          double weight = Math.sqrt(counts[order[i]]);
          n += weight;
          sum += weight * v;
          squares += weight * v * v;
        }
        double spread = squares - sum * sum / n;
        if (spread > most + 1e-6 * squares) {
          most = spread;
          axis = c;
        }
      }
      longest = axis;
      worth = to - from > 1 ? most : 0;
    }

    List<Box> halves() {
      Arrays.sort(order, from, to, (a, b) -> channel(own[a], longest) - channel(own[b], longest));
      double total = 0;
      for (int i = from; i < to; i++) {
        total += Math.sqrt(counts[order[i]]);
      }
      double below = 0;
      int middle = from;
      while (middle < to - 1 && (middle == from || below < total / 2)) {
        below += Math.sqrt(counts[order[middle++]]);
      }
      return List.of(
          new Box(order, own, counts, from, middle), new Box(order, own, counts, middle, to));
    }

    int mean() {
      int colour = 0;
      for (int c = 0; c < 3; c++) {
        double n = 0;
        double sum = 0;
        for (int i = from; i < to; i++) {
          n += counts[order[i]];
          sum += (double) counts[order[i]] * channel(own[order[i]], c);
        }
        colour = colour << 8 | (int) Math.round(sum / n);
      }
      return colour;
    }
  }

  private static BufferedImage indexed(int[] pixels, int width, Palette palette) {
    int[] colours = palette.colours;
    BufferedImage image = new BufferedImage(
        width,
        pixels.length / width,
        BufferedImage.TYPE_BYTE_INDEXED,
        new IndexColorModel(
            8, colours.length, colours, 0, false, -1, java.awt.image.DataBuffer.TYPE_BYTE));
    byte[] row = new byte[pixels.length];
    for (int i = 0; i < pixels.length; i++) {
      int own = Arrays.binarySearch(palette.own, pixels[i] & 0xffffff);
      row[i] = (byte) palette.standsFor[own];
    }
    image.getRaster().setDataElements(0, 0, width, pixels.length / width, row);
    return image;
  }

  private static byte[] encoded(BufferedImage image) throws IOException {
    ImageWriter writer = ImageIO.getImageWritersByFormatName("png").next();
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ImageOutputStream out = ImageIO.createImageOutputStream(bytes)) {
      ImageWriteParam smallest = writer.getDefaultWriteParam();
      smallest.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
      smallest.setCompressionQuality(0);
      writer.setOutput(out);
      writer.write(null, new IIOImage(image, null, null), smallest);
    } finally {
      writer.dispose();
    }
    return bytes.toByteArray();
  }
}
