package sharpkestrel.place.mosaic;

import sharpkestrel.raster.Bilinear;
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
      byMember[m] = Distances.inside(inside, width, height);
      for (int i = 0; i < inside.length; i++) {
        double share = 0.5 + 0.5 * byMember[m][i] / Math.max(0.5, distance);
        byMember[m][i] = (float) Math.max(0, Math.min(1, share));
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
    return shares == null
        ? 0
        : Bilinear.held(shares, overview.grid().width(), overview.grid().height(), x, y);
  }
}
