package sharpkestrel.flow;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.Layer;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.objects.ObjectColumns;
import sharpkestrel.objects.ObjectFile;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.fit.TiePointFile;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Zoom;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.Segment;
import sharpkestrel.segment.TreeFile;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;
import sharpkestrel.step.Step;

/**
 * Results kept in a folder in open formats, each under a name that is the digest of all that made it: {@code rasters},
 * {@code points}, {@code objects} and {@code models}. What was made once is found again; deleting any of the files costs only time.
 */
public final class KeptResults {

  private static final Pattern NAME =
      Pattern.compile("([a-z-]+-[0-9a-f]{16})\\.(tif|gpkg|geojson|arrow|json)");
  private static final Pattern LEFT = Pattern.compile("\\..+\\.(\\d+)\\.part(\\.\\d+)?");

  private final Path rasters;
  private final Path places;
  private final Path objects;
  private final Path models;

  public KeptResults(Path folder) {
    rasters = folder.resolve("rasters");
    places = folder.resolve("points");
    objects = folder.resolve("objects");
    models = folder.resolve("models");
  }

  /** Whether results of a kind can be kept. */
  public static boolean keeps(Class<?> type) {
    return Set.of(
            Raster.class,
            TiePoints.class,
            Cut.class,
            ObjectSet.class,
            OutlineSet.class,
            MergingModel.class)
        .contains(type);
  }

  /** Whether a result is worth a file: scores, and rasters that cost no more to make than to read, are not. */
  public static boolean isWorthIt(Object value) {
    return switch (value) {
      case Raster raster -> raster.zoom() != Zoom.POINTWISE;
      case Cut cut -> true;
      case ObjectSet set -> true;
      case OutlineSet outlines -> true;
      case TiePoints points -> true;
      case MergingModel model -> true;
      default -> false;
    };
  }

  /**
   * What a step would make, where it is kept. A file that cannot be read counts as none: the result is made again.
   *
   * @param step as set, with its inputs
   */
  public Optional<Object> find(
      Origin.Fingerprint fingerprint, Class<?> type, Step<?> step, Job job) {
    try {
      return Optional.ofNullable(read(fingerprint.file(), type, step, job));
    } catch (RasterException damaged) {
      job.warn("A kept result is made again. " + damaged.getMessage());
      return Optional.empty();
    }
  }

  private Object read(String file, Class<?> type, Step<?> step, Job job) {
    if (type == Raster.class) {
      Path raster = rasters.resolve(file + ".tif");
      return Files.isRegularFile(raster) ? RasterFiles.open(raster) : null;
    }
    if (type == TiePoints.class) {
      Path points = places.resolve(file + ".geojson");
      return Files.isRegularFile(points) ? TiePointFile.read(points) : null;
    }
    if (type == MergingModel.class) {
      Path model = models.resolve(file + ".json");
      return Files.isRegularFile(model) ? MergingModelFile.read(model) : null;
    }
    Path stem = objects.resolve(file);
    if (type == Cut.class && TreeFile.exists(stem)) {
      Cut whole = TreeFile.read(stem, job);
      return step instanceof Segment segment
          ? segment.cut(whole.superpixels(), whole.tree())
          : whole;
    }
    Path columns = objects.resolve(file + ".arrow");
    if (type == ObjectSet.class && ObjectColumns.exists(columns)) {
      return ObjectColumns.read(columns, job);
    }
    Path table = objects.resolve(file + ".gpkg");
    if (!Files.isRegularFile(table)) {
      return null;
    }
    return type == ObjectSet.class
        ? ObjectFile.read(table)
        : type == OutlineSet.class ? GeoPackage.read(table, "").outlines() : null;
  }

  /**
   * Writes a result under its name, whole or not at all.
   *
   * @return a raster as read from its file; anything else as it came
   */
  public Object keep(Origin.Fingerprint fingerprint, Object value, Job job) {
    Path table = objects.resolve(fingerprint.file() + ".gpkg");
    switch (value) {
      case Raster raster -> {
        Path file = rasters.resolve(fingerprint.file() + ".tif");
        GeoTiffWriter.write(raster, file, Compression.ZSTD, job);
        return RasterFiles.open(file);
      }
      case TiePoints points ->
        TiePointFile.write(points, places.resolve(fingerprint.file() + ".geojson"));
      case MergingModel model ->
        MergingModelFile.write(model, models.resolve(fingerprint.file() + ".json"));
      case Cut cut -> TreeFile.write(cut, objects.resolve(fingerprint.file()), job);
      case ObjectSet set ->
        ObjectColumns.write(set, objects.resolve(fingerprint.file() + ".arrow"), job);
      case OutlineSet outlines -> GeoPackage.write(Layer.of("outlines", outlines), table);
      default ->
        throw new RasterException(
            "A result of type " + value.getClass().getSimpleName() + " is not kept.");
    }
    return value;
  }

  public boolean has(Origin.Fingerprint fingerprint) {
    return Files.isRegularFile(rasters.resolve(fingerprint.file() + ".tif"))
        || Files.isRegularFile(places.resolve(fingerprint.file() + ".geojson"))
        || Files.isRegularFile(models.resolve(fingerprint.file() + ".json"))
        || ObjectColumns.exists(objects.resolve(fingerprint.file() + ".arrow"))
        || Files.isRegularFile(objects.resolve(fingerprint.file() + ".gpkg"));
  }

  /** Deletes kept results that are no longer wanted, and what runs that were killed left half written. */
  public void prune(Set<String> wantedFiles) {
    for (Path folder : new Path[] {rasters, places, objects, models}) {
      if (!Files.isDirectory(folder)) {
        continue;
      }
      try (Stream<Path> files = Files.list(folder)) {
        for (Path file : files.toList()) {
          String name = file.getFileName().toString();
          Matcher kept = NAME.matcher(name);
          if (kept.matches() ? !wantedFiles.contains(kept.group(1)) : isLeft(name)) {
            Files.deleteIfExists(file);
          }
        }
      } catch (IOException stays) {
        throw new RasterException(
            folder + " could not be tidied: " + stays.getMessage() + ".", stays);
      }
    }
  }

  /** Whether a name is that of a file which a process that is no more was writing. */
  private static boolean isLeft(String name) {
    Matcher left = LEFT.matcher(name);
    return left.matches() && ProcessHandle.of(Long.parseLong(left.group(1))).isEmpty();
  }
}
