package sharpkestrel.demo;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/**
 * What models learn from and what they are reported on, as the file {@code mixture.json} has it: seeds 1 to 9 to learn, each under
 * every ninth of the circumstances; seeds from {@link DemoData#FIRST_HELD_OUT} on to report, under all of them, those left out of the
 * learning among them.
 */
public final class Mixture {

  static final int SEEDS = 9;

  private static final JsonNode FILE = Json.resource(Mixture.class, "mixture.json");

  /**
   * One of it.
   *
   * @param words by which it is ordered
   * @param leftOut whether it has anything that nothing is learned from
   */
  public record Part(long seed, List<String> words, Scheme scheme, boolean leftOut) {

    public Survey.Order order(int size, Survey.Holds holds) {
      return new Survey.Order(seed, size, Scenario.WHOLE, 0, holds, scheme);
    }

    public String title() {
      return String.join(", ", words);
    }

    private Part of(long another) {
      return new Part(another, words, scheme, leftOut);
    }
  }

  private Mixture() {}

  /** All that is learned from. */
  public static List<Part> learn() {
    List<Part> parts = parts("learn");
    List<Part> seeded = new ArrayList<>();
    for (int k = 0; k < parts.size(); k++) {
      seeded.add(parts.get(k).of(1 + k % SEEDS));
    }
    return seeded;
  }

  /**
   * All that a seed is reported on.
   *
   * @throws RasterException for a seed that may be learned from
   */
  public static List<Part> report(long seed) {
    if (seed < DemoData.FIRST_HELD_OUT) {
      throw new RasterException("Seed " + seed + " is one to learn from: reports are made on seeds "
          + DemoData.FIRST_HELD_OUT + " and up.");
    }
    return parts("report").stream().map(part -> part.of(seed)).toList();
  }

  /** Words that nothing is learned under. */
  public static List<String> leftOut() {
    List<String> words = new ArrayList<>();
    FILE.path("left_out").forEach(word -> words.add(word.asText()));
    return words;
  }

  /**
   * The circumstances of a seed where one survey of the mixture is wanted: the first that it has; of seeds that are reported on one
   * after the other.
   *
   * @throws RasterException where it has none
   */
  static Scheme of(long seed) {
    if (seed >= DemoData.FIRST_HELD_OUT) {
      List<Part> parts = report(seed);
      return parts.get((int) ((seed - DemoData.FIRST_HELD_OUT) % parts.size())).scheme;
    }
    return learn().stream()
        .filter(part -> part.seed == seed)
        .findFirst()
        .orElseThrow(() -> new RasterException("The mixture has seeds 1 to " + SEEDS + " and from "
            + DemoData.FIRST_HELD_OUT + " on, not " + seed + "."))
        .scheme;
  }

  private static List<Part> parts(String list) {
    List<String> left = leftOut();
    List<Part> parts = new ArrayList<>();
    for (JsonNode entry : FILE.path(list)) {
      OrderWords ordered = new OrderWords();
      List<String> words = new ArrayList<>();
      entry.forEach(word -> words.add(word.asText()));
      words.forEach(ordered::take);
      parts.add(new Part(
          0, words, ordered.order(0, 0).scheme(), words.stream().anyMatch(left::contains)));
    }
    return parts;
  }
}
