package sharpkestrel.app.project;

import java.nio.file.Path;
import sharpkestrel.demo.DemoData;

/** Where the window keeps what is of no project: what was open last, and how it looked. */
final class Home {

  private Home() {}

  static Path folder() {
    String given = System.getProperty("kestrel.settings", "");
    return given.isEmpty() ? DemoData.home() : Path.of(given);
  }
}
