package sharpkestrel.app.tools.samples;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandFile;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;

/**
 * Samples and classes in the project's folder {@code hand}: {@code samples.jsonl}, to which lines are only ever added, what there is now
 * in {@code samples.gpkg} for steps and other software, and {@code classes.json}.
 */
final class KeptSamples {

  private static final String NAME = "samples";
  private static final String CLASS = "class";
  private static final String SCENE = "scene";

  private final Workspace workspace;
  private final HandLog log;
  private final HandFile file;

  KeptSamples(Workspace workspace) {
    this.workspace = workspace;
    log = new HandLog(workspace, NAME);
    file = new HandFile(workspace, NAME);
  }

  /** The GeoPackage that steps read. */
  Path path() {
    return file.path();
  }

  private Path classesPath() {
    return workspace.folder().resolve("hand").resolve("classes.json");
  }

  /** Reads what there is, off the interface thread. */
  List<Sample> readSamples() {
    List<Sample> samples = new ArrayList<>();
    Optional<Layer> layer = log.read();
    for (int i = 0; layer.isPresent() && i < layer.get().size(); i++) {
      samples.add(new Sample(
          layer.get().geometries().get(i),
          layer.get().crs(),
          layer.get().table().column(CLASS).text(i),
          layer.get().table().column(SCENE).text(i)));
    }
    return samples;
  }

  ClassList readClasses() {
    return Files.isRegularFile(classesPath()) ? ClassList.read(classesPath()) : ClassList.EMPTY;
  }

  void write(List<Sample> samples) {
    CrsName crs = samples.isEmpty() ? CrsName.NONE : samples.getFirst().crs();
    Layer layer = new Layer(
        NAME,
        crs,
        samples.stream().map(Sample::outline).toList(),
        new Table(
            samples.size(),
            List.of(
                Table.Column.ofTexts(
                    CLASS, "Class", samples.stream().map(Sample::ofClass).toList()),
                Table.Column.ofTexts(
                    SCENE, "Scene", samples.stream().map(Sample::scene).toList()))),
        Map.of());
    log.write(layer);
    if (samples.isEmpty()) {
      file.delete();
    } else {
      file.write(layer);
    }
  }

  void write(ClassList classes) {
    if (!workspace.isLookingOn()) {
      Path path = classesPath();
      workspace.lanes().save().write(path, () -> {
        Files.createDirectories(path.getParent());
        classes.write(path);
      });
    }
  }
}
