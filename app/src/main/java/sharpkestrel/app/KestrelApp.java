package sharpkestrel.app;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import sharpkestrel.app.model.ProjectFile;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;
import sharpkestrel.raster.RasterException;

/** The window. */
public final class KestrelApp extends Application {

  static final int WIDTH = 1280;
  static final int HEIGHT = 800;

  private static final List<String> FONTS = List.of(
      "IBMPlexSans_400Regular.ttf",
      "IBMPlexSans_500Medium.ttf",
      "IBMPlexSans_600SemiBold.ttf",
      "IBMPlexMono_400Regular.ttf",
      "IBMPlexMono_500Medium.ttf");

  /** Makes the window's scene over a workspace. */
  public static Scene scene(Workspace workspace) {
    for (String font : FONTS) {
      try (InputStream in = KestrelApp.class.getResourceAsStream("fonts/" + font)) {
        Font.loadFont(in, 13);
      } catch (IOException damaged) {
        throw new IllegalStateException(
            "The font " + font + " is missing from the application", damaged);
      }
    }
    Shell shell = new Shell(workspace);
    Scene scene = new Scene(shell, WIDTH, HEIGHT);
    for (String sheet : List.of("tokens.css", "shell.css")) {
      scene.getStylesheets().add(KestrelApp.class.getResource(sheet).toExternalForm());
    }
    shell.listenTo(scene);
    Warmup.afterFirstPicture(scene);
    return scene;
  }

  @Override
  public void start(Stage stage) {
    Workspace workspace = new Workspace();
    stage.setTitle("Sharp Kestrel");
    stage.setScene(scene(workspace));
    List<String> args = getParameters().getRaw();
    if (args.contains("open")) {
      open(workspace, args);
    } else if (!args.contains("how-soon")) {
      DemoSession.start(workspace, DemoOptions.order(args), args.contains("shots"));
    }
    // Last, so that the data is on its way while the window is built.
    stage.show();
    if (Boolean.getBoolean("kestrel.timing")) {
      FirstPicture.report(((Shell) stage.getScene().getRoot()).picture(), workspace);
    }
    if (args.contains("shots")) {
      Shots.take(workspace, stage.getScene());
    }
    if (args.contains("how-soon")) {
      HowSoon.measure(workspace, stage.getScene(), args.size() < 2 ? "" : args.get(1));
    }
  }

  private static void open(Workspace workspace, List<String> args) {
    try {
      if (args.size() < 2) {
        throw new RasterException("Name the project's folder: ./kestrel open FOLDER");
      }
      ProjectFile.open(workspace, Path.of(args.get(1)));
    } catch (RasterException wrong) {
      workspace.messageProperty().set(wrong.getMessage());
    }
  }
}
