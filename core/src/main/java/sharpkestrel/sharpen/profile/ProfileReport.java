package sharpkestrel.sharpen.profile;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;
import sharpkestrel.raster.Band;

/**
 * Profiles side by side, how well each pair is told apart by all bands, and by which three bands best.
 *
 * @param grain variance of rounding
 */
public record ProfileReport(List<Profile> profiles, List<Band> bands, double grain)
    implements Report {

  private static final int SHOWN = 5;

  private int[] all() {
    return IntStream.range(0, bands.size()).toArray();
  }

  public double jeffriesMatusita(int i, int j) {
    return Separability.jeffriesMatusita(profiles.get(i), profiles.get(j), all(), grain);
  }

  public double transformedDivergence(int i, int j) {
    return Separability.transformedDivergence(profiles.get(i), profiles.get(j), all(), grain);
  }

  /** Three bands each, the best first. */
  public List<BandChoice> choices() {
    return profiles.size() < 2 ? List.of() : BandChoice.rank(profiles, bands.size(), grain);
  }

  private String names(BandChoice choice) {
    return String.join(
        ", ", IntStream.of(choice.bands()).mapToObj(b -> bands.get(b).name()).toList());
  }

  @Override
  public String toText() {
    StringBuilder text = new StringBuilder(String.format("%-20s %8s", "profile", "pixels"));
    bands.forEach(b -> text.append(String.format(" %18s", b.name())));
    for (Profile profile : profiles) {
      text.append(String.format("%n%-20s %8d", profile.name(), profile.pixels()));
      for (int b = 0; b < bands.size(); b++) {
        text.append(String.format(
            Locale.ROOT, " %10.4g \u00b1 %-6.3g", profile.mean()[b], profile.spread(b)));
      }
    }
    if (profiles.size() > 1) {
      text.append(String.format(
          "%n%nApart by all bands, Jeffries-Matusita (transformed divergence), 0 to 2"));
    }
    for (int i = 0; i < profiles.size(); i++) {
      for (int j = i + 1; j < profiles.size(); j++) {
        text.append(String.format(
            Locale.ROOT,
            "%n%-20s %-20s %.3f (%.3f)",
            profiles.get(i).name(),
            profiles.get(j).name(),
            jeffriesMatusita(i, j),
            transformedDivergence(i, j)));
      }
    }
    List<BandChoice> choices = choices();
    for (int k = 0; k < Math.min(SHOWN, choices.size()); k++) {
      text.append(String.format(
          Locale.ROOT,
          k == 0
              ? "%n%nBest three bands: %s: least %.3f, mean %.3f"
              : "%n                  %s: least %.3f, mean %.3f",
          names(choices.get(k)),
          choices.get(k).worst(),
          choices.get(k).mean()));
    }
    return text.toString();
  }

  @Override
  public ObjectNode toJson() {
    ObjectNode node = Json.object();
    ArrayNode list = node.putArray("profiles");
    for (Profile profile : profiles) {
      ObjectNode one = list.addObject().put("name", profile.name()).put("pixels", profile.pixels());
      ObjectNode means = one.putObject("mean");
      ObjectNode spreads = one.putObject("spread");
      for (int b = 0; b < bands.size(); b++) {
        means.put(bands.get(b).name(), profile.mean()[b]);
        spreads.put(bands.get(b).name(), profile.spread(b));
      }
    }
    ArrayNode pairs = node.putArray("pairs");
    for (int i = 0; i < profiles.size(); i++) {
      for (int j = i + 1; j < profiles.size(); j++) {
        pairs
            .addObject()
            .put("one", profiles.get(i).name())
            .put("other", profiles.get(j).name())
            .put("jeffries_matusita", jeffriesMatusita(i, j))
            .put("transformed_divergence", transformedDivergence(i, j));
      }
    }
    ArrayNode best = node.putArray("best_bands");
    choices().stream()
        .limit(SHOWN)
        .forEach(c ->
            best.addObject().put("bands", names(c)).put("least", c.worst()).put("mean", c.mean()));
    return node;
  }
}
