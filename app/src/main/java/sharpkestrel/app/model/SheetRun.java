package sharpkestrel.app.model;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;

/** The steps of a run sheet, queued one after the other in the project in hand; what they make are results like any others. */
public final class SheetRun {

  private final Workspace workspace;
  private final Path folder;

  /** What the sheet calls results, and what they are called here; of the interface thread. */
  private final Map<String, String> names = new HashMap<>();

  private SheetRun(Workspace workspace, Path folder) {
    this.workspace = workspace;
    this.folder = folder;
  }

  /**
   * Queues all steps; where one fails, those that need what it makes fail with a word on what is missing.
   *
   * @param folder that relative paths of the sheet are of
   */
  public static void start(Workspace workspace, RunSheet sheet, Path folder) {
    SheetRun run = new SheetRun(workspace, folder);
    sheet.resolved().steps().forEach(run::queue);
  }

  private void queue(RunSheet.Entry entry) {
    StepSpec step = StepCatalogue.get(entry.step());
    Map<String, String> settings = new LinkedHashMap<>(entry.settings());
    for (StepSpec.Option option : step.options()) {
      if (option.namesFiles() && !option.namesSeveral()) {
        settings.computeIfPresent(
            option.name(), (name, text) -> folder.resolve(text).normalize().toString());
      }
    }
    workspace
        .lanes()
        .run()
        .run(
            entry.title(),
            job -> {
              Given given = Given.of(
                  entry.inputs(),
                  wanted -> workspace
                      .maker()
                      .current(
                          wanted,
                          () -> Optional.ofNullable(names.get(wanted)).flatMap(workspace::named)),
                  file -> folder.resolve(file).normalize().toString());
              return workspace
                  .maker()
                  .make(step, given.inputs(), given.files(), settings, job)
                  .as(step.id(), entry.title(), step, given, settings);
            },
            made -> names.put(entry.name(), workspace.addNew(made).name()),
            failure -> workspace.messages().tell(entry.title() + ": " + failure.getMessage()));
  }
}
