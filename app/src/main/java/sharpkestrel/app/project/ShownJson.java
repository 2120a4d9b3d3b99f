package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ViewPlace;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.step.Stage;

/** What the window shows, as it stands in a project's file: the panes, where they look, the look and the stage. */
final class ShownJson {

  private static final String PANE_A = "pane_a";
  private static final String PANE_B = "pane_b";
  private static final String COMPARE = "compare";
  private static final String STAGE = "stage";
  private static final String LOOK = "look";
  private static final String VIEW = "view";

  private ShownJson() {}

  static void write(Workspace workspace, ObjectNode node) {
    name(workspace.display().paneAProperty().get(), PANE_A, node);
    name(workspace.display().paneBProperty().get(), PANE_B, node);
    node.put(COMPARE, key(workspace.display().compareProperty().get()));
    node.put(STAGE, key(workspace.display().stageProperty().get()));
    LookJson.write(List.of(workspace.display().lookProperty().get()), node.putArray(LOOK));
    ViewPlace view = workspace.display().viewProperty().get();
    if (view != null) {
      node.putObject(VIEW)
          .put("x", view.x())
          .put("y", view.y())
          .put("units_per_pixel", view.unitsPerPixel());
    }
  }

  private static void name(Result result, String pane, ObjectNode node) {
    if (result != null) {
      node.put(pane, result.name());
    }
  }

  private static String key(Enum<?> value) {
    return value.name().toLowerCase(Locale.ROOT);
  }

  /**
   * Takes a result that is there again into the panes that showed it; with what pane A showed come the place, the look and the
   * stage.
   *
   * @return whether pane A showed it
   */
  static boolean restore(Workspace workspace, JsonNode node, Result result) {
    if (result.name().equals(node.path(PANE_B).asText())) {
      workspace.display().paneBProperty().set(result);
    }
    if (!result.name().equals(node.path(PANE_A).asText())) {
      return false;
    }
    LookJson.read(node.path(LOOK)).forEach(workspace.display().lookProperty()::set);
    one(Display.Compare.class, node.path(COMPARE))
        .ifPresent(workspace.display().compareProperty()::set);
    workspace.display().show(result);
    JsonNode view = node.path(VIEW);
    double scale = view.path("units_per_pixel").asDouble();
    if (scale > 0) {
      workspace
          .display()
          .viewWantedProperty()
          .set(new ViewPlace(view.path("x").asDouble(), view.path("y").asDouble(), scale));
    }
    one(Stage.class, node.path(STAGE)).ifPresent(workspace.display().stageProperty()::set);
    return true;
  }

  private static <E extends Enum<E>> Optional<E> one(Class<E> type, JsonNode node) {
    for (E value : type.getEnumConstants()) {
      if (key(value).equals(node.asText())) {
        return Optional.of(value);
      }
    }
    return Optional.empty();
  }
}
