package sharpkestrel.extract;

import java.util.Optional;
import sharpkestrel.raster.Layered;
import sharpkestrel.raster.Raster;
import sharpkestrel.step.In;

/** What pixels are looked at in. */
public record PixelScene(
    @In(does = "The scene.") Raster scene,

    @In(
        does =
            "A further raster on the same pixels whose bands count too, such as an index, texture or heights.",
        optional = true,
        byHand = true)
    Optional<Raster> layer) {

  /** The scene with the bands of the further raster behind its own. */
  Raster raster() {
    return layer.map(more -> Layered.of(scene, more)).orElse(scene);
  }
}
