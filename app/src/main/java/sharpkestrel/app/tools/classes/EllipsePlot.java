package sharpkestrel.app.tools.classes;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.Insets;
import javafx.geometry.Rectangle2D;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import sharpkestrel.app.plot.Plot;
import sharpkestrel.extract.classmap.BandSpread;

/** Classes in two bands: an ellipse of two deviations around the middle of each, a click on which looks at that class. */
final class EllipsePlot extends Plot {

  private static final double DEVIATIONS = 2;
  private static final double ROOM = 0.06;
  private static final double FAINT = 0.25;
  private static final double LINE = 1.5;
  private static final double TEXT = 10;
  private static final int CORNERS = 60;

  /**
   * An ellipse.
   *
   * @param ofClass whose it is, and {@code name} what that is called
   * @param chosen whether it stands out
   */
  record Entry(String ofClass, String name, Color colour, BandSpread spread, boolean chosen) {}

  private List<Entry> entries = List.of();

  /**
   * @param clicked told the class under a click, and whether those looked at before stay
   */
  EllipsePlot(double width, double height, BiConsumer<String, Boolean> clicked) {
    super(width, height, new Insets(6, 8, 18, 46));
    setId("classes-ellipses");
    setCursor(Cursor.HAND);
    setAcross(0, 1, false, "");
    setUp(0, 1, "");
    setOnMouseClicked(e -> {
      if (e.isStillSincePress() && e.getClickCount() == 1) {
        nearest(e.getX(), e.getY())
            .ifPresent(
                entry -> clicked.accept(entry.ofClass, e.isShiftDown() || e.isShortcutDown()));
      }
    });
  }

  void show(List<Entry> newEntries, String unitX, String unitY) {
    entries = newEntries.stream().filter(entry -> entry.spread.pixels() > 1).toList();
    double left = Double.POSITIVE_INFINITY;
    double right = Double.NEGATIVE_INFINITY;
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (Entry entry : entries) {
      double acrossReach = DEVIATIONS * Math.sqrt(entry.spread.varianceX());
      double upReach = DEVIATIONS * Math.sqrt(entry.spread.varianceY());
      left = Math.min(left, entry.spread.meanX() - acrossReach);
      right = Math.max(right, entry.spread.meanX() + acrossReach);
      low = Math.min(low, entry.spread.meanY() - upReach);
      high = Math.max(high, entry.spread.meanY() + upReach);
    }
    if (right > left && high > low) {
      double roomAcross = ROOM * (right - left);
      double roomUp = ROOM * (high - low);
      setAcross(left - roomAcross, right + roomAcross, false, unitX);
      setUp(low - roomUp, high + roomUp, unitY);
    }
    draw();
  }

  @Override
  protected boolean zoomsUp() {
    return true;
  }

  @Override
  protected String under(double x, double y) {
    String at = across().readOut(across().value(x)) + " / " + up().readOut(up().value(y));
    return nearest(x, y).map(entry -> entry.name + ": " + at).orElse(at);
  }

  /** The class in whose ellipse a place lies deepest. */
  private Optional<Entry> nearest(double x, double y) {
    double least = DEVIATIONS * DEVIATIONS;
    Entry found = null;
    for (Entry entry : entries) {
      BandSpread spread = entry.spread;
      double dx = across().value(x) - spread.meanX();
      double dy = up().value(y) - spread.meanY();
      double determinant =
          spread.varianceX() * spread.varianceY() - spread.covariance() * spread.covariance();
      double distance = (spread.varianceY() * dx * dx
              - 2 * spread.covariance() * dx * dy
              + spread.varianceX() * dy * dy)
          / determinant;
      // where both bands say the same there is a line, and nothing lies in it
      if (determinant > 0 && distance < least) {
        least = distance;
        found = entry;
      }
    }
    return Optional.ofNullable(found);
  }

  @Override
  protected void paint(GraphicsContext g) {
    g.setFill(inks().of("card"));
    g.fillRect(left(), top(), right() - left(), foot() - top());
    g.setLineWidth(LINE);
    for (Entry entry : entries) {
      outline(g, entry);
    }
    g.setGlobalAlpha(1);
    names(g);
  }

  private void outline(GraphicsContext g, Entry entry) {
    BandSpread.Ellipse ellipse = entry.spread.ellipse(DEVIATIONS);
    double cos = Math.cos(ellipse.angle());
    double sin = Math.sin(ellipse.angle());
    double[] xs = new double[CORNERS];
    double[] ys = new double[CORNERS];
    for (int k = 0; k < CORNERS; k++) {
      double turn = 2 * Math.PI * k / CORNERS;
      double along = ellipse.large() * Math.cos(turn);
      double beside = ellipse.small() * Math.sin(turn);
      xs[k] = across().at(entry.spread.meanX() + along * cos - beside * sin);
      ys[k] = up().at(entry.spread.meanY() + along * sin + beside * cos);
    }
    g.setGlobalAlpha(entry.chosen ? FAINT : FAINT / 3);
    g.setFill(entry.colour);
    g.fillPolygon(xs, ys, CORNERS);
    g.setGlobalAlpha(entry.chosen ? 1 : FAINT);
    g.setStroke(entry.colour);
    g.strokePolygon(xs, ys, CORNERS);
  }

  /** Names of those that stand out, the most frequent first, where no other name stands. */
  private void names(GraphicsContext g) {
    g.setFont(Font.font("IBM Plex Sans", TEXT));
    g.setTextAlign(TextAlignment.CENTER);
    g.setFill(inks().of("text"));
    List<Rectangle2D> taken = new ArrayList<>();
    entries.stream()
        .filter(Entry::chosen)
        .sorted(Comparator.comparingLong(entry -> -entry.spread.pixels()))
        .forEach(entry -> {
          double width = entry.name.length() * TEXT * 0.6;
          double middle = Math.min(across().at(entry.spread.meanX()), right() - width / 2);
          double x = Math.max(middle, left() + width / 2);
          double y = up().at(entry.spread.meanY());
          Rectangle2D box = new Rectangle2D(x - width / 2, y - TEXT / 2, width, TEXT);
          if (taken.stream().noneMatch(box::intersects)) {
            taken.add(box);
            g.fillText(entry.name, x, y + TEXT / 3);
          }
        });
  }
}
