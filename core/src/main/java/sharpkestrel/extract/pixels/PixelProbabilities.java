package sharpkestrel.extract.pixels;

import java.util.Arrays;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** The probability of each class at each pixel, worked out where it is looked at; one band for each class, by its name. */
public final class PixelProbabilities extends DerivedRaster {

  /** Unit of the bands. */
  public static final String UNIT = "probability";

  private final PixelFeatures features;
  private final Classifier classifier;

  /**
   * @throws sharpkestrel.raster.RasterException where the scene lacks bands that the classifier looks at
   */
  public static PixelProbabilities of(Raster scene, Classifier classifier) {
    return new PixelProbabilities(
        scene, PixelFeatures.named(scene, classifier.features()), classifier);
  }

  private PixelProbabilities(Raster scene, PixelFeatures features, Classifier classifier) {
    super(
        scene.grid(),
        classifier.classes().stream()
            .map(name -> new Band(name, BandRole.OTHER, UNIT, SampleType.FLOAT32, Double.NaN))
            .toList(),
        scene.attachments(),
        features.zoom());
    this.features = features;
    this.classifier = classifier;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    float[][] planes = features.read(level, window, request);
    float[] row = new float[planes.length];
    float[] out = new float[bands().size()];
    for (int i = 0; i < window.area(); i++) {
      if (i % window.width() == 0) {
        request.cancellation().check();
      }
      if (Float.isNaN(planes[0][i])) {
        Arrays.fill(out, Float.NaN);
      } else {
        for (int f = 0; f < row.length; f++) {
          row[f] = planes[f][i];
        }
        classifier.shares(row, out);
      }
      for (int k = 0; k < target.length; k++) {
        if (target[k] != null) {
          target[k][i] = out[k];
        }
      }
    }
  }
}
