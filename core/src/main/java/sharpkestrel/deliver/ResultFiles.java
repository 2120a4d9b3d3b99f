package sharpkestrel.deliver;

import java.nio.file.Path;
import java.util.Locale;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoJson;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Layer;
import sharpkestrel.objects.ObjectColumns;
import sharpkestrel.objects.ObjectFile;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.NumberRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.TreeFile;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;

/** Writes results to files of the kind that the name's ending tells. */
public final class ResultFiles {

  private ResultFiles() {}

  /** Whether a value can be written to some kind of file. */
  public static boolean canWrite(Object value) {
    return value instanceof Raster
        || value instanceof Cut
        || value instanceof ObjectSet
        || value instanceof OutlineSet
        || value instanceof TiePoints
        || value instanceof MergingModel;
  }

  /**
   * @param layer name of the table in a GeoPackage of outlines
   * @throws RasterException for an ending that does not go with the value
   */
  public static void write(
      Object value, Path file, String layer, Compression compression, Job job) {
    write(value, file, layer, compression, true, job);
  }

  /**
   * @param overviews whether a raster is given reduced copies
   */
  public static void write(
      Object value, Path file, String layer, Compression compression, boolean overviews, Job job) {
    switch (value) {
      case Raster raster -> {
        expect("A raster", file, ".tif", ".tiff");
        GeoTiffWriter.write(raster, file, compression, overviews, job);
      }
      case Cut cut when TreeFile.isNamed(file) -> TreeFile.write(cut, TreeFile.stem(file), job);
      case Cut cut -> write(ObjectSet.of(cut), file, layer, compression, job);
      case ObjectSet set -> write(set, file, compression, job);
      case OutlineSet outlines -> {
        expect("A set of outlines", file, ".gpkg", ".geojson", ".json");
        if (endsWith(file, ".gpkg")) {
          GeoPackage.write(Layer.of(layer, outlines), file);
        } else {
          GeoJson.write(Layer.of(layer, outlines), file);
        }
      }
      case TiePoints points -> {
        expect("A set of tie points", file, ".geojson", ".json");
        TiePointFile.write(points, file);
      }
      case MergingModel model -> {
        expect("A merging model", file, ".json");
        MergingModelFile.write(model, file);
      }
      default ->
        throw new RasterException(
            "A result of type " + value.getClass().getSimpleName() + " is not written to a file.");
    }
  }

  private static void write(ObjectSet set, Path file, Compression compression, Job job) {
    expect("An object set", file, ".gpkg", ".arrow", ".geojson", ".json", ".tif", ".tiff");
    if (endsWith(file, ".gpkg")) {
      ObjectFile.write(set, file);
    } else if (endsWith(file, ".arrow")) {
      ObjectColumns.write(set, file, job);
    } else if (endsWith(file, ".tif", ".tiff")) {
      int[] rows = set.rowOf();
      Raster numbers =
          new NumberRaster(set.labels(), "object", set.count(), label -> rows[label] + 1);
      GeoTiffWriter.write(numbers, file, compression, false, job);
    } else {
      GeoJson.write(ObjectFile.toLayer(set, "objects"), file);
    }
  }

  private static boolean endsWith(Path file, String... endings) {
    String name = file.toString().toLowerCase(Locale.ROOT);
    for (String ending : endings) {
      if (name.endsWith(ending)) {
        return true;
      }
    }
    return false;
  }

  private static void expect(String what, Path file, String... endings) {
    if (!endsWith(file, endings)) {
      throw new RasterException(file + ": " + what.toLowerCase(Locale.ROOT)
          + " is written to files that end in " + String.join(" or ", endings) + ".");
    }
  }
}
