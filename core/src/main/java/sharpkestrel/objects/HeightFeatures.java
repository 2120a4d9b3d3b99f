package sharpkestrel.objects;

import java.util.List;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Statistics;

/** How high objects stand above the ground, and how steep and rough they are on top. */
final class HeightFeatures {

  private final PlaneFeatures above;
  private final PlaneFeatures top;
  private final PlaneFit fit;

  /**
   * @param firstPlane the plane of heights above the ground; that of the surface is the next
   */
  HeightFeatures(
      int objects, int firstPlane, Raster above, Raster top, GroundSize ground, Job job) {
    this.above = new PlaneFeatures(objects, firstPlane, Statistics.of(above, 0, job), true);
    this.top = new PlaneFeatures(objects, firstPlane + 1, Statistics.of(top, 0, job), false);
    fit = new PlaneFit(objects, firstPlane + 1, ground);
  }

  List<ObjectStrips.Collector<?>> collectors() {
    return List.of(above, top, fit);
  }

  List<Table.Column> columns() {
    above.end();
    top.end();
    int n = above.means[0].length;
    double[] variance = new double[n];
    for (int i = 0; i < n; i++) {
      variance[i] = top.spreads[0][i] * top.spreads[0][i];
    }
    double[] slope = new double[n];
    double[] roughness = new double[n];
    fit.end(variance, slope, roughness);
    return List.of(
        FeatureCatalogue.column("height_mean", above.means[0]),
        FeatureCatalogue.column("height_max", above.maxs[0]),
        FeatureCatalogue.column("height_p10", above.percentiles[0][0]),
        FeatureCatalogue.column("height_p50", above.percentiles[0][1]),
        FeatureCatalogue.column("height_p90", above.percentiles[0][2]),
        FeatureCatalogue.column("height_spread", above.spreads[0]),
        FeatureCatalogue.column("slope", slope),
        FeatureCatalogue.column("roughness", roughness));
  }
}
