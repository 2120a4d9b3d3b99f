package sharpkestrel.segment.regions;

import java.util.Arrays;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Window;

/**
 * How the colour of things changes with the light that falls on them: shade is lit by the sky and so is bluer. In
 * logarithms of bands one kind of light takes a colour along one line, whatever the material (Finlayson, Hordley, Lu and
 * Drew 2006, IEEE Trans. PAMI 28(1), 59-68). The line's direction is the median of the change of each band over the change
 * of light between pixels a few apart of which one is at least twice as light: in a sunlit scene most of these are edges
 * of shade.
 */
final class ShadeColour {

  private static final int APART = 5;
  private static final double LEAST_CHANGE = Math.log(2);
  private static final int LEAST_PAIRS = 200;
  private static final float MOST = 0.35f;

  private ShadeColour() {}

  /**
   * @param space whose colours are not corrected yet
   * @return for each used band the change of its logarithm beyond that of light, for each unit of light; 0 where the scene
   *     has too few strong edges to tell
   */
  static float[] of(FeatureSpace space, Grid grid, Job job) {
    int dimensions = space.spectralDimensions();
    int bands = dimensions - 1;
    float[] shade = new float[Math.max(1, bands)];
    if (bands == 0) {
      return shade;
    }
    float[][] slopes = new float[bands][1 << 16];
    int pairs = 0;
    for (Window window : ValueSample.blocks(grid)) {
      job.cancellation().check();
      float[] features = space.readSpectral(window, job.request());
      for (int y = 0; y + APART < window.height(); y += 2) {
        for (int x = 0; x + APART < window.width(); x += 2) {
          int i = y * window.width() + x;
          for (int step : new int[] {APART, APART * window.width()}) {
            float change = features[(i + step) * dimensions] - features[i * dimensions];
            if (!(Math.abs(change) >= LEAST_CHANGE * FeatureSpace.lightScale())) {
              continue;
            }
            if (pairs == slopes[0].length) {
              for (int k = 0; k < bands; k++) {
                slopes[k] = Arrays.copyOf(slopes[k], 2 * pairs);
              }
            }
            for (int k = 0; k < bands; k++) {
              slopes[k][pairs] =
                  (features[(i + step) * dimensions + 1 + k] - features[i * dimensions + 1 + k])
                      / change;
            }
            pairs++;
          }
        }
      }
    }
    for (int k = 0; k < bands && pairs >= LEAST_PAIRS; k++) {
      Arrays.sort(slopes[k], 0, pairs);
      float slope = slopes[k][pairs / 2] * FeatureSpace.lightScale() / space.colourScale(k);
      shade[k] = Math.max(-MOST, Math.min(MOST, slope));
    }
    return shade;
  }
}
