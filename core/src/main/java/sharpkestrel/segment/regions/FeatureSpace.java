package sharpkestrel.segment.regions;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * The space in which pixels are alike or not. Bands are taken as logarithms, so that a tenth brighter is the same step
 * on dark water and on a bright roof, and so that light and shade add the same amount to every band. The mean over the
 * bands is the first coordinate (light); what each band has beyond it are the next (colour), less what shade changes of
 * it ({@link ShadeColour}), so that the lit and the shaded side of one roof are near each other. After sharpening colour
 * is only as fine as the multispectral bands and would draw rims around small things: it weighs less. One unit is a tenth.
 * Values are taken over their band's median first, so that the unit of the numbers and the gain of a band do not matter; where
 * more than a hundredth of a band lies under 0, as in standardised scenes, from that hundredth on.
 *
 * <p>Then come the height above the ground, where there is one, as {@code h / (h + 1.5 m)}: what stands is told from what
 * lies, and eaves from ridge hardly; and further layers, each by how many of its spreads it is off its median.
 */
public final class FeatureSpace {

  private static final float PER_UNIT = 10f;
  private static final float LIGHT_WEIGHT = 0.7f;
  private static final float COLOUR_WEIGHT = 0.25f;

  /** Added before the logarithm, so that the noise of near-black pixels does not count as colour. */
  private static final float FLOOR = 0.15f;

  private static final float HALF_HEIGHT = 1.5f;
  private static final float PER_HEIGHT = 17f;
  private static final float PER_SPREAD = 3f;

  /**
   * The logarithm of one band over another, less what shade changes of it, as the difference of two coordinates.
   *
   * @param over coordinate of the one band
   * @param perOver what a step of it is worth
   */
  public record Ratio(int over, float perOver, int under, float perUnder) {

    /**
     * @param numbers (input) a point of the space from {@code at} on
     */
    public float of(float[] numbers, int at) {
      return numbers[at + over] * perOver - numbers[at + under] * perUnder;
    }
  }

  /** What a part of the space says of a pixel. */
  public enum Kind {
    LIGHT,
    COLOUR,
    HEIGHT,
    LAYERS
  }

  /**
   * Coordinates that belong together.
   *
   * @param from first of them, up to {@code to}
   */
  public record Part(Kind kind, int from, int to) {}

  private final Raster scene;
  private final int[] bands;
  private final float[] weights;

  /** What is added to a band's values, and what they are then multiplied by. */
  private final float[] offsets;

  private final float[] factors;

  /** One over the spread of each band's values, from the first to the last hundredth of the pixels; 0 for one value. */
  private final float[] perSpreads;

  private final double contrast;
  private final Optional<Raster> height;
  private final List<Layer> layers;
  private final List<Part> parts = new ArrayList<>();
  private float[] shade;

  /** A band of a further raster on the scene's grid. */
  private record Layer(Raster raster, int band, float median, float perSpread) {}

  private FeatureSpace(
      Raster scene,
      int[] bands,
      float[] weights,
      float[] offsets,
      float[] factors,
      float[] perSpreads,
      double contrast,
      Optional<Raster> height,
      List<Layer> layers) {
    this.scene = scene;
    this.bands = bands;
    this.weights = weights;
    this.offsets = offsets;
    this.factors = factors;
    this.perSpreads = perSpreads;
    this.contrast = contrast;
    this.height = height;
    this.layers = layers;
    shade = new float[bands.length];
    parts.add(new Part(Kind.LIGHT, 0, 1));
    if (bands.length > 1) {
      parts.add(new Part(Kind.COLOUR, 1, 1 + bands.length));
    }
    if (height.isPresent()) {
      parts.add(new Part(Kind.HEIGHT, dimensionsSoFar(), dimensionsSoFar() + 1));
    }
    if (!layers.isEmpty()) {
      parts.add(new Part(Kind.LAYERS, dimensionsSoFar(), dimensionsSoFar() + layers.size()));
    }
  }

  private int dimensionsSoFar() {
    return parts.getLast().to();
  }

  /** Of a scene alone. */
  public static FeatureSpace of(Raster scene, Map<BandRole, Double> weights, Job job) {
    return of(scene, weights, Optional.empty(), List.of(), job);
  }

  /**
   * @param weights by role; bands of other roles count 1, of weight 0 not at all
   * @param height above the ground in metres, one band on the scene's grid
   * @param layers further rasters on the scene's grid, all their bands
   */
  public static FeatureSpace of(
      Raster scene,
      Map<BandRole, Double> weights,
      Optional<Raster> height,
      List<Raster> layers,
      Job job) {
    ValueSample sample = ValueSample.of(scene, job);
    List<Integer> used = new ArrayList<>();
    List<Float> usedWeights = new ArrayList<>();
    List<Float> offsets = new ArrayList<>();
    List<Float> factors = new ArrayList<>();
    List<Float> perSpreads = new ArrayList<>();
    double contrasts = 0;
    boolean anyValid = false;
    for (int b = 0; b < scene.bands().size(); b++) {
      anyValid |= sample.hasValues(b);
      double weight = weights.getOrDefault(scene.bands().get(b).role(), 1.0);
      if (weight > 0 && sample.hasValues(b)) {
        used.add(b);
        usedWeights.add((float) weight);
        // Added before the logarithm, so that the noise of near-black pixels does not count as
        // colour.
        double spread = sample.quantile(b, 0.99) - sample.quantile(b, 0.01);
        perSpreads.add((float) (spread > 0 ? 1 / spread : 0));
        double offset = Math.max(0, -sample.quantile(b, 0.01));
        double usual = sample.quantile(b, 0.5) + offset;
        offsets.add((float) offset);
        double factor = 1 / (usual > 0 ? usual : spread > 0 ? spread : 1);
        factors.add((float) factor);
        contrasts += Math.log((Math.max(0, (sample.quantile(b, 0.95) + offset) * factor) + FLOOR)
            / (Math.max(0, (sample.quantile(b, 0.05) + offset) * factor) + FLOOR));
      }
    }
    if (!anyValid) {
      throw new RasterException(
          "There is nothing to segment: every pixel of the scene is no-data. Choose another scene or area.");
    }
    if (used.isEmpty()) {
      throw new RasterException("Every band has weight 0; give at least one of them more.");
    }
    FeatureSpace space = new FeatureSpace(
        scene,
        used.stream().mapToInt(Integer::intValue).toArray(),
        floats(usedWeights),
        floats(offsets),
        floats(factors),
        floats(perSpreads),
        contrasts / used.size(),
        height,
        layersOf(layers, job));
    space.shade = ShadeColour.of(space, scene.grid(), job);
    return space;
  }

  private static List<Layer> layersOf(List<Raster> rasters, Job job) {
    List<Layer> layers = new ArrayList<>();
    for (Raster raster : rasters) {
      ValueSample sample = ValueSample.of(raster, job);
      for (int b = 0; b < raster.bands().size(); b++) {
        double spread =
            sample.hasValues(b) ? sample.quantile(b, 0.84) - sample.quantile(b, 0.16) : 0;
        if (spread > 0) {
          double median = sample.quantile(b, 0.5);
          layers.add(new Layer(raster, b, (float) median, (float) (2 * PER_SPREAD / spread)));
        }
      }
    }
    return layers;
  }

  private static float[] floats(List<Float> list) {
    float[] flat = new float[list.size()];
    for (int i = 0; i < flat.length; i++) {
      flat[i] = list.get(i);
    }
    return flat;
  }

  public int dimensions() {
    return dimensionsSoFar();
  }

  /** How the ratio of two bands is found in this space; none where either is not in it. */
  public Optional<Ratio> ratio(BandRole over, BandRole under) {
    int a = indexOf(over);
    int b = indexOf(under);
    return a < 0 || b < 0
        ? Optional.empty()
        : Optional.of(new Ratio(1 + a, 1 / colourScale(a), 1 + b, 1 / colourScale(b)));
  }

  private int indexOf(BandRole role) {
    for (int k = 0; k < bands.length; k++) {
      if (scene.bands().get(bands[k]).role() == role) {
        return k;
      }
    }
    return -1;
  }

  /** Coordinates that come from the bands: light, and a colour for each band where there are several. */
  public int spectralDimensions() {
    return parts.get(bands.length > 1 ? 1 : 0).to();
  }

  public List<Part> parts() {
    return parts;
  }

  /** Reads the spectral coordinates of a window; see {@link #read}. */
  public float[] readSpectral(Window window, Request request) {
    float[] out = new float[window.area() * spectralDimensions()];
    spectral(window, spectralDimensions(), out, request);
    return out;
  }

  /** What the spectral coordinates are called: light, then each band by its role, or by its name where it has none. */
  public List<String> spectralNames() {
    List<String> names = new ArrayList<>(List.of("light"));
    for (int b : bands.length > 1 ? bands : new int[0]) {
      Band band = scene.bands().get(b);
      names.add(
          band.role() == BandRole.OTHER
              ? band.name()
              : band.role().name().toLowerCase(Locale.ROOT));
    }
    return names;
  }

  /** The name of {@link Kind#HEIGHT}. */
  public static final String HEIGHT = "height";

  /** What all coordinates are called: the spectral ones, then height, then further layers by the names of their bands. */
  public List<String> names() {
    List<String> names = new ArrayList<>(spectralNames());
    if (height.isPresent()) {
      names.add(HEIGHT);
    }
    layers.forEach(layer -> names.add(layer.raster.bands().get(layer.band).name()));
    return names;
  }

  /** Roles of the bands that are in the space, by name. */
  public List<String> roles() {
    return Arrays.stream(bands)
        .mapToObj(b -> scene.bands().get(b).role())
        .filter(role -> role != BandRole.OTHER)
        .map(role -> role.name().toLowerCase(Locale.ROOT))
        .distinct()
        .toList();
  }

  /** How far light and dark ground are apart: from a twentieth of the pixels to the last, as logarithms, the mean over bands. */
  public double contrast() {
    return contrast;
  }

  /** Numbers of a pixel in {@link #readValues}. */
  public int bands() {
    return bands.length;
  }

  /**
   * Reads a window as plain values: in hundredths of each band's spread (from the first to the last hundredth of the pixels),
   * weighed so that the distance of two pixels is the root of the mean square over the bands.
   *
   * @return interleaved, {@link #bands} numbers a pixel; NaN in all where any band is no-data
   */
  public float[] readValues(Window window, Request request) {
    float[][] planes = planes(window, request);
    int n = bands.length;
    float[] out = new float[window.area() * n];
    float total = total();
    for (int k = 0; k < n; k++) {
      float scale = 100 * perSpreads[k] * (float) Math.sqrt(weights[k] / total);
      float[] plane = planes[bands[k]];
      for (int i = 0, j = k; i < plane.length; i++, j += n) {
        out[j] = plane[i] * scale;
      }
    }
    for (int j = 0; j < out.length; j += n) {
      float sum = 0;
      for (int k = 0; k < n; k++) {
        sum += 0 * out[j + k];
      }
      if (Float.isNaN(sum)) {
        Arrays.fill(out, j, j + n, Float.NaN);
      }
    }
    return out;
  }

  private float total() {
    float total = 0;
    for (float weight : weights) {
      total += weight;
    }
    return total;
  }

  /** The planes of the bands that are used. */
  private float[][] planes(Window window, Request request) {
    float[][] planes = new float[scene.bands().size()][];
    for (int b : bands) {
      planes[b] = new float[window.area()];
    }
    scene.read(0, window, planes, request);
    return planes;
  }

  /**
   * Reads a window of full-size pixels into the space.
   *
   * @return interleaved, {@link #dimensions()} numbers a pixel; NaN in the first where any band is no-data. No height and
   *     no value of a layer count as 0.
   */
  public float[] read(Window window, Request request) {
    int dimensions = dimensions();
    float[] out = new float[window.area() * dimensions];
    spectral(window, dimensions, out, request);
    int at = spectralDimensions();
    if (height.isPresent()) {
      float[] metres = height.get().read(0, window, request)[0];
      for (int i = 0, j = at; i < metres.length; i++, j += dimensions) {
        float h = metres[i] > 0 ? metres[i] : 0;
        out[j] = PER_HEIGHT * h / (h + HALF_HEIGHT);
      }
      at++;
    }
    for (Layer layer : layers) {
      float[][] planes = new float[layer.raster.bands().size()][];
      planes[layer.band] = new float[window.area()];
      layer.raster.read(0, window, planes, request);
      float[] values = planes[layer.band];
      for (int i = 0, j = at; i < values.length; i++, j += dimensions) {
        float v = (values[i] - layer.median) * layer.perSpread;
        out[j] = Float.isNaN(v) ? 0 : v;
      }
      at++;
    }
    return out;
  }

  private void spectral(Window window, int stride, float[] out, Request request) {
    float[][] planes = planes(window, request);
    int n = bands.length;
    float[] colourScales = new float[n];
    float total = total();
    for (int k = 0; k < n; k++) {
      colourScales[k] = colourScale(k);
    }
    float[] light = new float[window.area()];
    for (int k = 0; k < n; k++) {
      addLogarithms(planes[bands[k]], offsets[k], factors[k], weights[k] / total, light);
    }
    for (int i = 0, j = 0; i < light.length; i++, j += stride) {
      out[j] = light[i] * lightScale();
    }
    for (int k = 0; k < n && n > 1; k++) {
      float[] logs = planes[bands[k]];
      for (int i = 0, j = 1 + k; i < light.length; i++, j += stride) {
        out[j] = (logs[i] - light[i] - shade[k] * light[i]) * colourScales[k];
      }
    }
  }

  /**
   * @param plane (modified) values, then their logarithms
   * @param light (modified) grows by their share; NaN where there is no value
   */
  private static void addLogarithms(
      float[] plane, float offset, float factor, float share, float[] light) {
    for (int i = 0; i < plane.length; i++) {
      float v = (plane[i] + offset) * factor;
      float log = Logarithm.of((v > 0 ? v : 0) + FLOOR);
      plane[i] = log;
      // nothing is added where v is a number, else NaN
      light[i] += share * log + 0 * v;
    }
  }

  /** Scale of the light; colours are on {@link #colourScale}. */
  static float lightScale() {
    return PER_UNIT * (float) Math.sqrt(LIGHT_WEIGHT);
  }

  float colourScale(int band) {
    return PER_UNIT * (float) Math.sqrt(COLOUR_WEIGHT / bands.length * weights[band]);
  }
}
