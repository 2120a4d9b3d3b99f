package sharpkestrel.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.SheetRun;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.demo.DemoData;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.gather.Assemble;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/**
 * Opens what is named when the window starts: rasters, deliveries by their folder or STAC item, outlines, projects. Where no
 * project is named one is begun beside the first of the files, or gone on with where that was done before.
 */
final class Opening {

  private static final String ENDING = "-kestrel";

  private static final String LAY = "open-outlines";

  /** Rasters of a folder without parts that are opened, at most. */
  private static final int MOST = 24;

  private final Workspace workspace;
  private final List<String> troubles = new ArrayList<>();
  private final List<Path> outlines = new ArrayList<>();

  /** What the project that is gone on with brings back by itself. */
  private List<RunSheet.Entry> before = List.of();

  private Opening(Workspace workspace) {
    this.workspace = workspace;
  }

  /**
   * @param named files and folders, one or more
   */
  static void start(Workspace workspace, List<Path> named) {
    Opening opening = new Opening(workspace);
    try {
      Path first = named.getFirst().toAbsolutePath().normalize();
      Optional<Path> project = projectOf(first);
      if (project.isPresent()) {
        opening.goOn(project.get());
      } else {
        if (!Files.exists(first)) {
          throw new RasterException("There is no file or folder " + first + ".");
        }
        opening.project(first);
      }
      named.stream()
          .map(path -> path.toAbsolutePath().normalize())
          .filter(path -> project.isEmpty() || !path.equals(first))
          .forEach(opening::add);
      workspace.lanes().run().afterAll(opening::opened);
    } catch (RasterException wrong) {
      workspace.messages().tell(wrong.getMessage());
    }
  }

  /** Opens files and folders in the project in hand. */
  static void into(Workspace workspace, List<Path> named) {
    Opening opening = new Opening(workspace);
    named.stream().map(path -> path.toAbsolutePath().normalize()).forEach(opening::add);
    workspace.lanes().run().afterAll(opening::opened);
  }

  /** Whether a path names a project, by its folder or its file. */
  static boolean isProject(Path named) {
    return projectOf(named.toAbsolutePath().normalize()).isPresent();
  }

  /** The folder of a project that is named by it or by its file. */
  private static Optional<Path> projectOf(Path named) {
    Path folder = Files.isRegularFile(named) ? named.getParent() : named;
    boolean byFile = Files.isRegularFile(named) && named.endsWith("project.json");
    return ProjectFile.isIn(folder) && (byFile || Files.isDirectory(named))
        ? Optional.of(folder)
        : Optional.empty();
  }

  /** Goes on with the project beside a file, or begins it; among all projects where nothing can be written there. */
  private void project(Path file) {
    String stem = file.getFileName().toString().replaceFirst("\\.[^.]+$", "");
    Path beside = file.resolveSibling(stem + ENDING);
    Path folder = Files.isWritable(file.getParent()) || Files.isDirectory(beside)
        ? beside
        : DemoData.home().resolve("projects").resolve(stem + ENDING);
    if (ProjectFile.isIn(folder)) {
      goOn(folder);
    } else {
      workspace.titleProperty().set(stem);
      ProjectFile.begin(workspace, folder);
    }
  }

  private void goOn(Path folder) {
    before = ProjectFile.entries(folder);
    ProjectFile.open(workspace, folder);
  }

  private void add(Path path) {
    try {
      if (Files.isDirectory(path)) {
        addFolder(path);
      } else if (RasterFiles.isNamed(path)) {
        open(path);
      } else if (path.toString().toLowerCase(Locale.ROOT).endsWith(".json")) {
        addJson(path);
      } else if (Files.isRegularFile(path)) {
        addOutlines(path);
      } else {
        throw new RasterException("There is no file or folder " + path + ".");
      }
    } catch (RasterException wrong) {
      troubles.add(wrong.getMessage());
    }
  }

  private void addFolder(Path folder) {
    Optional<Path> item =
        files(folder, ".json").stream().filter(Opening::isItem).findFirst();
    if (item.isPresent()) {
      assemble(item.get());
      return;
    }
    if (!Assemble.imagesIn(folder).isEmpty()) {
      assemble(folder);
      return;
    }
    List<Path> rasters = files(folder, "").stream().filter(RasterFiles::isNamed).toList();
    if (rasters.isEmpty()) {
      throw new RasterException(folder + " holds no project, no delivery and no raster files.");
    }
    if (rasters.size() > MOST) {
      troubles.add("Of the " + rasters.size() + " raster files in " + folder + " the first " + MOST
          + " are opened. Open the others with Gather, Open.");
    }
    rasters.stream().limit(MOST).forEach(this::open);
  }

  private static boolean isItem(Path json) {
    try {
      return !Assemble.imagesIn(json).isEmpty();
    } catch (RasterException other) {
      return false;
    }
  }

  private static List<Path> files(Path folder, String ending) {
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .filter(Files::isRegularFile)
          .filter(file -> file.toString().endsWith(ending))
          .sorted()
          .toList();
    } catch (IOException failed) {
      throw new RasterException(folder + " cannot be listed: " + failed.getMessage(), failed);
    }
  }

  private void addJson(Path json) {
    if (isItem(json)) {
      assemble(json);
      return;
    }
    try {
      RunSheet sheet = RunSheet.read(json);
      workspace
          .messages()
          .tell(
              json.getFileName() + " is a run sheet of " + sheet.steps().size() + " steps.",
              "Run its steps here",
              () -> runSheet(sheet, json.getParent()));
    } catch (RasterException noSheet) {
      addOutlines(json);
    }
  }

  private void runSheet(RunSheet sheet, Path folder) {
    try {
      SheetRun.start(workspace, sheet, folder);
    } catch (RasterException wrong) {
      workspace.messages().tell(wrong.getMessage());
    }
  }

  /** Outlines are laid over a scene, so once the scenes that are opened with them are there. */
  private void addOutlines(Path file) {
    boolean readable = ResultKinds.ofType(OutlineSet.class).stream()
        .flatMap(kind -> kind.readEndings().stream())
        .anyMatch(file.toString().toLowerCase(Locale.ROOT)::endsWith);
    if (!readable) {
      throw new RasterException(file
          + " is nothing that can be opened here: rasters, deliveries, outlines and projects can.");
    }
    outlines.add(file);
  }

  private void lay(Path file) {
    Map<String, String> files = Map.of("outlines", file.toString());
    if (comesBack(LAY, files, RunSheet.Entry::inputs)) {
      return;
    }
    Optional<Result> scene = Optional.ofNullable(
            workspace.display().paneAProperty().get())
        .map(Result::source)
        .filter(source -> source.value() instanceof Raster);
    workspace.run(
        StepCatalogue.get(LAY),
        "",
        scene.map(under -> Map.of("scene", under)).orElse(Map.of()),
        files,
        Map.of());
    if (scene.isEmpty()) {
      troubles.add(
          file.getFileName()
              + " is listed, but there is no scene to see it over: open one, then lay it over that (Gather, Open outlines).");
    }
  }

  private void open(Path file) {
    gather("open", "", Map.of("file", file.toString()));
  }

  private void assemble(Path delivery) {
    List<String> images = Assemble.imagesIn(delivery);
    // the panchromatic image first, so that what has colours is what is seen
    Stream.concat(
            images.stream().filter(Opening::isPan), images.stream().filter(image -> !isPan(image)))
        .forEach(image ->
            gather("assemble", image, Map.of("delivery", delivery.toString(), "image", image)));
  }

  private void gather(String step, String title, Map<String, String> settings) {
    if (!comesBack(step, settings, RunSheet.Entry::settings)) {
      workspace.run(StepCatalogue.get(step), title, Map.of(), Map.of(), settings);
    }
  }

  private static boolean isPan(String image) {
    return image.toLowerCase(Locale.ROOT).startsWith("pan");
  }

  private boolean comesBack(
      String step, Map<String, String> given, Function<RunSheet.Entry, Map<String, String>> had) {
    return before.stream()
        .anyMatch(entry ->
            entry.step().equals(step) && had.apply(entry).entrySet().containsAll(given.entrySet()));
  }

  /** Once all is open: in the colours that it has, with what there was to say. */
  private void opened() {
    Result shown = workspace.display().paneAProperty().get();
    if (shown != null && shown.backdrop() instanceof Raster raster) {
      Look now = workspace.display().lookProperty().get();
      if (!now.appliesTo(raster)) {
        Look.standard().stream()
            .filter(look -> look.roles().size() > 1 && look.appliesTo(raster))
            .findFirst()
            .ifPresent(look -> workspace.display().lookProperty().set(now.changedTo(look)));
      }
    }
    outlines.forEach(this::lay);
    if (!troubles.isEmpty() && workspace.messages().textProperty().get().isBlank()) {
      workspace.messages().tell(String.join(" ", troubles));
    }
  }
}
