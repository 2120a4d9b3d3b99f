package sharpkestrel.flow;

import java.nio.file.Path;
import java.util.Locale;
import sharpkestrel.deliver.ResultFiles;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectColumns;
import sharpkestrel.objects.ObjectFile;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.TreeFile;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;
import sharpkestrel.step.Suits;

/** The kinds of results that pass between steps: how one serves as another, and how each is read from a file. */
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
    if (type == TiePoints.class) {
      return "tie points";
    }
    if (type == MergingModel.class) {
      return "a merging model";
    }
    return type == OutlineSet.class ? "outlines" : type.getSimpleName();
  }

  /** Whether a value is of an input's kind, and a raster such as its step can use. */
  public static boolean suits(Object value, StepSpec.Input input) {
    if (input.type() == Object.class) {
      return ResultFiles.canWrite(value);
    }
    if (value instanceof Raster raster && input.type() == Raster.class) {
      return input.suits().stream().allMatch(wanted -> suits(raster, wanted));
    }
    boolean objects = value instanceof Cut || value instanceof ObjectSet;
    return input.type().isInstance(value)
        || objects && input.type() == ObjectSet.class
        || objects && input.type() == OutlineSet.class && input.suits().contains(Suits.OBJECTS);
  }

  private static boolean suits(Raster raster, Suits wanted) {
    return switch (wanted) {
      case RAW -> raster.attachments().get(Rpc.class).isPresent();
      case PLACED -> raster.grid().crs().isKnown();
      case ONE_BAND -> raster.bands().size() == 1;
      case SEVERAL_BANDS -> raster.bands().size() > 1;
      case OBJECTS -> false;
      case NUMBERS ->
        raster.bands().stream().noneMatch(b -> b.unit().equals(Calibrate.REFLECTANCE));
    };
  }

  /** Opens a file as what an input wants; where it takes any result, as what the file's ending tells. */
  public static Object open(Path file, Class<?> type) {
    String name = file.toString().toLowerCase(Locale.ROOT);
    boolean vectors = name.endsWith(".gpkg");
    boolean columns = name.endsWith(".arrow");
    if (type == Object.class) {
      return open(file, columns ? ObjectSet.class : vectors ? OutlineSet.class : Raster.class);
    }
    if (type == Raster.class) {
      return RasterFiles.open(file);
    }
    if (type == ObjectSet.class) {
      return columns ? ObjectColumns.read(file, Job.QUIET) : ObjectFile.read(file);
    }
    if (type == TiePoints.class) {
      return TiePointFile.read(file);
    }
    if (type == Cut.class) {
      if (!TreeFile.isNamed(file)) {
        throw new RasterException(
            file + " holds no merge tree: 'segment' writes one where the name of --out ends in "
                + TreeFile.ENDING + ".");
      }
      return TreeFile.read(TreeFile.stem(file), Job.QUIET);
    }
    if (type == MergingModel.class) {
      return MergingModelFile.read(file);
    }
    if (type == OutlineSet.class) {
      return GeoPackage.read(file, "").outlines();
    }
    throw new RasterException(
        "Inputs of type " + type.getSimpleName() + " are not read from files.");
  }
}
