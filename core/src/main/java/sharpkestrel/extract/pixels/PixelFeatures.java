package sharpkestrel.extract.pixels;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sharpkestrel.expr.Cql2;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;
import sharpkestrel.sharpen.texture.WindowSize;

/**
 * What is known of each pixel: its bands, normalised differences of two bands, and the mean and the spread of a band in the window
 * about it. Each is known by a name, such as {@code red}, {@code red/near_infrared}, {@code red mean 4.5 m} or {@code red spread 9}, that
 * tells how to work it out in another scene; windows are in metres where the ground is known, so that they mean the same there.
 *
 * <p>A pixel without data in any band that is looked at has no features. Windows are cut off at the edges and leave out what has no data.
 */
public final class PixelFeatures {

  private static final Pattern WINDOWED = Pattern.compile("(.+) (mean|spread) (\\S+(?: m)?)");
  private static final double LEAST_SUM = 1e-12;
  private static final MathContext THREE_DIGITS = new MathContext(3);

  private enum Kind {
    BAND,
    DIFFERENCE,
    MEAN,
    SPREAD
  }

  /**
   * @param first band of the scene; {@code second} of a difference
   * @param radius of the window, 0 for none
   */
  private record Feature(String name, Kind kind, int first, int second, int radius) {}

  private final Raster scene;
  private final List<Feature> features;
  private final boolean[] wanted;
  private final int margin;

  private PixelFeatures(Raster scene, List<Feature> features) {
    this.scene = scene;
    this.features = List.copyOf(features);
    wanted = new boolean[scene.bands().size()];
    int widest = 0;
    for (Feature feature : features) {
      wanted[feature.first] = true;
      wanted[feature.second] = true;
      widest = Math.max(widest, feature.radius);
    }
    margin = widest;
  }

  /**
   * @param bands names of those to look at; empty for all that hold numbers
   * @param differences whether normalised differences of each two bands are looked at too
   * @param windows sides of windows, in pixels or in metres with an m behind
   * @throws RasterException where a band is not there, or a window cannot be had
   */
  public static PixelFeatures of(
      Raster scene, List<String> bands, boolean differences, List<String> windows) {
    Map<String, Integer> known = bandNames(scene);
    List<String> names = bands.isEmpty()
        ? List.copyOf(known.keySet())
        : bands.stream().map(PixelFeatures::plain).toList();
    List<String> all = new ArrayList<>(names);
    List<String> light = differences ? ofLight(scene, names, known) : List.of();
    for (int a = 0; a < light.size(); a++) {
      for (int b = a + 1; b < light.size(); b++) {
        all.add(light.get(a) + "/" + light.get(b));
      }
    }
    GroundSize ground = GroundSize.of(scene);
    for (String window : windows) {
      String size = inMetres(window.strip(), ground);
      for (String name : names) {
        all.add(name + " mean " + size);
        all.add(name + " spread " + size);
      }
    }
    return named(scene, all);
  }

  /** Bands that are told to be of light; all where hardly any is told to be of anything. */
  private static List<String> ofLight(
      Raster scene, List<String> names, Map<String, Integer> known) {
    List<String> light = names.stream()
        .filter(name -> known.containsKey(name))
        .filter(name -> {
          BandRole role = scene.bands().get(known.get(name)).role();
          return role != BandRole.OTHER && role != BandRole.HEIGHT;
        })
        .toList();
    return light.size() > 1 ? light : names;
  }

  /** The same window in metres where those are known, so that it means the same on other pixels. */
  private static String inMetres(String window, GroundSize ground) {
    int pixels = WindowSize.parse(window, ground.mean());
    boolean given = window.toLowerCase(Locale.ROOT).endsWith("m");
    return !ground.inMetres()
        ? String.valueOf(pixels)
        : given
            ? window.substring(0, window.length() - 1).strip() + " m"
            : Cql2.number(new BigDecimal(pixels * ground.mean(), THREE_DIGITS).doubleValue())
                + " m";
  }

  /**
   * Those that have the given names.
   *
   * @throws RasterException that says which bands the scene lacks
   */
  public static PixelFeatures named(Raster scene, List<String> names) {
    Map<String, Integer> known = bandNames(scene);
    double metres = GroundSize.of(scene).mean();
    List<Feature> features = new ArrayList<>();
    List<String> missing = new ArrayList<>();
    for (String name : names) {
      Matcher windowed = WINDOWED.matcher(name);
      boolean inWindow = windowed.matches();
      String[] of = (inWindow ? windowed.group(1) : name).split("/", 2);
      for (String each : of) {
        if (!known.containsKey(each) && !missing.contains(each)) {
          missing.add(each);
        }
      }
      if (missing.isEmpty()) {
        int first = known.get(of[0]);
        int second = known.get(of[of.length - 1]);
        Kind kind = inWindow
            ? windowed.group(2).equals("mean") ? Kind.MEAN : Kind.SPREAD
            : of.length == 2 ? Kind.DIFFERENCE : Kind.BAND;
        int radius = inWindow ? WindowSize.parse(windowed.group(3), metres) / 2 : 0;
        features.add(new Feature(name, kind, first, second, radius));
      }
    }
    if (!missing.isEmpty()) {
      throw new RasterException("The scene has no band "
          + String.join(", ", missing) + "; it has " + String.join(", ", known.keySet())
          + ". Give its bands roles with 'describe', or learn from samples in this scene.");
    }
    if (features.isEmpty()) {
      throw new RasterException("Name at least one band to tell pixels apart by.");
    }
    return new PixelFeatures(scene, features);
  }

  /** Bands by their role's key, or by their own name where there is no role or it is that of several. */
  private static Map<String, Integer> bandNames(Raster scene) {
    Map<String, Integer> names = new java.util.LinkedHashMap<>();
    for (int b = 0; b < scene.bands().size(); b++) {
      Band band = scene.bands().get(b);
      String role = band.role().key();
      boolean hasRole = band.role() != BandRole.OTHER && !names.containsKey(role);
      String own = plain(band.name());
      String name = hasRole ? role : own.isEmpty() ? "band_" + (b + 1) : own;
      names.put(names.containsKey(name) ? name + "_" + (b + 1) : name, b);
    }
    return names;
  }

  private static String plain(String name) {
    return name.strip().toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "_");
  }

  public List<String> names() {
    return features.stream().map(Feature::name).toList();
  }

  /** How reduced levels relate to the full one. */
  public Zoom zoom() {
    return (margin > 0 ? Zoom.FULL_RESOLUTION : Zoom.POINTWISE).over(scene.zoom());
  }

  /** One plane of a window for each feature; NaN in all where something is not known. */
  public float[][] read(int level, Window window, Request request) {
    Window wide = window.grown(margin);
    float[][] planes = new float[wanted.length][];
    for (int b = 0; b < planes.length; b++) {
      planes[b] = wanted[b] ? new float[wide.area()] : null;
    }
    scene.read(level, wide, planes, request);
    float[][] out = new float[features.size()][];
    Map<Long, float[][]> moments = new HashMap<>();
    for (int f = 0; f < out.length; f++) {
      Feature feature = features.get(f);
      out[f] = switch (feature.kind) {
        case BAND -> inner(planes[feature.first], wide, window);
        case DIFFERENCE ->
          difference(
              inner(planes[feature.first], wide, window),
              inner(planes[feature.second], wide, window));
        case MEAN, SPREAD ->
          moments
              .computeIfAbsent(
                  (long) feature.first << 32 | feature.radius,
                  key -> moments(planes[feature.first], wide.width(), window, feature.radius))[
              feature.kind == Kind.MEAN ? 0 : 1];
      };
    }
    for (int b = 0; b < planes.length; b++) {
      if (planes[b] != null) {
        leaveOut(inner(planes[b], wide, window), out);
      }
    }
    return out;
  }

  private static void leaveOut(float[] band, float[][] out) {
    for (int i = 0; i < band.length; i++) {
      if (Float.isNaN(band[i])) {
        for (float[] plane : out) {
          plane[i] = Float.NaN;
        }
      }
    }
  }

  private float[] inner(float[] plane, Window wide, Window window) {
    float[] part = new float[window.area()];
    for (int y = 0; y < window.height(); y++) {
      System.arraycopy(
          plane, (y + margin) * wide.width() + margin, part, y * window.width(), window.width());
    }
    return part;
  }

  private static float[] difference(float[] a, float[] b) {
    float[] out = new float[a.length];
    for (int i = 0; i < out.length; i++) {
      float sum = Math.abs(a[i]) + Math.abs(b[i]);
      // both dark: neither is more than the other
      out[i] = sum > LEAST_SUM ? (a[i] - b[i]) / sum : 0 * sum;
    }
    return out;
  }

  /**
   * Mean and standard deviation in the window about each pixel. Summed row by row and then down, always in the same order, so that a
   * pixel has the same whatever it is asked through.
   */
  private float[][] moments(float[] plane, int stride, Window window, int radius) {
    int rows = window.height() + 2 * radius;
    int width = window.width();
    double[] sums = new double[rows * width];
    double[] squares = new double[rows * width];
    int[] counts = new int[rows * width];
    for (int y = 0; y < rows; y++) {
      int line = (y + margin - radius) * stride + margin - radius;
      for (int x = 0; x < width; x++) {
        double sum = 0;
        double square = 0;
        int count = 0;
        for (int k = line + x; k <= line + x + 2 * radius; k++) {
          double v = plane[k];
          if (!Double.isNaN(v)) {
            sum += v;
            square += v * v;
            count++;
          }
        }
        sums[y * width + x] = sum;
        squares[y * width + x] = square;
        counts[y * width + x] = count;
      }
    }
    float[][] out = new float[2][window.area()];
    double[] sum = new double[width];
    double[] square = new double[width];
    int[] count = new int[width];
    for (int y = 0; y < window.height(); y++) {
      Arrays.fill(sum, 0);
      Arrays.fill(square, 0);
      Arrays.fill(count, 0);
      for (int k = y; k <= y + 2 * radius; k++) {
        for (int x = 0; x < width; x++) {
          sum[x] += sums[k * width + x];
          square[x] += squares[k * width + x];
          count[x] += counts[k * width + x];
        }
      }
      for (int x = 0; x < width; x++) {
        double mean = sum[x] / count[x];
        out[0][y * width + x] = (float) mean;
        out[1][y * width + x] = (float) Math.sqrt(Math.max(0, square[x] / count[x] - mean * mean));
      }
    }
    return out;
  }

  /** The band whose name a feature has; empty for what is worked out of several pixels or bands. */
  public Optional<Band> band(int feature) {
    Feature of = features.get(feature);
    return of.kind == Kind.BAND ? Optional.of(scene.bands().get(of.first)) : Optional.empty();
  }

  public Raster scene() {
    return scene;
  }
}
