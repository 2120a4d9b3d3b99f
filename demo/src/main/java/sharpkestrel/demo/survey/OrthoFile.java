package sharpkestrel.demo.survey;

import java.nio.file.Path;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.GroundSensor;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.things.Things;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;

/** What a camera in an aircraft took, as it is delivered: over the terrain already, in map coordinates, numbers alone. */
public final class OrthoFile {

  /** Share of the photo's side that the file holds: its rim is left to the neighbours. */
  private static final double INNER = 0.8;

  private final Exposure exposure;
  private final Grid grid;

  /**
   * @param middle of the photo, east and north
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public OrthoFile(
      Scene scene, Ground ground, Things things, CrsName crs, double[] middle, double undulation) {
    double step = scene.instrument().gsd();
    int side = (int) (scene.sensor().width() * INNER) / Squeezed.SIDE * Squeezed.SIDE;
    double west = Math.floor(middle[0] - side * step / 2);
    double north = Math.ceil(middle[1] + side * step / 2);
    grid = new Grid(side, side, Affine.northUp(west, north, step), crs);
    GroundSensor down = new GroundSensor(
        west,
        north,
        step,
        side,
        side,
        () -> {
          var look = ground.tiles().lookup();
          return (e, n) -> look.height(e, n) + undulation;
        },
        scene.sensor());
    exposure = new Exposure(scene.through(down), ground, things, undulation);
  }

  /** The ground it shows. */
  public Extent extent() {
    return grid.extent();
  }

  public void write(Path path, String progress, Job job) {
    Instrument instrument = exposure.scene().instrument();
    job.progress(progress, 0, 1);
    GeoTiffWriter.write(
        new MadeRaster(
            grid, exposure.scene().bands(instrument.type()), Attachments.NONE, window -> {
              float[][] numbers = exposure.numbers(window);
              int quality = instrument.answer().quality();
              return quality == 0 ? numbers : Squeezed.through(numbers, window, quality);
            }),
        path,
        Compression.DEFLATE,
        new QuietJob(job));
  }
}
