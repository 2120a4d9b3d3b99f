package sharpkestrel.demo.truth;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.sensor.Pushbroom;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Solid;
import sharpkestrel.raster.Extent;

/** Outlines of one building over the level sea against closed forms. */
class OutlinesTest {

  private static final Surface ANY = Surface.of(Material.SLATE_ROOF);
  private static final double UNDULATION = 47;
  private static final double OFF_NADIR = 20;

  private final Coast coast = new Coast(2);
  private final double east = coast.east(-420, 0);
  private final double north = coast.north(-420, 0);
  private final Ground ground = new Ground(2, Extent.around(east, north, 100));
  private final Pushbroom sensor = new Pushbroom(
      new double[] {east, north, UNDULATION},
      OFF_NADIR,
      90,
      180,
      0.5,
      512,
      512,
      0,
      Chance.of(1, 1));

  private static Building of(Solid... parts) {
    return new Building(
        0,
        Building.Use.DWELLING,
        Material.SLATE_ROOF,
        Building.Shape.OBLONG,
        1900,
        parts[0].east,
        parts[0].north,
        0,
        List.of(parts));
  }

  private Solid flat(double e, double length, double height) {
    return Solid.box(Polygons.oblong(e, north, 0, length, 8), 0, height, ANY, ANY);
  }

  @Test
  void aFlatRoofInTheTerrainOrthoIsTheFootprintMovedByHeightTimesTheTangent() {
    Building building = of(flat(east, 20, 15));

    Geometry roof = Outlines.roof(building, Outlines.terrainOrtho(sensor, UNDULATION, ground));

    // the sensor stands in the east, so the roof falls to the west
    double lean = 15 * Math.tan(Math.toRadians(OFF_NADIR));
    Geometry plan = Outlines.footprint(building);
    assertThat(roof.getArea()).isCloseTo(160, within(0.2));
    assertThat(roof.getCentroid().getX() - plan.getCentroid().getX())
        .isCloseTo(-lean, within(0.02));
    assertThat(roof.getCentroid().getY() - plan.getCentroid().getY()).isCloseTo(0, within(0.02));
  }

  @Test
  void inTheRawImageItIsWhereTheSensorProjectsItsCorners() {
    Building building = of(flat(east, 20, 15));

    Geometry roof = Outlines.roof(building, Outlines.raw(sensor, UNDULATION));

    double[] image = new double[2];
    double[] box = {1e9, 1e9, -1e9, -1e9};
    double[] plan = building.parts().get(0).plan();
    for (int i = 0; i < plan.length; i += 2) {
      sensor.toImage(plan[i], plan[i + 1], 15 + UNDULATION, image);
      box[0] = Math.min(box[0], image[0]);
      box[1] = Math.min(box[1], image[1]);
      box[2] = Math.max(box[2], image[0]);
      box[3] = Math.max(box[3], image[1]);
    }
    var seen = roof.getEnvelopeInternal();
    assertThat(new double[] {seen.getMinX(), seen.getMinY(), seen.getMaxX(), seen.getMaxY()})
        .containsExactly(box, within(1e-3));
  }

  @Test
  void partsThatRunIntoEachOtherAreOneOutline() {
    Building building = of(flat(east, 20, 6), flat(east + 14, 20, 6));

    Geometry roof = Outlines.roof(building, Outlines.above());

    assertThat(roof.getNumGeometries()).isEqualTo(1);
    assertThat(roof.getArea()).isCloseTo(34 * 8, within(0.05));
  }

  @Test
  void aGableSeenFromItsEndShowsItsWallNotAsRoof() {
    double pitch = 0.7;
    double side = 5 + pitch * 4;
    Solid house = new Solid(
        Polygons.oblong(east, north, 0, 20, 8),
        0,
        new double[][] {{side, 0, -pitch}, {side, 0, pitch}},
        ANY,
        ANY);

    Geometry roof = Outlines.roof(of(house), Outlines.terrainOrtho(sensor, UNDULATION, ground));

    // the ridge leans past the eaves in the west and leaves a notch as deep in the east: the area
    // stays
    double notch = pitch * 4 * Math.tan(Math.toRadians(OFF_NADIR));
    assertThat(roof.getArea()).isCloseTo(160, within(0.3));
    assertThat(roof.convexHull().getArea() - roof.getArea()).isCloseTo(8 * notch / 2, within(0.1));
  }

  @Test
  void thresholdsTellApartWhatIsApart() {
    assertThat(Separability.bestThreshold(new double[] {1, 2, 3}, new double[] {4, 5}))
        .isEqualTo(1);
    assertThat(Separability.bestThreshold(new double[] {4, 5}, new double[] {1, 2, 3}))
        .isEqualTo(1);
    assertThat(Separability.bestThreshold(new double[] {1, 1, 1}, new double[] {1, 1}))
        .isEqualTo(0.5);
    // two of three below against none of two, or one of two more
    assertThat(Separability.bestThreshold(new double[] {1, 2, 6}, new double[] {5, 7}))
        .isCloseTo((2 / 3.0 + 1) / 2, within(1e-12));
  }
}
