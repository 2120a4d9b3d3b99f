package sharpkestrel.app.shell;

import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.SVGPath;
import sharpkestrel.app.project.RecentProjects;

/** What there is to open when no project is named: the last projects with a picture each, files, a new project, the demo. */
public final class StartScreen extends StackPane {

  private static final double PICTURE_WIDTH = 224;
  private static final double PICTURE_HEIGHT = 140;
  private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern(
          "d MMM yyyy, HH:mm", Locale.ENGLISH)
      .withZone(ZoneId.systemDefault());

  private final Doors doors;
  private final Label trouble = new Label();
  private final TextField name = new TextField();
  private final TextField place = new TextField();

  /**
   * @param projects where new projects are offered to lie
   */
  public StartScreen(Doors doors, Path projects) {
    this.doors = doors;
    getStyleClass().add("start");
    trouble.getStyleClass().add("error");
    trouble.setWrapText(true);
    trouble.setId("start-trouble");
    place.setText(projects.toString());
    VBox page = new VBox(18, head(), ways(), begin(), trouble, recent());
    page.setMaxWidth(1000);
    page.setAlignment(Pos.TOP_LEFT);
    StackPane.setAlignment(page, Pos.TOP_CENTER);
    getChildren().add(page);
  }

  private static HBox head() {
    SVGPath mark = new SVGPath();
    mark.setContent("M9 0 L11.4 6.6 L18 9 L11.4 11.4 L9 18 L6.6 11.4 L0 9 L6.6 6.6 Z");
    mark.getStyleClass().add("mark");
    Label title = new Label("Sharp Kestrel");
    title.getStyleClass().add("start-title");
    HBox box = new HBox(12, mark, title);
    box.setAlignment(Pos.CENTER_LEFT);
    return box;
  }

  private VBox ways() {
    Button files = way("Open files", "start-files", true);
    files.setOnAction(e -> openIfAny(Choosers.files(getScene().getWindow())));
    Button folder = way("Open a folder", "start-folder", false);
    folder.setOnAction(
        e -> openIfAny(Choosers.folder(getScene().getWindow(), "Open a project, or a delivery")));
    Button demo = way("The demo survey", "start-demo", false);
    demo.setOnAction(e -> doors.openDemo());
    Label hint = new Label(
        "Or drop rasters, the folder of a delivery, a run sheet or a project anywhere in this window.");
    hint.getStyleClass().add("soft");
    return new VBox(8, new HBox(10, files, folder, demo), hint);
  }

  private static Button way(String title, String id, boolean first) {
    Button button = new Button(title);
    button.setId(id);
    button.setMinWidth(USE_PREF_SIZE);
    if (first) {
      button.getStyleClass().add("primary");
    }
    return button;
  }

  private void openIfAny(List<Path> paths) {
    if (!paths.isEmpty()) {
      doors.open(paths);
    }
  }

  private HBox begin() {
    name.setId("start-name");
    name.setPromptText("name of a new project");
    name.setPrefWidth(220);
    name.setOnAction(e -> create());
    place.setId("start-place");
    HBox.setHgrow(place, Priority.ALWAYS);
    Button browse = new Button("\u2026");
    browse.getStyleClass().add("narrow");
    browse.setTooltip(new Tooltip("Choose the folder that it lies in"));
    browse.setOnAction(
        e -> Choosers.folder(getScene().getWindow(), "Where the project is to lie").stream()
            .findFirst()
            .ifPresent(chosen -> place.setText(chosen.toString())));
    Button create = way("New project", "start-create", false);
    create.setOnAction(e -> create());
    Label in = new Label("in");
    in.getStyleClass().add("soft");
    HBox box = new HBox(8, create, name, in, place, browse);
    box.setAlignment(Pos.CENTER_LEFT);
    return box;
  }

  private void create() {
    String title = name.getText().strip();
    if (title.isEmpty()) {
      trouble.setText("Give the new project a name.");
      return;
    }
    try {
      Path folder = Path.of(place.getText().strip()).resolve(title.replace('/', '-'));
      if (Files.exists(folder)) {
        trouble.setText(folder + " is there already. Give another name, or open it.");
        return;
      }
      doors.begin(folder, title);
    } catch (InvalidPathException senseless) {
      trouble.setText("'" + place.getText() + "' is no folder's name.");
    }
  }

  private Region recent() {
    List<RecentProjects.Recent> all = RecentProjects.all();
    Label title = new Label(all.isEmpty() ? "" : "Opened last");
    title.getStyleClass().add("title");
    FlowPane cards = new FlowPane(14, 14);
    for (int k = 0; k < all.size(); k++) {
      cards.getChildren().add(card(all.get(k), k));
    }
    ScrollPane scroll = new ScrollPane(cards);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    VBox box = new VBox(8, title, scroll);
    VBox.setVgrow(box, Priority.ALWAYS);
    return box;
  }

  private Button card(RecentProjects.Recent recent, int place) {
    StackPane frame = new StackPane();
    frame.getStyleClass().add("well");
    frame.setMinSize(PICTURE_WIDTH, PICTURE_HEIGHT);
    frame.setMaxSize(PICTURE_WIDTH, PICTURE_HEIGHT);
    if (Files.isRegularFile(recent.picture())) {
      ImageView view = new ImageView(new Image(
          recent.picture().toUri().toString(), PICTURE_WIDTH, PICTURE_HEIGHT, true, true, true));
      frame.getChildren().add(view);
    }
    Label title = new Label(
        recent.title().isBlank() ? recent.folder().getFileName().toString() : recent.title());
    title.getStyleClass().add("title");
    Label where = new Label(recent.folder().toString());
    where.getStyleClass().addAll("soft", "small");
    where.setTextOverrun(javafx.scene.control.OverrunStyle.LEADING_ELLIPSIS);
    where.setMaxWidth(PICTURE_WIDTH);
    Label when = new Label(WHEN.format(recent.when()));
    when.getStyleClass().addAll("soft", "small");
    VBox box = new VBox(4, frame, title, where, when);
    Button button = new Button();
    button.setGraphic(box);
    button.setId("recent-" + place);
    button.getStyleClass().add("project-card");
    button.setTooltip(new Tooltip(recent.folder().toString()));
    button.setOnAction(e -> doors.open(List.of(recent.folder())));
    return button;
  }

  /** Says what could not be opened. */
  public void tell(String what) {
    trouble.setText(what);
  }

  /** Takes what is dropped, too. */
  public void listenTo(Scene scene) {
    Choosers.takeDrops(scene, doors);
  }
}
