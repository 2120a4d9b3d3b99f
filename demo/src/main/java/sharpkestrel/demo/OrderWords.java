package sharpkestrel.demo;

import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.words.Labelled;
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
    Optional<Scenario> asScenario = Labelled.find(Scenario.values(), word);
    Optional<Region> asRegion = Labelled.find(Region.values(), word);
    Optional<Season> asSeason = Labelled.find(Season.values(), word);
    Optional<Instrument> asSensor = Labelled.find(Instrument.values(), word);
    Optional<Sky> asSky = Labelled.find(Sky.values(), word);
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
                      Labelled.labels(Region.values()),
                      Labelled.labels(Season.values()),
                      Labelled.labels(Instrument.values()),
                      Labelled.labels(Sky.values()),
                      Labelled.labels(Scenario.values()))
                  .collect(Collectors.joining("; "))
              + "; all, for all files; mixed, for what the mixture has for the seed; and 4-years, for a second scene so much later.");
    }
  }

  Survey.Order order(long seed, int size) {
    Scheme scheme = mixed ? Mixture.of(seed) : new Scheme(region, season, instrument, sky, years);
    return new Survey.Order(seed, size, scenario, 0, holds, scheme);
  }
}
