package sharpkestrel.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.SampleType;

class HeightsTest {

  private static final CrsName UTM = CrsName.epsg(32630);

  private static Raster model(VerticalDatum datum) {
    MemoryRaster plain = Made.placed(20, 10, 1, (b, col, row) -> 100 + col, BandRole.HEIGHT);
    return new MemoryRaster(
        plain.grid(),
        plain.bands(),
        Attachments.NONE.with(VerticalDatum.class, datum),
        Made.samples(plain));
  }

  /** A geoid that rises by a metre for every metre of northing, on 4 m pixels around the model. */
  private static Raster slope() {
    Grid grid = new Grid(12, 8, Affine.northUp(511_990, 6_702_012, 4), UTM);
    return Made.on(
        grid,
        SampleType.FLOAT32,
        (b, col, row) -> grid.affine().y(col + 0.5, row + 0.5) - 6_702_000,
        BandRole.HEIGHT);
  }

  @Test
  void anUndulationIsAddedToTheRangeOfHeights() {
    Heights heights = Heights.of(model(VerticalDatum.GEOID), 47, Optional.empty(), Job.QUIET);

    assertThat(heights.undulation()).isEqualTo(47);
    assertThat(heights.lowest()).isLessThan(147).isGreaterThan(140);
    assertThat(heights.highest()).isGreaterThan(166).isLessThan(173);
  }

  @Test
  void aGridIsInterpolatedBetweenItsCentres() {
    Heights heights =
        Heights.of(model(VerticalDatum.GEOID), Double.NaN, Optional.of(slope()), Job.QUIET);

    float[] above = Made.samples(heights.model())[0];
    for (int i = 0; i < above.length; i++) {
      double northing = -(i / 20 + 0.5);
      assertThat(above[i]).isCloseTo((float) (100 + i % 20 + northing), within(2e-3f));
    }
    assertThat(heights.model().attachments().get(VerticalDatum.class))
        .hasValue(VerticalDatum.ELLIPSOID);
  }

  @Test
  void heightsAboveAGeoidAreLiftedByTheShippedOneWhereNoneIsGiven() {
    List<String> told = new ArrayList<>();
    Job job = new Job() {
      @Override
      public int threads() {
        return 1;
      }

      @Override
      public void warn(String message) {
        told.add(message);
      }
    };

    Heights heights = Heights.of(model(VerticalDatum.GEOID), Double.NaN, Optional.empty(), job);

    float lifted = Made.samples(heights.model())[0][0];
    float before = Made.samples(model(VerticalDatum.GEOID))[0][0];
    assertThat(told).singleElement().asString().contains("EGM96");
    // the model lies at 60.4 north, 2.8 west
    assertThat(lifted - before).isCloseTo(52.4f, within(1f));
  }

  @Test
  void anUndulationAndAGridAreOneTooMany() {
    assertThatThrownBy(
            () -> Heights.of(model(VerticalDatum.GEOID), 47, Optional.of(slope()), Job.QUIET))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("not both");
  }

  @Test
  void ellipsoidalHeightsAreNotLiftedAgain() {
    Raster ellipsoidal = model(VerticalDatum.ELLIPSOID);

    assertThatThrownBy(() -> Heights.of(ellipsoidal, 47, Optional.empty(), Job.QUIET))
        .hasMessageContaining("count twice");
    assertThatThrownBy(() -> Heights.of(ellipsoidal, Double.NaN, Optional.of(slope()), Job.QUIET))
        .hasMessageContaining("count twice");
    assertThat(Heights.of(ellipsoidal, Double.NaN, Optional.empty(), Job.QUIET).undulation())
        .isZero();
  }

  @Test
  void aGridWithoutPlaceIsRefused() {
    Raster placeless = new MemoryRaster(
        Grid.ofPixels(2, 2),
        List.of(Band.of(BandRole.HEIGHT, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[1][4]);

    assertThatThrownBy(() ->
            Heights.of(model(VerticalDatum.GEOID), Double.NaN, Optional.of(placeless), Job.QUIET))
        .hasMessageContaining("coordinate system");
  }

  @Test
  void aModelOfHolesIsRefused() {
    Raster holes = Made.placed(4, 4, 1, (b, col, row) -> Double.NaN, BandRole.HEIGHT);

    assertThatThrownBy(() -> Heights.of(holes, 0, Optional.empty(), Job.QUIET))
        .hasMessageContaining("all of it is no-data");
  }
}
