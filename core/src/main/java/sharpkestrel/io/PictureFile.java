package sharpkestrel.io;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.SampleType;

/** PNG and JPEG pictures, whole in memory, with the affine of a world file where one lies beside them. */
final class PictureFile {

  private static final long MOST_PIXELS = 200_000_000L;

  private PictureFile() {}

  static Raster open(Path path) {
    try (ImageInputStream in = ImageIO.createImageInputStream(path.toFile())) {
      var readers = in == null ? null : ImageIO.getImageReaders(in);
      if (readers == null || !readers.hasNext()) {
        throw new FileFormatException(path + " is not a PNG or JPEG picture, or is not there.");
      }
      ImageReader reader = readers.next();
      reader.setInput(in);
      long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
      if (pixels > Math.min(MOST_PIXELS, Runtime.getRuntime().maxMemory() / 24)) {
        throw new FileFormatException(path + " has " + pixels
            + " pixels, too many for a picture. Convert it to a tiled GeoTIFF.");
      }
      BufferedImage image = reader.read(0);
      reader.dispose();
      return toRaster(image, worldFile(path).orElse(Affine.IDENTITY));
    } catch (IOException | RuntimeException damaged) {
      if (damaged instanceof FileFormatException clear) {
        throw clear;
      }
      throw new FileFormatException(
          path + " cannot be read as a picture: " + damaged.getMessage(), damaged);
    }
  }

  private static Raster toRaster(BufferedImage image, Affine affine) {
    int width = image.getWidth();
    int height = image.getHeight();
    int bands = image.getRaster().getNumBands();
    boolean indexed = image.getColorModel() instanceof java.awt.image.IndexColorModel;
    boolean alpha = image.getColorModel().hasAlpha();
    int colours = indexed ? 3 : alpha ? bands - 1 : bands;
    SampleType type =
        image.getColorModel().getComponentSize(0) > 8 ? SampleType.UINT16 : SampleType.UINT8;
    float[][] planes = new float[colours][width * height];
    int[] row = new int[width * bands];
    for (int y = 0; y < height; y++) {
      if (indexed) {
        for (int x = 0; x < width; x++) {
          int rgb = image.getRGB(x, y);
          for (int b = 0; b < 3; b++) {
            planes[b][y * width + x] = rgb >>> 24 == 0 ? Float.NaN : rgb >> (16 - 8 * b) & 0xff;
          }
        }
        continue;
      }
      image.getRaster().getPixels(0, y, width, 1, row);
      for (int x = 0; x < width; x++) {
        boolean clear = alpha && row[x * bands + colours] == 0;
        for (int b = 0; b < colours; b++) {
          planes[b][y * width + x] = clear ? Float.NaN : row[x * bands + b];
        }
      }
    }
    BandRole[] roles = colours == 3
        ? new BandRole[] {BandRole.RED, BandRole.GREEN, BandRole.BLUE}
        : new BandRole[] {BandRole.PAN};
    List<Band> list = new ArrayList<>();
    for (int b = 0; b < colours; b++) {
      BandRole role = b < roles.length ? roles[b] : BandRole.OTHER;
      list.add(new Band(role.label(), role, "", type, Double.NaN));
    }
    return new MemoryRaster(
        new Grid(width, height, affine, CrsName.NONE), list, Attachments.NONE, planes);
  }

  /** Six numbers, one a line: pixel width, two rotations, pixel height, centre of the first pixel. */
  static Optional<Affine> worldFile(Path picture) throws IOException {
    String name = picture.getFileName().toString();
    int dot = name.lastIndexOf('.');
    String stem = name.substring(0, dot + 1);
    String ending = name.substring(dot + 1);
    String brief = "" + ending.charAt(0) + ending.charAt(ending.length() - 1) + 'w';
    for (String candidate : List.of(brief, ending + "w", "wld")) {
      Path beside = picture.resolveSibling(stem + candidate);
      if (Files.isRegularFile(beside)) {
        String[] numbers = Files.readString(beside).strip().split("\\s+");
        if (numbers.length < 6) {
          throw new FileFormatException(
              beside + " is a world file with " + numbers.length + " numbers, not 6.");
        }
        double[] n = new double[6];
        for (int i = 0; i < 6; i++) {
          n[i] = Double.parseDouble(numbers[i]);
        }
        return Optional.of(new Affine(n[0], n[2], n[4], n[1], n[3], n[5]).shifted(-0.5, -0.5));
      }
    }
    return Optional.empty();
  }
}
