package sharpkestrel.demo;

import java.util.Arrays;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.raster.RasterException;

/** Words by which a survey is ordered, each known by what it says: a scenario, a region, a season, a sky, or all files. */
final class OrderWords {

  private Scenario scenario = Scenario.WHOLE;
  private Region region = Region.ISLES;
  private Season season = Season.LEAF_ON;
  private Instrument instrument = Instrument.SIX_BANDS;
  private Sky sky = Sky.PLAIN;
  private Survey.Holds holds = Survey.Holds.FIRST_SCENE;
  private boolean mixed;
  private int years;

  /**
   * @throws RasterException that names all words there are
   */
  void take(String word) {
    Optional<Scenario> asScenario = find(Scenario.values(), Scenario::label, word);
    Optional<Region> asRegion = find(Region.values(), Region::label, word);
    Optional<Season> asSeason = find(Season.values(), Season::label, word);
    Optional<Instrument> asSensor = find(Instrument.values(), Instrument::label, word);
    Optional<Sky> asSky = find(Sky.values(), Sky::label, word);
    asScenario.ifPresent(found -> scenario = found);
    asRegion.ifPresent(found -> region = found);
    asSeason.ifPresent(found -> season = found);
    asSensor.ifPresent(found -> instrument = found);
    asSky.ifPresent(found -> sky = found);
    if (word.equals("all")) {
      holds = Survey.Holds.ALL_FILES;
    } else if (word.matches("\\d{1,3}-years")) {
      years = Integer.parseInt(word.substring(0, word.indexOf('-')));
    } else if (word.equals("mixed")) {
      mixed = true;
    } else if (Stream.of(asScenario, asRegion, asSeason, asSensor, asSky)
        .allMatch(Optional::isEmpty)) {
      throw new RasterException(
          "'" + word + "' is no word for a demo survey. There are "
              + Stream.of(
                      labels(Region.values(), Region::label),
                      labels(Season.values(), Season::label),
                      labels(Instrument.values(), Instrument::label),
                      labels(Sky.values(), Sky::label),
                      labels(Scenario.values(), Scenario::label))
                  .collect(Collectors.joining("; "))
              + "; all, for all files; mixed, for what the mixture has for the seed; and 4-years, for a second scene so much later.");
    }
  }

  private static <T> Optional<T> find(T[] all, Function<T, String> label, String word) {
    return Arrays.stream(all).filter(each -> label.apply(each).equals(word)).findFirst();
  }

  private static <T> String labels(T[] all, Function<T, String> label) {
    return Arrays.stream(all).map(label).collect(Collectors.joining(", "));
  }

  Survey.Order order(long seed, int size) {
    Scheme scheme = mixed ? Mixture.of(seed) : new Scheme(region, season, instrument, sky, years);
    return new Survey.Order(seed, size, scenario, 0, holds, scheme);
  }
}
