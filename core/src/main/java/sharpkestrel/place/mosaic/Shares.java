package sharpkestrel.place.mosaic;

import sharpkestrel.raster.Distances;
import sharpkestrel.raster.PolygonFill;

/**
 * How much each scene has to say about the tone of a place: half on a seam, none a certain distance inside of another's
 * area. On the overview's pixels, between them interpolated.
 */
final class Shares {

  private final Overview overview;
  private final float[][] byMember;

  /**
   * @param areas by member, null where one shows nothing
   * @param distance from a seam over which tones are evened out, in pixels of the overview
   */
  Shares(Overview overview, PolygonFill[] areas, double distance) {
    this.overview = overview;
    byMember = new float[areas.length][];
    int width = overview.grid().width();
    int height = overview.grid().height();
    for (int m = 0; m < areas.length; m++) {
      if (areas[m] == null) {
        continue;
      }
      boolean[] inside = areas[m].fill(overview.level(), overview.grid().window());
      boolean[] outside = new boolean[inside.length];
      for (int i = 0; i < outside.length; i++) {
        outside[i] = !inside[i];
      }
      float[] toInside = Distances.to(inside, width, height);
      float[] toOutside = Distances.to(outside, width, height);
      byMember[m] = new float[inside.length];
      for (int i = 0; i < inside.length; i++) {
        double signed = inside[i] ? toOutside[i] - 0.5 : 0.5 - toInside[i];
        byMember[m][i] =
            (float) Math.max(0, Math.min(1, 0.5 + 0.5 * signed / Math.max(0.5, distance)));
      }
    }
    for (int i = 0; i < width * height; i++) {
      float sum = 0;
      for (float[] of : byMember) {
        sum += of == null ? 0 : of[i];
      }
      for (float[] of : byMember) {
        if (of != null && sum > 0) {
          of[i] /= sum;
        }
      }
    }
  }

  /**
   * @param x in pixels of the overview, centres at .5
   */
  double of(int member, double x, double y) {
    float[] shares = byMember[member];
    if (shares == null) {
      return 0;
    }
    int width = overview.grid().width();
    int height = overview.grid().height();
    double u = Math.max(0, Math.min(width - 1.0, x - 0.5));
    double v = Math.max(0, Math.min(height - 1.0, y - 0.5));
    int left = Math.min((int) u, Math.max(0, width - 2));
    int top = Math.min((int) v, Math.max(0, height - 2));
    int right = Math.min(left + 1, width - 1);
    int bottom = Math.min(top + 1, height - 1);
    double fx = u - left;
    double fy = v - top;
    double above = shares[top * width + left] * (1 - fx) + shares[top * width + right] * fx;
    double below = shares[bottom * width + left] * (1 - fx) + shares[bottom * width + right] * fx;
    return above * (1 - fy) + below * fy;
  }
}
