package sharpkestrel.app.tools.tie;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import sharpkestrel.place.fit.TiePoint;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.CrsName;

class KeptTiesTest {

  @Test
  void pointsComeBackFromTheirLogAsTheyWere() {
    TiePoints points = new TiePoints(
        CrsName.epsg(32630),
        2000,
        1000,
        List.of(
            new TiePoint(3, 10.25, 20.5, 512_000.125, 6_702_000.5, 48.5, TiePoint.Use.CHECK, 0.9),
            new TiePoint(7, 1, 2, 512_010, 6_702_010, Double.NaN, TiePoint.Use.OFF, Double.NaN)));
    assertThat(KeptTies.points(KeptTies.layer(points))).isEqualTo(points);
  }
}
