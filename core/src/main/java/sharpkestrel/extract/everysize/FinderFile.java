package sharpkestrel.extract.everysize;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import sharpkestrel.extract.learner.ClassifierFile;
import sharpkestrel.extract.learner.Fit;
import sharpkestrel.extract.learner.ScorerJson;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.segment.learn.CardJson;

/** Finders as JSON: their classifier, and the trees that say how well a node fits. */
public final class FinderFile {

  private static final String KIND = "finder";

  private static final String LABELLED = "labelled";
  private static final String SOME = "some";
  private static final String ROOFS = "roofs.json";

  private FinderFile() {}

  /** The finder that ships: roofs by their material, learned on demo surveys as {@code extract-quality} does. */
  public static Finder ofRoofs() {
    return of(Json.resource(FinderFile.class, ROOFS), ROOFS);
  }

  public static void write(Finder finder, Path target) {
    Json.write(of(finder), target);
  }

  /** The file's text on one line. */
  public static String text(Finder finder) {
    return Json.line(of(finder));
  }

  private static ObjectNode of(Finder finder) {
    ObjectNode root = Json.object().put("kind", KIND);
    if (finder.fromSome()) {
      root.put(LABELLED, SOME);
    }
    root.set("card", CardJson.of(finder.card()));
    root.set("classifier", ClassifierFile.of(finder.classifier()));
    put(root.putObject("fit"), finder.fit());
    return root;
  }

  private static void put(ObjectNode node, Fit fit) {
    fit.features().forEach(node.putArray("features")::add);
    node.set("trees", ScorerJson.of(fit.trees()));
  }

  private static Fit fit(JsonNode node) {
    List<String> features = new ArrayList<>();
    node.path("features").forEach(name -> features.add(name.asText()));
    Fit fit = new Fit(features, ScorerJson.trees(node.path("trees")));
    if (fit.trees().features() != features.size() || fit.trees().outputs() != 1) {
      throw new IllegalArgumentException("its trees do not go with its features");
    }
    return fit;
  }

  /**
   * @throws FileFormatException that says what is wrong with the file
   */
  public static Finder read(Path path) {
    return of(Json.read(path), path.toString());
  }

  static Finder of(JsonNode root, String where) {
    if (!root.path("kind").asText().equals(KIND)) {
      throw new FileFormatException(where + " holds no finder: \"kind\" should be \"" + KIND
          + "\". Make one with 'learn-objects'.");
    }
    try {
      return new Finder(
          CardJson.read(root.path("card"), IllegalArgumentException::new),
          ClassifierFile.of(root.path("classifier"), where),
          fit(root.path("fit")),
          root.path(LABELLED).asText().equals(SOME));
    } catch (IllegalArgumentException damaged) {
      throw new FileFormatException(
          where + " is damaged: " + damaged.getMessage() + ". Learn it again from its outlines.");
    }
  }
}
