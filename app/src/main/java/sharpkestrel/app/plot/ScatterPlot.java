package sharpkestrel.app.plot;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiConsumer;
import javafx.geometry.Insets;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import sharpkestrel.app.viewer.Palette;

/** How often pairs of values occur, with the pixels of places over it; an area drawn around is handed on. */
public final class ScatterPlot extends Plot {

  private static final double LEFT = 40;
  private static final double RIGHT = 8;
  private static final double FOOT = 17;
  private static final double TOP = 4;
  private static final int LARGE = 300;
  private static final double ROOM = 0.08;

  private final List<double[]> lasso = new ArrayList<>();
  private ScatterSample sample;
  private int[] colours = {};
  private BiConsumer<double[], double[]> drawn = (xs, ys) -> {};

  public ScatterPlot(double width, double height) {
    super(width, height, new Insets(TOP, RIGHT, FOOT, LEFT));
    setAcross(0, 1, false, "");
    setUp(0, 1, "");
    setId("scatter");
    setCursor(Cursor.CROSSHAIR);
  }

  /** Told the corners of an area, in values of both bands; empty where it is taken away by a click. */
  public void onDrawn(BiConsumer<double[], double[]> listener) {
    drawn = listener;
  }

  /**
   * @param newColours number of the colour of each place
   * @param tail share of the values at either end that the axes leave out
   * @param unitX of the values to the right; empty for none
   */
  public void show(
      ScatterSample newSample, int[] newColours, double tail, String unitX, String unitY) {
    sample = newSample;
    colours = newColours;
    if (sample != null) {
      setAcross(around(sample.x(), tail, unitX));
      Axis y = around(sample.y(), tail, unitY);
      setUp(y.from(), y.to(), unitY);
    }
    lasso.clear();
    draw();
  }

  /** Without the outermost values at either end, and with some room. */
  private static Axis around(float[] values, double tail, String unit) {
    float[] sorted = values.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    while (n > 0 && Float.isNaN(sorted[n - 1])) {
      n--;
    }
    double low = n == 0 ? Double.NaN : sorted[(int) (tail * (n - 1))];
    double high = n == 0 ? Double.NaN : sorted[(int) ((1 - tail) * (n - 1))];
    return Axis.around(low, high, ROOM, 0, 1, unit);
  }

  @Override
  protected boolean zoomsUp() {
    return true;
  }

  @Override
  protected String under(double x, double y) {
    return sample == null || !lasso.isEmpty()
        ? ""
        : across().readOut(across().value(x)) + " / " + up().readOut(up().value(y));
  }

  @Override
  protected void press(double x, double y) {
    lasso.clear();
  }

  @Override
  protected void drag(double x, double y) {
    lasso.add(new double[] {
      across().value(Math.max(left(), Math.min(right(), x))),
      up().value(Math.max(top(), Math.min(foot(), y)))
    });
  }

  @Override
  protected void release(double x, double y) {
    if (lasso.size() < 3) {
      lasso.clear();
    }
    drawn.accept(corners(0), corners(1));
  }

  private double[] corners(int axis) {
    return lasso.stream().mapToDouble(p -> p[axis]).toArray();
  }

  @Override
  protected void paint(GraphicsContext g) {
    g.setFill(inks().of("card"));
    g.fillRect(left(), top(), right() - left(), foot() - top());
    if (sample == null) {
      return;
    }
    density(g);
    for (int k = 0; k < sample.places().size(); k++) {
      g.setFill(Palette.of(colours[k]));
      float[][] place = sample.places().get(k);
      for (int i = 0; i < place[0].length; i++) {
        if (across().holds(place[0][i]) && up().holds(place[1][i])) {
          g.fillRect(across().at(place[0][i]), up().at(place[1][i]), 1.5, 1.5);
        }
      }
    }
  }

  @Override
  protected void paintOver(GraphicsContext g) {
    if (lasso.size() > 1) {
      g.setStroke(inks().of("text"));
      g.setLineWidth(1.5);
      g.strokePolygon(
          lasso.stream().mapToDouble(p -> across().within(p[0])).toArray(),
          lasso.stream().mapToDouble(p -> up().within(p[1])).toArray(),
          lasso.size());
    }
  }

  private void density(GraphicsContext g) {
    // dots that can be seen in a large plot
    int cell = right() - left() > LARGE ? 2 : 1;
    int wide = (int) (right() - left()) / cell;
    int tall = (int) (foot() - top()) / cell;
    int[] counts = new int[wide * tall];
    int top = 1;
    double scaleX = wide / (across().to() - across().from());
    double scaleY = tall / (up().to() - up().from());
    for (int i = 0; i < sample.x().length; i++) {
      double px = (sample.x()[i] - across().from()) * scaleX;
      double py = (up().to() - sample.y()[i]) * scaleY;
      if (px >= 0 && py >= 0 && px < wide && py < tall) {
        int at = (int) py * wide + (int) px;
        counts[at]++;
        top = Math.max(top, counts[at]);
      }
    }
    int rgb = Palette.argb(0, inks().of("text"));
    int[] pixels = new int[counts.length];
    for (int i = 0; i < pixels.length; i++) {
      // by the logarithm, so that rare pairs show beside common ones
      double share = Math.log1p(counts[i]) / Math.log1p(top);
      pixels[i] = (int) (counts[i] == 0 ? 0 : 40 + 215 * share) << 24 | rgb;
    }
    WritableImage image = new WritableImage(wide, tall);
    image
        .getPixelWriter()
        .setPixels(0, 0, wide, tall, PixelFormat.getIntArgbInstance(), pixels, 0, wide);
    g.setImageSmoothing(false);
    g.drawImage(image, left(), top(), wide * cell, tall * cell);
  }
}
