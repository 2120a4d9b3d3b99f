package sharpkestrel.app;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.application.Platform;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.ProjectFile;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.demo.SurveyMaker;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.gather.Assemble;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/** Opens the demo survey: makes it where it is not there, then gathers its raw scenes. */
final class DemoSession {

  /** The image that is shown first. */
  private static final String FIRST = "ms";

  private DemoSession() {}

  /**
   * @param afresh begins anew, in a project of its own, rather than where the last session stopped
   */
  static void start(Workspace workspace, Survey.Order order, boolean afresh) {
    String name = (afresh ? "afresh-" : "fenwrack-") + order.label();
    Path folder = DemoData.home().resolve("projects").resolve(name);
    workspace.titleProperty().set("Fenwrack Sound");
    workspace
        .tasks()
        .run(
            "Opening the survey",
            job -> SurveyMaker.make(
                DemoData.surveys(),
                order,
                look -> Platform.runLater(() -> showQuickLook(workspace, look)),
                job),
            survey -> begin(workspace, survey, folder, afresh),
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }

  /**
   * Opens and looks at what will be shown first while the window is still being built, where the survey is there: done
   * again a moment later, that takes no time.
   */
  static void readAhead(Survey.Order order) {
    SurveyMaker.find(DemoData.surveys(), order)
        .ifPresent(survey ->
            PictureView.readAhead(new Assemble(survey.item(), FIRST).run(Job.QUIET), Look.NATURAL));
  }

  /** Goes on where the last session stopped; with the raw scenes where there was none. */
  private static void begin(Workspace workspace, Survey survey, Path folder, boolean afresh) {
    if (ProjectFile.isIn(folder) && !afresh) {
      suggest(workspace, survey, folder);
      try {
        ProjectFile.open(workspace, folder);
      } catch (RasterException damaged) {
        workspace.messageProperty().set(damaged.getMessage());
      }
    } else {
      ProjectFile.begin(workspace, folder);
      gather(workspace, survey);
    }
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
        look,
        new Origin.Fingerprint("quick look", "")));
  }

  /** What the demo offers for inputs that are no results, and the question it asks. */
  private static void suggest(Workspace workspace, Survey survey, Path folder) {
    Map<String, String> suggestions = workspace.suggestions();
    suggestions.put("ortho:heights", survey.heights().toString());
    suggestions.put("compare:truth", survey.roofsInOrtho().toString());
    suggestions.put("compare:wanted", "material = 'metal' AND area >= 25 AND whole = 1");
    suggestions.put("compare:forgiven", "material = 'metal' AND (area < 25 OR whole = 0)");
    suggestions.put("export:file", folder.resolve("metal-roofs.gpkg").toString());
  }

  static void gather(Workspace workspace, Survey survey) {
    suggest(workspace, survey, workspace.folder());
    assemble(workspace, survey.item(), FIRST, "Bands, raw", true);
    assemble(workspace, survey.item(), "pan", "Pan, raw", false);
  }

  private static void assemble(
      Workspace workspace, Path item, String image, String title, boolean shown) {
    StepSpec step = StepCatalogue.get("assemble");
    Map<String, String> settings = new LinkedHashMap<>();
    settings.put("delivery", item.toString());
    settings.put("image", image);
    workspace
        .tasks()
        .run(
            "Assembling " + image,
            job -> workspace.maker().make(step, Map.of(), Map.of(), settings, job),
            made -> {
              Result result = new Result(
                  image,
                  title,
                  step,
                  Map.of(),
                  Map.of(),
                  settings,
                  made.value(),
                  made.fingerprint());
              workspace.results().add(result);
              if (shown) {
                workspace.show(result);
              }
            },
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }
}
