package sharpkestrel.segment;

import java.util.List;
import java.util.Optional;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.regions.Regions;

/** Segmentations as they are where nothing else is said. */
public final class Segments {

  private Segments() {}

  public static Segment of(Raster scene, double grain) {
    return with(scene, grain, List.of());
  }

  static Segment with(Raster scene, double grain, List<String> weights) {
    return new Segment(
        scene,
        HeightModels.NONE,
        Optional.empty(),
        grain,
        MergeOrder.BY_LIKENESS,
        Regions.superpixels(25, 0.1),
        weights,
        Double.NaN);
  }
}
