package sharpkestrel.demo.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

class ParishesTest {

  private static Ground ground;
  private static Extent extent;
  private static Parishes parishes;

  @BeforeAll
  static void part() {
    Coast coast = new Coast(7);
    extent = Extent.around(coast.east(100, 0), coast.north(100, 0), 1800);
    ground = new Ground(7, Extent.around(coast.east(100, 0), coast.north(100, 0), 200));
    parishes = new Parishes(ground, extent);
  }

  @Test
  void theyCoverTheSurveyOnce() {
    List<Geometry> areas = parishes.all().stream().map(Parishes.Parish::area).toList();
    double sum = areas.stream().mapToDouble(Geometry::getArea).sum();

    assertThat(sum).isCloseTo(3600.0 * 3600, within(400.0 * 4));
    assertThat(UnaryUnionOp.union(areas).getArea()).isCloseTo(sum, within(1.0));
  }

  @Test
  void aPlaceIsInTheParishWhoseAreaHoldsIt() {
    Chance chance = Chance.of(3, 3);
    GeometryFactory geometry = new GeometryFactory();
    for (int k = 0; k < 500; k++) {
      double e = chance.between(extent.west(), extent.east());
      double n = chance.between(extent.south(), extent.north());
      Geometry point = geometry.createPoint(new Coordinate(e, n));
      List<String> holding = parishes.all().stream()
          .filter(p -> p.area().distance(point) < 1e-6)
          .map(Parishes.Parish::name)
          .toList();

      if (!holding.isEmpty()) {
        assertThat(holding).contains(parishes.at(e, n));
      }
    }
  }

  @Test
  void noTwoHaveOneName() {
    assertThat(parishes.all()).hasSizeGreaterThan(25);
    assertThat(parishes.all().stream().map(Parishes.Parish::name)).doesNotHaveDuplicates();
  }

  @Test
  void noTwoOfALargeSurveyHaveOneName() {
    Parishes large = new Parishes(
        ground,
        new Extent(extent.west(), extent.south(), extent.west() + 14_000, extent.south() + 11_000));

    assertThat(large.all()).hasSizeGreaterThan(400);
    assertThat(large.all().stream().map(Parishes.Parish::name)).doesNotHaveDuplicates();
  }

  @Test
  void aNeighbouringSurveyOfOneSeedKnowsTheSameParishes() {
    Parishes beside = new Parishes(
        ground,
        new Extent(extent.west() + 900, extent.south(), extent.east() + 900, extent.north()));
    Chance chance = Chance.of(3, 4);
    for (int k = 0; k < 200; k++) {
      // well inside of both, where no sliver at an edge is left out
      double e = chance.between(extent.west() + 1700, extent.east() - 800);
      double n = chance.between(extent.south() + 800, extent.north() - 800);

      assertThat(beside.at(e, n)).isEqualTo(parishes.at(e, n));
    }
  }
}
