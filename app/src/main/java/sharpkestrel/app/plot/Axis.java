package sharpkestrel.app.plot;

import java.util.Locale;
import java.util.stream.DoubleStream;

/**
 * Values along one side of a drawing, even or by their logarithm.
 *
 * @param from value at the start
 * @param to value at the end, above it
 * @param start pixel of the drawing where it starts; above {@code end} where it goes upwards
 * @param end pixel where it ends
 * @param logarithmic whether equal steps are equal factors; both ends are above 0 then
 * @param unit of the values; empty for none
 */
public record Axis(
    double from, double to, double start, double end, boolean logarithmic, String unit) {

  /** Share of the values at either end that an axis leaves out, as they would press the others together. */
  public static final double TAIL = 0.001;

  private static final double[] ROUND = {1, 2, 5, 10};
  private static final double THOUSAND = 1e3;
  private static final double MILLION = 1e6;

  public Axis {
    if (!(to > from) || !Double.isFinite(to - from)) {
      throw new IllegalArgumentException("An axis cannot go from " + from + " to " + to);
    }
    if (logarithmic && !(from > 0)) {
      throw new IllegalArgumentException("A logarithmic axis cannot begin at " + from);
    }
  }

  /**
   * Even, between two values with some room beside them; about the value where both are one, any where there is none.
   *
   * @param room share of the range at either side
   */
  public static Axis around(
      double low, double high, double room, double start, double end, String unit) {
    if (!Double.isFinite(low) || !Double.isFinite(high)) {
      return new Axis(0, 1, start, end, false, unit);
    }
    double beside =
        high > low ? Math.max(room * (high - low), Math.ulp(high) * 8) : 0.5 * spacing(high);
    return new Axis(low - beside, high + beside, start, end, false, unit);
  }

  /** Something of the size of a value that differs from it in double precision. */
  private static double spacing(double value) {
    return Math.max(1, Math.abs(value) * 1e-6);
  }

  /** The same values between other pixels. */
  public Axis between(double newStart, double newEnd) {
    return new Axis(from, to, newStart, newEnd, logarithmic, unit);
  }

  private double scaled(double value) {
    return logarithmic ? Math.log(Math.max(value, Double.MIN_NORMAL)) : value;
  }

  /** Pixel of a value, also beyond the ends. */
  public double at(double value) {
    double low = scaled(from);
    return start + (end - start) * ((scaled(value) - low) / (scaled(to) - low));
  }

  /** Pixel of a value; those beyond an end lie at it. */
  public double within(double value) {
    return at(Math.max(from, Math.min(to, value)));
  }

  /** The value at a pixel; that of the end beyond it. */
  public double value(double pixel) {
    double share = Math.max(0, Math.min(1, (pixel - start) / (end - start)));
    if (share == 0 || share == 1) {
      return share == 0 ? from : to;
    }
    double low = scaled(from);
    double scaled = low + share * (scaled(to) - low);
    return logarithmic ? Math.exp(scaled) : scaled;
  }

  /** The same to three digits within the axis, in decimals, so that texts made from it stay short. */
  public double rounded(double pixel) {
    double value = value(pixel);
    double span = logarithmic ? value : to - from;
    double step = Math.pow(10, Math.floor(Math.log10(span / 1000)));
    return java.math.BigDecimal.valueOf(Math.rint(value / step))
        .multiply(java.math.BigDecimal.valueOf(step))
        .doubleValue();
  }

  public double length() {
    return Math.abs(end - start);
  }

  public boolean holds(double value) {
    return value >= from && value <= to;
  }

  /**
   * A part of this axis, or more of it up to a whole one, with the value at a pixel staying there.
   *
   * @param factor below 1 for less of it
   * @param whole the most it may show
   */
  public Axis zoomed(double pixel, double factor, Axis whole) {
    double share = (pixel - start) / (end - start);
    double low = scaled(from);
    double span = scaled(to) - low;
    double least = scaled(whole.from);
    double most = scaled(whole.to);
    double newSpan = span * factor;
    if (newSpan >= most - least) {
      return whole;
    }
    double newLow = Math.max(least, Math.min(most - newSpan, low + share * (span - newSpan)));
    double newFrom = logarithmic ? Math.exp(newLow) : newLow;
    double newTo = logarithmic ? Math.exp(newLow + newSpan) : newLow + newSpan;
    boolean tooFine = !(newTo - newFrom > 1e-9 * Math.max(Math.abs(newFrom), Math.abs(newTo)));
    return tooFine ? this : new Axis(newFrom, newTo, start, end, logarithmic, unit);
  }

  /**
   * Round values: multiples of 1, 2 or 5 times a power of ten; on a logarithmic axis those numbers themselves, or powers of ten
   * alone where there are many.
   *
   * @param most how many at most, 1 or more
   */
  public double[] ticks(int most) {
    if (!logarithmic) {
      double step = step(most);
      long first = (long) Math.ceil(from / step - 1e-9);
      long last = (long) Math.floor(to / step + 1e-9);
      return java.util.stream.LongStream.rangeClosed(first, last)
          .mapToDouble(k -> k * step)
          .toArray();
    }
    double[] fine = powers(ROUND.length - 1);
    if (fine.length <= most) {
      return fine;
    }
    double[] tens = powers(1);
    int every = Math.max(1, Math.ceilDiv(tens.length, most));
    return java.util.stream.IntStream.range(0, tens.length)
        .filter(k -> k % every == 0)
        .mapToDouble(k -> tens[k])
        .toArray();
  }

  private double step(int most) {
    double rough = (to - from) / Math.max(1, most);
    double ten = Math.pow(10, Math.floor(Math.log10(rough)));
    for (double round : ROUND) {
      if (round * ten >= rough * (1 - 1e-9)) {
        return round * ten;
      }
    }
    return 10 * ten;
  }

  private double[] powers(int ofTen) {
    DoubleStream.Builder ticks = DoubleStream.builder();
    for (int power = (int) Math.floor(Math.log10(from)); power <= Math.log10(to); power++) {
      for (int k = 0; k < ofTen; k++) {
        double tick = ROUND[k] * Math.pow(10, power);
        if (holds(tick)) {
          ticks.add(tick);
        }
      }
    }
    return ticks.build().toArray();
  }

  /** A value with as many digits as ticks need to differ, thousands and millions short. */
  public String text(double value, int most) {
    double step = logarithmic ? value : step(most);
    double unitOf = Math.abs(value) >= MILLION ? MILLION : Math.abs(value) >= 1e4 ? THOUSAND : 1;
    int digits = (int) Math.max(0, Math.ceil(-Math.log10(Math.abs(step / unitOf)) - 1e-9));
    String end = unitOf == MILLION ? " M" : unitOf == THOUSAND ? " k" : "";
    // a minus before zero says nothing
    double shown = Math.abs(value) < Math.abs(step) * 1e-6 ? 0 : value / unitOf;
    return String.format(Locale.ROOT, "%." + Math.min(digits, 9) + "f", shown) + end;
  }

  /** A value as it is read out: a digit more than ticks have, with its unit. */
  public String readOut(double value) {
    double span = logarithmic ? Math.abs(value) : to - from;
    int digits = (int) Math.max(0, Math.min(9, Math.ceil(2 - Math.log10(span))));
    return (String.format(Locale.ROOT, "%,." + digits + "f", value).replace(',', '\u2009') + " "
            + unit)
        .strip();
  }
}
