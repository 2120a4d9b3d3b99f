package sharpkestrel.flow;

import java.nio.file.Path;
import java.util.Locale;
import sharpkestrel.extract.OutlineSet;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoJson;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectFile;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.Suits;

/** The kinds of results that pass between steps: how one serves as another, and how each is kept in a file. */
public final class Results {

  private Results() {}

  /**
   * A value as the type an input wants: a cut serves as an object set without features, an object set as its exact
   * outlines.
   *
   * @throws RasterException where it does not serve
   */
  public static Object as(Object value, Class<?> type) {
    if (type.isInstance(value)) {
      return value;
    }
    if (type == ObjectSet.class && value instanceof Cut cut) {
      return ObjectSet.of(cut);
    }
    if (type == OutlineSet.class && value instanceof ObjectSet set) {
      return new OutlineSet(
          set.labels().grid().crs(), ObjectGeometry.of(set).outlines(), set.table());
    }
    if (type == OutlineSet.class && value instanceof Cut cut) {
      return as(ObjectSet.of(cut), type);
    }
    throw new RasterException(
        "Wanted " + kind(type) + " here, but was given " + kind(value.getClass()) + ".");
  }

  private static String kind(Class<?> type) {
    if (Raster.class.isAssignableFrom(type)) {
      return "a raster";
    }
    if (type == ObjectSet.class || type == Cut.class) {
      return "an object set";
    }
    return type == OutlineSet.class ? "outlines" : type.getSimpleName();
  }

  /** Whether a value is of an input's kind, and a raster such as its step can use. */
  public static boolean suits(Object value, StepSpec.Input input) {
    if (value instanceof Raster raster && input.type() == Raster.class) {
      return input.suits().stream().allMatch(wanted -> suits(raster, wanted));
    }
    return input.type().isInstance(value)
        || input.type() == ObjectSet.class && value instanceof Cut;
  }

  private static boolean suits(Raster raster, Suits wanted) {
    return switch (wanted) {
      case RAW -> raster.attachments().get(Rpc.class).isPresent();
      case PLACED -> raster.grid().crs().isKnown();
      case ONE_BAND -> raster.bands().size() == 1;
      case SEVERAL_BANDS -> raster.bands().size() > 1;
      case NUMBERS ->
        raster.bands().stream().noneMatch(b -> b.unit().equals(Calibrate.REFLECTANCE));
    };
  }

  /** Opens a file as what an input wants. */
  public static Object open(Path file, Class<?> type) {
    if (type == Raster.class) {
      return RasterFiles.open(file);
    }
    if (type == ObjectSet.class) {
      return ObjectFile.read(file);
    }
    if (type == OutlineSet.class) {
      return OutlineSet.of(GeoPackage.read(file, ""));
    }
    throw new RasterException(
        "Inputs of type " + type.getSimpleName() + " are not read from files.");
  }

  /** Writes a result to a file of the kind its ending tells. */
  public static void write(Object value, Path file, Compression compression, Job job) {
    String name = file.toString().toLowerCase(Locale.ROOT);
    switch (value) {
      case Raster raster -> {
        expect(name, file, ".tif", ".tiff");
        GeoTiffWriter.write(raster, file, compression, job);
      }
      case Cut cut -> write(ObjectSet.of(cut), file, compression, job);
      case ObjectSet set -> {
        if (name.endsWith(".tif") || name.endsWith(".tiff")) {
          GeoTiffWriter.write(new ObjectIdRaster(set), file, compression, false, job);
          return;
        }
        expect(name, file, ".gpkg", ".geojson", ".tif");
        if (name.endsWith(".gpkg")) {
          ObjectFile.write(set, file);
        } else {
          GeoJson.write(ObjectFile.toLayer(set, "objects"), file);
        }
      }
      case OutlineSet outlines -> {
        expect(name, file, ".gpkg", ".geojson");
        if (name.endsWith(".gpkg")) {
          GeoPackage.write(outlines.toLayer("outlines"), file);
        } else {
          GeoJson.write(outlines.toLayer("outlines"), file);
        }
      }
      default ->
        throw new RasterException(
            "A result of type " + value.getClass().getSimpleName() + " is not written to a file.");
    }
  }

  private static void expect(String name, Path file, String... endings) {
    for (String ending : endings) {
      if (name.endsWith(ending)) {
        return;
      }
    }
    throw new RasterException(file + ": this result is written to files that end in "
        + String.join(" or ", endings) + ".");
  }
}
