package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.Segment;
import sharpkestrel.segment.TreeFile;
import sharpkestrel.step.Step;
import sharpkestrel.step.Suits;

/** Merge trees with one of their cuts; the tree is kept, whichever cut it is. */
final class TreeKind extends ResultKind<Cut> {

  private final ObjectsKind objects;

  TreeKind(ObjectsKind objects) {
    super(Cut.class, "a merge tree");
    this.objects = objects;
  }

  @Override
  public String describe(Cut cut) {
    return String.format(
        Locale.ROOT,
        "%d objects from %d superpixels, grain %.4g %s, height %.6g",
        cut.objects(),
        cut.tree().leaves(),
        cut.grain(),
        cut.ground().areaUnit(),
        cut.height());
  }

  @Override
  public long bytes(Cut cut) {
    return (long) (cut.tree().bytesPerLeaf() * cut.tree().leaves());
  }

  @Override
  public String note(Cut cut) {
    return grouped(cut.objects()) + " objects";
  }

  @Override
  public boolean suits(Cut cut, Suits wanted) {
    return wanted != Suits.MEASURED && wanted != Suits.OUTLINES;
  }

  @Override
  public Optional<Rows> rows(Cut cut) {
    return Optional.of(new Rows(cut.ids(), new Table(cut.objects(), List.of())));
  }

  @Override
  public void digest(Cut cut, Digest into, Job job) {
    for (int node = 0; node < cut.tree().nodes(); node++) {
      into.add(cut.tree().parent(node));
    }
    into.add(cut.height());
    objects.digest(ObjectSet.of(cut), into, job);
  }

  @Override
  public List<String> endings() {
    return List.of(TreeFile.ENDING, ".gpkg", ".arrow", ".geojson", ".json", ".tif", ".tiff");
  }

  @Override
  public List<String> readEndings() {
    return List.of(TreeFile.ENDING);
  }

  @Override
  public Cut read(Path file, Job job) {
    return TreeFile.read(TreeFile.stem(file), job);
  }

  @Override
  public List<Path> readWith(Path file) {
    return List.of(file, with(TreeFile.stem(file), ".tif"));
  }

  @Override
  public void write(Cut cut, Path file, Delivery delivery, Job job) {
    if (TreeFile.isNamed(file)) {
      TreeFile.write(cut, TreeFile.stem(file), job);
    } else {
      objects.write(ObjectSet.of(cut), file, delivery, job);
    }
  }

  @Override
  public Set<Class<?>> servesAs() {
    return Set.of(ObjectSet.class, OutlineSet.class);
  }

  @Override
  public Object as(Cut cut, Class<?> wanted) {
    ObjectSet set = ObjectSet.of(cut);
    return wanted == ObjectSet.class ? set : objects.as(set, wanted);
  }

  @Override
  public Optional<Keeping<Cut>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "objects";
      }

      @Override
      public List<String> endings() {
        return List.of(".gpkg", ".tif");
      }

      @Override
      public Set<String> settingsAside() {
        return Set.of("grain", "height");
      }

      @Override
      public Cut read(Path stem, Step<?> step, Job job) {
        Cut whole = TreeFile.read(stem, job);
        return step instanceof Segment segment
            ? segment.cut(whole.superpixels(), whole.tree())
            : whole;
      }

      @Override
      public Cut write(Cut cut, Path stem, Job job) {
        TreeFile.write(cut, stem, job);
        return cut;
      }
    });
  }
}
