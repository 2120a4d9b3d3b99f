package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.PairTable;

/** Which objects touch which, along how many pixel sides, and how much of each one's border away from the sun is dark behind. */
final class BorderFeatures implements ObjectStrips.Collector<BorderFeatures.Part> {

  /** How far behind the border it must be dark, in pixels. */
  private static final int BEHIND = 3;

  private final int objects;
  private final int bands;
  private final float dark;
  private final int[] away;
  private final int[] behind;
  private final int[] faces;
  private final int[] shaded;
  private final List<PairTable.Pairs> pairs = new ArrayList<>();

  record Part(PairTable.Pairs pairs, int low, int[] faces, int[] shaded) {}

  /**
   * @param bands planes from the first whose mean is the brightness
   * @param dark brightness under which it is dark
   * @param sunAzimuth degrees clockwise from north, rows running south; none: shadows are not looked for
   */
  BorderFeatures(int objects, int bands, double dark, Optional<Double> sunAzimuth) {
    this.objects = objects;
    this.bands = bands;
    this.dark = (float) dark;
    faces = new int[objects];
    shaded = new int[objects];
    away = sunAzimuth.map(azimuth -> step(azimuth, 1)).orElse(null);
    behind = sunAzimuth.map(azimuth -> step(azimuth, BEHIND)).orElse(null);
  }

  /** Columns and rows of a step away from the sun. */
  private static int[] step(double azimuth, int pixels) {
    double angle = Math.toRadians(azimuth);
    return new int[] {
      (int) Math.round(-pixels * Math.sin(angle)), (int) Math.round(pixels * Math.cos(angle))
    };
  }

  boolean seesShadows() {
    return away != null;
  }

  @Override
  public Part strip(ObjectStrips.Strip strip) {
    PairTable table = new PairTable(0);
    int[] object = strip.objects();
    int stride = strip.stride();
    int[] strips = new int[strip.count()];
    int[] darks = new int[strip.count()];
    float[] none = new float[0];
    for (int k = 0; k < strip.count(); k++) {
      int own = strip.low() + k;
      for (int i = strip.starts()[k]; i < strip.starts()[k + 1]; i++) {
        int place = strip.order()[i];
        int right = object[place + 1];
        int below = object[place + stride];
        if (right >= 0 && right != own) {
          table.add(key(own, right), none);
        }
        if (below >= 0 && below != own) {
          table.add(key(own, below), none);
        }
        if (away != null && object[place + away[0] + away[1] * stride] != own) {
          strips[k]++;
          int there = place + behind[0] + behind[1] * stride;
          if (object[there] != own && brightness(strip.planes(), there) < dark) {
            darks[k]++;
          }
        }
      }
    }
    return new Part(table.sorted(), strip.low(), strips, darks);
  }

  private float brightness(float[][] planes, int place) {
    float sum = 0;
    for (int b = 0; b < bands; b++) {
      sum += planes[b][place];
    }
    return sum / bands;
  }

  private static long key(int a, int b) {
    return (long) Math.min(a, b) << 32 | Math.max(a, b);
  }

  @Override
  public void join(Part part) {
    pairs.add(part.pairs);
    for (int k = 0; k < part.faces.length; k++) {
      faces[part.low + k] += part.faces[k];
      shaded[part.low + k] += part.shaded[k];
    }
  }

  Neighbours neighbours() {
    return Neighbours.of(objects, PairTable.joined(pairs.toArray(PairTable.Pairs[]::new), 0));
  }

  double[] shadowShares() {
    double[] shares = new double[objects];
    for (int i = 0; i < objects; i++) {
      shares[i] = faces[i] == 0 ? 0 : (double) shaded[i] / faces[i];
    }
    return shares;
  }
}
