package sharpkestrel.sharpen;

import java.util.Optional;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Statistics;
import sharpkestrel.sharpen.texture.WindowSize;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;

/** The values whose texture is measured. */
public record TextureSource(
    @In(does = "The scene.") Raster scene,

    @Setting(
        label = "Band",
        does = "Role of the band to measure; auto takes the mean of the visible ones.",
        initial = "auto")
    Optional<BandRole> band) {

  /** One band. */
  Raster values() {
    return band.map(role -> Brightness.of(scene, scene.require(role)))
        .orElseGet(() -> Brightness.visible(scene));
  }

  /**
   * Statistics of the values.
   *
   * @throws RasterException where there are none
   */
  Statistics statistics(Job job) {
    String what = "texture " + band.map(BandRole::key).orElse("");
    Statistics found = Statistics.kept(values(), scene, what, job)[0];
    if (found.valid() == 0) {
      throw new RasterException("The band holds no data, so it has no texture.");
    }
    return found;
  }

  /** Pixels of the window that is usual at the size of the scene's pixels. */
  int usualPixels() {
    return WindowSize.usual(GroundSize.of(scene).mean());
  }

  /** Pixels of a window given in pixels or metres. */
  int pixels(String window) {
    return WindowSize.parse(window, GroundSize.of(scene).mean());
  }
}
