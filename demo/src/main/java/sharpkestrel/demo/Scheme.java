package sharpkestrel.demo;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;

/**
 * Under what circumstances a survey is made.
 *
 * @param sky air and angles
 */
public record Scheme(Region region, Season season, Instrument instrument, Sky sky) {

  /** The archipelago as it always was. */
  public static final Scheme PLAIN =
      new Scheme(Region.ISLES, Season.LEAF_ON, Instrument.SIX_BANDS, Sky.PLAIN);

  /** What sets it apart from the plain one, as folders are named: {@code -dry-hazy}; empty for nothing. */
  String suffix() {
    return Stream.of(
            season == Season.LEAF_ON ? "" : "-" + season.label(),
            instrument == Instrument.SIX_BANDS ? "" : "-" + instrument.label(),
            sky == Sky.PLAIN ? "" : "-" + sky.label())
        .collect(Collectors.joining());
  }
}
