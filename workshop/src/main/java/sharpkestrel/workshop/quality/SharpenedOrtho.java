package sharpkestrel.workshop.quality;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.gather.Assemble;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Json;
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

  /** By what its instrument delivers: sharpened where it has a panchromatic band, as reflectance where it tells its gains. */
  Raster of(Survey survey, Job job) {
    if (Files.isRegularFile(survey.ortho("scene-one"))) {
      return RasterFiles.open(survey.ortho("scene-one"));
    }
    JsonNode about = Json.read(survey.folder().resolve("survey.json"));
    Instrument instrument =
        Instrument.of(about.path("sensor").asText(Instrument.SIX_BANDS.label()));
    String undulation = about.path("undulation").asText();
    Path folder = DemoData.home().resolve("runs/segment-" + survey.folder().getFileName());
    Path file = folder.resolve(name().toLowerCase(Locale.ROOT) + ".tif");
    Raster bands =
        ortho(survey, "ms", instrument, instrument.gsd() * instrument.ratio(), undulation, job);
    Raster seen = bands;
    if (instrument.pan().isPresent()) {
      Raster pan = ortho(survey, "pan", instrument, instrument.gsd(), undulation, job);
      seen = (Raster) StepCatalogue.get("pansharpen")
          .make(Map.of("pan", pan, "multispectral", bands), Map.of("method", "brovey"))
          .run(job);
    }
    GeoTiffWriter.write(seen, file, Compression.ZSTD, false, job);
    return RasterFiles.open(file);
  }

  private Raster ortho(
      Survey survey,
      String image,
      Instrument instrument,
      double pixel,
      String undulation,
      Job job) {
    Raster numbers = new Assemble(survey.item(), image).run(job);
    Raster scene = instrument.hasGains()
        ? (Raster) StepCatalogue.get("calibrate")
            .make(Map.of("scene", numbers), Map.of("haze", "darkest"))
            .run(job)
        : numbers;
    Map<String, Object> inputs = new HashMap<>(Map.of("scene", scene));
    if (this == TRUE_ORTHO) {
      inputs.put("surface", RasterFiles.open(survey.surface()));
    } else {
      inputs.put("heights", RasterFiles.open(survey.heights()));
    }
    return (Raster) StepCatalogue.get("ortho")
        .make(inputs, Map.of("undulation", undulation, "pixel-size", SettingValues.plain(pixel)))
        .run(job);
  }
}
