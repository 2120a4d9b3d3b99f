package sharpkestrel.io;

import com.github.jaiimageio.jpeg2000.impl.J2KImageReader;
import com.github.jaiimageio.jpeg2000.impl.J2KImageReaderSpi;
import java.awt.image.BufferedImage;
import java.awt.image.IndexColorModel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
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

/** PNG, JPEG and JPEG 2000 pictures, whole in memory. */
final class PictureFile {

  private static final long MOST_PIXELS = 200_000_000L;

  /** Bytes of pixels that one byte of a packed picture can stand for, at the most. */
  private static final long MOST_PACKED = 1_100;

  private static final long SMALL = 4 << 20;

  /** Seconds that reading JPEG 2000 may take, and pixels for each further one. */
  private static final long SLOWEST_START = 3;

  private static final long SLOWEST_PIXELS = 50_000;

  private PictureFile() {}

  static Raster open(Path path, RasterFiles.Palette palette) {
    if (!Files.isRegularFile(path)) {
      throw new FileFormatException(
          path + " is not there, or is not a file. Check the name and the folder.");
    }
    try (ImageInputStream in = ImageIO.createImageInputStream(path.toFile())) {
      ImageReader reader = reader(path, in);
      reader.setInput(in, true, true);
      try {
        checkSize(path, reader);
        return toRaster(path, readInTime(path, reader, in), palette);
      } finally {
        reader.dispose();
      }
    } catch (FileFormatException | CancellationException told) {
      throw told;
    } catch (IOException | RuntimeException | StackOverflowError damaged) {
      throw new FileFormatException(
          path + " cannot be read as a picture: " + damaged.getMessage() + ". Fetch it again.",
          damaged);
    }
  }

  private static ImageReader reader(Path path, ImageInputStream in) throws IOException {
    String name = path.toString().toLowerCase(Locale.ROOT);
    if (name.endsWith(".jp2") || name.endsWith(".j2k")) {
      JpegTwoHeader.check(path);
      return new J2KImageReaderSpi().createReaderInstance(null);
    }
    Iterator<ImageReader> readers =
        in == null ? List.<ImageReader>of().iterator() : ImageIO.getImageReaders(in);
    if (!readers.hasNext()) {
      throw new FileFormatException(path + " is not a PNG or JPEG picture.");
    }
    return readers.next();
  }

  private static void checkSize(Path path, ImageReader reader) throws IOException {
    long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
    long most = Math.min(MOST_PIXELS, Runtime.getRuntime().maxMemory() / 24);
    if (pixels > most) {
      throw new FileFormatException(path + " has " + pixels + " pixels; as a picture at most "
          + most + " are read. Convert it to a tiled GeoTIFF.");
    }
    if (pixels > SMALL + MOST_PACKED * Files.size(path)) {
      throw new FileFormatException(path + " claims " + pixels + " pixels but is only "
          + Files.size(path) + " bytes long; it is cut short or damaged. Fetch it again.");
    }
  }

  /**
   * The decoder of JPEG 2000 does not notice some kinds of damage and goes on for hours, so it is given the time that a whole file
   * of the size may take; then the file is closed under it.
   */
  private static BufferedImage readInTime(Path path, ImageReader reader, ImageInputStream in)
      throws IOException {
    if (!(reader instanceof J2KImageReader)) {
      return reader.read(0);
    }
    long seconds = SLOWEST_START + (long) reader.getWidth(0) * reader.getHeight(0) / SLOWEST_PIXELS;
    FutureTask<BufferedImage> task = new FutureTask<>(() -> reader.read(0));
    Thread thread = new Thread(task, "reading " + path.getFileName());
    thread.setDaemon(true);
    thread.start();
    try {
      return task.get(seconds, TimeUnit.SECONDS);
    } catch (TimeoutException late) {
      in.close();
      throw new FileFormatException(
          path + " cannot be read as JPEG 2000: it was not done after " + seconds
              + " s, so it is damaged, or made in a way that is read too slowly. Convert it to a tiled GeoTIFF.",
          late);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted while reading " + path);
    } catch (ExecutionException failed) {
      throw new IOException(String.valueOf(failed.getCause().getMessage()), failed.getCause());
    }
  }

  private static Raster toRaster(Path path, BufferedImage image, RasterFiles.Palette palette) {
    int width = image.getWidth();
    int height = image.getHeight();
    int bands = image.getRaster().getNumBands();
    boolean table = image.getColorModel() instanceof IndexColorModel;
    boolean coloured = table && palette == RasterFiles.Palette.COLOURS;
    boolean alpha = !table && image.getColorModel().hasAlpha();
    int colours = coloured ? 3 : alpha ? bands - 1 : bands;
    SampleType type =
        image.getColorModel().getComponentSize(0) > 8 ? SampleType.UINT16 : SampleType.UINT8;
    float[][] planes = new float[colours][width * height];
    int[] row = new int[width * bands];
    for (int y = 0; y < height; y++) {
      if (coloured) {
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
    BandRole[] roles = {BandRole.RED, BandRole.GREEN, BandRole.BLUE};
    List<Band> list = new ArrayList<>();
    for (int b = 0; b < colours; b++) {
      BandRole role = colours == 3 ? roles[b] : BandRole.OTHER;
      String name = role == BandRole.OTHER ? "band " + (b + 1) : role.label();
      list.add(new Band(name, role, "", type, Double.NaN));
    }
    Optional<GeoKeys.Reference> box = JpegTwoBoxes.reference(path);
    Grid grid = new Grid(
        width,
        height,
        box.map(GeoKeys.Reference::affine).orElse(Affine.IDENTITY),
        box.map(GeoKeys.Reference::crs).orElse(CrsName.NONE));
    return new MemoryRaster(grid, list, Attachments.NONE, planes);
  }
}
