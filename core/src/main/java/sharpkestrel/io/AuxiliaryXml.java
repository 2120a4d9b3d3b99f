package sharpkestrel.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.w3c.dom.Element;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;

/**
 * The file {@code NAME.aux.xml} that common software puts beside a raster: its system, its place, and of each band the
 * name, no-data, scale, offset, unit and colour.
 */
final class AuxiliaryXml {

  private AuxiliaryXml() {}

  static Path beside(Path raster) {
    return TiffPyramid.beside(raster, ".aux.xml");
  }

  /**
   * @throws FileFormatException where there is a file, but no XML in it
   */
  static Description read(Path file) {
    Element root;
    try {
      root = Xml.parse(Files.readString(file));
    } catch (IOException unreadable) {
      throw new FileFormatException(
          file + " cannot be read: " + unreadable.getMessage()
              + ". Mend it, or take it away to open the raster without.",
          unreadable);
    }
    Map<Integer, Description.OfBand> bands = new TreeMap<>();
    for (Element band : Xml.children(root, "PAMRasterBand")) {
      String number = band.getAttribute("band");
      if (number.matches("\\d{1,5}") && Integer.parseInt(number) > 0) {
        bands.put(Integer.parseInt(number) - 1, band(band));
      }
    }
    return new Description(
        Xml.text(root, "SRS").filter(wkt -> !wkt.isBlank()).map(CrsName::ofWkt),
        Xml.text(root, "GeoTransform").flatMap(AuxiliaryXml::affine),
        points(root),
        Optional.empty(),
        Double.NaN,
        Double.NaN,
        bands);
  }

  static Description.OfBand band(Element band) {
    Optional<String> name = Xml.text(band, "Description").filter(text -> !text.isBlank());
    Optional<BandRole> colour = Xml.text(band, "ColorInterp").map(BandRole::guess);
    return new Description.OfBand(
        name,
        name.map(BandRole::inText)
            .filter(role -> role != BandRole.OTHER)
            .or(() -> colour)
            .filter(role -> role != BandRole.OTHER),
        Xml.text(band, "UnitType"),
        number(band, "NoDataValue").orElse(Double.NaN),
        number(band, "Scale").orElse(1),
        number(band, "Offset").orElse(0),
        Optional.empty());
  }

  static OptionalDouble number(Element parent, String name) {
    try {
      return Xml.text(parent, name)
          .map(text -> OptionalDouble.of(Double.parseDouble(text.strip())))
          .orElse(OptionalDouble.empty());
    } catch (NumberFormatException none) {
      return OptionalDouble.empty();
    }
  }

  /** Six numbers: west, pixel width, rotation, north, rotation, pixel height. */
  static Optional<Affine> affine(String text) {
    String[] parts = text.strip().split("\\s*,\\s*");
    if (parts.length != 6) {
      return Optional.empty();
    }
    double[] n = new double[6];
    try {
      for (int i = 0; i < 6; i++) {
        n[i] = Double.parseDouble(parts[i]);
      }
    } catch (NumberFormatException none) {
      return Optional.empty();
    }
    boolean area = n[1] * n[5] - n[2] * n[4] != 0;
    return area ? Optional.of(new Affine(n[1], n[2], n[0], n[4], n[5], n[3])) : Optional.empty();
  }

  private static Optional<ControlPoints> points(Element root) {
    List<Element> lists = Xml.children(root, "GCPList");
    if (lists.isEmpty()) {
      return Optional.empty();
    }
    List<ControlPoints.Point> points = new ArrayList<>();
    for (Element gcp : Xml.children(lists.getFirst(), "GCP")) {
      try {
        String height = gcp.getAttribute("Z");
        points.add(new ControlPoints.Point(
            Double.parseDouble(gcp.getAttribute("Pixel")),
            Double.parseDouble(gcp.getAttribute("Line")),
            Double.parseDouble(gcp.getAttribute("X")),
            Double.parseDouble(gcp.getAttribute("Y")),
            height.isBlank() ? 0 : Double.parseDouble(height)));
      } catch (NumberFormatException none) {
        continue;
      }
    }
    CrsName crs = CrsName.ofWkt(lists.getFirst().getAttribute("Projection"));
    return points.isEmpty() ? Optional.empty() : Optional.of(new ControlPoints(crs, points));
  }
}
