package sharpkestrel.app;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.application.Platform;
import sharpkestrel.app.model.ProjectFile;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

/** Opens the demo survey: makes it where it is not there, then gathers its raw scenes. */
final class DemoSession {

  private DemoSession() {}

  static void start(Workspace workspace, long seed, int size) {
    workspace.titleProperty().set("Fenwrack Sound");
    workspace.setFolder(DemoData.home().resolve("project"));
    ProjectFile.keepSaved(workspace);
    workspace
        .tasks()
        .run(
            "Opening the survey",
            job -> SurveyMaker.make(
                DemoData.surveys(),
                seed,
                size,
                look -> Platform.runLater(() -> showQuickLook(workspace, look)),
                job),
            survey -> gather(workspace, survey),
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }

  /** Shown until the raw scenes are there; it is no result and hangs from no stage. */
  private static void showQuickLook(Workspace workspace, Raster look) {
    workspace.show(new Result(
        "quick-look",
        "Quick look: the survey is being made",
        StepCatalogue.get("assemble"),
        Map.of(),
        Map.of(),
        Map.of(),
        look));
  }

  /** What the demo offers for inputs that are no results, and the question it asks. */
  static void suggest(Workspace workspace, Survey survey) {
    Map<String, String> suggestions = workspace.suggestions();
    suggestions.put("ortho:heights", survey.heights().toString());
    suggestions.put("compare:truth", survey.roofsInOrtho().toString());
    suggestions.put("compare:wanted", "material = 'metal' AND area >= 25 AND whole = 1");
    suggestions.put("compare:forgiven", "material = 'metal' AND (area < 25 OR whole = 0)");
    suggestions.put(
        "export:file", workspace.folder().resolve("metal-roofs.gpkg").toString());
  }

  static void gather(Workspace workspace, Survey survey) {
    suggest(workspace, survey);
    assemble(workspace, survey.item(), "pan", "Pan, raw");
    assemble(workspace, survey.item(), "ms", "Bands, raw");
  }

  private static void assemble(Workspace workspace, Path item, String image, String title) {
    StepSpec step = StepCatalogue.get("assemble");
    Map<String, String> settings = new LinkedHashMap<>();
    settings.put("delivery", item.toString());
    settings.put("image", image);
    workspace
        .tasks()
        .run(
            "Assembling " + image,
            (Job job) -> Workspace.cached(step.make(Map.of(), settings).run(job)),
            value -> {
              Result result = new Result(image, title, step, Map.of(), Map.of(), settings, value);
              workspace.results().add(result);
              workspace.show(result);
            },
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }
}
