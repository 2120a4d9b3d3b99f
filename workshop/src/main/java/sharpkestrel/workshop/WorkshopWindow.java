package sharpkestrel.workshop;

import java.util.List;
import java.util.Set;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.stage.Stage;
import sharpkestrel.app.DemoOptions;
import sharpkestrel.app.DemoSession;
import sharpkestrel.app.KestrelApp;
import sharpkestrel.app.model.Workspace;

/** A window that takes pictures of itself, or measures how soon it answers. */
public final class WorkshopWindow extends Application {

  private static final String SHOTS = "shots";
  private static final String HOW_SOON = "how-soon";

  static final Set<String> COMMANDS = Set.of(SHOTS, HOW_SOON);

  @Override
  public void start(Stage stage) {
    List<String> args = getParameters().getRaw();
    Workspace workspace = new Workspace();
    Scene scene = KestrelApp.scene(workspace);
    stage.setScene(scene);
    if (args.getFirst().equals(SHOTS)) {
      DemoSession.start(workspace, DemoOptions.order(args), true);
      stage.show();
      Shots.take(workspace, scene);
    } else {
      stage.show();
      HowSoon.measure(workspace, scene, args.size() < 2 ? "" : args.get(1));
    }
  }
}
