package sharpkestrel.app.step;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.raster.Extent;

/** The settings of a step as fields with units and ranges. */
public final class StepSettings {

  private final Workspace workspace;
  private final boolean sliders;
  private final StepSpec step;
  private final List<StepSpec.Option> options;
  private final Map<String, Node> editors = new LinkedHashMap<>();
  private final Map<String, Node> controls = new LinkedHashMap<>();
  private final Map<String, Node> fields = new LinkedHashMap<>();
  private final List<Button> areaButtons = new ArrayList<>();
  private Runnable changed = () -> {};
  private Function<Boolean, Optional<Extent>> area = patch -> Optional.empty();

  /**
   * @param wanted which of the step's settings
   * @param sliders whether there is room for a slider under each number that has both ends
   */
  public StepSettings(
      Workspace workspace, StepSpec step, Predicate<StepSpec.Option> wanted, boolean sliders) {
    this.sliders = sliders;
    this.workspace = workspace;
    this.step = step;
    options = step.options().stream().filter(wanted).toList();
    for (StepSpec.Option option : options) {
      Node editor = editor(option);
      editor.setId(step.id() + "-" + option.name());
      editors.put(option.name(), editor);
      controls.put(option.name(), control(option, editor));
      listen(editor);
    }
  }

  /** Constants are shown as words: {@code equal_width} as Equal width. */
  private static final StringConverter<String> TITLES = new StringConverter<>() {
    @Override
    public String toString(String constant) {
      return constant == null || constant.isEmpty()
          ? ""
          : Character.toUpperCase(constant.charAt(0)) + constant.substring(1).replace('_', ' ');
    }

    @Override
    public String fromString(String title) {
      return title.toLowerCase(Locale.ROOT).replace(' ', '_');
    }
  };

  private Node control(StepSpec.Option option, Node editor) {
    if (editor instanceof TextField text && option.namesFiles()) {
      return new PathField(text, step, option);
    }
    if (sliders && editor instanceof TextField text && NumberSlider.suits(option)) {
      return new VBox(1, text, new NumberSlider(option, text));
    }
    if (editor instanceof TextField text && option.isArea()) {
      return new HBox(4, text, taking(text, "View", false), taking(text, "Patch", true));
    }
    return editor;
  }

  /** Puts the area that is in view, or under the trial patch, where it would be typed. */
  private Button taking(TextField text, String title, boolean patch) {
    Button button = new Button(title);
    button.setId(text.getId() + "-" + title.toLowerCase(Locale.ROOT));
    button.setMinWidth(Region.USE_PREF_SIZE);
    button.setVisible(false);
    button.managedProperty().bind(button.visibleProperty());
    areaButtons.add(button);
    button.setTooltip(new Tooltip(
        patch ? "The area under the trial patch (D draws one)" : "The area that is in view"));
    button.setOnAction(
        e -> area.apply(patch).ifPresent(extent -> text.setText(SettingValues.toText(extent))));
    return button;
  }

  /** Where areas come from; told whether the trial patch is meant rather than the view. */
  void onArea(Function<Boolean, Optional<Extent>> newArea) {
    area = newArea;
    areaButtons.forEach(button -> button.setVisible(true));
  }

  private void listen(Node editor) {
    if (editor instanceof TextField text) {
      text.textProperty().addListener((p, before, now) -> changed.run());
    } else if (editor instanceof CheckBox box) {
      box.selectedProperty().addListener((p, before, now) -> {
        showWhatCounts();
        changed.run();
      });
    } else {
      ((ComboBox<?>) editor).valueProperty().addListener((p, before, now) -> {
        showWhatCounts();
        changed.run();
      });
    }
  }

  /** Told whenever something is set or typed. */
  void onChange(Runnable listener) {
    changed = listener;
  }

  /** Says what a setting that was left empty came to. */
  public void hint(String name, String text) {
    if (editors.get(name) instanceof TextField field) {
      field.setPromptText(text);
    }
  }

  /** Sets a setting as if it were typed or chosen. */
  @SuppressWarnings("unchecked")
  public void set(String name, String text) {
    Node editor = editors.get(name);
    if (editor instanceof TextField field) {
      field.setText(text);
    } else if (editor instanceof CheckBox box) {
      box.setSelected(Boolean.parseBoolean(text));
    } else {
      ((ComboBox<String>) editor).setValue(text);
    }
  }

  /** Sets all settings; those that are not named as they are at first. */
  void setAll(Map<String, String> texts) {
    for (StepSpec.Option option : options) {
      boolean chosen = !(editors.get(option.name()) instanceof TextField);
      String initial = chosen || !leavesOpen(option) ? option.initial() : "";
      set(option.name(), texts.getOrDefault(option.name(), initial));
    }
  }

  /** Whether nothing need be typed: the step finds out by itself. */
  private static boolean leavesOpen(StepSpec.Option option) {
    return option.initial().equals("auto") || option.initial().equals("none");
  }

  /** By name, each with its label over it; those that do not count beside the others are not seen. */
  public Map<String, Node> fields() {
    for (StepSpec.Option option : options) {
      Node field = field(
          option.label(),
          option.does() + (option.range().isEmpty() ? "" : " (" + option.range() + ")"),
          option.unit(),
          controls.get(option.name()));
      field.managedProperty().bind(field.visibleProperty());
      fields.put(option.name(), field);
    }
    showWhatCounts();
    return Collections.unmodifiableMap(fields);
  }

  /** Lengths and areas are told in pixels where the scene in hand has no place on the ground. */
  void showUnits(boolean inMetres) {
    for (StepSpec.Option option : options) {
      boolean ofGround = option.unit().equals("m") || option.unit().equals("m²");
      if (ofGround
          && fields.get(option.name()) instanceof VBox field
          && field.getChildren().getFirst() instanceof Label label) {
        label.setText(titled(option.label(), inMetres ? option.unit() : "px"));
      }
    }
  }

  private static String titled(String title, String unit) {
    return title + (unit.isEmpty() ? "" : "  " + unit);
  }

  private void showWhatCounts() {
    for (StepSpec.Option option : options) {
      if (fields.containsKey(option.name())) {
        fields.get(option.name()).setVisible(option.counts(this::text));
      }
    }
  }

  /** What a setting says now, as text; empty where there is none of that name here. */
  String text(String name) {
    return switch (editors.get(name)) {
      case TextField field -> field.getText();
      case CheckBox box -> String.valueOf(box.isSelected());
      case ComboBox<?> box -> String.valueOf(box.getValue());
      case null, default -> "";
    };
  }

  /** Makes the fields so wide, where room is short. */
  public void setWidth(double width) {
    editors.values().forEach(editor -> ((Region) editor).setPrefWidth(width));
  }

  static Node field(String title, String does, String unit, Node editor) {
    if (editor instanceof CheckBox box) {
      // what it is stands behind the box itself
      box.setTooltip(new Tooltip(does));
      box.setMinWidth(Region.USE_PREF_SIZE);
      return new VBox(2, new Label(" "), box);
    }
    Label label = new Label(titled(title, unit));
    label.getStyleClass().add("soft");
    label.setTooltip(new Tooltip(does));
    if (editor instanceof Region region) {
      region.setPrefWidth(
          editor instanceof HBox && region.getPrefWidth() < 0
              ? 200
              : Math.max(150, region.getPrefWidth()));
    }
    return new VBox(2, label, editor);
  }

  private Node editor(StepSpec.Option option) {
    Class<?> type = option.rawType();
    if (type == boolean.class) {
      CheckBox box = new CheckBox(option.label());
      box.setSelected(Boolean.parseBoolean(option.initial()));
      return box;
    }
    if (option.choices().isPresent()) {
      ComboBox<String> box = new ComboBox<>();
      box.setConverter(TITLES);
      for (String value : option.range().split(", ")) {
        box.getItems().add(value);
      }
      box.setValue(option.initial());
      return box;
    }
    boolean auto = leavesOpen(option);
    String offered = workspace.suggestions().offered(step, option);
    TextField text = new TextField(offered.isEmpty() && !auto ? option.initial() : offered);
    boolean ofNumber =
        !option.initial().isEmpty() && Character.isDigit(option.initial().charAt(0));
    if (option.isText() && !ofNumber || option.namesFiles()) {
      text.setPrefWidth(382);
    } else if (type == List.class) {
      text.setPrefWidth(262);
    }
    text.focusedProperty().addListener((p, before, now) -> {
      if (!now) {
        workspace.suggestions().offer(step, option, text.getText());
      }
    });
    boolean foundOut = auto && (!option.isText() || option.does().contains(option.initial()));
    text.setPromptText(option.isRequired() ? "needed" : foundOut ? option.initial() : "");
    return text;
  }

  /** What is set, by name; what was left as it was is left out. */
  public Map<String, String> texts() {
    Map<String, String> texts = new LinkedHashMap<>();
    for (StepSpec.Option option : options) {
      String text = text(option.name());
      boolean left = text.isBlank() || text.equals(option.initial());
      if (option.counts(this::text) && (!left || option.isRequired())) {
        texts.put(option.name(), text.strip());
      }
    }
    return texts;
  }
}
