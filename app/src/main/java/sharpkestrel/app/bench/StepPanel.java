package sharpkestrel.app.bench;

import java.io.File;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.StringConverter;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.gather.Clip;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;

/** The panel of any step, made from its declaration: inputs, settings with units and ranges, try and run. */
public final class StepPanel extends HBox {

  /** An input's choices: results of the project, or a file. */
  private record Choice(Result result, String file) {
    static final Choice NONE = new Choice(null, "");

    @Override
    public String toString() {
      return result != null
          ? result.title()
          : file.isEmpty() ? "none" : Path.of(file).getFileName().toString();
    }
  }

  private final Workspace workspace;
  private final PictureView picture;
  private final StepSpec step;
  private final Map<String, ComboBox<Choice>> inputs = new LinkedHashMap<>();
  private final Map<String, Node> settings = new LinkedHashMap<>();
  private final Label trouble = new Label();
  private final TextField resultTitle = new TextField();

  public StepPanel(Workspace workspace, PictureView picture, StepSpec step) {
    this.workspace = workspace;
    this.picture = picture;
    this.step = step;
    setSpacing(12);
    FlowPane fields = new FlowPane(12, 8);
    for (StepSpec.Input input : step.inputs()) {
      fields
          .getChildren()
          .add(field(title(input.name()), input.does(), "", withFile(input, inputBox(input))));
    }
    for (StepSpec.Option option : step.options()) {
      Node editor = editor(option);
      editor.setId(step.id() + "-" + option.name());
      settings.put(option.name(), editor);
      fields
          .getChildren()
          .add(field(option.label(), option.does() + rangeText(option), option.unit(), editor));
    }
    ScrollPane scroll = new ScrollPane(fields);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    Label does = new Label(step.does());
    does.getStyleClass().add("soft");
    does.setWrapText(true);
    does.setMinHeight(Region.USE_PREF_SIZE);
    VBox card = new VBox(8, does, scroll);
    card.getStyleClass().add("card");
    HBox.setHgrow(card, Priority.ALWAYS);
    getChildren().addAll(card, actions());
    refresh();
    workspace.results().addListener((ListChangeListener<Result>) change -> refresh());
    workspace.paneAProperty().addListener((p, before, now) -> prefer(now));
  }

  private static String title(String name) {
    return Character.toUpperCase(name.charAt(0)) + name.substring(1).replace('-', ' ');
  }

  private static String rangeText(StepSpec.Option option) {
    return option.range().isEmpty() ? "" : " (" + option.range() + ")";
  }

  private static Node field(String title, String does, String unit, Node editor) {
    Label label = new Label(title + (unit.isEmpty() ? "" : "  " + unit));
    label.getStyleClass().add("soft");
    label.setTooltip(new Tooltip(does));
    if (editor instanceof Region region) {
      region.setPrefWidth(editor instanceof HBox ? 220 : Math.max(150, region.getPrefWidth()));
    }
    return new VBox(2, label, editor);
  }

  private ComboBox<Choice> inputBox(StepSpec.Input input) {
    ComboBox<Choice> box = new ComboBox<>();
    box.setId(step.id() + "-" + input.name());
    box.setConverter(new StringConverter<>() {
      @Override
      public String toString(Choice choice) {
        return choice == null ? (input.optional() ? "none" : "choose") : choice.toString();
      }

      @Override
      public Choice fromString(String text) {
        return null;
      }
    });
    box.valueProperty().addListener((p, before, now) -> retitle());
    inputs.put(input.name(), box);
    return box;
  }

  /** A box of results, with a button that adds a file to it. */
  private Node withFile(StepSpec.Input input, ComboBox<Choice> box) {
    Button file = new Button("File");
    file.setId(step.id() + "-" + input.name() + "-file");
    file.setMinWidth(Region.USE_PREF_SIZE);
    file.setOnAction(e -> {
      FileChooser chooser = new FileChooser();
      chooser.setTitle(step.title() + ": " + input.does());
      File chosen = chooser.showOpenDialog(getScene().getWindow());
      if (chosen != null) {
        Choice choice = new Choice(null, chosen.getPath());
        box.getItems().add(0, choice);
        box.getSelectionModel().select(choice);
      }
    });
    box.setPrefWidth(166);
    return new HBox(4, box, file);
  }

  private Node editor(StepSpec.Option option) {
    Class<?> type = option.rawType();
    if (option.choices().isPresent() || type == boolean.class) {
      ComboBox<String> box = new ComboBox<>();
      for (String value : option.range().split(", ")) {
        box.getItems().add(value);
      }
      box.setValue(option.initial());
      return box;
    }
    boolean auto = option.initial().equals("auto");
    String offered = workspace.offered(step, option);
    TextField text = new TextField(offered.isEmpty() && !auto ? option.initial() : offered);
    if (type == String.class || type == Path.class) {
      text.setPrefWidth(382);
    }
    text.setPromptText(option.isRequired() ? "needed" : auto ? "auto" : "");
    return text;
  }

  private void refresh() {
    for (StepSpec.Input input : step.inputs()) {
      ComboBox<Choice> box = inputs.get(input.name());
      Choice before = box.getValue();
      List<Choice> choices = new java.util.ArrayList<>(
          workspace.fitting(input).stream().map(r -> new Choice(r, "")).toList());
      String file = workspace.offered(step, input);
      if (!file.isEmpty()) {
        choices.add(0, new Choice(null, file));
      }
      box.getItems().stream()
          .filter(c -> c.result() == null && !choices.contains(c))
          .forEach(c -> choices.add(0, c));
      if (input.optional() && !choices.contains(Choice.NONE)) {
        choices.add(Choice.NONE);
      }
      // Cleared first: a combo box keeps its place in the list, not its value, when the list
      // changes.
      box.getSelectionModel().clearSelection();
      box.getItems().setAll(choices);
      Choice wanted = choices.contains(before)
          ? before
          : input.optional() ? offered(choices) : preferred(choices);
      if (wanted != null) {
        box.getSelectionModel().select(wanted);
      }
    }
    retitle();
  }

  /** The file offered for an input that may be left empty. */
  private static Choice offered(List<Choice> choices) {
    return choices.stream().filter(c -> c.result() == null).findFirst().orElse(Choice.NONE);
  }

  /** The file offered, else what pane A shows, else the newest; never what this step made itself. */
  private Choice preferred(List<Choice> choices) {
    Result shown = workspace.paneAProperty().get();
    List<Choice> others =
        choices.stream().filter(c -> c.result() == null || !isOwn(c.result())).toList();
    return others.stream()
        .filter(c -> c.result() == null || c.result() == shown)
        .findFirst()
        .orElse(others.isEmpty() ? null : others.get(0));
  }

  private boolean isOwn(Result result) {
    return result.step().id().equals(step.id());
  }

  /** What is shown in pane A becomes the first input it suits. */
  private void prefer(Result shown) {
    if (shown == null || isOwn(shown)) {
      return;
    }
    for (StepSpec.Input input : step.inputs()) {
      if (input.optional()) {
        continue;
      }
      ComboBox<Choice> box = inputs.get(input.name());
      for (Choice choice : box.getItems()) {
        if (choice.result() == shown) {
          box.getSelectionModel().select(choice);
          return;
        }
      }
    }
  }

  private void retitle() {
    Optional<Choice> first = inputs.values().stream()
        .map(ComboBox::getValue)
        .filter(c -> c != null && c.result() != null)
        .findFirst();
    String from = first.map(c -> c.result().title()).orElse("");
    resultTitle.setText(
        switch (step.id()) {
          case "ortho" -> from.replace(", raw", "").replace(" reflectance", "") + " ortho";
          case "calibrate" -> from.replace(", raw", "") + " reflectance";
          case "pansharpen" -> "Sharpened";
          case "segment" -> "Objects";
          case "measure" -> "Measured";
          case "outline" -> "Outlines";
          case "compare" -> "Scores";
          default -> step.title();
        });
  }

  private Node actions() {
    resultTitle.setId(step.id() + "-title");
    Label name = new Label("Result");
    name.getStyleClass().add("soft");
    Button run = new Button("Run all");
    run.setId(step.id() + "-run");
    run.getStyleClass().add("primary");
    run.setMaxWidth(Double.MAX_VALUE);
    run.setOnAction(e -> run());
    trouble.getStyleClass().add("error");
    trouble.setWrapText(true);
    // What runs stands at the same place in every panel.
    Region gap = new Region();
    VBox.setVgrow(gap, Priority.ALWAYS);
    VBox box = new VBox(6, name, resultTitle, trouble, gap);
    if (step.resultType() == Raster.class || step.resultType() == Cut.class) {
      Button trial = new Button("Try here");
      trial.setId(step.id() + "-try");
      trial.setMaxWidth(Double.MAX_VALUE);
      trial.setOnAction(e -> tryHere());
      box.getChildren().add(trial);
    }
    box.getChildren().add(run);
    box.setPrefWidth(176);
    box.setMinWidth(176);
    return box;
  }

  private Map<String, String> settingTexts() {
    Map<String, String> texts = new LinkedHashMap<>();
    for (StepSpec.Option option : step.options()) {
      Node node = settings.get(option.name());
      String text = node instanceof TextField field
          ? field.getText()
          : String.valueOf(((ComboBox<?>) node).getValue());
      boolean left = text.isBlank() || text.equals(option.initial());
      if (!left || option.isRequired()) {
        texts.put(option.name(), text.strip());
      }
    }
    return texts;
  }

  private Map<String, Result> chosenResults() {
    Map<String, Result> chosen = new LinkedHashMap<>();
    inputs.forEach((name, box) -> {
      if (box.getValue() != null && box.getValue().result() != null) {
        chosen.put(name, box.getValue().result());
      }
    });
    return chosen;
  }

  private Map<String, String> chosenFiles() {
    Map<String, String> chosen = new LinkedHashMap<>();
    inputs.forEach((name, box) -> {
      if (box.getValue() != null
          && box.getValue().result() == null
          && box.getValue() != Choice.NONE) {
        chosen.put(name, box.getValue().file());
      }
    });
    return chosen;
  }

  private void run() {
    trouble.setText("");
    workspace.run(step, resultTitle.getText(), chosenResults(), chosenFiles(), settingTexts());
  }

  private void tryHere() {
    trouble.setText("");
    Map<String, Result> results = chosenResults();
    Map<String, String> files = chosenFiles();
    Map<String, String> texts = settingTexts();
    boolean objects = step.resultType() == Cut.class;
    if (objects) {
      useHeightOfScene(results.get("scene"), texts);
    }
    Optional<Extent> patch = objects && results.get("scene") != null
        ? picture.patchOn((Raster) results.get("scene").value())
        : Optional.empty();
    if (objects && patch.isEmpty()) {
      trouble.setText("Show the scene to be segmented in pane A, then try again.");
      return;
    }
    if (!objects) {
      picture.showPatch();
    }
    workspace
        .tasks()
        .run(
            "Trying " + step.title().toLowerCase(Locale.ROOT),
            (Job job) -> {
              Map<String, Object> values = ResultMaker.values(step, results, files);
              if (objects) {
                values.put("scene", new Clip((Raster) values.get("scene"), patch).run(job));
              }
              Object made = step.make(values, texts).run(job);
              Object shown = ResultMaker.cached(made);
              return new Trial(
                  shown, shown instanceof Raster raster ? raster : (Raster) values.get("scene"));
            },
            trial -> picture.showTrial(trial.value(), trial.backdrop()),
            failure -> workspace.messageProperty().set(failure.getMessage()));
  }

  /**
   * A patch has its own share of busy ground, so the height at which it has objects of a grain is not the scene's. Where
   * the scene has a tree already, a trial is cut at the height that the grain has there.
   */
  private void useHeightOfScene(Result scene, Map<String, String> texts) {
    if (texts.containsKey("height")) {
      return;
    }
    String grain = texts.getOrDefault("grain", option("grain").initial());
    workspace.results().reversed().stream()
        .filter(r -> r.value() instanceof Cut && isMadeFrom(r, scene))
        .findFirst()
        .map(r -> (Cut) r.value())
        .ifPresent(cut -> {
          try {
            double height = cut.withGrain(Double.parseDouble(grain)).height();
            texts.put("height", Double.toString(height));
          } catch (NumberFormatException notANumber) {
            // the step itself says what is wrong with the grain
          }
        });
  }

  private static boolean isMadeFrom(Result objects, Result scene) {
    Result from = objects.inputs().get("scene");
    return from != null && scene != null && from.made().equals(scene.made());
  }

  private StepSpec.Option option(String name) {
    return step.options().stream()
        .filter(o -> o.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  /** What was tried, and the raster it is shown over. */
  private record Trial(Object value, Raster backdrop) {}
}
