package sharpkestrel.segment;

import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.RasterException;

/** What counts how much in a segmentation, read from texts such as {@code near_infrared=2}. */
record Weights(Map<BandRole, Double> bands, Criterion criterion) {

  private static final List<String> OTHERS =
      List.of("light", "colour", "height", "layer", "edges", "form", "texture");

  /**
   * @param texts name=number; what is left out counts 1
   * @param texture where nothing is said of it
   */
  static Weights parse(List<String> texts, double texture) {
    Map<BandRole, Double> bands = new EnumMap<>(BandRole.class);
    Map<String, Double> others = new LinkedHashMap<>();
    for (String text : texts) {
      String[] sides = text.split("=");
      String name = sides[0].strip();
      double value = value(sides, text);
      BandRole role = BandRole.guess(name);
      if (OTHERS.contains(name)) {
        others.put(name, value);
      } else if (role != BandRole.OTHER) {
        bands.put(role, value);
      } else {
        throw wrong(text);
      }
    }
    Criterion standard = Criterion.STANDARD;
    double edges = others.getOrDefault("edges", 1.0) * standard.edges();
    if (edges > 2) {
      throw new RasterException(
          "Edges count at most 2: then only the contrast across a border counts, not " + edges
              + ".");
    }
    return new Weights(
        bands,
        new Criterion(
            others.getOrDefault("light", 1.0) * standard.light(),
            others.getOrDefault("colour", 1.0) * standard.colour(),
            others.getOrDefault("height", 1.0) * standard.height(),
            others.getOrDefault("layer", 1.0) * standard.layers(),
            edges,
            others.getOrDefault("form", 1.0) * standard.form(),
            others.getOrDefault("texture", texture)));
  }

  private static double value(String[] sides, String text) {
    try {
      double value = sides.length == 2 ? Double.parseDouble(sides[1]) : -1;
      if (value >= 0) {
        return value;
      }
    } catch (NumberFormatException notANumber) {
      // reported below with the whole text
    }
    throw wrong(text);
  }

  private static RasterException wrong(String text) {
    return new RasterException("A weight is name=number, e.g. near_infrared=2, not '" + text
        + "'. Names are the roles of bands, and " + String.join(", ", OTHERS) + ".");
  }
}
