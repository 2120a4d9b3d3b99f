package sharpkestrel.demo.survey;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.scene.Exposure;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.GroundSensor;
import sharpkestrel.demo.things.Things;
import sharpkestrel.demo.truth.LandCover;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.SampleType;

/**
 * What a perfect sensor would have recorded in the place of a scene's ortho over the terrain: light without blur, noise
 * or misalignment in all bands at the panchromatic size, and what covers each pixel.
 */
public final class TruthRasters {

  private final Exposure exposure;
  private final Grid grid;

  /**
   * @param step metres of a pixel
   * @param undulation metres from the ellipsoid up to the geoid
   */
  public TruthRasters(
      Scene scene, Ground ground, Things things, CrsName crs, double step, double undulation) {
    double[] box = box(scene, ground, undulation);
    double west = Math.floor(box[0] / step) * step;
    double north = Math.ceil(box[3] / step) * step;
    int width = (int) Math.ceil((box[2] - west) / step);
    int height = (int) Math.ceil((north - box[1]) / step);
    grid = new Grid(width, height, Affine.northUp(west, north, step), crs);
    GroundSensor down = new GroundSensor(
        west,
        north,
        step,
        width,
        height,
        () -> {
          var look = ground.tiles().lookup();
          return (e, n) -> look.height(e, n) + undulation;
        },
        scene.sensor());
    exposure = new Exposure(scene.through(down), ground, things, undulation);
  }

  /** The box of the scene on the ground: its edge, point by point. */
  private static double[] box(Scene scene, Ground ground, double undulation) {
    double[] box = {1e12, 1e12, -1e12, -1e12};
    double[] ray = new double[4];
    int width = scene.sensor().width();
    int height = scene.sensor().height();
    for (int k = 0; k <= 64; k++) {
      double[][] edge = {
        {width * k / 64.0, 0},
        {width * k / 64.0, height},
        {0, height * k / 64.0},
        {width, height * k / 64.0}
      };
      for (double[] at : edge) {
        scene.sensor().ray(at[0], at[1], ray);
        ray[0] += undulation * ray[2];
        ray[1] += undulation * ray[3];
        double h = ground.tiles().meet(ray, 20);
        double e = ray[0] + h * ray[2];
        double n = ray[1] + h * ray[3];
        box[0] = Math.min(box[0], e);
        box[1] = Math.min(box[1], n);
        box[2] = Math.max(box[2], e);
        box[3] = Math.max(box[3], n);
      }
    }
    return box;
  }

  public Grid grid() {
    return grid;
  }

  public void radiometry(Path path, Job job) {
    List<Band> bands = new ArrayList<>();
    Scene scene = exposure.scene();
    scene.instrument().pan().ifPresent(pan -> bands.add(pan.band(SampleType.UINT16)));
    bands.addAll(scene.bands(SampleType.UINT16));
    GeoTiffWriter.write(
        new MadeRaster(grid, bands, Attachments.NONE, exposure::ideal),
        path,
        Compression.ZSTD,
        new QuietJob(job));
  }

  public void cover(Path path, Job job) {
    Band band = new Band("cover", BandRole.OTHER, "", SampleType.UINT8, Double.NaN);
    GeoTiffWriter.write(
        new MadeRaster(grid, List.of(band), Attachments.NONE, window ->
            new float[][] {exposure.met(window)[0]}),
        path,
        Compression.ZSTD,
        false,
        new QuietJob(job));
  }

  /** Nine classes alike for all regions, and how much of the sun's light each place lacks, in hundredths. */
  public void landCover(Path path, Job job) {
    List<Band> bands = List.of(
        new Band("land cover", BandRole.OTHER, "", SampleType.UINT8, 0),
        new Band("shadow", BandRole.OTHER, "%", SampleType.UINT8, Double.NaN));
    GeoTiffWriter.write(
        new MadeRaster(grid, bands, Attachments.NONE, window -> {
          float[][] covered = exposure.covered(window, LandCover::code);
          for (int i = 0; i < covered[1].length; i++) {
            covered[1][i] = Math.round(100 * covered[1][i]);
          }
          return covered;
        }),
        path,
        Compression.ZSTD,
        false,
        new QuietJob(job));
  }

  /** What the numbers of the nine classes stand for. */
  public static void landCoverLegend(Path path) {
    ObjectNode root = Json.object().put("0", "none");
    for (LandCover cover : LandCover.values()) {
      root.put(String.valueOf(cover.ordinal() + 1), cover.label());
    }
    Json.write(root, path);
  }

  /** What the numbers of the cover map stand for. */
  public static void legend(Set<Material> materials, Path path) {
    ObjectNode root = Json.object();
    for (Material material : new TreeSet<>(materials)) {
      String key = String.valueOf(material.cover);
      String known = root.path(key).asText("");
      String label = material.name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
      root.put(key, known.isEmpty() ? label : known + ", " + label);
    }
    Json.write(root, path);
  }
}
