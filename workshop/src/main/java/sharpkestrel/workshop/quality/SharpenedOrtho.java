package sharpkestrel.workshop.quality;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.gather.Assemble;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

/** Scene one of a survey as reflectance, orthorectified over the terrain or the surface, and sharpened. */
enum SharpenedOrtho {
  TERRAIN_ORTHO("roofs-terrain-ortho.gpkg"),
  TRUE_ORTHO("roofs-true-ortho.gpkg");

  private final String truth;

  SharpenedOrtho(String truth) {
    this.truth = truth;
  }

  /** The roofs as they lie in this product. */
  Layer roofs(Survey survey) {
    return GeoPackage.read(survey.truth("scene-one", truth), "");
  }

  Raster of(Survey survey, long seed, int size, Job job) {
    Path folder = DemoData.home().resolve("runs/segment-" + seed + "-" + size);
    Path file = folder.resolve(name().toLowerCase(Locale.ROOT) + ".tif");
    Raster pan = ortho(survey, "pan", "0.5", job);
    Raster bands = ortho(survey, "ms", "2", job);
    Raster sharp = (Raster) StepCatalogue.get("pansharpen")
        .make(Map.of("pan", pan, "multispectral", bands), Map.of("method", "brovey"))
        .run(job);
    GeoTiffWriter.write(sharp, file, Compression.ZSTD, false, job);
    return RasterFiles.open(file);
  }

  private Raster ortho(Survey survey, String image, String pixel, Job job) {
    Raster reflectance = (Raster) StepCatalogue.get("calibrate")
        .make(
            Map.of("scene", new Assemble(survey.item(), image).run(job)), Map.of("haze", "darkest"))
        .run(job);
    Map<String, Object> inputs = new HashMap<>(Map.of("scene", reflectance));
    if (this == TRUE_ORTHO) {
      inputs.put("surface", RasterFiles.open(survey.surface()));
    } else {
      inputs.put("heights", RasterFiles.open(survey.heights()));
    }
    return (Raster) StepCatalogue.get("ortho")
        .make(inputs, Map.of("undulation", "47", "pixel-size", pixel))
        .run(job);
  }
}
