package sharpkestrel.sharpen;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** The mean of some bands as one. */
final class Brightness extends DerivedRaster {

  private final Raster scene;
  private final int[] bands;

  private static final Set<BandRole> VISIBLE =
      EnumSet.of(BandRole.PAN, BandRole.BLUE, BandRole.GREEN, BandRole.RED);

  /** Of the visible bands; of all where none is. */
  static Brightness visible(Raster scene) {
    int[] all = IntStream.range(0, scene.bands().size()).toArray();
    int[] visible = Arrays.stream(all)
        .filter(b -> VISIBLE.contains(scene.bands().get(b).role()))
        .toArray();
    return new Brightness(scene, visible.length > 0 ? visible : all);
  }

  /** One band by itself. */
  static Brightness of(Raster scene, int band) {
    return new Brightness(scene, new int[] {band});
  }

  private Brightness(Raster scene, int[] bands) {
    super(
        scene.grid(),
        List.of(
            bands.length == 1
                ? scene.bands().get(bands[0])
                : new Band("brightness", BandRole.OTHER, "", SampleType.FLOAT32, Double.NaN)),
        Attachments.NONE,
        scene.zoom());
    this.scene = scene;
    this.bands = bands;
  }

  /** The same mean of a number for each band of the scene. */
  float mean(float[] ofBands) {
    float sum = 0;
    for (int b : bands) {
      sum += ofBands[b] / bands.length;
    }
    return sum;
  }

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    float[][] planes = new float[scene.bands().size()][];
    for (int b : bands) {
      planes[b] = bands.length == 1 ? target[0] : new float[window.area()];
    }
    scene.read(level, window, planes, request);
    if (bands.length > 1) {
      Arrays.fill(target[0], 0);
      for (int b : bands) {
        add(planes[b], 1f / bands.length, target[0]);
      }
    }
  }

  private static void add(float[] plane, float weight, float[] sum) {
    for (int i = 0; i < sum.length; i++) {
      sum[i] += weight * plane[i];
    }
  }
}
