package sharpkestrel.app.bench;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import sharpkestrel.app.model.PickModel;
import sharpkestrel.app.model.ProfileModel;
import sharpkestrel.app.model.SeamModel;
import sharpkestrel.app.model.TieModel;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.app.viewer.PickMarks;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.app.viewer.ProfileMarks;
import sharpkestrel.app.viewer.SeamMarks;
import sharpkestrel.app.viewer.TieMarks;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.sharpen.pan.PanModel;

/** The panel of each tool, made when it is first in hand, and what of it is used in the picture. */
final class ToolPanels {

  private final Workspace workspace;
  private final PictureView picture;
  private final Map<String, Node> panels = new HashMap<>();
  private final TieModel ties;
  private final TieMarks tieMarks;
  private final SeamModel seams;
  private final SeamMarks seamMarks;
  private ProfileModel profiles;
  private ProfileMarks profileMarks;
  private PickModel picks;
  private PickMarks pickMarks;
  private GrainPanel grain;

  ToolPanels(Workspace workspace, PictureView picture) {
    this.workspace = workspace;
    this.picture = picture;
    ties = new TieModel(workspace);
    tieMarks = new TieMarks(workspace, ties);
    seams = new SeamModel(workspace);
    seamMarks = new SeamMarks(workspace, seams);
  }

  Node panel(String tool) {
    return panels.computeIfAbsent(tool, this::make);
  }

  /** What takes clicks in the picture for a tool; null for nothing. */
  PaneTool usedInPicture(String tool) {
    return switch (tool) {
      case "tiepoints" -> tieMarks;
      case "mosaic" -> seamMarks;
      case "profiles" -> profileMarks;
      case "pick-objects" -> pickMarks;
      default -> null;
    };
  }

  TieModel ties() {
    return ties;
  }

  /** Places of spectral profiles; null before their tool was first in hand. */
  ProfileModel profiles() {
    return profiles;
  }

  /** What is picked from a tree; null before its tool was first in hand. */
  PickModel picks() {
    return picks;
  }

  /** A finer or a coarser grain, where its slider was ever in hand. */
  void stepGrain(int direction) {
    if (grain != null) {
      grain.step(direction);
    }
  }

  private Node make(String id) {
    StepSpec step = StepCatalogue.get(id);
    return switch (id) {
      case "winnow" -> new WinnowPanel(workspace, picture);
      case "pick-objects" -> {
        picks = new PickModel(workspace);
        pickMarks = new PickMarks(workspace, picks);
        yield new PickPanel(workspace, picture, picks);
      }
      case "segment" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, grainOrCuts(panel), panel);
      }
      case "tiepoints" -> new TiePanel(workspace, picture, ties, tieMarks);
      case "mosaic" -> new MosaicPanel(workspace, picture, seams, seamMarks);
      case "stack" -> new StackPanel(workspace, step);
      case "profiles" -> {
        profiles = new ProfileModel(workspace);
        profileMarks = new ProfileMarks(workspace, profiles);
        profiles.places().addListener((ListChangeListener<ProfileModel.Place>)
            change -> picture.repaint());
        yield new ProfilePanel(workspace, picture, profiles);
      }
      case "texture" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, new TextureCard(workspace, picture, panel), panel);
      }
      case "builtup" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, new ThresholdCard(workspace, picture, panel), panel);
      }
      case "pansharpen" -> {
        StepPanel panel = new StepPanel(workspace, picture, step).brief();
        RatingCard ratings = new RatingCard(workspace, picture, panel);
        ratings.choose("adaptive");
        panel.onSettings(
            () -> ratings.choose(panel.settingTexts().getOrDefault("method", "adaptive")));
        panel.onTried(sharp -> sharp
            .attachments()
            .get(PanModel.class)
            .ifPresent(model -> panel
                .settings()
                .hint(
                    "weights",
                    model.weightsText().isEmpty() ? "none" : "auto " + model.weightsText())));
        panel.onRanking(setting -> setting.equals("method") ? ratings.ranking() : List.of());
        ratings.onTaken(method -> {
          panel.settings().set("method", method);
          panel.tryHere();
        });
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, ratings, panel);
      }
      case "compare" -> {
        StepPanel panel = new StepPanel(workspace, picture, step);
        ScoresPanel scores = new ScoresPanel(workspace);
        HBox.setHgrow(panel, Priority.ALWAYS);
        yield new HBox(10, scores, panel);
      }
      default -> new StepPanel(workspace, picture, step);
    };
  }

  /** The grain of the tree that is shown; while a method by cuts is set up, its cuts. */
  private StackPane grainOrCuts(StepPanel panel) {
    grain = new GrainPanel(workspace, picture);
    CutsCard cuts = new CutsCard(workspace, panel);
    Runnable choose = () -> {
      boolean byCuts = panel.settingTexts().getOrDefault("method", "").equals("cut_values");
      cuts.setVisible(byCuts);
      grain.setVisible(!byCuts);
      if (byCuts) {
        cuts.refresh();
      }
    };
    panel.onSettings(choose);
    panel.inputs().onChange(choose);
    choose.run();
    StackPane card = new StackPane(grain, cuts);
    card.setPrefWidth(280);
    card.setMinWidth(280);
    return card;
  }
}
