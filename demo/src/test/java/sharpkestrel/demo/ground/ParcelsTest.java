package sharpkestrel.demo.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.EnumMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

class ParcelsTest {

  private static final Extent BOX = new Extent(500_000, 6_700_000, 501_500, 6_701_500);

  private final Parcels good = new Parcels(5, IslesPlan.parting((e, n) -> 1));

  /** The parcels met by points 4 m apart. */
  private static Map<Parcel, Integer> met(Parcels parcels) {
    Map<Parcel, Integer> met = new IdentityHashMap<>();
    for (double n = BOX.south() + 2; n < BOX.north(); n += 4) {
      for (double e = BOX.west() + 2; e < BOX.east(); e += 4) {
        met.merge(parcels.at(e, n), 1, Integer::sum);
      }
    }
    return met;
  }

  @Test
  void theLandIsPartedWithoutGapsOrOverlaps() {
    List<Geometry> areas =
        met(good).keySet().stream().map(p -> Parishes.polygon(p.ring())).toList();
    double sum = areas.stream().mapToDouble(Geometry::getArea).sum();
    Geometry all = UnaryUnionOp.union(areas);

    assertThat(all.getArea()).isCloseTo(sum, within(1.0));
    Geometry box = Parishes.polygon(
        Polygons.oblong(BOX.west() + 750, BOX.south() + 750, 0, BOX.width(), BOX.height()));
    assertThat(box.difference(all).getArea()).isLessThan(20);
  }

  @Test
  void aPlaceLiesInItsParcel() {
    Chance chance = Chance.of(1, 5);
    for (int k = 0; k < 2000; k++) {
      double e = chance.between(BOX.west(), BOX.east());
      double n = chance.between(BOX.south(), BOX.north());
      Geometry point = Parishes.polygon(Polygons.oblong(e, n, 0, 1e-3, 1e-3));

      assertThat(Parishes.polygon(good.at(e, n).ring()).distance(point)).isLessThan(1e-3);
    }
  }

  @Test
  void acrossABoundaryLiesAnotherParcel() {
    int lines = 0;
    for (Parcels.Boundary line : good.boundaries(BOX)) {
      double length = Math.hypot(line.e1() - line.e0(), line.n1() - line.n0());
      if (length < 8) {
        continue;
      }
      double e = (line.e0() + line.e1()) / 2;
      double n = (line.n0() + line.n1()) / 2;
      double se = -0.05 * (line.n1() - line.n0()) / length;
      double sn = 0.05 * (line.e1() - line.e0()) / length;

      assertThat(good.at(e + se, n + sn)).isNotSameAs(good.at(e - se, n - sn));
      lines++;
    }
    assertThat(lines).isGreaterThan(200);
  }

  @Test
  void aBoundaryIsGivenOnceOnly() {
    List<Parcels.Boundary> lines = good.boundaries(BOX);
    long middles = lines.stream()
        .map(l -> Math.round((l.e0() + l.e1()) * 50) + "/" + Math.round((l.n0() + l.n1()) * 50))
        .distinct()
        .count();

    assertThat(middles).isEqualTo(lines.size());
  }

  @Test
  void goodLandIsWorkedInTheSharesOfItsUsesAndPoorLandIsOpen() {
    Map<Parcel.Use, Integer> uses = new EnumMap<>(Parcel.Use.class);
    int parcels = 0;
    for (int seed = 1; seed <= 6; seed++) {
      for (Parcel parcel :
          met(new Parcels(seed, IslesPlan.parting((e, n) -> 1))).keySet()) {
        uses.merge(parcel.use(), 1, Integer::sum);
        parcels++;
      }
    }

    assertThat(uses).doesNotContainKey(Parcel.Use.OPEN);
    // 34 of 100 are pasture; three standard errors
    double slack = 3 * Math.sqrt(0.34 * 0.66 / parcels);
    assertThat((double) uses.get(Parcel.Use.PASTURE) / parcels).isCloseTo(0.34, within(slack));
    assertThat(met(new Parcels(5, IslesPlan.parting((e, n) -> 0))).keySet())
        .allMatch(p -> p.use() == Parcel.Use.OPEN);
  }

  @Test
  void fieldsAreOfTheSizeOfFields() {
    double[] areas = met(good).keySet().stream()
        .mapToDouble(p -> Polygons.area(p.ring()))
        .sorted()
        .toArray();

    assertThat(areas[areas.length / 2]).isBetween(2000.0, 15_000.0);
    assertThat(areas[areas.length - 1]).isLessThan(19_000);
  }

  @Test
  void askingInAnotherOrderGivesTheSameParcels() {
    Parcels one = new Parcels(8, IslesPlan.parting((e, n) -> 1));
    Parcels other = new Parcels(8, IslesPlan.parting((e, n) -> 1));
    Parcel first = one.at(BOX.west(), BOX.south());
    Parcel last = one.at(BOX.east(), BOX.north());

    assertThat(other.at(BOX.east(), BOX.north()).ring()).isEqualTo(last.ring());
    assertThat(other.at(BOX.west(), BOX.south()).ring()).isEqualTo(first.ring());
  }
}
