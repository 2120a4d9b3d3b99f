package sharpkestrel.objects;

import java.util.List;
import java.util.Optional;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Raster;

/** Measuring as it is where nothing else is said. */
public final class Measures {

  private Measures() {}

  public static Measure of(ObjectSet objects, Raster scene, int levels) {
    return new Measure(
        objects,
        scene,
        HeightModels.NONE,
        Optional.empty(),
        List.of(),
        Optional.empty(),
        Double.NaN,
        levels,
        PairDirections.ALL);
  }
}
