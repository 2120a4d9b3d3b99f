package sharpkestrel.app.shell;

import java.nio.file.Path;
import java.util.List;

/** Ways in and out of projects, as the window offers them. */
public interface Doors {

  /** Opens files and folders: into the project in hand where there is one, a project in place of it. */
  void open(List<Path> paths);

  /** Begins a project in a folder of its own. */
  void begin(Path folder, String title);

  void openDemo();

  /** Closes the project and shows what else there is to open. */
  void leave();
}
