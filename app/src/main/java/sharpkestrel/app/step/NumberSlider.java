package sharpkestrel.app.step;

import java.util.Locale;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import sharpkestrel.flow.StepSpec;

/** A slider under a number that has both ends; either follows the other. Wide ranges are slid along in equal ratios. */
final class NumberSlider extends Slider {

  private static final double WIDE = 40;

  private final boolean ratios;
  private final boolean whole;
  private boolean setting;

  NumberSlider(StepSpec.Option option, TextField text) {
    ratios = inRatios(option);
    whole = option.rawType() == int.class;
    setId(text.getId() + "-slider");
    getStyleClass().add("number-slider");
    setFocusTraversable(false);
    setMin(toSlider(option.min()));
    setMax(toSlider(option.max()));
    setPrefWidth(150);
    take(text.getText());
    text.textProperty().addListener((p, before, now) -> take(now));
    valueProperty().addListener((p, before, now) -> {
      if (!setting) {
        setting = true;
        text.setText(toText(ratios ? Math.exp(now.doubleValue()) : now.doubleValue()));
        setting = false;
      }
    });
  }

  /** Whether a number is gone through in equal ratios rather than in equal steps. */
  static boolean inRatios(StepSpec.Option option) {
    return option.min() > 0 && option.max() / option.min() > WIDE;
  }

  static boolean suits(StepSpec.Option option) {
    boolean number = option.rawType() == double.class || option.rawType() == int.class;
    return number
        && Double.isFinite(option.min())
        && Double.isFinite(option.max())
        && !option.initial().isEmpty();
  }

  private double toSlider(double value) {
    return ratios ? Math.log(value) : value;
  }

  private void take(String text) {
    if (setting) {
      return;
    }
    setting = true;
    try {
      setValue(toSlider(Double.parseDouble(text.strip())));
    } catch (NumberFormatException notYetANumber) {
      // the step says what is wrong with it when it is run
    }
    setting = false;
  }

  private String toText(double value) {
    if (whole) {
      return Long.toString(Math.round(value));
    }
    double most = Math.abs(value);
    String digits = most >= 100 ? "%.0f" : most >= 10 ? "%.1f" : "%.2f";
    return String.format(Locale.ROOT, digits, value);
  }
}
