package sharpkestrel.extract.learner;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;

/** Classifiers as JSON: what they were learned from, the features by name with what was seen of each, what they are worth. */
public final class ClassifierFile {

  private static final String KIND = "classifier";

  private ClassifierFile() {}

  public static void write(Classifier classifier, Path target) {
    Json.write(of(classifier), target);
  }

  /** The file's text on one line. */
  public static String text(Classifier classifier) {
    return Json.line(of(classifier));
  }

  /**
   * @throws FileFormatException that says what is wrong with the file
   */
  public static Classifier read(Path path) {
    return of(Json.read(path), path.toString());
  }

  public static ObjectNode of(Classifier classifier) {
    ObjectNode root = Json.object().put("kind", KIND).put("about", classifier.about());
    root.put("method", classifier.method().name().toLowerCase(Locale.ROOT));
    classifier.classes().forEach(root.putArray("classes")::add);
    classifier.features().forEach(root.putArray("features")::add);
    root.put("lows", ScorerJson.floats(classifier.lows()));
    root.put("highs", ScorerJson.floats(classifier.highs()));
    ObjectNode calibration = root.putObject("calibration");
    ScorerJson.put(calibration.putArray("given"), classifier.calibration().given());
    ScorerJson.put(calibration.putArray("meant"), classifier.calibration().meant());
    classifier.kept().ifPresent(confusion -> {
      ArrayNode rows = root.putArray("kept_back");
      for (double[] row : confusion.counts()) {
        ArrayNode each = rows.addArray();
        for (double n : row) {
          each.add(n);
        }
      }
    });
    root.set("scorer", ScorerJson.of(classifier.scorer()));
    return root;
  }

  /**
   * @param where it comes from, for what is said of errors
   */
  public static Classifier of(JsonNode root, String where) {
    if (!root.path("kind").asText().equals(KIND)) {
      throw new FileFormatException(where + " holds no classifier: \"kind\" should be \"" + KIND
          + "\". Make one with 'learn-classes'.");
    }
    List<String> classes = texts(root.path("classes"));
    List<String> features = texts(root.path("features"));
    try {
      Calibration calibration = new Calibration(
          ScorerJson.rows(root.path("calibration").path("given")),
          ScorerJson.rows(root.path("calibration").path("meant")));
      if (calibration.given().length != classes.size()
          || calibration.meant().length != classes.size()) {
        throw new IllegalArgumentException("its calibration does not go with its classes");
      }
      return new Classifier(
          root.path("about").asText(),
          Learner.valueOf(root.path("method").asText().toUpperCase(Locale.ROOT)),
          classes,
          features,
          ScorerJson.floats(root.path("lows")),
          ScorerJson.floats(root.path("highs")),
          ScorerJson.read(root.path("scorer"), where),
          calibration,
          confusion(root.path("kept_back"), classes));
    } catch (IllegalArgumentException damaged) {
      throw new FileFormatException(where + " is damaged: " + damaged.getMessage()
          + ". Learn the model again from its samples.");
    }
  }

  private static List<String> texts(JsonNode array) {
    List<String> texts = new ArrayList<>();
    array.forEach(each -> texts.add(each.asText()));
    return texts;
  }

  private static Optional<Confusion> confusion(JsonNode rows, List<String> classes) {
    if (rows.size() != classes.size()) {
      return Optional.empty();
    }
    double[][] counts = new double[classes.size()][classes.size()];
    for (int k = 0; k < counts.length; k++) {
      for (int j = 0; j < counts.length; j++) {
        counts[k][j] = rows.get(k).path(j).asDouble();
      }
    }
    return Optional.of(new Confusion(classes, counts));
  }
}
