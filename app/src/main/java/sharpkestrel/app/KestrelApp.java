package sharpkestrel.app;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.ProjectFile;
import sharpkestrel.app.project.WindowSettings;
import sharpkestrel.app.shell.Doors;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.app.shell.StartScreen;
import sharpkestrel.demo.DemoData;
import sharpkestrel.raster.RasterException;

/** The window. */
public final class KestrelApp extends Application {

  static final int WIDTH = 1280;
  static final int HEIGHT = 800;

  private static final String DARK = "dark";
  private static final String HIDDEN_COLUMNS = "hidden_columns";
  private static final String FOLDED = "bench_folded";

  /** What takes longer to be written than this is told. */
  private static final Duration SOON = Duration.ofSeconds(1);

  private static final Duration PATIENCE = Duration.ofMinutes(2);

  private static final List<String> FONTS = List.of(
      "IBMPlexSans_400Regular.ttf",
      "IBMPlexSans_500Medium.ttf",
      "IBMPlexSans_600SemiBold.ttf",
      "IBMPlexMono_400Regular.ttf",
      "IBMPlexMono_500Medium.ttf");

  private final Doors doors = new WindowDoors();
  private final WindowSettings settings = WindowSettings.read();
  private Stage stage;
  private Workspace workspace;

  /** Makes the window's scene over a workspace, without ways to other projects. */
  public static Scene scene(Workspace workspace) {
    return scene(workspace, Optional.empty());
  }

  private static Scene scene(Workspace workspace, Optional<Doors> doors) {
    Shell shell = new Shell(workspace, doors);
    Scene scene = styled(shell);
    shell.listenTo(scene);
    Warmup.afterFirstPicture(scene);
    return scene;
  }

  private static Scene styled(Parent root) {
    for (String font : FONTS) {
      try (InputStream in = KestrelApp.class.getResourceAsStream("fonts/" + font)) {
        Font.loadFont(in, 13);
      } catch (IOException damaged) {
        throw new IllegalStateException(
            "The font " + font + " is missing from the application", damaged);
      }
    }
    Scene scene = new Scene(root, WIDTH, HEIGHT);
    for (String sheet : List.of("tokens.css", "shell.css")) {
      scene.getStylesheets().add(KestrelApp.class.getResource(sheet).toExternalForm());
    }
    return scene;
  }

  @Override
  public void start(Stage newStage) {
    stage = newStage;
    settings.number("width").ifPresent(stage::setWidth);
    settings.number("height").ifPresent(stage::setHeight);
    stage.setOnCloseRequest(e -> {
      e.consume();
      close();
    });
    List<String> args = getParameters().getRaw();
    if (args.isEmpty()) {
      showStart("");
    } else if (args.getFirst().equals("open")) {
      open(args);
    } else {
      use(opened -> DemoSession.start(opened, DemoOptions.order(args), false));
    }
    // Last, so that the data is on its way while the window is built.
    stage.show();
    if (Boolean.getBoolean("kestrel.timing")) {
      FirstPicture.report(((Shell) stage.getScene().getRoot()).picture(), workspace);
    }
  }

  private void open(List<String> args) {
    if (args.size() < 2) {
      showStart("Name what to open: ./kestrel open FILE or FOLDER, one or more.");
      return;
    }
    use(opened -> Opening.start(opened, args.stream().skip(1).map(Path::of).toList()));
  }

  /** Puts another project in the place of the one that is open. */
  private void use(Consumer<Workspace> opening) {
    leaveProject();
    workspace = new Workspace();
    show(scene(workspace, Optional.of(doors)));
    Workspace now = workspace;
    stage
        .titleProperty()
        .bind(Bindings.createStringBinding(
            () -> now.titleProperty().get().isBlank()
                ? "Sharp Kestrel"
                : now.titleProperty().get() + " \u2013 Sharp Kestrel",
            now.titleProperty()));
    opening.accept(workspace);
  }

  private void showStart(String said) {
    leaveProject();
    StartScreen start = new StartScreen(doors, DemoData.home().resolve("projects"));
    start.tell(said);
    Scene scene = styled(start);
    start.listenTo(scene);
    show(scene);
    stage.titleProperty().unbind();
    stage.setTitle("Sharp Kestrel");
  }

  private void show(Scene scene) {
    if (settings.is(DARK)) {
      scene.getRoot().getStyleClass().add("dark");
    }
    if (scene.getRoot() instanceof Shell shell) {
      if (settings.is(FOLDED)) {
        shell.bench().setFolded(true);
      }
      shell.display().hiddenColumnsProperty().set(settings.texts(HIDDEN_COLUMNS));
    }
    stage.setScene(scene);
  }

  private void leaveProject() {
    if (workspace != null) {
      keepSettings();
      workspace.close();
      workspace = null;
    }
  }

  private void keepSettings() {
    Parent root = stage.getScene().getRoot();
    settings.set(DARK, root.getStyleClass().contains("dark"));
    if (root instanceof Shell shell) {
      settings.set(FOLDED, shell.bench().isFolded());
      settings.set(HIDDEN_COLUMNS, shell.display().hiddenColumnsProperty().get());
    }
    if (!stage.isMaximized() && stage.getWidth() > 0) {
      settings.set("width", stage.getWidth());
      settings.set("height", stage.getHeight());
    }
    try {
      settings.write();
    } catch (RasterException full) {
      // the window looks as before the next time
    }
  }

  /** The window closes when all is written; where that takes long, it says so meanwhile. */
  private void close() {
    if (workspace == null) {
      Platform.exit();
      return;
    }
    Workspace last = workspace;
    leaveProject();
    if (last.lanes().save().flush(SOON)) {
      Platform.exit();
      return;
    }
    last.messages()
        .tell("Writing what was done to the disk. The window closes when all of it is there.");
    Thread.ofPlatform().name("kestrel-closing").start(() -> {
      last.lanes().save().flush(PATIENCE);
      Platform.exit();
    });
  }

  /** What the window's doors lead to. */
  private final class WindowDoors implements Doors {

    @Override
    public void open(List<Path> paths) {
      boolean project = paths.size() == 1 && Opening.isProject(paths.getFirst());
      if (workspace == null || project) {
        use(opened -> Opening.start(opened, paths));
      } else {
        Opening.into(workspace, paths);
      }
    }

    @Override
    public void begin(Path folder, String title) {
      use(opened -> {
        opened.titleProperty().set(title);
        try {
          ProjectFile.begin(opened, folder);
        } catch (RasterException refused) {
          opened.messages().tell(refused.getMessage());
        }
      });
    }

    @Override
    public void openDemo() {
      use(opened -> DemoSession.start(opened, DemoOptions.order(List.of("demo")), false));
    }

    @Override
    public void leave() {
      showStart("");
    }
  }
}
