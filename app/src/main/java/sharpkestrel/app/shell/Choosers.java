package sharpkestrel.app.shell;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Scene;
import javafx.scene.input.TransferMode;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** Ways to name files: the system's dialogs, and dropping. */
final class Choosers {

  private Choosers() {}

  static List<Path> files(Window over) {
    FileChooser chooser = new FileChooser();
    chooser.setTitle("Open rasters, outlines, a delivery's item or a run sheet");
    List<File> chosen = chooser.showOpenMultipleDialog(over);
    return chosen == null ? List.of() : chosen.stream().map(File::toPath).toList();
  }

  static List<Path> folder(Window over, String title) {
    DirectoryChooser chooser = new DirectoryChooser();
    chooser.setTitle(title);
    File chosen = chooser.showDialog(over);
    return chosen == null ? List.of() : List.of(chosen.toPath());
  }

  /** What is dropped anywhere in the window is opened. */
  static void takeDrops(Scene scene, Doors doors) {
    scene.setOnDragOver(e -> {
      if (e.getDragboard().hasFiles()) {
        e.acceptTransferModes(TransferMode.COPY_OR_MOVE);
        e.consume();
      }
    });
    scene.setOnDragDropped(e -> {
      if (e.getDragboard().hasFiles()) {
        doors.open(e.getDragboard().getFiles().stream().map(File::toPath).toList());
        e.setDropCompleted(true);
        e.consume();
      }
    });
  }
}
