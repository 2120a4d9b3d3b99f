package sharpkestrel.segment;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.BandRole;
import sharpkestrel.segment.regions.FeatureSpace;
import sharpkestrel.segment.regions.Logarithm;

/**
 * What a learned criterion looks at in a pair of neighbouring regions: sizes, light and colour of both, how they vary, how
 * sharp the border and the rims are, what lies behind the rims towards the sun and away from it, the forms of both and of
 * the two together, how the border runs through them, and what merging costs without any learning. All of it comes from
 * numbers that are kept while regions merge. The brighter region is the first of the two. Light and colours count from what is
 * usual in the scene, so that the unit of the numbers does not matter; what a scene's bands do not say is NaN.
 */
final class PairEvidence {

  /** Names of the features, in their order; a model holds them, so that one of others is not taken for one of these. */
  static final List<String> NAMES = List.of(
      "area of the brighter",
      "area of the darker",
      "area of both",
      "border length",
      "border over rim of the brighter",
      "border over rim of the darker",
      "border over size",
      "light apart",
      "colour apart",
      "light of the brighter",
      "light of the darker",
      "infrared over red of the brighter, over the usual",
      "infrared over red of the darker, over the usual",
      "red over blue of the brighter, over the usual",
      "red over blue of the darker, over the usual",
      "infrared over red apart",
      "red over blue apart",
      "light within the brighter",
      "light within the darker",
      "colour within the brighter",
      "colour within the darker",
      "light between over within",
      "contrast of light",
      "contrast of colour",
      "step of light",
      "rim contrast of light, both",
      "rim contrast of colour, both",
      "rim contrast of light, brighter",
      "rim contrast of light, darker",
      "rim contrast of colour, brighter",
      "rim contrast of colour, darker",
      "light over what is behind",
      "away from the sun",
      "towards the sun",
      "away less towards",
      "away less towards, brighter",
      "away less towards, darker",
      "away less itself, darker",
      "away less itself, brighter",
      "form of the brighter",
      "form of the darker",
      "form of both",
      "rim over rectangle, brighter",
      "rim over rectangle, darker",
      "rim over rectangle, both",
      "length of both",
      "width of both",
      "elongation of the brighter",
      "elongation of the darker",
      "turned apart",
      "border bent",
      "border over length",
      "border over width",
      "border along both",
      "border along the brighter",
      "border along the darker",
      "border off the middle across",
      "border off the middle along",
      "darker towards the sun across the border",
      "border straight",
      "darker towards the sun",
      "plain cost");

  private static final double SMALL = 0.05;

  /** Second moment of a pixel's width. */
  private static final double PIXEL = 1 / 12.0;

  private final RegionGraph graph;
  private final Rims rims;
  private final double pixel;
  private final double usualLight;
  private final Optional<FeatureSpace.Ratio> infrared;
  private final Optional<FeatureSpace.Ratio> red;

  /** Where the colour is among the parts of the space; -1 for a single band. */
  private final int colour;

  private final float[] rim = new float[Rims.RIM];
  private final Form brighterForm = new Form();
  private final Form darkerForm = new Form();
  private final Form form = new Form();
  private final Form borderForm = new Form();

  /**
   * Points as the rectangle of their second moments. Its direction is kept as cosine and sine of twice the angle, which the
   * moments give without a look at the angle.
   */
  private static final class Form {
    double length;
    double width;
    double cos2;
    double sin2;

    /**
     * @param least under which a width, squared and over 12, counts as that
     */
    void set(double xx, double xy, double yy, double least) {
      double half = (xx + yy) / 2;
      double apart = Math.sqrt((xx - yy) * (xx - yy) / 4 + xy * xy);
      length = Math.sqrt(12 * (half + apart));
      width = Math.sqrt(12 * Math.max(least, half - apart));
      cos2 = apart > 0 ? (xx - yy) / 2 / apart : 1;
      sin2 = apart > 0 ? xy / apart : 0;
    }

    /** Logarithm of the rectangle's area over that of the points. */
    float fill(double pixels) {
      return log(Math.max(0.5, length * width / pixels));
    }

    /** Logarithm of a rim over that of the rectangle, both counted in pixel sides. */
    float rim(double sides) {
      double slant = Math.sqrt(1 + Math.abs(sin2));
      return log(Math.max(1, sides) / (2 * (length + width) * slant));
    }

    /** 1 for two that run alike, -1 for those across each other. */
    float along(Form other) {
      return (float) (cos2 * other.cos2 + sin2 * other.sin2);
    }
  }

  /**
   * @param pixel side in metres, or what it counts as
   */
  PairEvidence(RegionGraph graph, Rims rims, FeatureSpace space, double pixel) {
    this.graph = graph;
    this.rims = rims;
    this.pixel = pixel;
    infrared = space.ratio(BandRole.NEAR_INFRARED, BandRole.RED);
    red = space.ratio(BandRole.RED, BandRole.BLUE);
    colour =
        graph.parts.size() > 1 && graph.parts.get(1).kind() == FeatureSpace.Kind.COLOUR ? 1 : -1;
    float[] lights = new float[graph.regions];
    for (int i = 0; i < lights.length; i++) {
      lights[i] = graph.numbers[i * graph.stride];
    }
    Arrays.sort(lights);
    usualLight = lights[lights.length / 2];
  }

  /**
   * @param a region at the edge's first end
   * @param count pixels of all regions
   * @param plain cost of merging without learning
   * @param out (output) as many numbers as there are {@link #NAMES}
   */
  void of(int edge, int a, int b, int[] count, double plain, float[] out) {
    float[] numbers = graph.numbers;
    rims.ofBoth(edge, a, b, rim);
    boolean inOrder = numbers[a * graph.stride] >= numbers[b * graph.stride];
    int brighter = inOrder ? a : b;
    int darker = inOrder ? b : a;
    int p = brighter * graph.stride;
    int q = darker * graph.stride;
    int u = brighter * Rims.RIM;
    int v = darker * Rims.RIM;
    double np = count[brighter];
    double nq = count[darker];
    double n = np + nq;
    int border = edge * (1 + graph.parts.size());
    double length = graph.borders[border];
    double contrastOfLight = graph.borders[border + 1] / length;
    double contrastOfColour = colour < 0 ? Double.NaN : graph.borders[border + 2] / length;
    float[] r = rims.rims;
    double area = pixel * pixel;
    int k = 0;
    out[k++] = log(np * area);
    out[k++] = log(nq * area);
    out[k++] = log(n * area);
    out[k++] = log(length * pixel);
    out[k++] = (float) (length / r[u + Rims.LENGTH]);
    out[k++] = (float) (length / r[v + Rims.LENGTH]);
    out[k++] = log(length / Math.sqrt(Math.min(np, nq)));
    double light = numbers[p] - numbers[q];
    out[k++] = (float) Math.sqrt(light);
    out[k++] = (float) Math.sqrt(colourApart(p, q));
    out[k++] = (float) (numbers[p] - usualLight);
    out[k++] = (float) (numbers[q] - usualLight);
    k = colours(p, q, out, k);
    int within = graph.variance;
    out[k++] = log(SMALL + numbers[p + within]);
    out[k++] = log(SMALL + numbers[q + within]);
    out[k++] = colour < 0 ? Float.NaN : log(0.02 + numbers[p + within + colour]);
    out[k++] = colour < 0 ? Float.NaN : log(0.02 + numbers[q + within + colour]);
    double share = np / n;
    out[k++] = log((SMALL + share * (1 - share) * light * light)
        / (SMALL + share * numbers[p + within] + (1 - share) * numbers[q + within]));
    out[k++] = log(SMALL + contrastOfLight);
    out[k++] = ofColour(contrastOfColour);
    int side = edge * Rims.SIDE;
    int sign = inOrder ? 1 : -1;
    out[k++] = (float)
        (sign * (rims.sides[side + Rims.LIGHT] - rims.sides[side + Rims.LIGHT + 1]) / length);
    double around = Math.max(1, rim[Rims.LENGTH]);
    out[k++] = log(SMALL + rim[Rims.LIGHT_CONTRAST] / around);
    out[k++] = ofColour(rim[Rims.COLOUR_CONTRAST] / around);
    out[k++] = log(SMALL + r[u + Rims.LIGHT_CONTRAST] / r[u + Rims.LENGTH]);
    out[k++] = log(SMALL + r[v + Rims.LIGHT_CONTRAST] / r[v + Rims.LENGTH]);
    out[k++] = ofColour(r[u + Rims.COLOUR_CONTRAST] / r[u + Rims.LENGTH]);
    out[k++] = ofColour(r[v + Rims.COLOUR_CONTRAST] / r[v + Rims.LENGTH]);
    double own = share * numbers[p] + (1 - share) * numbers[q];
    out[k++] = (float) (own - rim[Rims.BEHIND] / around);
    k = suns(p, q, u, v, own, out, k);
    k = forms(p, q, share, n, out, k);
    k = course(edge, p, q, share, sign, length, out, k);
    out[k] = log(plain + LearnedCosts.LEAST);
  }

  private static float log(double x) {
    return Logarithm.of((float) x);
  }

  private float ofColour(double contrast) {
    return colour < 0 ? Float.NaN : log(SMALL + contrast);
  }

  private double colourApart(int p, int q) {
    if (colour < 0) {
      return Double.NaN;
    }
    FeatureSpace.Part part = graph.parts.get(colour);
    double square = 0;
    for (int k = part.from(); k < part.to(); k++) {
      double d = graph.numbers[p + k] - graph.numbers[q + k];
      square += d * d;
    }
    return Math.sqrt(square);
  }

  private int colours(int p, int q, float[] out, int from) {
    float infraredP = of(infrared, p);
    float infraredQ = of(infrared, q);
    float redP = of(red, p);
    float redQ = of(red, q);
    int k = from;
    out[k++] = infraredP;
    out[k++] = infraredQ;
    out[k++] = redP;
    out[k++] = redQ;
    out[k++] = infraredP - infraredQ;
    out[k++] = redP - redQ;
    return k;
  }

  private float of(Optional<FeatureSpace.Ratio> ratio, int region) {
    return ratio.isEmpty() ? Float.NaN : ratio.get().of(graph.numbers, region);
  }

  /** What lies behind the rims, away from the sun and towards it; where nothing does, the light of the region itself. */
  private int suns(int p, int q, int u, int v, double own, float[] out, int from) {
    double away = behind(rim, Rims.AWAY, own);
    double towards = behind(rim, Rims.TOWARDS, own);
    float lightP = graph.numbers[p];
    float lightQ = graph.numbers[q];
    double awayP = behind(rims.rims, u + Rims.AWAY, lightP);
    double awayQ = behind(rims.rims, v + Rims.AWAY, lightQ);
    int k = from;
    out[k++] = (float) (away - usualLight);
    out[k++] = (float) (towards - usualLight);
    out[k++] = (float) (away - towards);
    out[k++] = (float) (awayP - behind(rims.rims, u + Rims.TOWARDS, lightP));
    out[k++] = (float) (awayQ - behind(rims.rims, v + Rims.TOWARDS, lightQ));
    out[k++] = (float) (awayQ - lightQ);
    out[k++] = (float) (awayP - lightP);
    return k;
  }

  private static double behind(float[] rims, int at, double otherwise) {
    return rims[at] > 0.5 ? rims[at + 1] / rims[at] : otherwise;
  }

  private int forms(int p, int q, double share, double pixels, float[] out, int from) {
    float[] numbers = graph.numbers;
    int a = p + graph.form;
    int b = q + graph.form;
    int u = p / graph.stride * Rims.RIM;
    int v = q / graph.stride * Rims.RIM;
    double rest = 1 - share;
    double dx = numbers[a] - numbers[b];
    double dy = numbers[a + 1] - numbers[b + 1];
    brighterForm.set(numbers[a + 2], numbers[a + 3], numbers[a + 4], PIXEL);
    darkerForm.set(numbers[b + 2], numbers[b + 3], numbers[b + 4], PIXEL);
    form.set(
        share * numbers[a + 2] + rest * numbers[b + 2] + share * rest * dx * dx,
        share * numbers[a + 3] + rest * numbers[b + 3] + share * rest * dx * dy,
        share * numbers[a + 4] + rest * numbers[b + 4] + share * rest * dy * dy,
        PIXEL);
    int k = from;
    out[k++] = brighterForm.fill(share * pixels);
    out[k++] = darkerForm.fill(rest * pixels);
    out[k++] = form.fill(pixels);
    out[k++] = brighterForm.rim(rims.rims[u + Rims.LENGTH]);
    out[k++] = darkerForm.rim(rims.rims[v + Rims.LENGTH]);
    out[k++] = form.rim(rim[Rims.LENGTH]);
    out[k++] = log(form.length * pixel);
    out[k++] = log(form.width * pixel);
    out[k++] = log(brighterForm.length / brighterForm.width);
    out[k++] = log(darkerForm.length / darkerForm.width);
    out[k++] = brighterForm.along(darkerForm);
    return k;
  }

  /** How the border runs through the two, and where the sun stands to it. */
  private int course(
      int edge, int p, int q, double share, int sign, double length, float[] out, int from) {
    float[] sides = rims.sides;
    int at = edge * Rims.SIDE + Rims.COURSE;
    borderForm.set(sides[at + 2], sides[at + 3], sides[at + 4], 0);
    double span = borderForm.length + 1;
    int k = from;
    // both as spreads, so that a border of one pixel side is as straight as it can be
    out[k++] = (float) Math.sqrt((borderForm.width * borderForm.width / 12 + 0.05)
        / (borderForm.length * borderForm.length / 12 + 0.3));
    out[k++] = log(span / form.length);
    out[k++] = log(span / form.width);
    out[k++] = borderForm.along(form);
    out[k++] = borderForm.along(brighterForm);
    out[k++] = borderForm.along(darkerForm);
    float[] numbers = graph.numbers;
    int a = p + graph.form;
    int b = q + graph.form;
    double offX = sides[at] - (share * numbers[a] + (1 - share) * numbers[b]);
    double offY = sides[at + 1] - (share * numbers[a + 1] + (1 - share) * numbers[b + 1]);
    double cos = Math.sqrt((1 + form.cos2) / 2);
    double sin = Math.copySign(Math.sqrt((1 - form.cos2) / 2), form.sin2);
    out[k++] = (float) (Math.abs(offY * cos - offX * sin) / form.width);
    out[k++] = (float) (Math.abs(offX * cos + offY * sin) / form.length);
    double acrossX = sign * sides[edge * Rims.SIDE + Rims.ACROSS] / length;
    double acrossY = sign * sides[edge * Rims.SIDE + Rims.ACROSS + 1] / length;
    double straight = Math.hypot(acrossX, acrossY) + 0.05;
    out[k++] = (float) ((acrossX * rims.sunX + acrossY * rims.sunY) / straight);
    out[k++] = (float) straight;
    double dx = numbers[b] - numbers[a];
    double dy = numbers[b + 1] - numbers[a + 1];
    out[k++] = (float) ((dx * rims.sunX + dy * rims.sunY) / (Math.hypot(dx, dy) + 0.5));
    return k;
  }
}
