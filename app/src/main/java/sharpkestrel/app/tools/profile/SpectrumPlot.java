package sharpkestrel.app.tools.profile;

import javafx.geometry.Insets;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Plot;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.sharpen.profile.Profile;

/** Mean of every band with its spread, one line for each place. */
final class SpectrumPlot extends Plot {

  private static final double LEFT = 42;
  private static final double FOOT = 30;
  private static final double PAD = 8;
  private static final double BESIDE = 14;
  private static final double NAMES = 44;
  private static final double NEAR = 9;
  private static final int LONGEST_NAME = 14;

  private ProfileModel.Shown shown;

  SpectrumPlot(double width, double height) {
    super(width, height, new Insets(PAD, PAD, FOOT, LEFT));
    setId("spectrum");
  }

  void show(ProfileModel.Shown newShown) {
    shown = newShown;
    if (!isEmpty()) {
      double low = 0;
      double high = Double.NEGATIVE_INFINITY;
      for (Profile profile : shown.report().profiles()) {
        for (int b = 0; b < profile.mean().length; b++) {
          low = Math.min(low, profile.mean()[b] - profile.spread(b));
          high = Math.max(high, profile.mean()[b] + profile.spread(b));
        }
      }
      setUp(low, high > low ? high : low + 1, "");
    }
    draw();
  }

  private boolean isEmpty() {
    return shown == null || shown.report().profiles().isEmpty();
  }

  @Override
  protected boolean zoomsUp() {
    return true;
  }

  /** The band and the place whose mean is nearest. */
  @Override
  protected String under(double x, double y) {
    String found = "";
    double nearest = NEAR;
    for (int k = 0; !isEmpty() && k < shown.report().profiles().size(); k++) {
      Profile profile = shown.report().profiles().get(k);
      for (int b = 0; b < profile.mean().length; b++) {
        double away = Math.hypot(x - x(b), y - up().at(profile.mean()[b]));
        if (away < nearest) {
          nearest = away;
          found = shown.report().bands().get(b).name() + " "
              + up().readOut(profile.mean()[b]) + " \u00b1 " + up().readOut(profile.spread(b));
        }
      }
    }
    return found;
  }

  private double x(int band) {
    int bands = shown.report().bands().size();
    double wide = right() - left() - NAMES;
    return left() + BESIDE + (bands == 1 ? wide / 2 : wide * band / (bands - 1));
  }

  @Override
  protected void drawAxes(GraphicsContext g) {
    super.drawAxes(g);
    if (isEmpty()) {
      return;
    }
    g.setFont(Font.font("IBM Plex Sans", 10));
    g.setTextAlign(TextAlignment.CENTER);
    for (int b = 0; b < shown.report().bands().size(); b++) {
      String name = shown.report().bands().get(b).name();
      String text =
          name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME - 1) + "\u2026" : name;
      g.fillText(text, x(b), foot() + (b % 2 == 0 ? 12 : 24));
    }
  }

  @Override
  protected void paint(GraphicsContext g) {
    for (int k = 0; !isEmpty() && k < shown.report().profiles().size(); k++) {
      line(g, shown.report().profiles().get(k), Palette.of(shown.places().get(k).colour()));
    }
  }

  private void line(GraphicsContext g, Profile profile, Color colour) {
    int bands = profile.mean().length;
    double[] xs = new double[2 * bands];
    double[] ys = new double[2 * bands];
    for (int b = 0; b < bands; b++) {
      xs[b] = x(b);
      ys[b] = up().at(profile.mean()[b] + profile.spread(b));
      xs[2 * bands - 1 - b] = xs[b];
      ys[2 * bands - 1 - b] = up().at(profile.mean()[b] - profile.spread(b));
    }
    g.setFill(colour.deriveColor(0, 1, 1, 0.22));
    g.fillPolygon(xs, ys, 2 * bands);
    g.setStroke(colour);
    g.setLineWidth(2);
    for (int b = 0; b < bands; b++) {
      double at = up().at(profile.mean()[b]);
      if (b > 0) {
        g.strokeLine(x(b - 1), up().at(profile.mean()[b - 1]), x(b), at);
      }
      g.setFill(colour);
      g.fillOval(x(b) - 2.5, at - 2.5, 5, 5);
    }
  }
}
