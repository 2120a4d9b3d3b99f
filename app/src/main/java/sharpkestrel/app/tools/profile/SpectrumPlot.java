package sharpkestrel.app.tools.profile;

import java.util.Locale;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Inks;
import sharpkestrel.app.viewer.Palette;
import sharpkestrel.sharpen.profile.Profile;
import sharpkestrel.sharpen.profile.ProfileReport;

/** Mean of every band with its spread, one line for each place. */
final class SpectrumPlot extends Pane {

  private static final double LEFT = 42;
  private static final double FOOT = 30;
  private static final double PAD = 8;

  private final Canvas canvas;
  private final Inks inks = new Inks(this::draw, "soft", "text", "left-out");
  private ProfileModel.Shown shown;

  SpectrumPlot(double width, double height) {
    canvas = new Canvas(width, height);
    setPrefSize(width, height);
    setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    getChildren().addAll(canvas, inks);
  }

  void show(ProfileModel.Shown newShown) {
    shown = newShown;
    draw();
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double w = canvas.getWidth();
    double h = canvas.getHeight();
    g.clearRect(0, 0, w, h);
    g.setStroke(inks.of("left-out"));
    g.setLineWidth(1);
    g.strokeLine(LEFT, PAD, LEFT, h - FOOT);
    g.strokeLine(LEFT, h - FOOT, w - PAD, h - FOOT);
    if (shown == null || shown.report().profiles().isEmpty()) {
      return;
    }
    ProfileReport report = shown.report();
    int bands = report.bands().size();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (Profile profile : report.profiles()) {
      for (int b = 0; b < bands; b++) {
        low = Math.min(low, profile.mean()[b] - profile.spread(b));
        high = Math.max(high, profile.mean()[b] + profile.spread(b));
      }
    }
    low = Math.min(0, low);
    high = high > low ? high : low + 1;
    axes(g, report, low, high);
    for (int k = 0; k < report.profiles().size(); k++) {
      line(g, report.profiles().get(k), Palette.of(shown.places().get(k).colour()), low, high);
    }
  }

  private double x(int band) {
    int bands = shown.report().bands().size();
    double w = canvas.getWidth() - LEFT - PAD - 44;
    return LEFT + 14 + (bands == 1 ? w / 2 : w * band / (bands - 1));
  }

  private double y(double value, double low, double high) {
    double h = canvas.getHeight() - FOOT - PAD;
    return PAD + h * (1 - (value - low) / (high - low));
  }

  private void axes(GraphicsContext g, ProfileReport report, double low, double high) {
    g.setFill(inks.of("soft"));
    g.setFont(Font.font("IBM Plex Mono", 10));
    g.setTextAlign(TextAlignment.RIGHT);
    for (int k = 0; k <= 2; k++) {
      double value = low + (high - low) * k / 2;
      g.fillText(
          String.format(Locale.ROOT, Math.abs(high) < 10 ? "%.2f" : "%.0f", value),
          LEFT - 5,
          y(value, low, high) + 3);
    }
    g.setFont(Font.font("IBM Plex Sans", 10));
    g.setTextAlign(TextAlignment.CENTER);
    for (int b = 0; b < report.bands().size(); b++) {
      String name = report.bands().get(b).name();
      double foot = canvas.getHeight() - FOOT + (b % 2 == 0 ? 12 : 24);
      g.fillText(name.length() > 14 ? name.substring(0, 13) + "\u2026" : name, x(b), foot);
    }
  }

  private void line(GraphicsContext g, Profile profile, Color colour, double low, double high) {
    int bands = profile.mean().length;
    double[] xs = new double[2 * bands];
    double[] ys = new double[2 * bands];
    for (int b = 0; b < bands; b++) {
      xs[b] = x(b);
      ys[b] = y(profile.mean()[b] + profile.spread(b), low, high);
      xs[2 * bands - 1 - b] = xs[b];
      ys[2 * bands - 1 - b] = y(profile.mean()[b] - profile.spread(b), low, high);
    }
    g.setFill(colour.deriveColor(0, 1, 1, 0.22));
    g.fillPolygon(xs, ys, 2 * bands);
    g.setStroke(colour);
    g.setLineWidth(2);
    for (int b = 0; b < bands; b++) {
      double at = y(profile.mean()[b], low, high);
      if (b > 0) {
        g.strokeLine(x(b - 1), y(profile.mean()[b - 1], low, high), x(b), at);
      }
      g.setFill(colour);
      g.fillOval(x(b) - 2.5, at - 2.5, 5, 5);
    }
  }
}
