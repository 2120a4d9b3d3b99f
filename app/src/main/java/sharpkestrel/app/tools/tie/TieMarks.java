package sharpkestrel.app.tools.tie;

import java.util.Optional;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import sharpkestrel.app.model.Display;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.tie.TieModel.Half;
import sharpkestrel.app.tools.tie.TieModel.Side;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.place.fit.Fit;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoint.Use;
import sharpkestrel.raster.Affine;

/** Tie points over both pictures: marks, residuals as arrows, the warped lattice, and the point that is being set. */
public final class TieMarks implements PaneTool {

  private static final Color LIGHT = Color.web("#FFF4E6");
  private static final Color HALO = Color.rgb(20, 22, 24, 0.75);
  private static final Color CHECKED = Color.web("#9CC4EA");
  private static final Color WORST = Color.web("#FF8A73");
  private static final Color GONE = Color.rgb(200, 195, 188, 0.55);
  private static final Color LATTICE = Color.rgb(255, 244, 230, 0.38);
  private static final Font NUMBERS = Font.font("IBM Plex Mono", 11);
  private static final double RING = 6;
  /** With more points than this in a pane they are drawn smaller and without numbers. */
  private static final int CROWD = 50;
  /** Screen pixels that the RMS is drawn as. */
  private static final double ARROW = 22;

  private final Workspace workspace;
  private final TieModel model;
  private int grabbed = -1;
  private Half dragged;
  private boolean latticeShown;

  public TieMarks(Workspace workspace, TieModel model) {
    this.workspace = workspace;
    this.model = model;
  }

  public void showLattice(boolean shown) {
    latticeShown = shown;
  }

  @Override
  public boolean isInHand() {
    return model.isReady()
        && workspace.display().compareProperty().get() == Display.Compare.SIDE_BY_SIDE
        && shows(workspace.display().paneAProperty().get(), model.scene())
        && workspace.display().paneBProperty().get() == model.reference();
  }

  @Override
  public boolean wantsGlass() {
    return true;
  }

  private static boolean shows(Result shown, Result scene) {
    return shown == scene || shown != null && shown.inputs().get("scene") == scene;
  }

  /** How many times longer than true residuals are drawn. */
  public static double exaggeration(Fit fit) {
    double times = ARROW / Math.max(fit.rms(), 1e-3);
    double digit = Math.pow(10, Math.floor(Math.log10(times)));
    return Math.max(1, Math.floor(times / digit) * digit);
  }

  private static Side side(boolean inB) {
    return inB ? Side.REFERENCE : Side.SCENE;
  }

  @Override
  public void draw(GraphicsContext g, boolean inB, Affine toScreen) {
    Optional<Fit> fit = model.stateProperty().get().chosen();
    if (latticeShown && !inB && fit.isPresent()) {
      lattice(g, toScreen);
    }
    double times = fit.map(TieMarks::exaggeration).orElse(1.0);
    double limit = fit.map(f -> 3 * f.rms()).orElse(Double.MAX_VALUE);
    g.setFont(NUMBERS);
    int at = 0;
    boolean crowded = inView(g, inB, toScreen) > CROWD;
    for (TiePoint point : model.pointsProperty().get().points()) {
      Fit.Residual residual = fit.isPresent() && at < fit.get().residuals().size()
          ? fit.get().residuals().get(at)
          : null;
      at++;
      double[] place = model.place(point, side(inB));
      if (point.id() == grabbed && dragged != null && dragged.side() == side(inB)) {
        place = new double[] {dragged.col(), dragged.row()};
      }
      double x = toScreen.x(place[0], place[1]);
      double y = toScreen.y(place[0], place[1]);
      boolean bad = residual != null && point.use() != Use.OFF && residual.length() > limit;
      Color colour = switch (point.use()) {
        case OFF -> GONE;
        case CHECK -> bad ? WORST : CHECKED;
        case CONTROL -> bad ? WORST : LIGHT;
      };
      boolean chosen = point.id() == model.selectedProperty().get();
      if (!inB && residual != null && point.use() != Use.OFF && !Double.isNaN(residual.dx())) {
        arrow(g, x, y, residual.dx() * times, residual.dy() * times, colour);
      }
      if (crowded && !chosen) {
        dot(g, x, y, colour);
        continue;
      }
      mark(g, x, y, chosen ? RING + 3 : RING, colour);
      if (chosen || point.use() != Use.OFF) {
        label(g, Integer.toString(point.id()), x + RING + 2, y - RING, colour);
      }
    }
    half(g, model.pendingProperty().get(), inB, toScreen, "");
    half(g, model.expectedProperty().get(), inB, toScreen, "expected here");
  }

  private void lattice(GraphicsContext g, Affine toScreen) {
    g.setLineWidth(1);
    g.setStroke(LATTICE);
    for (double[] line : model.stateProperty().get().grid()) {
      g.beginPath();
      boolean down = false;
      for (int i = 0; i < line.length; i += 2) {
        if (Double.isNaN(line[i])) {
          down = false;
          continue;
        }
        double x = toScreen.x(line[i], line[i + 1]);
        double y = toScreen.y(line[i], line[i + 1]);
        if (down) {
          g.lineTo(x, y);
        } else {
          g.moveTo(x, y);
        }
        down = true;
      }
      g.stroke();
    }
  }

  private int inView(GraphicsContext g, boolean inB, Affine toScreen) {
    double width = g.getCanvas().getWidth();
    double height = g.getCanvas().getHeight();
    int count = 0;
    for (TiePoint point : model.pointsProperty().get().points()) {
      double[] place = model.place(point, side(inB));
      double x = toScreen.x(place[0], place[1]);
      double y = toScreen.y(place[0], place[1]);
      boolean inPane = inB ? x > width / 2 && x < width : x > 0 && x < width / 2;
      count += inPane && y > 0 && y < height ? 1 : 0;
    }
    return count;
  }

  private static void dot(GraphicsContext g, double x, double y, Color colour) {
    for (int pass = 0; pass < 2; pass++) {
      g.setStroke(pass == 0 ? HALO : colour);
      g.setLineWidth(pass == 0 ? 3.2 : 1.3);
      g.strokeOval(x - 3, y - 3, 6, 6);
    }
  }

  private static void mark(GraphicsContext g, double x, double y, double ring, Color colour) {
    for (int pass = 0; pass < 2; pass++) {
      g.setStroke(pass == 0 ? HALO : colour);
      g.setLineWidth(pass == 0 ? 3.4 : 1.4);
      g.strokeOval(x - ring, y - ring, 2 * ring, 2 * ring);
      g.strokeLine(x - ring - 4, y, x - 2, y);
      g.strokeLine(x + 2, y, x + ring + 4, y);
      g.strokeLine(x, y - ring - 4, x, y - 2);
      g.strokeLine(x, y + 2, x, y + ring + 4);
    }
  }

  private static void arrow(
      GraphicsContext g, double x, double y, double dx, double dy, Color colour) {
    double length = Math.hypot(dx, dy);
    if (length < 3) {
      return;
    }
    double ux = dx / length;
    double uy = dy / length;
    for (int pass = 0; pass < 2; pass++) {
      g.setStroke(pass == 0 ? HALO : colour);
      g.setLineWidth(pass == 0 ? 3.6 : 1.6);
      g.strokeLine(x, y, x + dx, y + dy);
    }
    g.setFill(colour);
    double[] xs = {x + dx, x + dx - 7 * ux - 3.4 * uy, x + dx - 7 * ux + 3.4 * uy};
    double[] ys = {y + dy, y + dy - 7 * uy + 3.4 * ux, y + dy - 7 * uy - 3.4 * ux};
    g.fillPolygon(xs, ys, 3);
  }

  private static void label(GraphicsContext g, String text, double x, double y, Color colour) {
    g.setLineWidth(3);
    g.setStroke(HALO);
    g.strokeText(text, x, y);
    g.setFill(colour);
    g.fillText(text, x, y);
  }

  private void half(GraphicsContext g, Half half, boolean inB, Affine toScreen, String text) {
    if (half == null || half.side() != side(inB)) {
      return;
    }
    double x = toScreen.x(half.col(), half.row());
    double y = toScreen.y(half.col(), half.row());
    if (text.isEmpty()) {
      mark(g, x, y, RING, CHECKED);
      return;
    }
    g.setLineDashes(4, 4);
    g.setLineWidth(1.6);
    g.setStroke(CHECKED);
    g.strokeOval(x - 16, y - 16, 32, 32);
    g.setLineDashes();
    label(g, text, x + 20, y + 4, LIGHT);
  }

  @Override
  public boolean grab(boolean inB, double col, double row, double reach) {
    grabbed = -1;
    dragged = null;
    double nearest = reach;
    for (TiePoint point : model.pointsProperty().get().points()) {
      double[] place = model.place(point, side(inB));
      double off = Math.hypot(place[0] - col, place[1] - row);
      if (off < nearest) {
        nearest = off;
        grabbed = point.id();
      }
    }
    return grabbed >= 0;
  }

  @Override
  public void drag(boolean inB, double col, double row) {
    dragged = new Half(side(inB), col, row);
  }

  @Override
  public void let() {
    if (grabbed >= 0 && dragged != null) {
      model.move(grabbed, dragged.side(), dragged.col(), dragged.row());
    }
    dragged = null;
  }

  @Override
  public void click(boolean inB, double col, double row) {
    if (grabbed >= 0) {
      model.selectedProperty().set(grabbed);
    } else {
      model.click(side(inB), col, row);
    }
  }
}
