package sharpkestrel.demo.things;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Surface;

/** Solids against plain geometry. */
class SolidTest {

  private static final Surface ANY = Surface.of(Material.CONCRETE);
  private static final double PITCH = 0.6;

  /** A house 20 by 8 whose walls are 4 high and whose planes fall by {@link #PITCH}; two for a gable, four for hips. */
  private static Solid house(double angle, int planes) {
    double sin = Math.sin(angle);
    double cos = Math.cos(angle);
    double side = 16 + PITCH * 4;
    double end = 16 + PITCH * 10;
    double[][] roof = {
      {side, PITCH * sin, -PITCH * cos},
      {side, -PITCH * sin, PITCH * cos},
      {end, -PITCH * cos, -PITCH * sin},
      {end, PITCH * cos, PITCH * sin}
    };
    return new Solid(
        Polygons.oblong(100, 200, angle, 20, 8), 12, Arrays.copyOf(roof, planes), ANY, ANY);
  }

  /** Height of the roof over a point of the plan by its distances to the walls; NaN beside it. */
  private static double surface(double angle, int planes, double e, double n) {
    double u = (e - 100) * Math.cos(angle) + (n - 200) * Math.sin(angle);
    double v = -(e - 100) * Math.sin(angle) + (n - 200) * Math.cos(angle);
    if (Math.abs(u) > 10 || Math.abs(v) > 4) {
      return Double.NaN;
    }
    double toWall = 4 - Math.abs(v);
    if (planes == 4) {
      toWall = Math.min(toWall, 10 - Math.abs(u));
    }
    return 16 + PITCH * toWall;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void aRayMeetsAHouseWhereStepByStepItFirstRunsIntoIt(long seed) {
    Random random = new Random(seed);
    int met = 0;
    for (int i = 0; i < 400; i++) {
      double angle = 2 * Math.PI * random.nextDouble();
      int planes = random.nextBoolean() ? 2 : 4;
      Solid house = house(angle, planes);
      double[] ray = {
        100 + 30 * (random.nextDouble() - 0.5),
        200 + 30 * (random.nextDouble() - 0.5),
        0.6 * (random.nextDouble() - 0.5),
        0.6 * (random.nextDouble() - 0.5)
      };
      double expected = Double.NaN;
      for (double h = house.top + 0.5; h > 9; h -= 0.002) {
        double roof = surface(angle, planes, ray[0] + h * ray[2], ray[1] + h * ray[3]);
        if (h <= roof) {
          expected = h;
          break;
        }
      }

      double found = house.meet(ray, new int[1]);

      if (Double.isNaN(expected)) {
        assertThat(found).as("ray %s, %d planes", Arrays.toString(ray), planes).isNaN();
      } else {
        met++;
        assertThat(found)
            .as("ray %s, %d planes", Arrays.toString(ray), planes)
            .isCloseTo(expected, within(0.01));
      }
    }
    assertThat(met).isGreaterThan(20);
  }

  @Test
  void facetsOfAGableCoverThePlanInHalvesAndMeetAtTheRidge() {
    Solid gable = house(0.4, 2);

    for (int k = 0; k < 2; k++) {
      double[][] facet = gable.facet(k);
      assertThat(planArea(facet)).isCloseTo(80, within(1e-6));
      double highest = Arrays.stream(facet).mapToDouble(p -> p[2]).max().orElseThrow();
      assertThat(highest).isCloseTo(16 + PITCH * 4, within(1e-9));
    }
    assertThat(gable.top).isCloseTo(18.4, within(1e-9));
  }

  @Test
  void facetsOfHipsAreTwoTrianglesAndTwoTrapezes() {
    Solid hips = house(2.1, 4);

    // 8 wide at 45 degrees in plan: each end triangle is 8 * 4 / 2
    assertThat(planArea(hips.facet(0))).isCloseTo(64, within(1e-6));
    assertThat(planArea(hips.facet(2))).isCloseTo(16, within(1e-6));
    assertThat(hips.facet(2)).hasNumberOfRows(3);
  }

  private static double planArea(double[][] corners) {
    double[] ring = new double[2 * corners.length];
    for (int i = 0; i < corners.length; i++) {
      ring[2 * i] = corners[i][0];
      ring[2 * i + 1] = corners[i][1];
    }
    return Math.abs(Polygons.area(ring));
  }

  @Test
  void normalsPointOutwardsAndAreOfUnitLength() {
    Solid hips = house(1.3, 4);
    double[] normal = new double[3];
    for (int face = 0; face < 8; face++) {
      hips.normal(face, normal);
      assertThat(Math.sqrt(normal[0] * normal[0] + normal[1] * normal[1] + normal[2] * normal[2]))
          .isCloseTo(1, within(1e-12));
      assertThat(normal[2]).isGreaterThanOrEqualTo(0);
      assertThat(hips.isWall(face)).isEqualTo(face < 4);
    }
  }

  @Test
  void aPlanThatRunsClockwiseIsRefused() {
    double[] clockwise = {0, 0, 0, 5, 5, 5, 5, 0};

    assertThatThrownBy(() -> Solid.box(clockwise, 0, 2, ANY, ANY))
        .hasMessageContaining("anticlockwise");
  }

  @Test
  void aCrownIsMetWhereItsEllipsoidIs() {
    Crown crown = new Crown(10, 20, 30, 2, 4, Material.BROADLEAF, 1);
    Random random = new Random(3);
    int met = 0;
    for (int i = 0; i < 300; i++) {
      double[] ray = {
        10 + 30 * -0.2 + 6 * (random.nextDouble() - 0.5),
        20 + 30 * 0.1 + 6 * (random.nextDouble() - 0.5),
        0.2,
        -0.1
      };
      double found = crown.meet(ray);
      double expected = Double.NaN;
      for (double h = 36; h > 24; h -= 0.002) {
        double x = (ray[0] + h * ray[2] - 10) / 2;
        double y = (ray[1] + h * ray[3] - 20) / 2;
        double z = (h - 30) / 4;
        if (x * x + y * y + z * z <= 1) {
          expected = h;
          break;
        }
      }
      if (Double.isNaN(expected)) {
        assertThat(Double.isNaN(found) || Math.abs(found - 30) < 4.1).isTrue();
      } else {
        met++;
        assertThat(found).isCloseTo(expected, within(0.05));
      }
    }
    assertThat(met).isGreaterThan(50);
  }
}
