package sharpkestrel.objects;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sharpkestrel.expr.Table;

/** Every feature there is: its name, what it is called, its unit, how it is defined and where that comes from. */
public final class FeatureCatalogue {

  /** Kinds of features, as they are chosen. */
  public enum Group {
    SHAPE("Shape"),
    OUTLINE("Outline"),
    SPECTRAL("Spectral"),
    TEXTURE("Texture"),
    HEIGHT("Height"),
    CONTEXT("Context");

    private final String title;

    Group(String title) {
      this.title = title;
    }
  }

  /**
   * @param name of its column; {@code BAND} stands for the band's role or name
   * @param unit {@code BAND} for that of the band
   */
  public record Feature(
      Group group, String name, String title, String unit, String definition, String source) {}

  private static final String BAND = "BAND";
  private static final String ROSENFELD =
      "Rosenfeld and Kak 1982, Digital Picture Processing, 2nd ed., chapter 11";
  private static final String HARALICK =
      "Haralick, Shanmugam and Dinstein 1973, IEEE Trans. SMC 3(6)";
  private static final Map<String, Feature> FEATURES = new LinkedHashMap<>();

  private FeatureCatalogue() {}

  private static void add(
      Group group, String name, String title, String unit, String definition, String source) {
    FEATURES.put(name, new Feature(group, name, title, unit, definition, source));
  }

  static {
    add(Group.SHAPE, "area", "Area", "m²", "Pixels times the ground area of a pixel.", "");
    add(
        Group.SHAPE,
        "perimeter",
        "Perimeter",
        "m",
        "Length of the border from its crossings with lines in four directions, which does not depend on how an object is turned.",
        "Crofton's formula; within 6 % for straight sides");
    add(Group.SHAPE, "length", "Length", "m", "Longer side of the smallest rectangle.", "");
    add(Group.SHAPE, "width", "Width", "m", "Shorter side of the smallest rectangle.", "");
    add(Group.SHAPE, "elongation", "Elongation", "", "Length over width.", "");
    add(
        Group.SHAPE,
        "compactness",
        "Compactness",
        "",
        "4 pi area over perimeter squared: 1 for a disc.",
        ROSENFELD);
    add(
        Group.SHAPE,
        "rectangularity",
        "Rectangularity",
        "",
        "Area over that of the smallest rectangle.",
        "Rosin 1999, Machine Vision and Applications 11(4)");
    add(
        Group.SHAPE,
        "orientation",
        "Orientation",
        "°",
        "Direction of the smallest rectangle's longer side, clockwise from north, 0 to 180.",
        "");
    add(Group.SHAPE, "hull_area", "Hull area", "m²", "Area of the convex hull of its pixels.", "");
    add(Group.SHAPE, "solidity", "Solidity", "", "Area over hull area.", "");
    add(
        Group.SHAPE,
        "eccentricity",
        "Eccentricity",
        "",
        "Of the ellipse with the same second moments, pixels taken as squares.",
        ROSENFELD);
    add(
        Group.SHAPE,
        "holes",
        "Holes",
        "",
        "Holes of an object in one piece: 1 less the Euler number.",
        "Gray 1971, IEEE Trans. Computers 20(5)");
    add(
        Group.OUTLINE,
        "symmetry",
        "Symmetry",
        "",
        "Share of the object that a half turn about its middle lays on itself: 1 for rectangles and ellipses.",
        "");
    add(
        Group.OUTLINE,
        "corners",
        "Corners",
        "",
        "Corners of the outline squared with a tolerance of one pixel.",
        "");
    add(
        Group.OUTLINE,
        "straight_share",
        "Straight share",
        "",
        "Share of the simplified border that is in sides of a tenth of it and more.",
        "");
    band("mean", "mean", "Mean of the band.");
    band("spread", "spread", "Standard deviation of the band.");
    band("min", "minimum", "Least value of the band.");
    band("max", "maximum", "Largest value of the band.");
    band("p10", "10th percentile", "Value that a tenth of the pixels are under.");
    band("p50", "median", "Value that half of the pixels are under.");
    band("p90", "90th percentile", "Value that nine tenths of the pixels are under.");
    band("share", "share", "", "Mean over the sum of the means of all bands.");
    band(
        "contrast",
        "contrast",
        "Mean less that of the neighbours, each as much as its share of the common border.");
    add(Group.SPECTRAL, "brightness", "Brightness", BAND, "Mean of the means of all bands.", "");
    add(
        Group.SPECTRAL,
        "variation",
        "Variation",
        "",
        "Mean over the bands of spread over mean.",
        "");
    add(
        Group.SPECTRAL,
        "ndvi",
        "Vegetation index",
        "",
        "(near infrared - red) / (near infrared + red) of the means.",
        "Rouse, Haas, Schell and Deering 1974");
    add(
        Group.SPECTRAL,
        "ndwi",
        "Water index",
        "",
        "(green - near infrared) / (green + near infrared) of the means.",
        "McFeeters 1996, Int. J. Remote Sensing 17(7)");
    add(Group.SPECTRAL, "blue_red", "Blue / red", "", "Blue over red, of the means.", "");
    texture("contrast", "Contrast of pairs", "Mean of the squared difference of grey levels.");
    texture("dissimilarity", "Dissimilarity of pairs", "Mean of the difference of grey levels.");
    texture(
        "homogeneity",
        "Homogeneity of pairs",
        "Mean of 1 / (1 + squared difference of grey levels).");
    texture("second_moment", "Angular second moment", "Sum of the squared shares of all pairs.");
    texture(
        "entropy", "Entropy of pairs", "Minus the sum of shares times their natural logarithms.");
    texture(
        "correlation",
        "Correlation of pairs",
        "Covariance of the two grey levels over their variance; 1 where they do not vary.");
    add(
        Group.TEXTURE,
        "local_variance",
        "Local variance",
        "",
        "Mean of the variance of grey levels in squares of 3 x 3 pixels.",
        "Woodcock and Strahler 1987, Remote Sensing of Environment 21(3)");
    add(
        Group.TEXTURE,
        "edge_density",
        "Edge density",
        "",
        "Mean length of the gradient of grey levels, levels a pixel.",
        "");
    add(
        Group.TEXTURE,
        "edge_direction",
        "Edge direction",
        "°",
        "Direction in which edges run, clockwise from north, 0 to 180: the mean of doubled angles, weighted by gradient.",
        "Bigün and Granlund 1987, ICCV");
    add(
        Group.TEXTURE,
        "edge_agreement",
        "Edge agreement",
        "",
        "0: edges in all directions alike; 1: in one direction alone.",
        "Bigün and Granlund 1987, ICCV");
    for (int k = 0; k < EdgeFeatures.DIRECTIONS; k++) {
      double width = 180.0 / EdgeFeatures.DIRECTIONS;
      add(
          Group.TEXTURE,
          EdgeFeatures.share(k),
          String.format(Locale.ROOT, "Edges %.0f to %.0f°", k * width, (k + 1) * width),
          "",
          String.format(
              Locale.ROOT,
              "Share of the gradient whose edges run %.1f to %.1f° clockwise from north.",
              k * width,
              (k + 1) * width),
          "");
    }
    add(Group.HEIGHT, "height_mean", "Height, mean", "m", "Mean of surface less terrain.", "");
    add(Group.HEIGHT, "height_max", "Height, maximum", "m", "Largest surface less terrain.", "");
    add(
        Group.HEIGHT,
        "height_p10",
        "Height, 10th percentile",
        "m",
        "Height that a tenth of the pixels are under.",
        "");
    add(
        Group.HEIGHT,
        "height_p50",
        "Height, median",
        "m",
        "Height that half of the pixels are under.",
        "");
    add(
        Group.HEIGHT,
        "height_p90",
        "Height, 90th percentile",
        "m",
        "Height that nine tenths of the pixels are under.",
        "");
    add(
        Group.HEIGHT,
        "height_spread",
        "Height, spread",
        "m",
        "Standard deviation of surface less terrain.",
        "");
    add(
        Group.HEIGHT,
        "slope",
        "Slope",
        "°",
        "Steepness of the plane that fits the surface best.",
        "");
    add(
        Group.HEIGHT,
        "roughness",
        "Roughness",
        "m",
        "Root mean square of the surface about the plane that fits it best.",
        "");
    add(Group.CONTEXT, "neighbours", "Neighbours", "", "Objects that share a pixel side.", "");
    add(
        Group.CONTEXT,
        "beside_share",
        "Border beside",
        "",
        "Share of the border with other objects that is with objects that pass the test 'beside'.",
        "");
    add(
        Group.CONTEXT,
        "beside_distance",
        "Distance to beside",
        "m",
        "From the object's pixels to the nearest of an object that passes the test 'beside'; 0 for those.",
        "");
    add(
        Group.CONTEXT,
        "shadow_share",
        "Shadow away from the sun",
        "",
        "Share of the border that faces away from the sun behind which it is dark: what stands throws a shadow.",
        "Irvin and McKeown 1989, IEEE Trans. SMC 19(6)");
    add(
        Group.CONTEXT,
        "coarser_area",
        "Coarser, area",
        "m²",
        "Area of the coarser object in which most of it lies; likewise every other number of that object, as coarser_NAME.",
        "");
    add(
        Group.CONTEXT,
        "share_of_coarser",
        "Share of coarser",
        "",
        "Area over that of the coarser object in which most of it lies.",
        "");
  }

  private static void band(String name, String title, String definition) {
    band(name, title, BAND, definition);
  }

  private static void band(String name, String title, String unit, String definition) {
    add(Group.SPECTRAL, BAND + "_" + name, BAND + ", " + title, unit, definition, "");
  }

  private static void texture(String name, String title, String definition) {
    add(
        Group.TEXTURE,
        "texture_" + name,
        title,
        "",
        definition
            + " Pairs of pixels one apart within the object, in the chosen directions, each both ways.",
        HARALICK);
  }

  public static List<Feature> all() {
    return List.copyOf(FEATURES.values());
  }

  /** A column of a feature. */
  static Table.Column column(String name, double[] values) {
    Feature feature = FEATURES.get(name);
    return new Table.Column(name, feature.title, feature.unit, values);
  }

  /** A column of a feature whose unit is that of the bands. */
  static Table.Column column(String name, String unit, double[] values) {
    return new Table.Column(name, FEATURES.get(name).title, unit, values);
  }

  /**
   * A column of a band's feature.
   *
   * @param key of the band, with which the name begins
   */
  static Table.Column ofBand(
      String key, String bandTitle, String bandUnit, String name, double[] values) {
    Feature feature = FEATURES.get(BAND + "_" + name);
    return new Table.Column(
        key + "_" + name,
        feature.title.replace(BAND, bandTitle),
        feature.unit.replace(BAND, bandUnit),
        values);
  }

  /** The catalogue as a page. */
  public static String markdown() {
    StringBuilder page = new StringBuilder(
        "# Features of objects\n\nGenerated from the catalogue by `./kestrel reference`; a test keeps it true. `measure` makes"
            + " them; tests, formulas, colours and tables take them by name. BAND stands for a band's role, or its name where it"
            + " has none.\n");
    for (Group group : Group.values()) {
      page.append("\n## ")
          .append(group.title)
          .append(
              "\n\n| name | what it is called | unit | definition | source |\n|---|---|---|---|---|\n");
      for (Feature feature : FEATURES.values()) {
        if (feature.group == group) {
          page.append("| `")
              .append(feature.name)
              .append("` | ")
              .append(feature.title)
              .append(" | ")
              .append(feature.unit.equals(BAND) ? "of the band" : feature.unit)
              .append(" | ")
              .append(feature.definition)
              .append(" | ")
              .append(feature.source)
              .append(" |\n");
        }
      }
    }
    return page.toString();
  }
}
