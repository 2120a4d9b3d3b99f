package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Raster;

/** What objects measure in the bands of a scene. */
final class SpectralFeatures {

  private final Raster scene;
  private final PlaneFeatures planes;
  private final List<Table.Column> columns = new ArrayList<>();

  private SpectralFeatures(Raster scene, PlaneFeatures planes) {
    this.scene = scene;
    this.planes = planes;
  }

  /**
   * @param planes whose planes are the scene's bands
   */
  static List<Table.Column> columns(Raster scene, PlaneFeatures planes, Neighbours neighbours) {
    SpectralFeatures features = new SpectralFeatures(scene, planes);
    features.bands(neighbours);
    features.difference("ndvi", BandRole.NEAR_INFRARED, BandRole.RED);
    features.difference("ndwi", BandRole.GREEN, BandRole.NEAR_INFRARED);
    features.blueOverRed();
    return features.columns;
  }

  private void bands(Neighbours neighbours) {
    List<Band> bands = scene.bands();
    int n = planes.means[0].length;
    double[] brightness = new double[n];
    double[] variation = new double[n];
    for (int b = 0; b < bands.size(); b++) {
      for (int i = 0; i < n; i++) {
        double mean = planes.means[b][i];
        brightness[i] += mean / bands.size();
        variation[i] += mean > 0 ? planes.spreads[b][i] / mean / bands.size() : Double.NaN;
      }
    }
    for (int b = 0; b < bands.size(); b++) {
      double[] share = new double[n];
      double[] contrast = new double[n];
      for (int i = 0; i < n; i++) {
        share[i] = planes.means[b][i] / (brightness[i] * bands.size());
        contrast[i] = planes.means[b][i] - neighbours.mean(i, planes.means[b]);
      }
      Band band = bands.get(b);
      String key = key(bands, b);
      add(key, band, "mean", planes.means[b]);
      add(key, band, "spread", planes.spreads[b]);
      add(key, band, "min", planes.mins[b]);
      add(key, band, "max", planes.maxs[b]);
      add(key, band, "p10", planes.percentiles[b][0]);
      add(key, band, "p50", planes.percentiles[b][1]);
      add(key, band, "p90", planes.percentiles[b][2]);
      add(key, band, "share", share);
      add(key, band, "contrast", contrast);
    }
    columns.add(FeatureCatalogue.column("brightness", bands.get(0).unit(), brightness));
    columns.add(FeatureCatalogue.column("variation", variation));
  }

  private void add(String key, Band band, String name, double[] values) {
    columns.add(FeatureCatalogue.ofBand(key, title(band), band.unit(), name, values));
  }

  private static String key(List<Band> bands, int b) {
    BandRole role = bands.get(b).role();
    boolean unique = bands.stream().filter(band -> band.role() == role).count() == 1;
    return role != BandRole.OTHER && unique
        ? role.key()
        : bands.get(b).name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
  }

  private static String title(Band band) {
    String name = band.role() == BandRole.OTHER ? band.name() : band.role().label();
    return name.isEmpty() ? "Band" : Character.toUpperCase(name.charAt(0)) + name.substring(1);
  }

  private void difference(String name, BandRole one, BandRole two) {
    OptionalInt a = scene.bandOf(one);
    OptionalInt b = scene.bandOf(two);
    if (a.isEmpty() || b.isEmpty()) {
      return;
    }
    double[] values = new double[planes.means[0].length];
    for (int i = 0; i < values.length; i++) {
      double x = planes.means[a.getAsInt()][i];
      double y = planes.means[b.getAsInt()][i];
      values[i] = x + y > 0 ? (x - y) / (x + y) : Double.NaN;
    }
    columns.add(FeatureCatalogue.column(name, values));
  }

  private void blueOverRed() {
    OptionalInt blue = scene.bandOf(BandRole.BLUE);
    OptionalInt red = scene.bandOf(BandRole.RED);
    if (blue.isEmpty() || red.isEmpty()) {
      return;
    }
    double[] values = new double[planes.means[0].length];
    for (int i = 0; i < values.length; i++) {
      double under = planes.means[red.getAsInt()][i];
      values[i] = under > 0 ? planes.means[blue.getAsInt()][i] / under : Double.NaN;
    }
    columns.add(FeatureCatalogue.column("blue_red", values));
  }
}
