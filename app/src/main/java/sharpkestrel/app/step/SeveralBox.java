package sharpkestrel.app.step;

import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.stage.FileChooser;
import sharpkestrel.app.model.Result;
import sharpkestrel.flow.StepSpec;

/** Chooses several results or files for an input; they count in the order in which they are ticked. */
final class SeveralBox extends MenuButton {

  private final StepSpec.Input input;
  private final List<Object> chosen = new ArrayList<>();
  private final List<Path> files = new ArrayList<>();
  private List<Result> offered = List.of();
  private Consumer<List<Object>> listener = now -> {};

  SeveralBox(String id, StepSpec.Input input) {
    this.input = input;
    setId(id);
    getStyleClass().add("several");
  }

  void onChosen(Consumer<List<Object>> newListener) {
    listener = newListener;
  }

  /** Offers results; those that are chosen already stay so, and some are where none is. */
  void offer(List<Result> results, List<Result> atFirst) {
    offered = results;
    chosen.replaceAll(c -> c instanceof Result before ? now(before, results) : c);
    chosen.removeIf(c -> c instanceof Result result && !results.contains(result));
    if (chosen.isEmpty()) {
      chosen.addAll(atFirst);
    }
    rebuild();
  }

  /** Chooses what a result was made from, in its order, so far as it is there. */
  void choose(Result made) {
    chosen.clear();
    for (int i = 1; ; i++) {
      String name = input.nth(i);
      if (made.inputs().containsKey(name)) {
        Result now = now(made.inputs().get(name), offered);
        if (offered.contains(now)) {
          chosen.add(now);
        }
      } else if (made.files().containsKey(name)) {
        Path file = Path.of(made.files().get(name));
        if (!files.contains(file)) {
          files.add(file);
        }
        chosen.add(file);
      } else {
        break;
      }
    }
    rebuild();
  }

  /** A result that was made again is chosen still. */
  private static Result now(Result before, List<Result> results) {
    return results.stream()
        .filter(r -> r.name().equals(before.name()))
        .findFirst()
        .orElse(before);
  }

  private void rebuild() {
    getItems().clear();
    for (Result result : offered) {
      CheckMenuItem item = item(result.title(), result);
      item.setId(getId() + "-" + result.name());
      getItems().add(item);
    }
    for (Path file : files) {
      getItems().add(item(file.getFileName().toString(), file));
    }
    MenuItem more = new MenuItem("File…");
    more.setOnAction(e -> addFile());
    getItems().addAll(new SeparatorMenuItem(), more);
    List<String> titles = chosen.stream().map(SeveralBox::title).toList();
    setText(titles.isEmpty() ? "choose" : titles.size() + ": " + String.join(", ", titles));
    listener.accept(List.copyOf(chosen));
  }

  private static String title(Object item) {
    return item instanceof Result result
        ? result.title()
        : ((Path) item).getFileName().toString();
  }

  private CheckMenuItem item(String title, Object value) {
    int place = chosen.indexOf(value);
    CheckMenuItem item = new CheckMenuItem(place < 0 ? title : place + 1 + "   " + title);
    item.setSelected(place >= 0);
    item.setOnAction(e -> {
      if (!chosen.remove(value)) {
        chosen.add(value);
      }
      rebuild();
    });
    return item;
  }

  private void addFile() {
    FileChooser chooser = new FileChooser();
    chooser.setTitle(input.does());
    List<File> picked = chooser.showOpenMultipleDialog(getScene().getWindow());
    if (picked != null) {
      picked.forEach(file -> {
        files.add(file.toPath());
        chosen.add(file.toPath());
      });
      rebuild();
    }
  }

  /** What is chosen, results and files, in order. */
  List<Object> chosen() {
    return List.copyOf(chosen);
  }

  Map<String, Result> results() {
    Map<String, Result> results = new LinkedHashMap<>();
    for (int i = 0; i < chosen.size(); i++) {
      if (chosen.get(i) instanceof Result result) {
        results.put(input.nth(i + 1), result);
      }
    }
    return results;
  }

  Map<String, String> filePaths() {
    Map<String, String> paths = new LinkedHashMap<>();
    for (int i = 0; i < chosen.size(); i++) {
      if (chosen.get(i) instanceof Path path) {
        paths.put(input.nth(i + 1), path.toString());
      }
    }
    return paths;
  }
}
