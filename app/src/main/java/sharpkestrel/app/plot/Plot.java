package sharpkestrel.app.plot;

import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.Group;
import javafx.scene.SnapshotParameters;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.image.WritableImage;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import javafx.scene.transform.Scale;

/**
 * What all plots share: axes with ticks at round numbers and their unit, what lies under the mouse in words, the wheel that zooms at
 * the cursor within the whole and a double click that shows it again, and a menu that copies it as a picture. What is drawn
 * between the axes, and what a press or a drag does there, each plot says itself.
 */
public abstract class Plot extends Pane {

  private static final double TICK_ROOM = 40;

  /** Marks at the ends of an axis are whole. */
  private static final double OVER = 4;

  private static final double STEP = 1.25;
  private static final int PICTURE_SCALE = 2;
  private static final String[] INKS = {"soft", "text", "card", "left-out", "accent", "second"};

  private final Canvas canvas;
  private final Insets frame;
  private final Inks inks;
  private final ContextMenu menu = new ContextMenu();
  private Axis wholeAcross;
  private Axis across;
  private Axis wholeUp;
  private Axis up;
  private Optional<double[]> mouse = Optional.empty();
  private boolean dragging;
  private boolean menuAllowed = true;

  /**
   * @param frame room on each side for what stands around the axes
   */
  protected Plot(double width, double height, Insets frame, String... moreInks) {
    canvas = new Canvas(width, height);
    this.frame = frame;
    String[] names = java.util.stream.Stream.concat(
            java.util.Arrays.stream(INKS), java.util.Arrays.stream(moreInks))
        .toArray(String[]::new);
    inks = new Inks(this::draw, names);
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    getChildren().addAll(canvas, inks);
    MenuItem copy = new MenuItem("Copy as picture");
    copy.setId("plot-copy");
    copy.setOnAction(e -> copy());
    MenuItem all = new MenuItem("Show all of it");
    all.setId("plot-whole");
    all.setOnAction(e -> showWhole());
    menu.getItems().addAll(copy, all);
    setOnMouseMoved(this::over);
    setOnMouseExited(e -> over(Optional.empty()));
    setOnMousePressed(this::pressed);
    setOnMouseDragged(e -> {
      mouse = Optional.of(new double[] {e.getX(), e.getY()});
      if (dragging) {
        drag(e.getX(), e.getY());
      }
      draw();
    });
    setOnMouseReleased(this::released);
    setOnScroll(this::zoom);
    setOnContextMenuRequested(e -> {
      e.consume();
      if (menuAllowed) {
        all.setDisable(!isZoomed());
        menu.show(this, e.getScreenX(), e.getScreenY());
      }
    });
  }

  /** Draws what stands between the axes; nothing reaches over the frame. */
  protected abstract void paint(GraphicsContext g);

  /** Bars over equal parts of the axis along the foot, as wide as those, in the fill that is set. */
  protected final void bars(GraphicsContext g, long[] counts, long top, double gap) {
    double step = (right() - left()) / counts.length;
    for (int k = 0; k < counts.length; k++) {
      double tall = barHeight(counts[k], top);
      g.fillRect(left() + k * step, foot() - tall, step - gap, tall);
    }
  }

  /** By the square root of the count, so that a few roofs show beside many fields. */
  protected final double barHeight(double count, double top) {
    return (foot() - top()) * Math.sqrt(count / Math.max(1, top));
  }

  /** Draws what may reach over the frame, such as handles. */
  protected void paintOver(GraphicsContext g) {}

  /** What lies at a place of the drawing, in words; empty for nothing. */
  protected String under(double x, double y) {
    return "";
  }

  /** A press of the first button. */
  protected void press(double x, double y) {}

  protected void drag(double x, double y) {}

  protected void release(double x, double y) {}

  /** A press of the second button; true where it did something, and no menu shall show. */
  protected boolean pressSecond(double x, double y) {
    return false;
  }

  /** The mouse moves without a button; the place to choose a cursor. */
  protected void hover(double x, double y) {}

  private void over(MouseEvent e) {
    hover(e.getX(), e.getY());
    over(Optional.of(new double[] {e.getX(), e.getY()}));
  }

  private void over(Optional<double[]> place) {
    mouse = place;
    draw();
  }

  private void pressed(MouseEvent e) {
    menu.hide();
    dragging = false;
    if (e.getButton() == MouseButton.SECONDARY) {
      menuAllowed = !pressSecond(e.getX(), e.getY());
    } else if (e.getClickCount() == 2 && isZoomed()) {
      showWhole();
    } else {
      dragging = true;
      press(e.getX(), e.getY());
    }
    draw();
  }

  private void released(MouseEvent e) {
    if (dragging) {
      dragging = false;
      release(e.getX(), e.getY());
    }
    draw();
  }

  private void zoom(ScrollEvent e) {
    if (e.getDeltaY() == 0) {
      return;
    }
    double factor = e.getDeltaY() > 0 ? 1 / STEP : STEP;
    boolean grows = factor > 1;
    // at its whole the wheel belongs to what it stands in
    if (grows && !isZoomed()) {
      return;
    }
    if (across != null && zoomsAcross()) {
      across = across.zoomed(e.getX(), factor, wholeAcross);
    }
    if (up != null && zoomsUp()) {
      up = up.zoomed(e.getY(), factor, wholeUp);
    }
    e.consume();
    draw();
  }

  protected boolean zoomsAcross() {
    return true;
  }

  protected boolean zoomsUp() {
    return false;
  }

  public final boolean isZoomed() {
    return across != null && !across.equals(wholeAcross) || up != null && !up.equals(wholeUp);
  }

  /** Shows all values of both axes again. */
  public final void showWhole() {
    across = wholeAcross;
    up = wholeUp;
    draw();
  }

  /** Sets the axis along the foot; the zoom stays where the whole is the same as before. */
  protected final void setAcross(double from, double to, boolean logarithmic, String unit) {
    Axis whole = new Axis(from, to, left(), right(), logarithmic, unit);
    if (!whole.equals(wholeAcross)) {
      wholeAcross = whole;
      across = whole;
    }
  }

  protected final void setAcross(Axis of) {
    setAcross(of.from(), of.to(), of.logarithmic(), of.unit());
  }

  /** Sets the axis up the left side, likewise. */
  protected final void setUp(double from, double to, String unit) {
    Axis whole = new Axis(from, to, foot(), top(), false, unit);
    if (!whole.equals(wholeUp)) {
      wholeUp = whole;
      up = whole;
    }
  }

  protected final Axis across() {
    return across;
  }

  protected final Axis up() {
    return up;
  }

  protected final double left() {
    return frame.getLeft();
  }

  protected final double right() {
    return canvas.getWidth() - frame.getRight();
  }

  protected final double top() {
    return frame.getTop();
  }

  /** Where the axis along the foot lies. */
  protected final double foot() {
    return canvas.getHeight() - frame.getBottom();
  }

  protected final Inks inks() {
    return inks;
  }

  /** Takes another size, in pixels of the screen. */
  public final void setSize(double width, double height) {
    if (width == canvas.getWidth() && height == canvas.getHeight()) {
      return;
    }
    canvas.setWidth(width);
    canvas.setHeight(height);
    setPrefSize(width, height);
    if (across != null) {
      wholeAcross = wholeAcross.between(left(), right());
      across = across.between(left(), right());
    }
    if (up != null) {
      wholeUp = wholeUp.between(foot(), top());
      up = up.between(foot(), top());
    }
    draw();
  }

  /** Draws it anew. */
  protected final void draw() {
    draw(canvas.getGraphicsContext2D());
    String text = mouse.map(at -> under(at[0], at[1])).orElse("");
    setAccessibleText(text);
    if (!text.isEmpty()) {
      readOut(canvas.getGraphicsContext2D(), text);
    }
  }

  private void draw(GraphicsContext g) {
    g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
    g.save();
    g.beginPath();
    g.rect(left() - OVER, 0, right() - left() + 2 * OVER, foot());
    g.clip();
    paint(g);
    g.restore();
    g.save();
    drawAxes(g);
    g.restore();
    g.save();
    paintOver(g);
    g.restore();
  }

  /** The lines of the axes with their ticks; over for those whose steps have names. */
  protected void drawAxes(GraphicsContext g) {
    g.setLineWidth(1);
    g.setStroke(inks.of("soft"));
    g.setFill(inks.of("soft"));
    g.strokeLine(left(), foot() + 0.5, right(), foot() + 0.5);
    if (up != null) {
      g.strokeLine(left() + 0.5, top(), left() + 0.5, foot());
      drawTicksUp(g);
    }
    if (across != null && frame.getBottom() > 11) {
      drawTicksAcross(g);
    }
  }

  protected final void drawTicksUp(GraphicsContext g) {
    g.setFont(Font.font("IBM Plex Mono", 10));
    g.setTextAlign(TextAlignment.RIGHT);
    int most = (int) Math.max(1, up.length() / 34);
    for (double tick : up.ticks(most)) {
      double y = Math.rint(up.at(tick)) + 0.5;
      g.strokeLine(left() - 3, y, left(), y);
      g.fillText(up.text(tick, most), left() - 5, y + 3);
    }
  }

  /** Ticks along the foot; the unit stands behind the last one. */
  private void drawTicksAcross(GraphicsContext g) {
    g.setFont(Font.font("IBM Plex Mono", 10));
    int most = (int) Math.max(1, across.length() / TICK_ROOM);
    double[] ticks = across.ticks(most);
    for (int k = 0; k < ticks.length; k++) {
      double x = Math.rint(across.at(ticks[k])) + 0.5;
      g.strokeLine(x, foot(), x, foot() + 3);
      boolean last = k == ticks.length - 1;
      String text = across.text(ticks[k], most)
          + (last && !across.unit().isEmpty() ? " " + across.unit() : "");
      double half = 3.1 * text.length();
      double centre = Math.max(half, Math.min(canvas.getWidth() - half, x));
      g.setTextAlign(TextAlignment.CENTER);
      g.fillText(text, centre, foot() + 13);
    }
  }

  private void readOut(GraphicsContext g, String text) {
    g.save();
    g.setFont(Font.font("IBM Plex Mono", 10));
    double wide = 6.1 * text.length() + 8;
    g.setFill(inks.of("card"));
    g.setGlobalAlpha(0.86);
    g.fillRoundRect(Math.max(0, right() - wide), 1, Math.min(wide, right()), 14, 4, 4);
    g.setGlobalAlpha(1);
    g.setFill(inks.of("text"));
    g.setTextAlign(TextAlignment.RIGHT);
    g.fillText(text, right() - 4, 11.5);
    g.restore();
  }

  /** This plot as a picture at twice its size, on the colour of its card. */
  public final WritableImage picture() {
    Canvas large =
        new Canvas(PICTURE_SCALE * canvas.getWidth(), PICTURE_SCALE * canvas.getHeight());
    GraphicsContext g = large.getGraphicsContext2D();
    g.setTransform(new javafx.scene.transform.Affine(new Scale(PICTURE_SCALE, PICTURE_SCALE)));
    draw(g);
    SnapshotParameters on = new SnapshotParameters();
    on.setFill(inks.of("card"));
    return new Group(large).snapshot(on, null);
  }

  private void copy() {
    ClipboardContent content = new ClipboardContent();
    content.putImage(picture());
    Clipboard.getSystemClipboard().setContent(content);
  }
}
