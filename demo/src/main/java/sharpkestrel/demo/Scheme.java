package sharpkestrel.demo;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.raster.RasterException;

/**
 * Under what circumstances a survey is made.
 *
 * @param sky air and angles
 * @param years between the first scene and the second, which shows the same ground then; 0 for scenes of one year that overlap
 */
public record Scheme(Region region, Season season, Instrument instrument, Sky sky, int years) {

  private static final int MOST_YEARS = 30;

  public Scheme {
    if (years < 0 || years > MOST_YEARS) {
      throw new RasterException(
          "Years between the scenes are 0 to " + MOST_YEARS + ", not " + years + ".");
    }
  }

  /** Within one year. */
  public Scheme(Region region, Season season, Instrument instrument, Sky sky) {
    this(region, season, instrument, sky, 0);
  }

  /** The archipelago as it always was. */
  public static final Scheme PLAIN =
      new Scheme(Region.ISLES, Season.LEAF_ON, Instrument.SIX_BANDS, Sky.PLAIN);

  /** What sets it apart from the plain one, as folders are named: {@code -dry-hazy}; empty for nothing. */
  String suffix() {
    return Stream.of(
            season == Season.LEAF_ON ? "" : "-" + season.label(),
            instrument == Instrument.SIX_BANDS ? "" : "-" + instrument.label(),
            sky == Sky.PLAIN ? "" : "-" + sky.label(),
            years == 0 ? "" : "-" + years + "-years")
        .collect(Collectors.joining());
  }
}
