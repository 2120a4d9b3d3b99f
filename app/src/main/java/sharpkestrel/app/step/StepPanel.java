package sharpkestrel.app.step;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.animation.PauseTransition;
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
import javafx.util.Duration;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.app.viewer.PictureView;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;

/** The panel of any step, made from its declaration: inputs, settings with units and ranges, try and run. */
public final class StepPanel extends HBox {

  private static final String FILE = "file";
  private static final String ROLES = "roles";

  /** There is one trial patch: whichever panel tries something else takes the place of what was tried before. */
  private static final String TRIAL = "trial";

  private final Workspace workspace;
  private final PictureView picture;
  private final StepSpec step;
  private final StepInputs inputs;
  private final StepSettings settings;
  private final AsMade asMade;
  private final Label does = new Label();
  private final Label trouble = new Label();
  private final TextField resultTitle = new TextField();
  /** What is typed or slid is tried once it rests so long. */
  private final PauseTransition again = new PauseTransition(Duration.millis(20));

  private final ComboBox<String> varied = new ComboBox<>();
  private String offeredTitle = "";
  private boolean tried;
  private Runnable changed = () -> {};
  private Consumer<Raster> whenTried = raster -> {};
  private Function<String, List<String>> ranked = setting -> List.of();

  /**
   * @param watch followed while the panel is to be seen
   */
  public StepPanel(Desk desk, Watch watch, StepSpec step) {
    workspace = desk.workspace();
    picture = desk.picture();
    this.step = step;
    inputs = new StepInputs(workspace, step);
    inputs.onChange(this::retitle);
    setSpacing(12);
    step.options().stream()
        .filter(Variants::suits)
        .forEach(option -> varied.getItems().add(option.label()));
    if (!varied.getItems().isEmpty()) {
      varied.setValue(varied.getItems().get(0));
    }
    FlowPane fields = new FlowPane(8, 4);
    Map<StepSpec.Input, Node> inputFields = new LinkedHashMap<>();
    for (StepSpec.Input input : step.inputs()) {
      Node field = StepSettings.field(title(input.name()), input.does(), "", inputs.control(input));
      field.managedProperty().bind(field.visibleProperty());
      inputFields.put(input, field);
    }
    settings = new StepSettings(workspace, step, option -> true, true);
    inputs.onlyThose(input -> input.counts(settings::text));
    Runnable showInputs =
        () -> inputFields.forEach((input, field) -> field.setVisible(input.counts(settings::text)));
    asMade = new AsMade(workspace, watch, step, inputs, settings);
    inputs.onChange(asMade::refresh);
    inputs.onChange(() -> settings.showUnits(scene().map(StepPanel::isOnGround).orElse(true)));
    showInputs.run();
    layOut(fields, inputFields, settings.fields());
    settings.onArea(patch -> scene()
        .flatMap(raster ->
            patch ? picture.trials().patchWithin(raster) : picture.trials().viewOn(raster)));
    again.setOnFinished(e -> {
      if (tried && picture.trials().isSet()) {
        tryHere();
      }
    });
    settings.onChange(() -> {
      showInputs.run();
      asMade.refresh();
      changed.run();
      if (tried) {
        again.playFromStart();
      }
    });
    ScrollPane scroll = new ScrollPane(fields);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    does.setText(step.does());
    does.getStyleClass().add("soft");
    does.setWrapText(true);
    does.setMinHeight(Region.USE_PREF_SIZE);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    VBox card = new VBox(5, does, scroll);
    card.getStyleClass().add("card");
    HBox.setHgrow(card, Priority.ALWAYS);
    getChildren().addAll(card, actions());
    inputs.refresh();
    prefer(workspace.display().paneAProperty().get());
    watch.on(workspace.results(), inputs::refresh);
    watch.on(workspace.display().paneAProperty(), now -> {
      prefer(now);
      takeShown(now);
    });
    takeShown(workspace.display().paneAProperty().get());
  }

  /** What is shown is taken; what was learned counts only beside the settings that ask for it. */
  private void prefer(Result shown) {
    if (shown != null) {
      step.modelInput(shown.value()).stream()
          .flatMap(input -> input.when().stream())
          .map(setting -> setting.split("=", 2))
          .forEach(setting -> settings.set(setting[0], setting[1]));
    }
    inputs.prefer(shown);
  }

  /** A step that writes beside a file is offered the file that is shown, and what its bands count as, to be confirmed or changed. */
  private void takeShown(Result shown) {
    boolean offered = step.writesBeside()
        && shown != null
        && shown.value() instanceof Raster
        && !shown.settings().getOrDefault(FILE, "").isBlank();
    if (!offered || shown.settings().get(FILE).equals(settings.text(FILE))) {
      return;
    }
    settings.set(FILE, shown.settings().get(FILE));
    if (step.options().stream().anyMatch(option -> option.name().equals(ROLES))) {
      settings.set(
          ROLES,
          ((Raster) shown.value())
              .bands().stream()
                  .map(band -> band.role().name().toLowerCase(java.util.Locale.ROOT))
                  .collect(java.util.stream.Collectors.joining(", ")));
    }
  }

  /**
   * Inputs first, then settings; an input that counts only beside a setting stands after it, so that nothing moves under the
   * mouse when that is chosen.
   */
  private static void layOut(
      FlowPane fields, Map<StepSpec.Input, Node> inputs, Map<String, Node> settings) {
    inputs.forEach((input, field) -> {
      if (besides(input, settings).isEmpty()) {
        fields.getChildren().add(field);
      }
    });
    settings.forEach((name, setting) -> {
      fields.getChildren().add(setting);
      inputs.forEach((input, field) -> {
        if (besides(input, settings).filter(name::equals).isPresent()) {
          fields.getChildren().add(field);
        }
      });
    });
  }

  /** The setting beside which an input counts. */
  private static Optional<String> besides(StepSpec.Input input, Map<String, Node> settings) {
    return input.when().stream()
        .map(when -> when.split("=")[0])
        .filter(settings::containsKey)
        .findFirst();
  }

  /** Leaves what the step does to a hint, where evidence beside it wants the room. */
  public StepPanel brief() {
    does.setVisible(false);
    does.setManaged(false);
    return this;
  }

  /** Told what a trial made, or what it was tried over. */
  public void onTried(Consumer<Raster> listener) {
    whenTried = listener;
  }

  /** Told whenever a setting changes. */
  public void onSettings(Runnable listener) {
    changed = listener;
  }

  /** Asked for the values of a setting, the best first, as far as evidence ranks them; four of those are tried. */
  public void onRanking(Function<String, List<String>> newRanked) {
    ranked = newRanked;
  }

  /** The raster of the project that the step works on; empty where it is a file or none. */
  public Optional<Raster> scene() {
    Result scene = inputs.results().get("scene");
    return scene != null && scene.value() instanceof Raster raster
        ? Optional.of(raster)
        : Optional.empty();
  }

  private static boolean isOnGround(Raster scene) {
    return scene.grid().crs().isKnown() || scene.attachments().get(Rpc.class).isPresent();
  }

  public StepSettings settings() {
    return settings;
  }

  public StepInputs inputs() {
    return inputs;
  }

  private static String title(String name) {
    return Character.toUpperCase(name.charAt(0)) + name.substring(1).replace('-', ' ');
  }

  private void retitle() {
    // a name that was typed stays
    if (resultTitle.getText().isBlank() || resultTitle.getText().equals(offeredTitle)) {
      offeredTitle = step.resultTitle(inputs.firstTitle());
      resultTitle.setText(offeredTitle);
    }
  }

  private Node actions() {
    resultTitle.setId(step.id() + "-title");
    resultTitle.setPromptText("named after its file");
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
    VBox box = new VBox(6, name, resultTitle, asMade, trouble, gap);
    if (StepTrial.suits(step)) {
      Button trial = new Button("Try here");
      trial.setId(step.id() + "-try");
      trial.setMaxWidth(Double.MAX_VALUE);
      trial.setOnAction(e -> tryHere());
      HBox.setHgrow(trial, Priority.ALWAYS);
      HBox trying = new HBox(6, trial);
      if (step.resultType() == Raster.class && !varied.getItems().isEmpty()) {
        trying.getChildren().add(four());
        box.getChildren().add(varied);
      }
      box.getChildren().add(trying);
    }
    box.getChildren().add(run);
    box.setPrefWidth(176);
    box.setMinWidth(176);
    return box;
  }

  /** Tries four values, side by side in the patch, of the setting that is chosen over it. */
  private Node four() {
    varied.setId(step.id() + "-vary");
    varied.setMaxWidth(Double.MAX_VALUE);
    varied.setTooltip(new Tooltip("The setting that takes four values side by side"));
    Button four = new Button("Four");
    four.setId(step.id() + "-four");
    four.setMinWidth(USE_PREF_SIZE);
    four.setTooltip(new Tooltip("Four variants in the trial patch; click one to take it"));
    four.setOnAction(e -> tryFour());
    return four;
  }

  private void tryFour() {
    trouble.setText("");
    picture.trials().ensure();
    Map<String, Result> results = inputs.results();
    Map<String, String> files = inputs.files();
    Map<String, String> texts = settingTexts();
    StepSpec.Option option = step.options().stream()
        .filter(o -> o.label().equals(varied.getValue()))
        .findFirst()
        .orElseThrow();
    List<String> known = ranked.apply(option.name());
    List<String> values = known.size() < Variants.COUNT
        ? Variants.of(option, texts.getOrDefault(option.name(), option.initial()))
        : known.subList(0, Variants.COUNT);
    workspace
        .lanes()
        .trial()
        .ask(
            TRIAL,
            "Trying four",
            job -> {
              Map<String, Object> given = ResultMaker.values(step, results, files);
              List<Raster> four = new ArrayList<>();
              for (String value : values) {
                Map<String, String> own = new HashMap<>(texts);
                own.put(option.name(), value);
                four.add((Raster) ResultMaker.cached(step.make(given, own).run(job)));
              }
              return four;
            },
            four -> {
              List<String> names = values.stream()
                  .map(v -> option.label() + " " + v.replace('_', ' '))
                  .toList();
              picture.trials().showFour(four, names, step.keepsTones(), k -> {
                settings.set(option.name(), values.get(k));
                tryHere();
              });
            },
            failure -> trouble.setText(failure.getMessage()));
  }

  /** What is set, by name; what was left as it was is left out. */
  public Map<String, String> settingTexts() {
    return settings.texts();
  }

  private void run() {
    trouble.setText("");
    workspace.run(step, resultTitle.getText(), inputs.results(), inputs.files(), settingTexts());
  }

  public void tryHere() {
    trouble.setText("");
    tried = true;
    Map<String, Result> results = inputs.results();
    Map<String, String> files = inputs.files();
    Map<String, String> texts = settingTexts();
    Optional<Cut> sameScene =
        StepTrial.isOfTree(step) ? cutOf(results.get("scene")) : Optional.empty();
    if (StepTrial.isOnObjects(step) && !results.containsKey("objects")) {
      trouble.setText("Objects of a file are not tried: run all, or choose a result.");
      return;
    }
    Optional<Raster> under = Optional.ofNullable(StepTrial.tried(step, results));
    Optional<Extent> patch = under.flatMap(picture.trials()::patchWithin);
    if (StepTrial.isOfTree(step) || StepTrial.isOnObjects(step)) {
      if (patch.isEmpty()) {
        trouble.setText(
            "Show what is to be tried in pane A, with the patch on it, then try again.");
        return;
      }
    } else {
      picture.trials().ensure();
    }
    workspace
        .lanes()
        .trial()
        .ask(
            TRIAL,
            "Trying " + step.title().toLowerCase(Locale.ROOT),
            job -> StepTrial.of(step, results, files, texts, patch, sameScene, job),
            trial -> {
              trouble.setText("");
              picture.trials().show(trial.value(), trial.backdrop(), step.keepsTones());
              whenTried.accept(trial.backdrop());
            },
            failure -> trouble.setText(failure.getMessage()));
  }

  /** A tree of the same scene, where there is one. */
  private Optional<Cut> cutOf(Result scene) {
    return workspace.results().reversed().stream()
        .filter(r -> r.value() instanceof Cut && isMadeFrom(r, scene))
        .findFirst()
        .map(r -> (Cut) r.value());
  }

  private static boolean isMadeFrom(Result objects, Result scene) {
    Result from = objects.inputs().get("scene");
    return from != null && scene != null && from.made().equals(scene.made());
  }
}
