package sharpkestrel.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.apache.sis.referencing.CRS;
import org.apache.sis.referencing.crs.AbstractCRS;
import org.apache.sis.referencing.cs.AxesConvention;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sharpkestrel.raster.CrsName;

/** What ships of the EPSG dataset, against the dataset itself. */
class CrsTableTest {

  @ParameterizedTest
  @CsvSource({
    "27700, 430000, 540000",
    "28992, 120000, 480000",
    "2056, 2700000, 1200000",
    "3067, 400000, 6900000",
    "23030, 500000, 4400000",
    "3577, 1500000, -3900000"
  })
  void aPointLiesWhereTheDatasetHasItThereAndBack(int code, double x, double y) throws Exception {
    double[] ours = {x, y};
    Crs crs = Crs.of(CrsName.epsg(code));

    crs.to(Crs.of(Crs.WGS84)).apply(ours, 1);

    double[] theirs = {x, y};
    var from = AbstractCRS.castOrCopy(CRS.forCode("EPSG:" + code))
        .forConvention(AxesConvention.DISPLAY_ORIENTED);
    var to = AbstractCRS.castOrCopy(CRS.forCode("EPSG:4326"))
        .forConvention(AxesConvention.DISPLAY_ORIENTED);
    CRS.findOperation(from, to, null).getMathTransform().transform(theirs, 0, theirs, 0, 1);
    // a tenth of a millimetre
    assertThat(ours[0]).isCloseTo(theirs[0], within(1e-9));
    assertThat(ours[1]).isCloseTo(theirs[1], within(1e-9));
    Crs.of(Crs.WGS84).to(crs).apply(ours, 1);
    assertThat(ours[0]).isCloseTo(x, within(2e-3));
    assertThat(ours[1]).isCloseTo(y, within(2e-3));
  }

  @Test
  void aCodeThatIsNoneIsToldApartFromADatasetThatIsShut() {
    assertThatThrownBy(() -> Crs.of(CrsName.epsg(999_999)))
        .isInstanceOf(CrsException.class)
        .hasMessageContaining("There is no coordinate reference system with the code EPSG:999999");
  }
}
