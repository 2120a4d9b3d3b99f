package sharpkestrel.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.w3c.dom.Element;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * A virtual raster of common software: an XML text that lays pieces of other files beside and over each other, each pixel for
 * pixel. What stretches, filters or computes pixels is refused.
 */
final class VirtualRaster extends DerivedRaster {

  private static final int MOST_PIECES = 100_000;

  /** Virtual rasters of virtual rasters, at the most. */
  private static final int DEEPEST = 8;

  private static final ThreadLocal<Integer> DEPTH = ThreadLocal.withInitial(() -> 0);

  /** Pixels of a file's band and where they come to lie. */
  private record Piece(Raster file, int band, Window from, int x, int y) {}

  private final List<List<Piece>> pieces;

  private VirtualRaster(Grid grid, List<Band> bands, List<List<Piece>> pieces) {
    super(grid, bands, Attachments.NONE, Zoom.POINTWISE);
    this.pieces = pieces;
  }

  /**
   * @throws FileFormatException where the text is none, a file it names cannot be read, or more is asked than laying pixels
   */
  static Raster open(Path path) {
    int depth = DEPTH.get();
    if (depth >= DEEPEST) {
      throw new FileFormatException(path + " is a virtual raster of virtual rasters, more than "
          + DEEPEST + " deep; it may name itself. Give the files themselves.");
    }
    DEPTH.set(depth + 1);
    try {
      return new Reader(path).raster();
    } catch (IOException unreadable) {
      throw new FileFormatException(
          path + " cannot be read as a virtual raster: " + unreadable.getMessage() + ".",
          unreadable);
    } finally {
      DEPTH.set(depth);
    }
  }

  /** The files that a virtual raster names. */
  static Set<Path> sources(Path path) throws IOException {
    Reader reader = new Reader(path);
    Set<Path> files = new LinkedHashSet<>();
    for (Element band : Xml.children(reader.root, "VRTRasterBand")) {
      for (Element source : reader.sourcesOf(band)) {
        files.add(reader.file(source));
      }
    }
    return files;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    if (level > 0) {
      Planes.readByHalving(this, level, window, target, request);
      return;
    }
    Planes.fillNaN(target);
    for (int b = 0; b < target.length; b++) {
      for (Piece piece : target[b] == null ? List.<Piece>of() : pieces.get(b)) {
        Window at = new Window(piece.x, piece.y, piece.from.width(), piece.from.height());
        Window common = at.intersect(window);
        if (common.isEmpty()) {
          continue;
        }
        float[][] planes = new float[piece.file.bands().size()][];
        planes[piece.band] = new float[common.area()];
        int dx = piece.from.x() - piece.x;
        int dy = piece.from.y() - piece.y;
        Window there =
            new Window(common.x() + dx, common.y() + dy, common.width(), common.height());
        piece.file.read(0, there, planes, request);
        lay(planes[piece.band], common, target[b], window);
      }
    }
  }

  /** A piece hides what lies under it where it has data. */
  private static void lay(float[] over, Window common, float[] plane, Window window) {
    for (int i = 0; i < over.length; i++) {
      if (!Float.isNaN(over[i])) {
        int y = common.y() + i / common.width() - window.y();
        int x = common.x() + i % common.width() - window.x();
        plane[y * window.width() + x] = over[i];
      }
    }
  }

  private static final class Reader {
    private final Path path;
    private final Element root;
    private final Map<Path, Raster> open = new TreeMap<>();
    private int count;

    Reader(Path path) throws IOException {
      this.path = path;
      root = Xml.parse(Files.readString(path));
      if (!root.getTagName().equals("VRTDataset")) {
        throw new IOException("it begins with <" + root.getTagName() + ">, not <VRTDataset>");
      }
      if (!root.getAttribute("subClass").isEmpty()) {
        throw refused("it is of the kind " + root.getAttribute("subClass"));
      }
    }

    FileFormatException refused(String why) {
      return new FileFormatException(path + " asks for more than laying pixels side by side: " + why
          + ". Write it to a GeoTIFF, or give its files themselves.");
    }

    Raster raster() throws IOException {
      int width = number(root.getAttribute("rasterXSize"));
      int height = number(root.getAttribute("rasterYSize"));
      if (width < 1 || height < 1) {
        throw new IOException("its size is " + width + " x " + height + " pixels");
      }
      List<Band> bands = new ArrayList<>();
      List<List<Piece>> all = new ArrayList<>();
      Map<Integer, Description.OfBand> told = new TreeMap<>();
      for (Element element : Xml.children(root, "VRTRasterBand")) {
        if (!element.getAttribute("subClass").isEmpty()) {
          throw refused("a band of the kind " + element.getAttribute("subClass"));
        }
        List<Piece> laid = new ArrayList<>();
        for (Element source : sourcesOf(element)) {
          laid.add(piece(source));
        }
        SampleType type = type(element.getAttribute("dataType"));
        Description.OfBand of = AuxiliaryXml.band(element);
        double noData = TiffAbout.noData(Double.toString(of.noData()), type);
        told.put(bands.size(), of);
        bands.add(new Band("band " + (bands.size() + 1), BandRole.OTHER, "", type, noData));
        all.add(laid);
      }
      if (bands.isEmpty()) {
        throw new IOException("it has no band");
      }
      Grid grid = new Grid(
          width,
          height,
          Xml.text(root, "GeoTransform").flatMap(AuxiliaryXml::affine).orElse(Affine.IDENTITY),
          Xml.text(root, "SRS")
              .filter(wkt -> !wkt.isBlank())
              .map(CrsName::ofWkt)
              .orElse(CrsName.NONE));
      return Description.NONE.withBands(told).describe(new VirtualRaster(grid, bands, all), true);
    }

    List<Element> sourcesOf(Element band) {
      for (String refused : List.of("KernelFilteredSource", "AveragedSource", "ArraySource")) {
        if (!Xml.children(band, refused).isEmpty()) {
          throw refused("<" + refused + ">");
        }
      }
      List<Element> sources = new ArrayList<>(Xml.children(band, "SimpleSource"));
      for (Element complex : Xml.children(band, "ComplexSource")) {
        for (String refused : List.of("ScaleRatio", "ScaleOffset", "LUT", "Exponent")) {
          if (Xml.text(complex, refused).isPresent()) {
            throw refused("<" + refused + ">");
          }
        }
        sources.add(complex);
      }
      return sources;
    }

    Path file(Element source) throws IOException {
      List<Element> names = Xml.children(source, "SourceFilename");
      if (names.isEmpty()) {
        throw new IOException("a source names no file");
      }
      String name = names.getFirst().getTextContent().strip();
      try {
        return names.getFirst().getAttribute("relativeToVRT").equals("1")
            ? path.resolveSibling(name)
            : Path.of(name);
      } catch (java.nio.file.InvalidPathException senseless) {
        throw new IOException("'" + name + "' is no name of a file", senseless);
      }
    }

    private Piece piece(Element source) throws IOException {
      if (++count > MOST_PIECES) {
        throw new IOException("it has more than " + MOST_PIECES + " pieces");
      }
      Path file = file(source);
      Raster raster = open.get(file);
      if (raster == null) {
        raster = opened(file);
        open.put(file, raster);
      }
      int band = number(Xml.text(source, "SourceBand").orElse("1")) - 1;
      if (band < 0 || band >= raster.bands().size()) {
        throw new IOException("it asks for band " + (band + 1) + " of " + file + ", which has "
            + raster.bands().size());
      }
      Window whole = raster.grid().window();
      Window from = window(source, "SrcRect", whole);
      Window to = window(source, "DstRect", whole);
      if (from.width() != to.width() || from.height() != to.height()) {
        throw refused("pixels of " + file + " are resampled");
      }
      double hole = AuxiliaryXml.number(source, "NODATA").orElse(Double.NaN);
      Description.OfBand hides = Description.OfBand.NONE.withNoData(hole);
      Raster shown = Double.isNaN(hole)
          ? raster
          : Description.NONE.withBands(Map.of(band, hides)).describe(raster, true);
      return new Piece(shown, band, from, to.x(), to.y());
    }

    private Raster opened(Path file) {
      try {
        return RasterFiles.open(file);
      } catch (FileFormatException unreadable) {
        throw new FileFormatException(
            path + " lays out a file that cannot be read: " + unreadable.getMessage(), unreadable);
      }
    }

    private Window window(Element source, String name, Window whole) throws IOException {
      List<Element> found = Xml.children(source, name);
      if (found.isEmpty()) {
        return whole;
      }
      Element rect = found.getFirst();
      int width = number(rect.getAttribute("xSize"));
      int height = number(rect.getAttribute("ySize"));
      if (width < 0 || height < 0) {
        throw new IOException("a piece of it is " + width + " x " + height + " pixels");
      }
      return new Window(
          number(rect.getAttribute("xOff")), number(rect.getAttribute("yOff")), width, height);
    }

    private int number(String text) throws IOException {
      double value;
      try {
        value = Double.parseDouble(text.strip());
      } catch (NumberFormatException none) {
        throw new IOException("'" + text + "' should be a whole number", none);
      }
      if (Math.abs(value - Math.rint(value)) > 1e-6) {
        throw refused("its pieces do not begin and end with whole pixels");
      }
      if (Math.abs(value) > Integer.MAX_VALUE) {
        throw new IOException(text + " is too large");
      }
      return (int) Math.rint(value);
    }

    private SampleType type(String name) throws IOException {
      return switch (name) {
        case "", "Byte" -> SampleType.UINT8;
        case "UInt16" -> SampleType.UINT16;
        case "Int16", "Int8" -> SampleType.INT16;
        case "UInt32" -> SampleType.UINT32;
        case "Int32" -> SampleType.INT32;
        case "Float32", "Float64" -> SampleType.FLOAT32;
        default -> throw new IOException("samples of type " + name + " are not read");
      };
    }
  }
}
