package sharpkestrel.segment.learn;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import sharpkestrel.io.Json;

/** Cards of models as JSON. */
public final class CardJson {

  private static final String PIXEL = "pixel_metres";
  private static final String BANDS = "bands";
  private static final String CONTRAST = "contrast";

  private CardJson() {}

  public static ObjectNode of(Card card) {
    ObjectNode seen = Json.object();
    card.pixels().ifPresent(pixels -> put(seen, PIXEL, pixels));
    card.bands().forEach(seen.putArray(BANDS)::add);
    put(seen, CONTRAST, card.contrasts());
    return seen;
  }

  private static void put(ObjectNode node, String name, Card.Range range) {
    node.putArray(name).add(range.least()).add(range.most());
  }

  /**
   * @param damaged what to throw, for what is wrong
   */
  public static Card read(JsonNode node, Function<String, RuntimeException> damaged) {
    List<String> bands = new ArrayList<>();
    node.path(BANDS).forEach(band -> bands.add(band.asText()));
    return new Card(
        node.has(PIXEL) ? Optional.of(range(node, PIXEL, damaged)) : Optional.empty(),
        bands,
        range(node, CONTRAST, damaged));
  }

  private static Card.Range range(
      JsonNode node, String name, Function<String, RuntimeException> damaged) {
    JsonNode pair = node.path(name);
    if (pair.size() != 2 || !(pair.get(0).asDouble(1) <= pair.get(1).asDouble(0))) {
      throw damaged.apply("its card has no \"" + name + "\" from and to");
    }
    return new Card.Range(pair.get(0).asDouble(), pair.get(1).asDouble());
  }
}
