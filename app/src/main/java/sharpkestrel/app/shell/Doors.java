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

  /** None of them: a window within a test, or a picture of one. */
  Doors CLOSED = new Doors() {
    @Override
    public void open(List<Path> paths) {
      throw new UnsupportedOperationException("this window opens nothing");
    }

    @Override
    public void begin(Path folder, String title) {
      throw new UnsupportedOperationException("this window begins nothing");
    }

    @Override
    public void openDemo() {
      throw new UnsupportedOperationException("this window opens nothing");
    }

    @Override
    public void leave() {
      throw new UnsupportedOperationException("this window is not left");
    }
  };
}
