package sharpkestrel.segment;

import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.regions.MeanShiftRaster;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** A scene filtered by mean shift. */
@StepInfo(
    id = "mean-shift",
    stage = Stage.SEGMENT,
    title = "Mean-shift filter",
    version = 2,
    does =
        "Smooths a scene within its edges: each pixel climbs, in place and colour together, to the middle of what is alike"
            + " around it, and takes the colour it ends at. What the segmentation method mean-shift joins.")
public record MeanShiftFilter(
    @In(does = "The scene to filter, all its bands.") Raster scene,

    @Setting(
        label = "Radius",
        does = "Half the side of the square a pixel looks around in.",
        unit = "px",
        min = 1,
        max = 30,
        initial = "5")
    int radius,

    @Setting(
        label = "Range",
        does = "How far colours may differ to count as near, of the spread of the scene's values.",
        unit = "%",
        min = 0.1,
        max = 100,
        initial = "6")
    double range,

    @Setting(
        label = "Iterations",
        does = "Most steps of a climb.",
        min = 1,
        max = 50,
        initial = "5")
    int iterations)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    return MeanShiftRaster.of(scene, radius, range, iterations, job);
  }
}
