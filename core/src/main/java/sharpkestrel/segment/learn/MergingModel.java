package sharpkestrel.segment.learn;

import java.util.List;

/**
 * What was learned of which neighbouring regions belong to one thing.
 *
 * @param about what it was learned from, in a sentence
 * @param card what the scenes were that it was learned from
 * @param features names of what it looks at, in the network's order
 */
public record MergingModel(String about, Card card, List<String> features, Network network) {

  public MergingModel {
    features = List.copyOf(features);
    if (network.features() != features.size()) {
      throw new IllegalArgumentException(
          features.size() + " features for a network of " + network.features() + ".");
    }
  }
}
