package sharpkestrel.app.step;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.Predicate;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.stage.FileChooser;
import javafx.util.StringConverter;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Raster;
import sharpkestrel.step.Stage;

/** What a step's inputs are taken from: results of the project, or files. */
public final class StepInputs {

  /** Names of files in the project's folder {@code hand} that hold what was labelled. */
  private static final String SAMPLES = "samples-.*\\.gpkg";

  /** A result, a file, or nothing. */
  private record Choice(Result result, String file) {
    static final Choice NONE = new Choice(null, "");

    @Override
    public String toString() {
      return result != null ? result.title() : file.isEmpty() ? "none" : named(Path.of(file));
    }
  }

  private static String named(Path file) {
    String name = file.getFileName().toString();
    boolean byHand =
        file.getParent() != null && file.getParent().endsWith("hand") && name.matches(SAMPLES);
    return byHand ? "samples by hand" : name;
  }

  private final Workspace workspace;
  private final StepSpec step;
  private final List<Runnable> listeners = new ArrayList<>();
  private final Map<String, ComboBox<Choice>> boxes = new LinkedHashMap<>();
  private final Map<String, SeveralBox> several = new LinkedHashMap<>();
  private Predicate<StepSpec.Input> counted = input -> true;

  StepInputs(Workspace workspace, StepSpec step) {
    this.workspace = workspace;
    this.step = step;
  }

  /** Told when another result or file is chosen. */
  public void onChange(Runnable listener) {
    listeners.add(listener);
  }

  /** Inputs that do not count beside what is set are not given to the step, whatever is chosen for them. */
  void onlyThose(Predicate<StepSpec.Input> newCounted) {
    counted = newCounted;
  }

  private boolean counts(String input) {
    return counted.test(step.inputCalled(input));
  }

  private void changed() {
    listeners.forEach(Runnable::run);
  }

  /** The control of an input. */
  Node control(StepSpec.Input input) {
    String id = step.id() + "-" + input.name();
    if (input.several()) {
      SeveralBox box = new SeveralBox(id, input);
      box.setPrefWidth(200);
      box.onChosen(now -> changed());
      several.put(input.name(), box);
      return box;
    }
    ComboBox<Choice> box = new ComboBox<>();
    box.setId(id);
    box.setConverter(new StringConverter<>() {
      @Override
      public String toString(Choice choice) {
        if (choice == null || choice.equals(Choice.NONE)) {
          return input.optional() ? input.without() : "choose";
        }
        return choice.toString();
      }

      @Override
      public Choice fromString(String text) {
        return null;
      }
    });
    box.valueProperty().addListener((p, before, now) -> changed());
    if (input.type() == OutlineSet.class && input.byHand()) {
      // before it opens: a list that changes while it opens is shown empty
      box.setOnMouseEntered(e -> offerSamples(box));
      box.focusedProperty().addListener((p, before, now) -> offerSamples(box));
    }
    boxes.put(input.name(), box);
    return withFile(input, box);
  }

  /** What was labelled by hand in this project, as it is by now. */
  private void offerSamples(ComboBox<Choice> box) {
    Path hand = workspace.folder().resolve("hand");
    if (!Files.isDirectory(hand)) {
      return;
    }
    try (Stream<Path> files = Files.list(hand)) {
      files
          .filter(file -> file.getFileName().toString().matches(SAMPLES))
          .sorted()
          .map(file -> new Choice(null, file.toString()))
          .filter(choice -> !box.getItems().contains(choice))
          .forEach(choice -> box.getItems().add(0, choice));
    } catch (IOException unreadable) {
      workspace.messages().tell(hand + " cannot be read: " + unreadable.getMessage());
    }
  }

  /** A box of results, with a button that adds a file to it. */
  private Node withFile(StepSpec.Input input, ComboBox<Choice> box) {
    Button file = new Button("\u2026");
    file.getStyleClass().add("narrow");
    file.setTooltip(new Tooltip("Choose a file"));
    file.setId(box.getId() + "-file");
    file.setMinWidth(Region.USE_PREF_SIZE);
    file.setOnAction(e -> {
      FileChooser chooser = new FileChooser();
      chooser.setTitle(step.title() + ": " + input.does());
      File chosen = chooser.showOpenDialog(box.getScene().getWindow());
      if (chosen != null) {
        choose(input.name(), chosen.getPath());
      }
    });
    box.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(box, Priority.ALWAYS);
    HBox both = new HBox(4, box, file);
    // three beside each other in the narrowest panel
    both.setPrefWidth(183);
    return both;
  }

  /** Takes a file for an input; none where its name is empty. */
  public void choose(String input, String file) {
    ComboBox<Choice> box = boxes.get(input);
    Choice choice = file.isEmpty() ? Choice.NONE : new Choice(null, file);
    if (!box.getItems().contains(choice)) {
      box.getItems().add(0, choice);
    }
    box.getSelectionModel().select(choice);
  }

  /** Offers what there is now; what is chosen stays where it can. */
  void refresh() {
    for (StepSpec.Input input : step.inputs()) {
      if (input.several()) {
        List<Result> fitting =
            workspace.fitting(input).stream().filter(r -> !isOwn(r)).toList();
        several.get(input.name()).offer(fitting, alike(fitting));
      } else {
        refresh(input);
      }
    }
  }

  /** Scenes that were placed here, or else came placed, and have the bands of the newest of them. */
  private static List<Result> alike(List<Result> fitting) {
    List<Result> rasters =
        fitting.stream().filter(r -> r.value() instanceof Raster).toList();
    List<Result> here = rasters.stream().filter(r -> r.stage() == Stage.PLACE).toList();
    List<Result> scenes = here.isEmpty() ? rasters : here;
    return scenes.stream()
        .filter(r -> roles(r).equals(roles(scenes.getFirst())))
        .toList()
        .reversed();
  }

  private static List<?> roles(Result result) {
    return ((Raster) result.value()).bands().stream().map(Band::role).toList();
  }

  private void refresh(StepSpec.Input input) {
    ComboBox<Choice> box = boxes.get(input.name());
    Choice before = box.getValue();
    List<Choice> choices = new ArrayList<>(
        workspace.fitting(input).stream().map(r -> new Choice(r, "")).toList());
    String file = workspace.suggestions().offered(step, input);
    if (!file.isEmpty()) {
      choices.add(0, new Choice(null, file));
    }
    box.getItems().stream()
        .filter(c -> c.result() == null && !c.equals(Choice.NONE) && !choices.contains(c))
        .forEach(c -> choices.add(0, c));
    if (input.optional()) {
      choices.add(0, Choice.NONE);
    }
    // Cleared first: a combo box keeps its place in the list, not its value, when the list
    // changes.
    box.getSelectionModel().clearSelection();
    box.getItems().setAll(choices);
    Choice wanted = choices.contains(before)
        ? before
        : input.byHand()
            ? Choice.NONE
            : input.optional() ? offered(choices) : preferred(input, choices);
    if (wanted != null) {
      box.getSelectionModel().select(wanted);
    }
  }

  /** The file offered for an input that may be left empty. */
  private static Choice offered(List<Choice> choices) {
    return choices.stream()
        .filter(c -> c.result() == null && !c.equals(Choice.NONE))
        .findFirst()
        .orElse(Choice.NONE);
  }

  /**
   * The file offered, else what pane A shows, else the raster under that, else the newest of what was taken together with it,
   * else the newest; never what this step made itself.
   */
  private Choice preferred(StepSpec.Input input, List<Choice> choices) {
    Result shown = workspace.display().paneAProperty().get();
    List<Choice> others =
        choices.stream().filter(c -> c.result() == null || !isOwn(c.result())).toList();
    return others.stream()
        .filter(c -> c.result() == null || c.result() == shown)
        .findFirst()
        .or(() -> others.stream()
            .filter(c -> shown != null && isUnder(input, c.result(), shown))
            .findFirst())
        .or(() -> others.stream()
            .filter(c -> shown != null && isTakenWith(c.result(), shown))
            .findFirst())
        .orElse(others.isEmpty() ? null : others.get(0));
  }

  /** Whether two pictures are of one pass over the ground. */
  private static boolean isTakenWith(Result result, Result shown) {
    if (result.backdrop() == null || shown.backdrop() == null) {
      return false;
    }
    Optional<Instant> time = Acquisition.timeOf(result.backdrop().attachments());
    return time.isPresent() && time.equals(Acquisition.timeOf(shown.backdrop().attachments()));
  }

  private boolean isOwn(Result result) {
    return result.step().id().equals(step.id());
  }

  /**
   * What is shown in pane A becomes the first input it suits, and the raster under it another; of what this step made itself the
   * inputs are taken.
   */
  void prefer(Result shown) {
    if (shown == null) {
      return;
    }
    if (isOwn(shown)) {
      // a preview was not made from anything yet
      workspace.named(shown.name()).ifPresent(this::takeAsIn);
      return;
    }
    if (step.modelInput(shown.value()).isPresent()) {
      putToUse(shown);
      return;
    }
    boolean suits = choose((input, result) -> result == shown);
    // objects are seen on the scene they come from, not on the one that was chosen before
    boolean suitsUnder = choose((input, result) -> isUnder(input, result, shown));
    if (suits || suitsUnder) {
      inherit(shown);
    }
  }

  /** What was learned is taken, with what it was learned from. */
  private void putToUse(Result model) {
    take(step.modelInput(model.value()).orElseThrow().name(), new Choice(model, ""));
    model.inputs().forEach((name, from) -> {
      if (boxes.containsKey(name)) {
        take(name, new Choice(from, ""));
      }
    });
  }

  /**
   * What may be left empty, and is, takes what the result in hand, or what that comes from, was made with under the same name:
   * on a true ortho objects are seen with the surface that it was made with.
   */
  private void inherit(Result from) {
    for (StepSpec.Input input : step.inputs()) {
      ComboBox<Choice> box = boxes.get(input.name());
      if (input.optional() && box != null && Choice.NONE.equals(box.getValue())) {
        usedBy(from, input.name()).ifPresent(used -> take(input.name(), used));
      }
    }
  }

  /** Takes what a result of this step was made from; results that are no longer there are left as they are. */
  void takeAsIn(Result made) {
    for (StepSpec.Input input : step.inputs()) {
      String name = input.name();
      if (input.several()) {
        several.get(name).choose(made);
      } else if (made.inputs().containsKey(name)) {
        workspace
            .named(made.inputs().get(name).name())
            .ifPresent(now -> take(name, new Choice(now, "")));
      } else if (input.optional() || made.files().containsKey(name)) {
        choose(name, made.files().getOrDefault(name, ""));
      }
    }
  }

  private void take(String input, Choice used) {
    if (used.result() == null) {
      choose(input, used.file());
    } else if (boxes.get(input).getItems().contains(used)) {
      boxes.get(input).getSelectionModel().select(used);
    }
  }

  /** What a result was made with under a name, itself or the nearest that it comes from. */
  private static Optional<Choice> usedBy(Result result, String input) {
    if (result.files().containsKey(input)) {
      return Optional.of(new Choice(null, result.files().get(input)));
    }
    if (result.inputs().containsKey(input)) {
      return Optional.of(new Choice(result.inputs().get(input), ""));
    }
    return result.inputs().values().stream()
        .flatMap(before -> usedBy(before, input).stream())
        .findFirst();
  }

  /** Whether an input that takes scenes is to take the one on which something is drawn. */
  private static boolean isUnder(StepSpec.Input input, Result result, Result shown) {
    return input.type() == Raster.class && result != null && result.value() == shown.backdrop();
  }

  private boolean choose(BiPredicate<StepSpec.Input, Result> wanted) {
    for (StepSpec.Input input : step.inputs()) {
      if (input.optional() || input.several() || input.byHand()) {
        continue;
      }
      ComboBox<Choice> box = boxes.get(input.name());
      for (Choice choice : box.getItems()) {
        if (wanted.test(input, choice.result())) {
          box.getSelectionModel().select(choice);
          return true;
        }
      }
    }
    return false;
  }

  /** The title of the first result that is chosen; empty where none is. */
  String firstTitle() {
    Optional<Result> first = boxes.values().stream()
        .map(ComboBox::getValue)
        .filter(c -> c != null && c.result() != null)
        .map(Choice::result)
        .findFirst();
    return first.map(Result::title).orElse("");
  }

  /** What several results or files are chosen for an input. */
  public List<Object> chosen(String input) {
    return several.get(input).chosen();
  }

  public Map<String, Result> results() {
    Map<String, Result> chosen = new LinkedHashMap<>();
    several.values().forEach(box -> chosen.putAll(box.results()));
    boxes.forEach((name, box) -> {
      if (counts(name) && box.getValue() != null && box.getValue().result() != null) {
        chosen.put(name, box.getValue().result());
      }
    });
    return chosen;
  }

  public Map<String, String> files() {
    Map<String, String> chosen = new LinkedHashMap<>();
    several.values().forEach(box -> chosen.putAll(box.filePaths()));
    boxes.forEach((name, box) -> {
      if (counts(name)
          && box.getValue() != null
          && box.getValue().result() == null
          && !box.getValue().equals(Choice.NONE)) {
        chosen.put(name, box.getValue().file());
      }
    });
    return chosen;
  }
}
