package sharpkestrel.app;

import javafx.application.Application;

/** Entry of the window. */
public final class Main {

  private Main() {}

  public static void main(String[] args) {
    if (Boolean.getBoolean("kestrel.headless")) {
      System.exit(sharpkestrel.cli.Main.commandLine()
          .execute("run", "docs/examples/metal-roofs.json", "--set", "survey=demo:1:2048"));
    }
    Application.launch(KestrelApp.class, args);
  }
}
