package sharpkestrel.deliver;

import java.nio.file.Path;
import java.util.Locale;
import sharpkestrel.extract.OutlineSet;
import sharpkestrel.io.GeoJson;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Writes outlines with all their features to a GeoPackage or GeoJSON file. */
@StepInfo(
    id = "export",
    stage = Stage.DELIVER,
    title = "Export",
    does =
        "Writes outlines with all their features to a GeoPackage (.gpkg, with spatial index) or GeoJSON file (.geojson).")
public record Export(
    @In(does = "The outlines to write.") OutlineSet outlines,

    @Setting(label = "File", does = "Where to write: a name that ends in .gpkg or .geojson.")
    Path file,

    @Setting(label = "Layer", does = "Name of the table in a GeoPackage.", initial = "outlines")
    String layer)
    implements Step<Path> {

  @Override
  public Path run(Job job) {
    String name = file.toString().toLowerCase(Locale.ROOT);
    if (name.endsWith(".gpkg")) {
      GeoPackage.write(outlines.toLayer(layer), file);
    } else if (name.endsWith(".geojson") || name.endsWith(".json")) {
      GeoJson.write(outlines.toLayer(layer), file);
    } else {
      throw new RasterException(
          "The kind of file is told by its ending: " + file + " should end in .gpkg or .geojson.");
    }
    return file;
  }
}
