package sharpkestrel.app.shell;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.step.Stage;

/** Which results stand on the trail, and in which order: by stage, by the scenes they come from, by what is looked for. */
final class TrailOrder {

  /** With more results than this there is a field to find one, and scenes fold. */
  private static final int MANY = 8;

  private final Workspace workspace;
  private final Set<String> unfolded = new HashSet<>();
  private String wanted = "";

  TrailOrder(Workspace workspace) {
    this.workspace = workspace;
  }

  /** Only results with this in their title or note are wanted; blank: all. */
  void find(String text) {
    wanted = text.strip().toLowerCase(Locale.ROOT);
  }

  /** Whether there is, or may soon be, something to find. */
  boolean needsFinding() {
    return workspace.results().size() > MANY || !wanted.isBlank();
  }

  /** Folds what comes from a scene, or unfolds it. */
  void toggle(String scene) {
    if (!unfolded.remove(scene)) {
      unfolded.add(scene);
    }
  }

  /**
   * All results of the stage in hand; of a folded one what is in a pane, or the newest that pane A comes from, or the newest
   * where it comes from none.
   */
  List<Result> shownOf(Stage stage) {
    if (!wanted.isBlank()) {
      return workspace.of(stage).stream()
          .filter(result -> isFound(result.title(), result.note()))
          .toList();
    }
    List<Result> results = foldsByScene(stage)
        ? workspace.of(stage).stream()
            .sorted(Comparator.comparing(this::placeOfScene))
            .toList()
        : workspace.of(stage);
    if (results.isEmpty() || stage == workspace.display().stageProperty().get()) {
      return results;
    }
    Result shown = workspace.display().paneAProperty().get();
    Result one = results.reversed().stream()
        .filter(result -> shown == result || shown != null && shown.descendsFrom(result))
        .findFirst()
        .orElse(results.getLast());
    return results.stream().filter(result -> result == one || isInPane(result)).toList();
  }

  boolean isFound(String title, String note) {
    return title.toLowerCase(Locale.ROOT).contains(wanted)
        || note.toLowerCase(Locale.ROOT).contains(wanted);
  }

  /** Whether the results of a stage stand under the scenes they come from: where there are many, of several scenes. */
  boolean foldsByScene(Stage stage) {
    List<Result> results = workspace.of(stage);
    return wanted.isBlank()
        && stage == workspace.display().stageProperty().get()
        && results.size() > MANY
        && results.stream().map(TrailOrder::sceneOf).distinct().count() > 1;
  }

  /** The title of the first thing that a result comes from. */
  static String sceneOf(Result result) {
    Result from = result;
    while (!from.inputs().isEmpty()) {
      Result last = from;
      from = Optional.ofNullable(last.inputs().get("scene"))
          .orElseGet(() -> last.inputs().values().iterator().next());
    }
    return from.title();
  }

  private int placeOfScene(Result result) {
    String scene = sceneOf(result);
    List<Result> all = workspace.results();
    int place = 0;
    while (place < all.size() && !all.get(place).title().equals(scene)) {
      place++;
    }
    return place;
  }

  /** Folded are all scenes but that of what the panes show, and those that were opened by a click. */
  boolean isFolded(String scene, Result result) {
    Result shown = workspace.display().paneAProperty().get();
    boolean inHand = shown != null && sceneOf(shown).equals(scene);
    return !inHand && !unfolded.contains(scene) && !isInPane(result);
  }

  private boolean isInPane(Result result) {
    return result == workspace.display().paneAProperty().get()
        || result == workspace.display().paneBProperty().get();
  }
}
