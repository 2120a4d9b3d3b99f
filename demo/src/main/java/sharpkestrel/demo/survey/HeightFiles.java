package sharpkestrel.demo.survey;

import java.nio.file.Path;
import java.util.List;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.noise.Noise;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.GroundSensor;
import sharpkestrel.demo.things.Things;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.Window;

/** Height models above the geoid: the terrain and the surface at 1 m, and a coarse one with errors of its own. */
public final class HeightFiles {

  private static final double FINE = 1;
  private static final double COARSE = 30;
  private static final double NO_DATA = -9999;
  /** The coarse model lies a little beside the truth and a little off it, as such models do. */
  private static final double[] COARSE_SHIFT = {6.5, -4};

  private static final double COARSE_WAVE = 1.6;
  private static final double COARSE_NOISE = 0.9;

  private final Ground ground;
  private final Extent extent;
  private final CrsName crs;

  public HeightFiles(Ground ground, Extent extent, CrsName crs) {
    this.ground = ground;
    // whole metres, so that nodes of the ground are nodes of the file
    this.extent = new Extent(
        Math.floor(extent.west()),
        Math.floor(extent.south()),
        Math.ceil(extent.east()),
        Math.ceil(extent.north()));
    this.crs = crs;
  }

  private Grid grid(double step) {
    int width = (int) Math.ceil(extent.width() / step) + 1;
    int height = (int) Math.ceil(extent.height() / step) + 1;
    // nodes are points: the pixel around one begins half a step before it
    return new Grid(
        width,
        height,
        Affine.northUp(extent.west() - step / 2, extent.north() + step / 2, step),
        crs);
  }

  private void write(double step, MadeRaster.Maker maker, Path path, Job job) {
    Band band = new Band("height", BandRole.HEIGHT, "m", SampleType.FLOAT32, NO_DATA);
    GeoTiffWriter.write(
        new MadeRaster(
            grid(step),
            List.of(band),
            Attachments.NONE.with(VerticalDatum.class, VerticalDatum.GEOID),
            maker),
        path,
        Compression.ZSTD,
        new QuietJob(job));
  }

  /** Bare ground. */
  public void terrain(Path path, Job job) {
    write(FINE, window -> nodes(window, FINE, ground.tiles().lookup()::height), path, job);
  }

  /** The tops of all that lasts. */
  public void surface(Scene scene, Things lasting, Path path, Job job) {
    Grid grid = grid(FINE);
    GroundSensor down = new GroundSensor(
        extent.west() - FINE / 2,
        extent.north() + FINE / 2,
        FINE,
        grid.width(),
        grid.height(),
        () -> ground.tiles().lookup()::height,
        null);
    Exposure exposure = new Exposure(scene.through(down), ground, lasting, 0);
    write(FINE, window -> new float[][] {exposure.met(window)[1]}, path, job);
  }

  /** What a model of the whole world has here. */
  public void coarse(Path path, Job job) {
    Noise wave = new Noise(ground.seed() * 31 + 41);
    write(
        COARSE,
        window -> nodes(window, COARSE, (e, n) -> {
          double sum = 0;
          for (int k = 0; k < 9; k++) {
            sum += ground.height(
                    e + COARSE_SHIFT[0] + (k % 3 - 1) * 10, n + COARSE_SHIFT[1] + (k / 3 - 1) * 10)
                / 9;
          }
          return sum
              + COARSE_WAVE * wave.octaves(e / 700, n / 700, 3)
              + COARSE_NOISE * wave.gaussianAt((long) e, (long) n);
        }),
        path,
        job);
  }

  private interface Height {
    double at(double e, double n);
  }

  private float[][] nodes(Window window, double step, Height height) {
    float[] plane = new float[window.area()];
    for (int y = 0; y < window.height(); y++) {
      for (int x = 0; x < window.width(); x++) {
        plane[y * window.width() + x] = (float) height.at(
            extent.west() + (window.x() + x) * step, extent.north() - (window.y() + y) * step);
      }
    }
    return new float[][] {plane};
  }
}
