package sharpkestrel.segment.learn;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.segment.learn.Network.Layer;

/** Merging models as JSON: what they were learned from, the features by name, and the network's numbers. */
public final class MergingModelFile {

  private static final String KIND = "merging model";

  private static final String ROOFS = "roofs.json";

  private MergingModelFile() {}

  /** The model that ships: learned from roofs of demo surveys, as {@code learn-roofs} makes it. */
  public static MergingModel ofRoofs() {
    return of(Json.resource(MergingModelFile.class, ROOFS), ROOFS);
  }

  public static void write(MergingModel model, Path target) {
    Json.write(toJson(model), target);
  }

  /** The file's text on one line. */
  public static String text(MergingModel model) {
    return Json.line(toJson(model));
  }

  private static ObjectNode toJson(MergingModel model) {
    ObjectNode root = Json.object().put("kind", KIND).put("about", model.about());
    root.set("card", CardJson.of(model.card()));
    model.features().forEach(root.putArray("features")::add);
    put(root, "means", model.network().means);
    put(root, "scales", model.network().scales);
    ArrayNode layers = root.putArray("layers");
    for (Layer layer : model.network().layers) {
      ObjectNode node = layers.addObject();
      put(node, "offsets", layer.offsets());
      put(node, "weights", layer.weights());
    }
    return root;
  }

  private static void put(ObjectNode node, String name, float[] numbers) {
    ArrayNode array = node.putArray(name);
    for (float number : numbers) {
      array.add(number);
    }
  }

  /**
   * @throws FileFormatException that says what is wrong with the file
   */
  public static MergingModel read(Path path) {
    return of(Json.read(path), path.toString());
  }

  /**
   * @param where the numbers come from, for what is said of errors
   */
  static MergingModel of(JsonNode root, String where) {
    if (!root.path("kind").asText().equals(KIND)) {
      throw new FileFormatException(where + " holds no merging model: \"kind\" should be \"" + KIND
          + "\". Make one with 'learn-merging'.");
    }
    List<String> features = new ArrayList<>();
    root.path("features").forEach(name -> features.add(name.asText()));
    List<Layer> layers = new ArrayList<>();
    int inputs = features.size();
    for (JsonNode node : root.path("layers")) {
      float[] offsets = numbers(node, "offsets", where);
      float[] weights = numbers(node, "weights", where);
      if (weights.length != inputs * offsets.length) {
        throw damaged(
            where,
            "layer " + (layers.size() + 1) + " has " + weights.length + " weights where " + inputs
                + " x " + offsets.length + " are needed");
      }
      layers.add(new Layer(inputs, offsets.length, weights, offsets));
      inputs = offsets.length;
    }
    float[] means = numbers(root, "means", where);
    float[] scales = numbers(root, "scales", where);
    if (layers.isEmpty()
        || inputs != 1
        || means.length != features.size()
        || scales.length != features.size()) {
      throw damaged(
          where, "its layers do not lead from " + features.size() + " features to one number");
    }
    Card card = CardJson.read(root.path("card"), why -> damaged(where, why));
    return new MergingModel(
        root.path("about").asText(), card, features, new Network(means, scales, layers));
  }

  private static float[] numbers(JsonNode node, String name, String where) {
    JsonNode array = node.path(name);
    float[] numbers = new float[array.size()];
    for (int i = 0; i < numbers.length; i++) {
      numbers[i] = array.get(i).floatValue();
      if (!array.get(i).isNumber() || !Float.isFinite(numbers[i])) {
        throw damaged(where, "number " + (i + 1) + " of \"" + name + "\" is not one");
      }
    }
    return numbers;
  }

  private static FileFormatException damaged(String where, String how) {
    return new FileFormatException(
        where + " is damaged: " + how + ". Make the model again with 'learn-merging'.");
  }
}
