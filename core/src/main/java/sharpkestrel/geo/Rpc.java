package sharpkestrel.geo;

import java.util.Locale;
import java.util.Optional;
import sharpkestrel.raster.CrsName;

/**
 * A rational polynomial sensor model (RPC00B): image coordinates as ratios of cubic polynomials of longitude,
 * latitude (degrees, WGS 84) and height (m above the ellipsoid).
 *
 * <p>Image coordinates here put the corner of the first pixel at (0, 0) and its centre at (0.5, 0.5). RPC files put
 * (0, 0) at that centre; {@link #col} and {@link #row} add the half pixel.
 *
 * @param coefficients line numerator, line denominator, sample numerator, sample denominator, 20 each
 * @param errorBias metres, negative where not known
 * @param errorRandom metres, negative where not known
 */
public record Rpc(
    double errorBias,
    double errorRandom,
    double lineOffset,
    double sampleOffset,
    double latitudeOffset,
    double longitudeOffset,
    double heightOffset,
    double lineScale,
    double sampleScale,
    double latitudeScale,
    double longitudeScale,
    double heightScale,
    double[][] coefficients)
    implements ImageModel {

  /** Share of an image's side by which a model may fall short of it. */
  private static final double SHORT = 0.1;

  private static final int MOST_ITERATIONS = 20;
  private static final double CONVERGED_PIXELS = 1e-6;

  public Rpc {
    if (coefficients.length != 4) {
      throw new IllegalArgumentException("An RPC has four polynomials, not " + coefficients.length);
    }
    for (double[] polynomial : coefficients) {
      if (polynomial.length != 20) {
        throw new IllegalArgumentException(
            "An RPC polynomial has 20 coefficients, not " + polynomial.length);
      }
    }
    if (!(lineScale > 0
        && sampleScale > 0
        && latitudeScale > 0
        && longitudeScale > 0
        && heightScale > 0)) {
      throw new IllegalArgumentException("An RPC's scales must be above 0");
    }
  }

  /** What speaks against this being the model of an image of a size; empty where nothing does. */
  public Optional<String> doubt(int width, int height) {
    boolean across = isShort(sampleOffset, sampleScale, width);
    boolean down = isShort(lineOffset, lineScale, height);
    return across || down
        ? Optional.of(String.format(
            Locale.ROOT,
            "has %d x %d pixels, but its sensor model (RPC) describes columns %.0f to %.0f and rows %.0f to %.0f. It may be that of"
                + " another image, or of another resolution; beyond those it is guesswork. Put the right RPC text beside it.",
            width,
            height,
            sampleOffset - sampleScale,
            sampleOffset + sampleScale,
            lineOffset - lineScale,
            lineOffset + lineScale))
        : Optional.empty();
  }

  private static boolean isShort(double offset, double scale, int size) {
    double outside = Math.max(0, offset - scale) + Math.max(0, size - offset - scale);
    return outside > SHORT * size;
  }

  @Override
  public CrsName crs() {
    return Crs.WGS84;
  }

  @Override
  public boolean usesHeights() {
    return true;
  }

  /** Image column and row of a ground point, written to {@code image[0]} and {@code image[1]}. */
  @Override
  public void toImage(double longitude, double latitude, double height, double[] image) {
    double l = (longitude - longitudeOffset) / longitudeScale;
    double p = (latitude - latitudeOffset) / latitudeScale;
    double h = (height - heightOffset) / heightScale;
    double[] lineNumerator = coefficients[0];
    double[] lineDenominator = coefficients[1];
    double[] sampleNumerator = coefficients[2];
    double[] sampleDenominator = coefficients[3];
    image[0] = value(sampleNumerator, l, p, h) / value(sampleDenominator, l, p, h) * sampleScale
        + sampleOffset
        + 0.5;
    image[1] = value(lineNumerator, l, p, h) / value(lineDenominator, l, p, h) * lineScale
        + lineOffset
        + 0.5;
  }

  /** The 20 terms of RPC00B in their order. */
  public static void terms(double l, double p, double h, double[] terms) {
    terms[0] = 1;
    terms[1] = l;
    terms[2] = p;
    terms[3] = h;
    terms[4] = l * p;
    terms[5] = l * h;
    terms[6] = p * h;
    terms[7] = l * l;
    terms[8] = p * p;
    terms[9] = h * h;
    terms[10] = p * l * h;
    terms[11] = l * l * l;
    terms[12] = l * p * p;
    terms[13] = l * h * h;
    terms[14] = l * l * p;
    terms[15] = p * p * p;
    terms[16] = p * h * h;
    terms[17] = l * l * h;
    terms[18] = p * p * h;
    terms[19] = h * h * h;
  }

  private static double value(double[] c, double l, double p, double h) {
    return c[0]
        + l
            * (c[1]
                + p * (c[4] + c[10] * h + c[12] * p)
                + h * (c[5] + c[13] * h)
                + l * (c[7] + c[11] * l + c[14] * p + c[17] * h))
        + p * (c[2] + h * (c[6] + c[16] * h) + p * (c[8] + c[15] * p + c[18] * h))
        + h * (c[3] + h * (c[9] + c[19] * h));
  }

  /**
   * Longitude and latitude of an image point at a height, by Newton steps on {@link #toImage} from the centre of the
   * model. Written to {@code ground[0]} and {@code ground[1]}; NaN where the steps do not settle within a millionth
   * of a pixel, which happens only outside of the model's domain.
   */
  public void toGround(double col, double row, double height, double[] ground) {
    double longitude = longitudeOffset;
    double latitude = latitudeOffset;
    double[] at = new double[2];
    double[] east = new double[2];
    double[] north = new double[2];
    double dl = longitudeScale * 1e-4;
    double dp = latitudeScale * 1e-4;
    for (int i = 0; i < MOST_ITERATIONS; i++) {
      toImage(longitude, latitude, height, at);
      double ec = col - at[0];
      double er = row - at[1];
      if (Math.abs(ec) < CONVERGED_PIXELS && Math.abs(er) < CONVERGED_PIXELS) {
        ground[0] = longitude;
        ground[1] = latitude;
        return;
      }
      toImage(longitude + dl, latitude, height, east);
      toImage(longitude, latitude + dp, height, north);
      double a = (east[0] - at[0]) / dl;
      double b = (north[0] - at[0]) / dp;
      double c = (east[1] - at[1]) / dl;
      double d = (north[1] - at[1]) / dp;
      double det = a * d - b * c;
      longitude += (d * ec - b * er) / det;
      latitude += (a * er - c * ec) / det;
    }
    ground[0] = Double.NaN;
    ground[1] = Double.NaN;
  }

  /** The model of an image cut out with its first pixel at (col, row) of this one. */
  public Rpc shifted(double col, double row) {
    return new Rpc(
        errorBias,
        errorRandom,
        lineOffset - row,
        sampleOffset - col,
        latitudeOffset,
        longitudeOffset,
        heightOffset,
        lineScale,
        sampleScale,
        latitudeScale,
        longitudeScale,
        heightScale,
        coefficients);
  }

  /** The model of the same image in pixels {@code factor} times as large. */
  public Rpc scaled(double factor) {
    return new Rpc(
        errorBias,
        errorRandom,
        (lineOffset + 0.5) / factor - 0.5,
        (sampleOffset + 0.5) / factor - 0.5,
        latitudeOffset,
        longitudeOffset,
        heightOffset,
        lineScale / factor,
        sampleScale / factor,
        latitudeScale,
        longitudeScale,
        heightScale,
        coefficients);
  }

  /** The 92 numbers of TIFF tag 50844. */
  public double[] toTag() {
    double[] tag = new double[92];
    double[] head = {
      errorBias,
      errorRandom,
      lineOffset,
      sampleOffset,
      latitudeOffset,
      longitudeOffset,
      heightOffset,
      lineScale,
      sampleScale,
      latitudeScale,
      longitudeScale,
      heightScale
    };
    System.arraycopy(head, 0, tag, 0, 12);
    for (int k = 0; k < 4; k++) {
      System.arraycopy(coefficients[k], 0, tag, 12 + 20 * k, 20);
    }
    return tag;
  }

  /** Reads the 92 numbers of TIFF tag 50844. */
  public static Rpc ofTag(double[] tag) {
    if (tag.length < 92) {
      throw new IllegalArgumentException("An RPC tag holds 92 numbers, not " + tag.length);
    }
    double[][] c = new double[4][20];
    for (int k = 0; k < 4; k++) {
      System.arraycopy(tag, 12 + 20 * k, c[k], 0, 20);
    }
    return new Rpc(
        tag[0], tag[1], tag[2], tag[3], tag[4], tag[5], tag[6], tag[7], tag[8], tag[9], tag[10],
        tag[11], c);
  }
}
