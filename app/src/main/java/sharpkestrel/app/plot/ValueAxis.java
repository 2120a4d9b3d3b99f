package sharpkestrel.app.plot;

import java.util.Arrays;
import javafx.scene.canvas.GraphicsContext;

/**
 * Values along the foot of a drawing.
 *
 * @param from value at the left end
 * @param to value at the right end, above it
 * @param pad pixels left of the one and right of the other
 * @param width of the drawing in pixels
 */
public record ValueAxis(double from, double to, double pad, double width) {

  /** Share of the values at either end that an axis leaves out, as they would press the others together. */
  public static final double TAIL = 0.001;

  public ValueAxis {
    if (!(to > from)) {
      throw new IllegalArgumentException("An axis cannot go from " + from + " to " + to);
    }
  }

  /**
   * Between two values with some room beside them; about the value where both are one, any where there is none.
   *
   * @param room share of the range at either side
   */
  public static ValueAxis around(double low, double high, double room, double pad, double width) {
    if (!Double.isFinite(low) || !Double.isFinite(high)) {
      return new ValueAxis(0, 1, pad, width);
    }
    double beside = high > low ? room * (high - low) : 0.5;
    return new ValueAxis(low - beside, high + beside, pad, width);
  }

  /** Where a value lies; those beyond an end lie at it. */
  public double x(double value) {
    double share = Math.max(0, Math.min(1, (value - from) / (to - from)));
    return pad + share * (width - 2 * pad);
  }

  /** The value at a place; that of the end beyond it. */
  public double value(double x) {
    double within = Math.max(pad, Math.min(width - pad, x));
    return from + (within - pad) / (width - 2 * pad) * (to - from);
  }

  /** Bars over equal parts of the axis, as wide as those, in the fill that is set. */
  public void bars(GraphicsContext g, long[] counts, double foot, double tallest) {
    long top = Math.max(1, Arrays.stream(counts).max().orElse(1));
    double step = (width - 2 * pad) / counts.length;
    for (int k = 0; k < counts.length; k++) {
      // square root heights, so that a few roofs show beside many fields
      double tall = tallest * Math.sqrt((double) counts[k] / top);
      g.fillRect(pad + k * step, foot - tall, step, tall);
    }
  }
}
