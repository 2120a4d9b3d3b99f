package sharpkestrel.demo.things;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parcels;
import sharpkestrel.demo.light.Material;
import sharpkestrel.raster.Extent;

class DykesTest {

  private static Ground ground;
  private static Extent box;
  private static final List<Solid> pieces = new ArrayList<>();
  private static List<Parcels.Boundary> boundaries;

  @BeforeAll
  static void build() {
    Coast coast = new Coast(5);
    box = Extent.around(coast.east(800, 0), coast.north(800, 0), 400);
    ground = new Ground(5, box.grown(60));
    Things things = new Things();
    new Dykes(ground, things, 46, 18, 36).along(box);
    things.solids(box.grown(20)).forEach(pieces::add);
    boundaries = ground.parcels().boundaries(box);
  }

  private static double toBoundary(double e, double n) {
    double least = Double.POSITIVE_INFINITY;
    for (Parcels.Boundary line : boundaries) {
      double de = line.e1() - line.e0();
      double dn = line.n1() - line.n0();
      double t = ((e - line.e0()) * de + (n - line.n0()) * dn) / (de * de + dn * dn);
      double c = Math.max(0, Math.min(1, t));
      least = Math.min(least, Math.hypot(e - line.e0() - c * de, n - line.n0() - c * dn));
    }
    return least;
  }

  @Test
  void theyStandOnTheBoundsOfFields() {
    assertThat(pieces).hasSizeGreaterThan(100);
    for (Solid piece : pieces) {
      assertThat(toBoundary(piece.east, piece.north)).isLessThan(0.01);
    }
  }

  @Test
  void theyAreAsWideAsDykesAndHedgesAndTwoMetresTallAtMost() {
    double widest = 0;
    for (Solid piece : pieces) {
      double[] plan = piece.plan();
      double a = Math.hypot(plan[2] - plan[0], plan[3] - plan[1]);
      double b = Math.hypot(plan[4] - plan[2], plan[5] - plan[3]);
      double width = Math.min(a, b);
      widest = Math.max(widest, width);

      assertThat(width).isBetween(0.79, 3.61);
      assertThat(piece.over(0).material()).isIn(Material.DYKE, Material.HEDGE);
    }
    assertThat(widest).as("as wide as a small building").isGreaterThan(2.5);
  }

  @Test
  void noneLiesOnARoadOrInTheSea() {
    for (Solid piece : pieces) {
      assertThat(ground.roads().beyondEdge(piece.east, piece.north)).isGreaterThan(1);
      assertThat(ground.coast().at(piece.east, piece.north)).isGreaterThan(8);
    }
  }

  @Test
  void everyBoundaryWithADykeHasAGateOrAnEnd() {
    int withGate = 0;
    int walled = 0;
    for (Parcels.Boundary line : boundaries) {
      double length = Math.hypot(line.e1() - line.e0(), line.n1() - line.n0());
      if (length < 60) {
        continue;
      }
      int standing = 0;
      int count = (int) Math.ceil(length / 8);
      for (int k = 0; k < count; k++) {
        double t = (k + 0.5) / count;
        double e = line.e0() + t * (line.e1() - line.e0());
        double n = line.n0() + t * (line.n1() - line.n0());
        standing +=
            pieces.stream().anyMatch(p -> Math.hypot(p.east - e, p.north - n) < 0.01) ? 1 : 0;
      }
      if (standing > 0) {
        walled++;
        withGate += standing < count ? 1 : 0;
      }
    }
    assertThat(walled).isGreaterThan(5);
    assertThat(withGate).isEqualTo(walled);
  }

  @Test
  void piecesFollowTheGround() {
    for (Solid piece : pieces) {
      for (int k = 0; k < piece.facets(); k++) {
        for (double[] corner : piece.facet(k)) {
          double above = corner[2] - ground.height(corner[0], corner[1]);
          assertThat(above).isBetween(0.2, 5.0);
        }
      }
    }
  }
}
