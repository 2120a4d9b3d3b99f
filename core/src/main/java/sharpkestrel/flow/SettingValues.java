package sharpkestrel.flow;

import java.lang.reflect.ParameterizedType;
import java.lang.reflect.Type;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.expr.Cql2;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.RasterException;

/** Settings as text, the one form they have in panels, on the command line and in run sheets. */
public final class SettingValues {

  private static final String AUTO = "auto";

  private SettingValues() {}

  /**
   * @throws RasterException that names the setting, what was given and what would do
   */
  static Object parse(StepSpec.Option option, String text) {
    boolean auto =
        text.equals(AUTO) && (option.initial().equals(AUTO) || option.initial().isEmpty());
    Class<?> type = option.rawType();
    if (type == double.class) {
      return auto ? Double.NaN : number(option, text);
    }
    if (type == int.class) {
      double value = number(option, text);
      if (value != Math.rint(value)) {
        throw bad(option, text, "a whole number");
      }
      return (int) value;
    }
    if (type == boolean.class) {
      if (!text.equals("true") && !text.equals("false")) {
        throw bad(option, text, "true or false");
      }
      return Boolean.valueOf(text);
    }
    if (type.isEnum()) {
      return constant(option, type, text);
    }
    if (type == CrsName.class) {
      return auto ? CrsName.NONE : new CrsName(text);
    }
    if (type == Path.class) {
      return path(option, text);
    }
    if (type == Optional.class) {
      boolean none = auto || option.isText() && text.isBlank();
      return none ? Optional.empty() : Optional.of(optional(option, text));
    }
    if (type == List.class) {
      return list(option, auto ? "" : text);
    }
    return text;
  }

  /** A value of the type that an optional setting holds. */
  private static Object optional(StepSpec.Option option, String text) {
    if (option.choices().isPresent()) {
      return constant(option, option.choices().get(), text);
    }
    Type of = ((ParameterizedType) option.type()).getActualTypeArguments()[0];
    if (of == Extent.class) {
      try {
        return Extent.parse(text);
      } catch (IllegalArgumentException notFour) {
        throw new RasterException(
            option.label() + " (--" + option.name() + "): " + notFour.getMessage(), notFour);
      }
    }
    if (of == Double.class) {
      return number(option, text);
    }
    if (of == Path.class) {
      return path(option, text);
    }
    if (of == String.class) {
      return text;
    }
    if (of == Instant.class) {
      return instant(option, text);
    }
    throw new IllegalStateException(
        "Settings of type " + option.type() + " are not read from text");
  }

  /** A day stands for its noon, which is near enough for the sun's distance. */
  private static Instant instant(StepSpec.Option option, String text) {
    try {
      return text.matches("\\d{4}-\\d\\d-\\d\\d")
          ? Instant.parse(text + "T12:00:00Z")
          : Instant.parse(text);
    } catch (DateTimeParseException notOne) {
      throw bad(option, text, "a time such as 2031-04-03T11:42:00Z, or a day such as 2031-04-03");
    }
  }

  private static Path path(StepSpec.Option option, String text) {
    try {
      return Path.of(text);
    } catch (InvalidPathException senseless) {
      throw bad(option, text, "the name of a file or folder");
    }
  }

  private static List<?> list(StepSpec.Option option, String text) {
    Type of = ((ParameterizedType) option.type()).getActualTypeArguments()[0];
    List<Object> items = new ArrayList<>();
    for (String item : split(text)) {
      if (!item.isBlank()) {
        items.add(
            of == Double.class
                ? (Object) number(option, item)
                : of == Path.class ? path(option, item.strip()) : item.strip());
      }
    }
    return items;
  }

  /** Several values in one text, separated by commas; a comma that belongs to a value has a backslash before it. */
  static List<String> split(String text) {
    List<String> items = new ArrayList<>();
    StringBuilder item = new StringBuilder();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c == '\\' && i + 1 < text.length() && text.charAt(i + 1) == ',') {
        item.append(',');
        i++;
      } else if (c == ',') {
        items.add(item.toString());
        item.setLength(0);
      } else {
        item.append(c);
      }
    }
    items.add(item.toString());
    return items;
  }

  static String joined(List<String> items) {
    return String.join(",", items.stream().map(item -> item.replace(",", "\\,")).toList());
  }

  private static double number(StepSpec.Option option, String text) {
    double value;
    try {
      value = Double.parseDouble(text.strip());
    } catch (NumberFormatException notANumber) {
      throw bad(option, text, "a number");
    }
    if (!(value >= option.min() && value <= option.max())) {
      throw bad(option, text, option.range());
    }
    return value;
  }

  private static Object constant(StepSpec.Option option, Class<?> type, String text) {
    String wanted = text.strip().replace('-', '_').replace(' ', '_');
    for (Object value : type.getEnumConstants()) {
      if (((Enum<?>) value).name().equalsIgnoreCase(wanted)) {
        return value;
      }
    }
    throw bad(option, text, "one of " + option.range());
  }

  private static RasterException bad(StepSpec.Option option, String text, String wanted) {
    return new RasterException(option.label() + " (--" + option.name() + ") is '" + text
        + "'; it should be " + wanted + ".");
  }

  /** A number without superfluous digits. */
  public static String plain(double value) {
    return Cql2.number(value);
  }

  /** A value as the text that reads back the same. */
  public static String toText(Object value) {
    return switch (value) {
      case Double d -> Double.isNaN(d) ? AUTO : Cql2.number(d);
      case Enum<?> e -> e.name().toLowerCase(Locale.ROOT);
      case Optional<?> o -> o.map(SettingValues::toText).orElse(AUTO);
      case List<?> l ->
        l.isEmpty() ? AUTO : joined(l.stream().map(SettingValues::toText).toList());
      case CrsName c -> c.isKnown() ? c.text() : AUTO;
      default -> value.toString();
    };
  }
}
