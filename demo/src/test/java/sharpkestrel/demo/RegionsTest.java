package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.demo.ground.Road;
import sharpkestrel.demo.light.Material;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Solid;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.RasterException;

class RegionsTest {

  private static Scheme of(Region region) {
    return new Scheme(region, Season.LEAF_ON, Instrument.SIX_BANDS, Sky.PLAIN);
  }

  private static World world(Region region, long seed, int size) {
    return new World(seed, size, Scenario.WHOLE, of(region));
  }

  @ParameterizedTest
  @EnumSource(value = Region.class, mode = EnumSource.Mode.EXCLUDE, names = "ISLES")
  void buildingsStandOnDryGroundBesideRoads(Region region) {
    World world = world(region, 3, 768);

    assertThat(world.things().buildings()).hasSizeGreaterThan(20);
    for (Building building : world.things().buildings()) {
      for (Solid part : building.parts()) {
        double[] plan = part.plan();
        for (int k = 0; k < plan.length; k += 2) {
          assertThat(world.ground().landform().at(plan[k], plan[k + 1])).isGreaterThan(0);
          assertThat(world.ground().roads().beyondEdge(plan[k], plan[k + 1])).isGreaterThan(0);
        }
        assertThat(world.ground().roads().beyondEdge(part.east, part.north)).isGreaterThan(0);
      }
    }
  }

  @ParameterizedTest
  @EnumSource(value = Region.class, mode = EnumSource.Mode.EXCLUDE, names = "ISLES")
  void aSeedIsOnePlaceHoweverMuchOfItIsSeen(Region region) {
    World small = world(region, 4, 384);
    World large = world(region, 4, 768);
    Extent shared = small.extent().grown(-60);

    assertThat(plans(small, shared)).isNotEmpty().isEqualTo(plans(large, shared));
    assertThat(plans(world(region, 5, 384), world(region, 5, 384).extent()))
        .doesNotContainAnyElementsOf(plans(small, shared));
  }

  private static Set<List<Double>> plans(World world, Extent extent) {
    return world.things().buildings().stream()
        .filter(building -> extent.holds(building.east(), building.north()))
        .map(building -> List.of(building.east(), building.north(), building.height()))
        .collect(Collectors.toSet());
  }

  private static Map<Material, Long> roofs(World world) {
    return world.things().buildings().stream()
        .collect(Collectors.groupingBy(Building::roof, Collectors.counting()));
  }

  @Test
  void eachRegionIsRoofedAsItsPeopleDo() {
    Map<Material, Long> town = roofs(world(Region.OLD_TOWN, 3, 768));
    Map<Material, Long> plateau = roofs(world(Region.PLATEAU, 3, 768));
    Map<Material, Long> suburb = roofs(world(Region.SUBURB, 3, 768));

    assertThat(share(town, Material.TILE_ROOF)).isBetween(0.5, 0.85);
    assertThat(share(plateau, Material.CONCRETE_ROOF)).isBetween(0.4, 0.75);
    assertThat(share(suburb, Material.SHINGLE_ROOF)).isBetween(0.3, 0.65);
    assertThat(plateau).containsKeys(Material.METAL_ROOF, Material.TILE_ROOF);
  }

  private static double share(Map<Material, Long> roofs, Material material) {
    return (double) roofs.getOrDefault(material, 0L)
        / roofs.values().stream().mapToLong(Long::longValue).sum();
  }

  /** In the old town houses stand wall to wall, in the suburb each for itself. */
  @Test
  void housesOfTheOldTownTouchThoseOfTheSuburbDoNot() {
    assertThat(touching(world(Region.OLD_TOWN, 6, 512))).isGreaterThan(0.3);
    assertThat(touching(world(Region.SUBURB, 6, 512))).isLessThan(0.1);
  }

  private static double touching(World world) {
    List<Building> houses = world.things().buildings().stream()
        .filter(b -> b.use() == Building.Use.DWELLING && world.extent().holds(b.east(), b.north()))
        .toList();
    long close = houses.stream()
        .filter(one -> houses.stream().anyMatch(other -> other != one && gap(one, other) < 0.2))
        .count();
    return (double) close / houses.size();
  }

  private static double gap(Building one, Building other) {
    double least = Double.POSITIVE_INFINITY;
    Solid part = one.parts().getFirst();
    double[] plan = other.parts().getFirst().plan();
    if (Math.hypot(one.east() - other.east(), one.north() - other.north()) > 40) {
      return least;
    }
    for (int k = 0; k < plan.length; k += 2) {
      least = Math.min(least, -part.inside(plan[k], plan[k + 1]));
    }
    return least;
  }

  @Test
  void avenuesAreMarkedAndRoadsOfEarthAreThePlateaus() {
    assertThat(kinds(Region.PLATEAU)).contains(Road.Kind.DIRT, Road.Kind.MAIN);
    assertThat(kinds(Region.SUBURB))
        .contains(Road.Kind.AVENUE, Road.Kind.RAIL)
        .doesNotContain(Road.Kind.DIRT);
    assertThat(kinds(Region.OLD_TOWN)).contains(Road.Kind.LANE);
  }

  @Test
  void nothingStandsOnTheRails() {
    World world = world(Region.SUBURB, 2, 768);

    assertThat(world.ground().roads().all().stream()
            .filter(road -> road.kind() == Road.Kind.RAIL)
            .flatMap(road -> java.util.stream.IntStream.range(0, road.points())
                .mapToObj(k -> new double[] {road.e(k), road.n(k)}))
            .filter(at -> world.extent().holds(at[0], at[1])))
        .isNotEmpty()
        .allSatisfy(at -> assertThat(world.things().solids(Extent.around(at[0], at[1], 1)))
            .allSatisfy(solid -> assertThat(solid.inside(at[0], at[1])).isNegative()));
  }

  private static Set<Road.Kind> kinds(Region region) {
    return world(region, 2, 512).ground().roads().all().stream()
        .map(Road::kind)
        .collect(Collectors.toSet());
  }

  @Test
  void whatIsNoPartOfARegionIsRefused() {
    assertThatThrownBy(() -> new World(1, 512, Scenario.HARBOUR, of(Region.PLATEAU)))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("Of Ansakar there is the whole alone");
    assertThatThrownBy(() -> Region.of("coast"))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("isles, old-town, plateau, farmland or suburb");
  }
}
