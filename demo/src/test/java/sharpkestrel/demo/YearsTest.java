package sharpkestrel.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import sharpkestrel.demo.light.Season;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.things.Building;
import sharpkestrel.demo.things.Change;
import sharpkestrel.raster.RasterException;

/** The same place some years later. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class YearsTest {

  private World world;

  private static Scheme later(Region region, int years) {
    return new Scheme(region, Season.LEAF_ON, Instrument.SIX_BANDS, Sky.CLEAR, years);
  }

  @BeforeAll
  void aTown() {
    world = new World(4, 1024, Scenario.WHOLE, later(Region.OLD_TOWN, 6));
  }

  private List<Change> of(Change.Kind kind) {
    return world.changes().stream().filter(change -> change.kind() == kind).toList();
  }

  @Test
  void whatWasBuiltIsThereAndWhatWasPulledDownIsNot() {
    Set<Building> before = new HashSet<>(world.things().buildings());
    Set<Building> after = new HashSet<>(world.thingsOfDayTwo().buildings());

    assertThat(of(Change.Kind.BUILT)).isNotEmpty().allSatisfy(change -> {
      assertThat(after).contains(change.after());
      assertThat(before).doesNotContain(change.after());
    });
    assertThat(of(Change.Kind.PULLED_DOWN)).isNotEmpty().allSatisfy(change -> {
      assertThat(before).contains(change.before());
      assertThat(after).doesNotContain(change.before());
    });
  }

  /** Whatever is not told as changed is as it was. */
  @Test
  void everyDifferenceIsTold() {
    Set<Building> before = new HashSet<>(world.things().buildings());
    Set<Building> after = new HashSet<>(world.thingsOfDayTwo().buildings());
    Set<Building> told = world.changes().stream()
        .flatMap(change -> java.util.stream.Stream.of(change.before(), change.after()))
        .filter(building -> building != null)
        .collect(Collectors.toSet());
    Set<Building> differ = new HashSet<>(before);
    differ.addAll(after);
    differ.removeIf(building -> before.contains(building) && after.contains(building));

    assertThat(differ).isEqualTo(told);
  }

  @Test
  void anotherRoofHasTheSameOutlineAnExtensionALargerOne() {
    assertThat(of(Change.Kind.REROOFED)).isNotEmpty().allSatisfy(change -> {
      assertThat(change.after().roof()).isNotEqualTo(change.before().roof());
      assertThat(change.after().height()).isEqualTo(change.before().height());
      assertThat(change.after().parts().getFirst().plan())
          .containsExactly(change.before().parts().getFirst().plan());
    });
    assertThat(of(Change.Kind.EXTENDED))
        .isNotEmpty()
        .allSatisfy(change ->
            assertThat(change.after().parts()).hasSize(change.before().parts().size() + 1));
  }

  /** Of 0.8 % of all buildings a year for pulling down and 1.2 % for roofs, in six years. */
  @Test
  void aboutAsMuchChangesAsYearsWouldHaveIt() {
    double count = world.things().buildings().size();

    assertThat(of(Change.Kind.PULLED_DOWN).size() / count).isBetween(0.03, 0.07);
    assertThat(of(Change.Kind.BUILT).size() / count).isBetween(0.005, 0.08);
  }

  @Test
  void bothScenesShowTheSameGroundYearsApart() {
    long days = java.time.Duration.between(
            world.one().conditions().time(), world.two().conditions().time())
        .toDays();

    assertThat(days / 365.25).isBetween(5.0, 7.0);
    double[] one = world.middleOf(world.one());
    double[] two = world.middleOf(world.two());
    assertThat(Math.hypot(one[0] - two[0], one[1] - two[1])).isLessThan(10);
    assertThatThrownBy(() -> later(Region.ISLES, 99))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining("0 to 30");
  }
}
