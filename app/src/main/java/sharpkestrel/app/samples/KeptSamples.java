package sharpkestrel.app.samples;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandFile;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.learner.ClassList;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.RasterException;

/**
 * Samples and classes in the project's folder {@code hand}: for each ground {@code samples-GROUND.jsonl}, to which lines are only ever
 * added, what there is now in {@code samples-GROUND.gpkg} for steps and other software, and {@code classes.json}.
 */
final class KeptSamples {

  private static final String NAME = "samples-";
  private static final String LOG = ".jsonl";
  private static final String CLASS = "class";
  private static final String COLOUR = "colour";
  private static final String SCENE = "scene";
  private static final String SOURCE = "source";
  private static final String GROUP = "belongs_to";

  private final Workspace workspace;
  private final Map<String, HandLog> logs = new HashMap<>();

  KeptSamples(Workspace workspace) {
    this.workspace = workspace;
  }

  /** All there is of a project. */
  record Kept(ClassList classes, Map<Ground, List<Sample>> samples) {}

  /** The GeoPackage that steps read. */
  Path path(Ground ground) {
    return new HandFile(workspace, NAME + ground.slug()).path();
  }

  private Path folder() {
    return workspace.folder().resolve("hand");
  }

  private Path classesPath() {
    return folder().resolve("classes.json");
  }

  private synchronized HandLog log(String slug) {
    return logs.computeIfAbsent(slug, name -> new HandLog(workspace, NAME + name));
  }

  /**
   * Reads all, off the interface thread.
   *
   * @throws RasterException where something cannot be read
   */
  Kept read() {
    Map<Ground, List<Sample>> samples = new HashMap<>();
    if (Files.isDirectory(folder())) {
      try (Stream<Path> files = Files.list(folder())) {
        for (Path file : files.sorted().toList()) {
          String name = file.getFileName().toString();
          if (name.startsWith(NAME) && name.endsWith(LOG)) {
            String slug = name.substring(NAME.length(), name.length() - LOG.length());
            log(slug).read().ifPresent(layer -> take(layer, samples));
          }
        }
      } catch (IOException failed) {
        throw new RasterException(folder() + " cannot be read: " + failed.getMessage(), failed);
      }
    }
    ClassList classes =
        Files.isRegularFile(classesPath()) ? ClassList.read(classesPath()) : ClassList.EMPTY;
    return new Kept(classes, samples);
  }

  private static void take(Layer layer, Map<Ground, List<Sample>> samples) {
    Table table = layer.table();
    Ground ground = new Ground(layer.crs(), table.column(SOURCE).text(0));
    List<Sample> all = new ArrayList<>();
    for (int i = 0; i < layer.size(); i++) {
      all.add(new Sample(
          layer.geometries().get(i),
          table.column(CLASS).text(i),
          table.column(SCENE).text(i)));
    }
    samples.put(ground, List.copyOf(all));
  }

  /** Writes samples, with the colours of their classes for who draws them. */
  void write(Ground ground, List<Sample> samples, ClassList classes) {
    List<String> colours = samples.stream()
        .map(s -> classes.of(s.ofClass()).map(ClassList.Entry::colour).orElse(null))
        .toList();
    List<Table.Column> columns = List.of(
        texts(CLASS, "Class", samples.stream().map(Sample::ofClass).toList()),
        texts(COLOUR, "Colour", colours),
        texts(SCENE, "Scene", samples.stream().map(Sample::scene).toList()),
        texts(SOURCE, "Source", samples.stream().map(s -> ground.scene()).toList()));
    log(ground.slug()).write(layer(ground, samples, columns));
    // steps read this one: with what each class belongs to, to learn by that instead
    List<Table.Column> more = new ArrayList<>(columns);
    more.add(texts(
        GROUP, "Belongs to", samples.stream().map(s -> classes.top(s.ofClass())).toList()));
    HandFile file = new HandFile(workspace, NAME + ground.slug());
    if (samples.isEmpty()) {
      file.delete();
    } else {
      file.write(layer(ground, samples, more));
    }
  }

  private static Layer layer(Ground ground, List<Sample> samples, List<Table.Column> columns) {
    return new Layer(
        "samples",
        ground.crs(),
        samples.stream().map(Sample::outline).toList(),
        new Table(samples.size(), columns),
        Map.of());
  }

  private static Table.Column texts(String name, String title, List<String> texts) {
    return Table.Column.ofTexts(name, title, texts);
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
