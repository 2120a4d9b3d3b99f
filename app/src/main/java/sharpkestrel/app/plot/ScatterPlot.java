package sharpkestrel.app.plot;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiConsumer;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.Pane;
import sharpkestrel.app.viewer.Palette;

/** How often pairs of values occur, with the pixels of places over it; an area drawn around is handed on. */
public final class ScatterPlot extends Pane {

  private static final int SIDE = 150;
  private static final int LARGE = 300;

  private int side = SIDE;

  private final Canvas canvas = new Canvas(SIDE + 2, SIDE + 2);
  private final Inks inks = new Inks(this::draw, "soft", "text", "card");
  private final List<double[]> lasso = new ArrayList<>();
  private ScatterSample sample;
  private int[] colours = {};
  private double lowX;
  private double highX = 1;
  private double lowY;
  private double highY = 1;
  private BiConsumer<double[], double[]> drawn = (xs, ys) -> {};

  public ScatterPlot() {
    setId("scatter");
    setPrefSize(SIDE + 2, SIDE + 2);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    setCursor(Cursor.CROSSHAIR);
    getChildren().addAll(canvas, inks);
    setOnMousePressed(e -> lasso.clear());
    setOnMouseDragged(e -> {
      lasso.add(new double[] {
        Math.max(0, Math.min(side, e.getX())), Math.max(0, Math.min(side, e.getY()))
      });
      draw();
    });
    setOnMouseReleased(e -> let());
  }

  /** Another length of its sides, in pixels of the screen. */
  public void setSide(int newSide) {
    if (newSide == side) {
      return;
    }
    side = newSide;
    canvas.setWidth(side + 2.0);
    canvas.setHeight(side + 2.0);
    setPrefSize(side + 2.0, side + 2.0);
    lasso.clear();
    draw();
  }

  /** Told the corners of an area, in values of both bands; empty where it is taken away by a click. */
  public void onDrawn(BiConsumer<double[], double[]> listener) {
    drawn = listener;
  }

  /**
   * @param newColours number of the colour of each place
   * @param tail share of the values at either end that the axes leave out
   */
  public void show(ScatterSample newSample, int[] newColours, double tail) {
    sample = newSample;
    colours = newColours;
    if (sample != null) {
      double[] x = ends(sample.x(), tail);
      double[] y = ends(sample.y(), tail);
      lowX = x[0];
      highX = x[1];
      lowY = y[0];
      highY = y[1];
    }
    lasso.clear();
    draw();
  }

  /** Without the outermost values at either end, and with some room. */
  private static double[] ends(float[] values, double tail) {
    float[] sorted = values.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    while (n > 0 && Float.isNaN(sorted[n - 1])) {
      n--;
    }
    if (n == 0) {
      return new double[] {0, 1};
    }
    double low = sorted[(int) (tail * (n - 1))];
    double high = sorted[(int) ((1 - tail) * (n - 1))];
    double room = Math.max(1e-9, 0.08 * (high - low));
    return new double[] {low - room, high + room};
  }

  private void let() {
    if (lasso.size() < 3) {
      lasso.clear();
      drawn.accept(new double[0], new double[0]);
    } else {
      double[] xs =
          lasso.stream().mapToDouble(p -> lowX + p[0] / side * (highX - lowX)).toArray();
      double[] ys =
          lasso.stream().mapToDouble(p -> highY - p[1] / side * (highY - lowY)).toArray();
      drawn.accept(xs, ys);
    }
    draw();
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.clearRect(0, 0, side + 2, side + 2);
    g.setFill(inks.of("card"));
    g.fillRect(0, 0, side, side);
    if (sample != null) {
      density(g);
      for (int k = 0; k < sample.places().size(); k++) {
        g.setFill(Palette.of(colours[k]));
        float[][] place = sample.places().get(k);
        for (int i = 0; i < place[0].length; i++) {
          double px = (place[0][i] - lowX) / (highX - lowX) * side;
          double py = (highY - place[1][i]) / (highY - lowY) * side;
          if (px >= 0 && py >= 0 && px < side && py < side) {
            g.fillRect(px, py, 1.5, 1.5);
          }
        }
      }
    }
    g.setStroke(inks.of("soft"));
    g.setLineWidth(1);
    g.strokeRect(0.5, 0.5, side, side);
    if (lasso.size() > 1) {
      g.setStroke(inks.of("text"));
      g.setLineWidth(1.5);
      g.strokePolygon(
          lasso.stream().mapToDouble(p -> p[0]).toArray(),
          lasso.stream().mapToDouble(p -> p[1]).toArray(),
          lasso.size());
    }
  }

  private void density(GraphicsContext g) {
    // dots that can be seen in a large plot
    int cell = side > LARGE ? 2 : 1;
    int cells = side / cell;
    int[] counts = new int[cells * cells];
    int top = 1;
    for (int i = 0; i < sample.x().length; i++) {
      double px = (sample.x()[i] - lowX) / (highX - lowX) * cells;
      double py = (highY - sample.y()[i]) / (highY - lowY) * cells;
      if (px >= 0 && py >= 0 && px < cells && py < cells) {
        int at = (int) py * cells + (int) px;
        counts[at]++;
        top = Math.max(top, counts[at]);
      }
    }
    int rgb = Palette.argb(0, inks.of("text"));
    int[] pixels = new int[cells * cells];
    for (int i = 0; i < pixels.length; i++) {
      // by the logarithm, so that rare pairs show beside common ones
      double share = Math.log1p(counts[i]) / Math.log1p(top);
      pixels[i] = (int) (counts[i] == 0 ? 0 : 40 + 215 * share) << 24 | rgb;
    }
    WritableImage image = new WritableImage(cells, cells);
    image
        .getPixelWriter()
        .setPixels(0, 0, cells, cells, PixelFormat.getIntArgbInstance(), pixels, 0, cells);
    g.setImageSmoothing(false);
    g.drawImage(image, 0, 0, cells * cell, cells * cell);
  }
}
