package sharpkestrel.extract;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.raster.RasterException;

/** How common classes are thought to be, as texts like {@code roof=0.1}. */
final class Priors {

  private Priors() {}

  /**
   * @throws RasterException that says which cannot be read
   */
  static Map<String, Double> parse(List<String> texts) {
    Map<String, Double> shares = new LinkedHashMap<>();
    double all = 0;
    for (String text : texts) {
      int at = text.lastIndexOf('=');
      double share = at < 0 ? Double.NaN : number(text.substring(at + 1).strip());
      if (!(share > 0 && share <= 1)) {
        throw new RasterException("'" + text.strip()
            + "' is no prior. Write a class and a share above 0 and up to 1, such as roof=0.1.");
      }
      shares.put(text.substring(0, at).strip(), share);
      all += share;
    }
    if (all > 1 + 1e-9) {
      throw new RasterException(
          "The priors add up to " + Math.round(1000 * all) / 1000.0 + "; they may be 1 together.");
    }
    return shares;
  }

  private static double number(String text) {
    try {
      return Double.parseDouble(text);
    } catch (NumberFormatException notANumber) {
      return Double.NaN;
    }
  }

  /**
   * A share for each class; those that are not named have the rest, in equal parts.
   *
   * @throws RasterException for a class that there is not, or where there is no rest for those that are not named
   */
  static double[] of(List<String> texts, List<String> classes) {
    Map<String, Double> shares = parse(texts);
    for (String named : shares.keySet()) {
      if (!classes.contains(named)) {
        throw new RasterException("There is a prior of '" + named
            + "', but no sample; there are samples of " + String.join(", ", classes) + ".");
      }
    }
    double rest = 1 - shares.values().stream().mapToDouble(Double::doubleValue).sum();
    int others = classes.size() - shares.size();
    if (others > 0 && rest < 1e-9) {
      throw new RasterException(
          "The priors are 1 together and leave nothing for the classes that are not named. Name all, or give less.");
    }
    double[] all = new double[classes.size()];
    Arrays.setAll(all, k -> shares.getOrDefault(classes.get(k), rest / Math.max(1, others)));
    return all;
  }
}
