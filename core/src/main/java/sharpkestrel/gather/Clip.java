package sharpkestrel.gather;

import java.util.Optional;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Cuts an area out of a scene in whole pixels; the sensor model moves with it. The whole scene where none is given. */
@StepInfo(
    id = "clip",
    stage = Stage.GATHER,
    title = "Clip",
    does =
        "Cuts an area out of a scene in whole pixels, its sensor model moved along; the whole scene where no area is given.")
public record Clip(
    @In(does = "The scene to cut from.") Raster scene,

    @Setting(
        label = "Area",
        does =
            "West, south, east, north in the scene's own coordinates; for a scene without place, pixels.",
        initial = "auto")
    Optional<Extent> extent)
    implements Step<Raster> {

  @Override
  public Raster run(Job job) {
    Window area = extent.map(this::pixels).orElse(scene.grid().window());
    if (area.equals(scene.grid().window())) {
      return scene;
    }
    Attachments attachments = scene
        .attachments()
        .get(Rpc.class)
        .map(rpc -> scene.attachments().with(Rpc.class, rpc.shifted(area.x(), area.y())))
        .orElse(scene.attachments());
    Grid grid = scene.grid().part(area);
    return new DerivedRaster(grid, scene.bands(), attachments, scene.zoom()) {
      @Override
      public Optional<LabelRaster> wholeNumbers() {
        return scene.wholeNumbers().map(whole -> whole.part(area));
      }

      @Override
      protected void compute(int level, Window window, float[][] target, Request request) {
        if (!sharesPixels(area, level, window)) {
          Planes.readByHalving(this, level, window, target, request);
          return;
        }
        Window there = new Window(
            window.x() + (area.x() >> level),
            window.y() + (area.y() >> level),
            window.width(),
            window.height());
        scene.read(level, there, target, request);
      }
    };
  }

  /** Whether the scene's own pixels of a level are those of the cut-out: no side of it may fall within one. */
  private boolean sharesPixels(Window area, int level, Window window) {
    int within = (1 << level) - 1;
    boolean corner = (area.x() & within) == 0 && (area.y() & within) == 0;
    boolean right = (long) window.right() << level <= area.width()
        || area.right() == scene.grid().width();
    boolean bottom = (long) window.bottom() << level <= area.height()
        || area.bottom() == scene.grid().height();
    return level == 0 || corner && right && bottom;
  }

  private Window pixels(Extent wanted) {
    Window area = scene.grid().under(wanted);
    if (area.isEmpty()) {
      throw new RasterException("The area " + wanted + " lies outside of the scene, which covers "
          + scene.grid().extent() + ".");
    }
    return area;
  }
}
