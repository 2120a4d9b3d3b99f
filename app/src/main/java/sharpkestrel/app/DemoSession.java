package sharpkestrel.app;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import javafx.application.Platform;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
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
public final class DemoSession {

  /** The image that is shown first. */
  private static final String FIRST = "ms";

  private static final String PAN = "pan";
  private static final String PHOTO = "photo";

  private DemoSession() {}

  /**
   * @param afresh begins anew, in a project of its own, rather than where the last session stopped
   */
  public static void start(Workspace workspace, Survey.Order order, boolean afresh) {
    String title = order.scheme().region().site().title();
    String name = (afresh ? "afresh-" : "") + project(title) + "-" + order.label();
    Path folder = DemoData.home().resolve("projects").resolve(name);
    workspace.titleProperty().set(title);
    workspace
        .lanes()
        .run()
        .run(
            "Opening the survey",
            job -> SurveyMaker.make(
                DemoData.surveys(),
                afresh ? whole(order) : order,
                look -> Platform.runLater(() -> showQuickLook(workspace, look)),
                job),
            survey -> {
              begin(workspace, survey, folder, afresh);
              if (!afresh) {
                gatherRest(workspace, order);
              }
            },
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  /**
   * Opens and looks at what will be shown first while the window is still being built, where the survey is there: done
   * again a moment later, that takes no time.
   */
  static void readAhead(Survey.Order order) {
    SurveyMaker.find(DemoData.surveys(), order)
        .filter(survey -> Files.isRegularFile(survey.item()))
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
        workspace.messages().tell(damaged.getMessage());
      }
    } else {
      ProjectFile.begin(workspace, folder);
      gather(workspace, survey);
    }
  }

  /** Shown until the raw scenes are there; it is no result and hangs from no stage. */
  private static void showQuickLook(Workspace workspace, Raster look) {
    workspace
        .display()
        .show(new Result(
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
    Map<String, String> suggestions = workspace.suggestions().all();
    suggestions.put("heights", survey.heights().toString());
    suggestions.put("coarse-heights", survey.coarseHeights().toString());
    suggestions.put("surface", survey.surface().toString());
    suggestions.put("keep-whole", survey.register().toString());
    suggestions.put("zones:zones", survey.parishes().toString());
    suggestions.put("zone-summary:zones", survey.parishes().toString());
    suggestions.put("compare:truth", survey.roofsInOrtho().toString());
    suggestions.put("compare:wanted", "material = 'metal' AND area >= 25 AND whole = 1");
    suggestions.put("compare:forgiven", "material = 'metal' AND (area < 25 OR whole = 0)");
    suggestions.put("export:file", folder.resolve("metal-roofs.gpkg").toString());
  }

  public static void gather(Workspace workspace, Survey survey) {
    suggest(workspace, survey, workspace.folder());
    gather(workspace, survey, "scene-one", "", "", true);
  }

  /** The images of a scene as it was delivered: an ortho, or raw bands, and a panchromatic image where there is one. */
  private static void gather(
      Workspace workspace,
      Survey survey,
      String scene,
      String suffix,
      String which,
      boolean shown) {
    Path ortho = survey.ortho(scene);
    if (Files.isRegularFile(ortho)) {
      Map<String, String> file = Map.of("file", ortho.toString());
      gatherOne(workspace, "open", "ortho" + suffix, "Ortho" + which, file, shown);
      return;
    }
    Path item = survey.item(scene);
    assemble(workspace, item, FIRST, FIRST + suffix, "Bands" + which + ", raw", shown);
    if (Assemble.imagesIn(item).contains(PAN)) {
      assemble(workspace, item, PAN, PAN + suffix, "Pan" + which + ", raw", false);
    }
  }

  /**
   * Makes the second scene and the air photo where they are not there yet, aside and at low priority, and gathers them;
   * the work on the first scene goes on meanwhile.
   */
  private static void gatherRest(Workspace workspace, Survey.Order order) {
    Survey.Order all = whole(order);
    Thread aside = new Thread(
        () -> {
          try {
            Survey survey = SurveyMaker.make(DemoData.surveys(), all, Job.of(1, 512));
            workspace.lanes().run().afterAll(() -> addRest(workspace, survey));
          } catch (RasterException failed) {
            Platform.runLater(() -> workspace.messages().tell(failed.getMessage()));
          }
        },
        "kestrel-survey");
    aside.setDaemon(true);
    aside.setPriority(Thread.MIN_PRIORITY);
    aside.start();
  }

  private static Survey.Order whole(Survey.Order order) {
    return order.holding(Survey.Holds.ALL_FILES);
  }

  /** How projects of a region are called: by the first word of its name. */
  private static String project(String title) {
    return title.toLowerCase(Locale.ROOT).replaceFirst(" .*", "");
  }

  public static void addRest(Workspace workspace, Survey survey) {
    if (workspace.named(PHOTO).isEmpty()) {
      gather(workspace, survey, "scene-two", "-two", " two", false);
      gatherOne(
          workspace, "open", PHOTO, "Air photo", Map.of("file", survey.photo().toString()), false);
    }
  }

  private static void assemble(
      Workspace workspace, Path item, String image, String name, String title, boolean shown) {
    Map<String, String> settings = new LinkedHashMap<>();
    settings.put("delivery", item.toString());
    settings.put("image", image);
    gatherOne(workspace, "assemble", name, title, settings, shown);
  }

  private static void gatherOne(
      Workspace workspace,
      String id,
      String name,
      String title,
      Map<String, String> settings,
      boolean shown) {
    StepSpec step = StepCatalogue.get(id);
    workspace
        .lanes()
        .run()
        .run(
            "Gathering " + title,
            // what an old photo lacks is no news, and is not said over the first scene
            job -> workspace
                .maker()
                .make(
                    step,
                    Map.of(),
                    Map.of(),
                    settings,
                    name.equals(PHOTO) ? job.withoutWarnings() : job),
            made -> {
              if (workspace.named(name).isPresent()) {
                return;
              }
              Result result = new Result(
                  name,
                  title,
                  step,
                  Map.of(),
                  Map.of(),
                  settings,
                  made.value(),
                  made.fingerprint());
              workspace.results().add(result);
              if (shown) {
                workspace.display().show(result);
              }
            },
            failure -> workspace.messages().tell(failure.getMessage()));
  }
}
