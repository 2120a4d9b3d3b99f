package sharpkestrel.app.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import sharpkestrel.expr.Cql2;
import sharpkestrel.flow.StepSpec;

/** Four values of a setting to be looked at side by side. */
final class Variants {

  static final int COUNT = 4;

  private Variants() {}

  static boolean suits(StepSpec.Option option) {
    boolean number = option.rawType() == double.class || option.rawType() == int.class;
    boolean several = option.choices().isPresent()
        && option.rawType().isEnum()
        && option.choices().get().getEnumConstants().length > 2;
    return several
        || number
            && option.min() > Double.NEGATIVE_INFINITY
            && !option.initial().isEmpty()
            && !option.initial().equals("auto");
  }

  /** Half, as it is, twice and four times; spread over its range where that has both ends near; the next of a choice. */
  static List<String> of(StepSpec.Option option, String now) {
    List<String> values = new ArrayList<>();
    if (option.choices().isPresent()) {
      Object[] all = option.choices().get().getEnumConstants();
      int first = 0;
      for (int k = 0; k < all.length; k++) {
        first = all[k].toString().equalsIgnoreCase(now.replace('-', '_')) ? k : first;
      }
      for (int k = 0; k < COUNT; k++) {
        values.add(all[(first + k) % all.length].toString().toLowerCase(Locale.ROOT));
      }
      return values;
    }
    double value;
    try {
      value = Double.parseDouble(now);
    } catch (NumberFormatException notANumber) {
      value = Double.parseDouble(option.initial());
    }
    boolean spread = Double.isFinite(option.max()) && !NumberSlider.inRatios(option);
    for (int k = 0; k < COUNT; k++) {
      double each = spread
          ? option.min() + (option.max() - option.min()) * (k + 0.5) / COUNT
          : value * Math.pow(2, k - 1);
      each = Math.max(option.min(), Math.min(option.max(), each));
      values.add(
          option.rawType() == int.class
              ? Long.toString(Math.round(each))
              : Cql2.number(Math.rint(each * 1000) / 1000));
    }
    return values;
  }
}
