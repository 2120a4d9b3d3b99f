package sharpkestrel.deliver;

import java.nio.file.Path;
import sharpkestrel.io.Compression;
import sharpkestrel.kinds.ResultKind;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Job;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Writes a result to a file for others: outlines and objects with all their features, rasters with overviews. */
@StepInfo(
    id = "export",
    stage = Stage.DELIVER,
    title = "Export",
    next = "Outlines that nobody else has yet.",
    nextFor = Suits.OUTLINES,
    does =
        "Writes a result to a file for others. Outlines and objects with all their features: GeoPackage (.gpkg, with"
            + " spatial index) or GeoJSON (.geojson). Rasters: GeoTIFF (.tif) in tiles with overviews, cloud-optimised."
            + " Objects also as a GeoTIFF of their numbers.")
public record Export(
    @In(does = "The result to write: outlines, objects or a raster.")
    Object result,

    @Setting(label = "File", does = "Where to write: a name that ends in .gpkg, .geojson or .tif.")
    Path file,

    @Setting(label = "Layer", does = "Name of the table in a GeoPackage.", initial = "outlines")
    String layer,

    @Setting(label = "Compression", does = "How a GeoTIFF is compressed.", initial = "zstd")
    Compression compression)
    implements Step<Path> {

  @Override
  public Path run(Job job) {
    ResultKinds.write(result, file, new ResultKind.Delivery(layer, compression, true), job);
    return file;
  }
}
