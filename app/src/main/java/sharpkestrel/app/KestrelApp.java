package sharpkestrel.app;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import javafx.application.Application;
import javafx.beans.binding.Bindings;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.shell.Shell;

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
    stage.setScene(scene(workspace));
    List<String> args = getParameters().getRaw();
    stage
        .titleProperty()
        .bind(Bindings.createStringBinding(
            () -> workspace.titleProperty().get().isBlank()
                ? "Sharp Kestrel"
                : workspace.titleProperty().get() + " \u2013 Sharp Kestrel",
            workspace.titleProperty()));
    if (!args.isEmpty() && args.getFirst().equals("open")) {
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
    if (args.size() < 2) {
      workspace.messages().tell("Name what to open: ./kestrel open FILE or FOLDER, one or more.");
      return;
    }
    Opening.start(workspace, args.stream().skip(1).map(Path::of).toList());
  }
}
