package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.WKBWriter;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.GeoJson;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.place.FindOffsets;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Step;

/** Shapes with a table: outlines of things, seams, places where a scene is off. */
final class OutlinesKind extends ResultKind<OutlineSet> {

  OutlinesKind() {
    super(OutlineSet.class, "a set of outlines");
  }

  @Override
  public String describe(OutlineSet set) {
    return set.table().has(FindOffsets.OFF)
        ? offsets(set.table().values(FindOffsets.OFF))
        : set.count() + " outlines";
  }

  private static String offsets(double[] off) {
    double squares = 0;
    double worst = 0;
    for (double each : off) {
      squares += each * each / off.length;
      worst = Math.max(worst, each);
    }
    return String.format(
        Locale.ROOT,
        "%d points; off by %.2f m RMS, CE90 %.2f m, at most %.2f m",
        off.length,
        Math.sqrt(squares),
        Fit.withinWhichNineOfTen(off),
        worst);
  }

  @Override
  public String note(OutlineSet set) {
    return grouped(set.count()) + " outlines";
  }

  @Override
  public Optional<Rows> rows(OutlineSet set) {
    return Optional.of(new Rows(IntStream.rangeClosed(1, set.count()).toArray(), set.table()));
  }

  @Override
  public void digest(OutlineSet set, Digest into, Job job) {
    into.add(set.crs().text());
    WKBWriter wkb = new WKBWriter();
    for (Geometry shape : set.outlines()) {
      into.add(wkb.write(shape));
    }
    add(set.table(), into);
  }

  static void add(Table table, Digest into) {
    for (Table.Column column : table.columns()) {
      into.add(column.name()).add(column.unit());
      if (column.isText()) {
        for (int row = 0; row < table.rows(); row++) {
          into.add(column.text(row));
        }
      } else {
        into.add(column.values());
      }
    }
  }

  @Override
  public List<String> endings() {
    return List.of(".gpkg", ".geojson", ".json");
  }

  @Override
  public List<String> readEndings() {
    return List.of(".gpkg", ".geojson");
  }

  /**
   * Rows without a shape are left out, which is said. Whether lines and points serve is for the step to say that takes them.
   */
  @Override
  public OutlineSet read(Path file, Job job) {
    Layer layer = endsWith(file, ".gpkg") ? GeoPackage.read(file, "") : GeoJson.read(file);
    OutlineSet all = layer.outlines();
    int[] shaped = IntStream.range(0, all.count())
        .filter(row -> !all.outlines().get(row).isEmpty())
        .toArray();
    if (shaped.length == all.count()) {
      return all;
    }
    job.warn((all.count() - shaped.length) + " of " + all.count() + " features in " + file
        + " have no shape and are left out.");
    return new OutlineSet(
        all.crs(),
        Arrays.stream(shaped).mapToObj(all.outlines()::get).toList(),
        all.table().select(shaped));
  }

  @Override
  public void write(OutlineSet set, Path file, Delivery delivery, Job job) {
    Layer layer = Layer.of(delivery.layer(), set);
    if (endsWith(file, ".gpkg")) {
      GeoPackage.write(layer, file);
    } else {
      GeoJson.write(layer, file);
    }
  }

  @Override
  public Optional<Keeping<OutlineSet>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "objects";
      }

      @Override
      public List<String> endings() {
        return List.of(".gpkg");
      }

      @Override
      public OutlineSet read(Path stem, Step<?> step, Job job) {
        return GeoPackage.read(with(stem, ".gpkg"), "").outlines();
      }

      @Override
      public OutlineSet write(OutlineSet set, Path stem, Job job) {
        GeoPackage.write(Layer.of("outlines", set), with(stem, ".gpkg"));
        return set;
      }
    });
  }
}
