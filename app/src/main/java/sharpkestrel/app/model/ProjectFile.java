package sharpkestrel.app.model;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.collections.ListChangeListener;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.io.Json;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;

/**
 * A project on disk: a folder whose {@code project.json} says how each result was made, as a run sheet. Opening it
 * makes the results again in order; rasters are lazy, so that costs time only for what is looked at, and for
 * segmentations.
 */
public final class ProjectFile {

  private static final String NAME = "project.json";

  private ProjectFile() {}

  /** Writes the project after every change of its results. */
  public static void keepSaved(Workspace workspace) {
    workspace.results().addListener((ListChangeListener<Result>) change -> {
      RunSheet sheet = sheetOf(workspace);
      Path file = workspace.folder().resolve(NAME);
      workspace
          .tasks()
          .quietly(() -> Json.write(sheet.toJson(), file), workspace.messageProperty()::set);
    });
  }

  static RunSheet sheetOf(Workspace workspace) {
    List<RunSheet.Entry> entries = new ArrayList<>();
    for (Result result : workspace.results()) {
      Map<String, String> inputs = new LinkedHashMap<>(result.files());
      result.inputs().forEach((name, input) -> inputs.put(name, "@" + input.name()));
      entries.add(new RunSheet.Entry(
          result.name(), result.title(), result.step().id(), inputs, result.settings(), false));
    }
    return new RunSheet(workspace.titleProperty().get(), Map.of(), entries);
  }

  /**
   * Opens a project, one result after the other in the background.
   *
   * @throws RasterException where the folder holds no project
   */
  public static void open(Workspace workspace, Path folder) {
    Path file = folder.resolve(NAME);
    if (!Files.isRegularFile(file)) {
      throw new RasterException(folder + " holds no project: there is no " + NAME
          + ". Choose a folder that Sharp Kestrel made.");
    }
    RunSheet sheet = RunSheet.read(file);
    workspace.titleProperty().set(sheet.title());
    workspace.setFolder(folder);
    for (RunSheet.Entry entry : sheet.steps()) {
      queue(workspace, entry);
    }
  }

  private static void queue(Workspace workspace, RunSheet.Entry entry) {
    StepSpec step = StepCatalogue.get(entry.step());
    Map<String, Result> inputs = new LinkedHashMap<>();
    Map<String, String> files = new LinkedHashMap<>();
    workspace
        .tasks()
        .run(
            entry.title(),
            (Job job) -> {
              entry.inputs().forEach((name, reference) -> {
                if (reference.startsWith("@")) {
                  inputs.put(name, named(workspace, reference.substring(1)));
                } else {
                  files.put(name, reference);
                }
              });
              return Workspace.cached(
                  step.make(Workspace.values(step, inputs, files), entry.settings())
                      .run(job));
            },
            value -> {
              Result result = new Result(
                  entry.name(), entry.title(), step, inputs, files, entry.settings(), value);
              workspace.remember(step, files, entry.settings());
              workspace.results().add(result);
              if (result.backdrop() != null) {
                workspace.stageProperty().set(result.stage());
                workspace.show(result);
              }
            },
            failure ->
                workspace.messageProperty().set(entry.title() + ": " + failure.getMessage()));
  }

  /** Results are added on the interface thread just before the next task begins; this waits for them there. */
  private static Result named(Workspace workspace, String name) {
    java.util.concurrent.FutureTask<Result> look =
        new java.util.concurrent.FutureTask<>(() -> workspace.results().stream()
            .filter(r -> r.name().equals(name))
            .findFirst()
            .orElseThrow(
                () -> new RasterException("The result '" + name + "' it needs was not made.")));
    javafx.application.Platform.runLater(look);
    try {
      return look.get();
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new java.util.concurrent.CancellationException("interrupted");
    } catch (java.util.concurrent.ExecutionException missing) {
      throw new RasterException(missing.getCause().getMessage(), missing);
    }
  }
}
