package sharpkestrel.extract.learner;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Base64;
import java.util.Locale;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;

/**
 * What learners have learned as JSON. Long rows of numbers are base64 of little-endian 32-bit floats or whole numbers, flags a byte each.
 */
public final class ScorerJson {

  private ScorerJson() {}

  static ObjectNode of(Scorer scorer) {
    ObjectNode node = Json.object();
    switch (scorer) {
      case TreeScorer trees -> {
        node.put("form", "trees").put("link", trees.link().name().toLowerCase(Locale.ROOT));
        node.set("trees", of(trees.trees()));
      }
      case LikelihoodScorer likely -> {
        node.put("form", "likelihood");
        put(node, likely.standard());
        put(node.putArray("means"), likely.means());
        put(node.putArray("factors"), likely.factors());
        node.put("offsets", floats(likely.offsets()));
        if (Double.isFinite(likely.farthest())) {
          node.put("farthest", likely.farthest());
        }
      }
      case NearestScorer nearest -> {
        node.put("form", "nearest").put("neighbours", nearest.neighbours());
        node.put("classes", nearest.classes());
        put(node, nearest.standard());
        put(node.putArray("rows"), nearest.rows());
        node.put("class_of", ints(nearest.classOf()));
        node.put("weights", floats(nearest.weights()));
      }
      case VectorScorer vectors -> {
        node.put("form", "vectors").put("width", vectors.width());
        put(node, vectors.standard());
        put(node.putArray("vectors"), vectors.vectors());
        put(node.putArray("factors"), vectors.factors());
        node.put("offsets", floats(vectors.offsets()));
        node.put("slopes", floats(vectors.slopes()));
        node.put("shifts", floats(vectors.shifts()));
      }
    }
    return node;
  }

  /**
   * @param where it comes from, for what is said of errors
   * @throws FileFormatException where it is damaged
   */
  static Scorer read(JsonNode node, String where) {
    try {
      return switch (node.path("form").asText()) {
        case "trees" ->
          new TreeScorer(
              trees(node.path("trees")),
              TreeScorer.Link.valueOf(node.path("link").asText().toUpperCase(Locale.ROOT)));
        case "likelihood" ->
          new LikelihoodScorer(
              standard(node),
              rows(node.path("means")),
              rows(node.path("factors")),
              floats(node.path("offsets")),
              node.path("farthest").asDouble(Double.POSITIVE_INFINITY));
        case "nearest" ->
          new NearestScorer(
              standard(node),
              rows(node.path("rows")),
              ints(node.path("class_of")),
              floats(node.path("weights")),
              node.path("classes").asInt(),
              node.path("neighbours").asInt());
        case "vectors" ->
          new VectorScorer(
              standard(node),
              rows(node.path("vectors")),
              rows(node.path("factors")),
              floats(node.path("offsets")),
              node.path("width").asDouble(),
              floats(node.path("slopes")),
              floats(node.path("shifts")));
        default ->
          throw new IllegalArgumentException(
              "no form of model is called '" + node.path("form").asText() + "'");
      };
    } catch (IllegalArgumentException | IndexOutOfBoundsException damaged) {
      throw new FileFormatException(where + " is damaged: " + damaged.getMessage()
          + ". Learn the model again from its samples.");
    }
  }

  public static ObjectNode of(Trees trees) {
    boolean[] flags = trees.unknownLeftArray();
    byte[] bytes = new byte[flags.length];
    for (int i = 0; i < bytes.length; i++) {
      bytes[i] = (byte) (flags[i] ? 1 : 0);
    }
    return Json.object()
        .put("features", trees.features())
        .put("outputs", trees.outputs())
        .put("roots", ints(trees.rootArray()))
        .put("feature", ints(trees.featureArray()))
        .put("threshold", floats(trees.thresholdArray()))
        .put("left", ints(trees.leftArray()))
        .put("unknown_left", Base64.getEncoder().encodeToString(bytes))
        .put("values", floats(trees.valueArray()));
  }

  public static Trees trees(JsonNode node) {
    byte[] bytes = Base64.getDecoder().decode(node.path("unknown_left").asText());
    boolean[] flags = new boolean[bytes.length];
    for (int i = 0; i < flags.length; i++) {
      flags[i] = bytes[i] != 0;
    }
    int outputs = node.path("outputs").asInt();
    int[] feature = ints(node.path("feature"));
    float[] threshold = floats(node.path("threshold"));
    int[] left = ints(node.path("left"));
    float[] values = floats(node.path("values"));
    boolean fits = outputs > 0
        && threshold.length == feature.length
        && left.length == feature.length
        && flags.length == feature.length
        && values.length == feature.length * outputs;
    if (!fits) {
      throw new IllegalArgumentException("the arrays of its trees differ in length");
    }
    return new Trees(
        node.path("features").asInt(),
        outputs,
        ints(node.path("roots")),
        feature,
        threshold,
        left,
        flags,
        values);
  }

  private static void put(ObjectNode node, Standard standard) {
    node.put("usual", floats(standard.means())).put("scales", floats(standard.scales()));
  }

  private static Standard standard(JsonNode node) {
    Standard standard = new Standard(floats(node.path("usual")), floats(node.path("scales")));
    if (standard.means().length != standard.scales().length) {
      throw new IllegalArgumentException("its scales do not go with its features");
    }
    return standard;
  }

  static void put(ArrayNode array, float[][] rows) {
    for (float[] row : rows) {
      array.add(floats(row));
    }
  }

  static float[][] rows(JsonNode array) {
    float[][] rows = new float[array.size()][];
    for (int i = 0; i < rows.length; i++) {
      rows[i] = floats(array.get(i));
    }
    return rows;
  }

  static String floats(float[] numbers) {
    ByteBuffer bytes = ByteBuffer.allocate(4 * numbers.length).order(ByteOrder.LITTLE_ENDIAN);
    bytes.asFloatBuffer().put(numbers);
    return Base64.getEncoder().encodeToString(bytes.array());
  }

  static float[] floats(JsonNode text) {
    byte[] bytes = Base64.getDecoder().decode(text.asText());
    float[] numbers = new float[bytes.length / 4];
    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(numbers);
    return numbers;
  }

  private static String ints(int[] numbers) {
    ByteBuffer bytes = ByteBuffer.allocate(4 * numbers.length).order(ByteOrder.LITTLE_ENDIAN);
    bytes.asIntBuffer().put(numbers);
    return Base64.getEncoder().encodeToString(bytes.array());
  }

  private static int[] ints(JsonNode text) {
    byte[] bytes = Base64.getDecoder().decode(text.asText());
    int[] numbers = new int[bytes.length / 4];
    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asIntBuffer().get(numbers);
    return numbers;
  }
}
