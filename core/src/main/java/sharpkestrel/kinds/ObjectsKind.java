package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoJson;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.objects.ObjectColumns;
import sharpkestrel.objects.ObjectFile;
import sharpkestrel.objects.ObjectGeometry;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.NumberRaster;
import sharpkestrel.step.Step;
import sharpkestrel.step.Suits;

/** Objects: pixels with a table. */
final class ObjectsKind extends ResultKind<ObjectSet> {

  private static final Class<ObjectSet> TYPE = ObjectSet.class;

  ObjectsKind() {
    super(TYPE, "an object set");
  }

  @Override
  public String describe(ObjectSet set) {
    return set.count() + (ClassMap.isMap(set) ? " classes, " : " objects, ")
        + set.table().columns().size() + " features";
  }

  @Override
  public long bytes(ObjectSet set) {
    return (long) Double.BYTES * set.count() * (1 + set.table().columns().size());
  }

  @Override
  public String note(ObjectSet set) {
    return grouped(set.count()) + (ClassMap.isMap(set) ? " classes" : " objects");
  }

  @Override
  public boolean suits(ObjectSet set, Suits wanted) {
    return switch (wanted) {
      case UNMEASURED -> set.table().columns().size() <= 1;
      case MEASURED -> set.table().columns().size() > 1 && !ClassMap.isMap(set);
      case CLUSTERS -> ClassMap.hasUnnamedClusters(set);
      case CLASS_MAP -> ClassMap.isMap(set) && !ClassMap.hasUnnamedClusters(set);
      case OUTLINES, PROBABILITIES -> false;
      default -> true;
    };
  }

  @Override
  public Optional<Rows> rows(ObjectSet set) {
    return Optional.of(new Rows(set.ids(), set.table()));
  }

  @Override
  public void digest(ObjectSet set, Digest into, Job job) {
    into.add(set.ids());
    OutlinesKind.add(set.table(), into);
    int width = set.labels().grid().width();
    int[] row = new int[width];
    for (int y = 0; y < set.labels().grid().height(); y++) {
      set.labels().read(new sharpkestrel.raster.Window(0, y, width, 1), row);
      Arrays.setAll(row, x -> set.rowOf()[row[x]]);
      into.add(row);
    }
  }

  @Override
  public List<String> endings() {
    return List.of(".gpkg", ".arrow", ".geojson", ".json", ".tif", ".tiff");
  }

  @Override
  public List<String> readEndings() {
    return List.of(".arrow", ".gpkg");
  }

  @Override
  public ObjectSet read(Path file, Job job) {
    return endsWith(file, ".arrow") ? ObjectColumns.read(file, job) : ObjectFile.read(file);
  }

  @Override
  public List<Path> readWith(Path file) {
    return endsWith(file, ".arrow") ? List.of(file, ObjectColumns.labels(file)) : List.of(file);
  }

  @Override
  public void write(ObjectSet set, Path file, Delivery delivery, Job job) {
    if (endsWith(file, ".gpkg")) {
      ObjectFile.write(set, file);
    } else if (endsWith(file, ".arrow")) {
      ObjectColumns.write(set, file, job);
    } else if (endsWith(file, ".tif") || endsWith(file, ".tiff")) {
      GeoTiffWriter.write(numbers(set), file, delivery.compression(), false, job);
    } else {
      GeoJson.write(ObjectFile.toLayer(set, "objects"), file);
    }
  }

  /** The objects' ids where they lie: those that stand in the table. */
  private static NumberRaster numbers(ObjectSet set) {
    int[] rows = set.rowOf();
    int[] ids = set.ids();
    return new NumberRaster(
        set.labels(),
        "object",
        Arrays.stream(ids).max().orElse(0),
        label -> rows[label] < 0 ? 0 : ids[rows[label]]);
  }

  @Override
  public Set<Class<?>> servesAs() {
    return Set.of(OutlineSet.class);
  }

  @Override
  public Object as(ObjectSet set, Class<?> wanted) {
    Table table = set.table();
    return new OutlineSet(set.labels().grid().crs(), ObjectGeometry.of(set).outlines(), table);
  }

  @Override
  public Optional<Keeping<ObjectSet>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "objects";
      }

      @Override
      public List<String> endings() {
        return List.of(".arrow", ".tif");
      }

      @Override
      public ObjectSet read(Path stem, Step<?> step, Job job) {
        return ObjectColumns.read(with(stem, ".arrow"), job);
      }

      @Override
      public ObjectSet write(ObjectSet set, Path stem, Job job) {
        ObjectColumns.write(set, with(stem, ".arrow"), job);
        return set;
      }
    });
  }
}
