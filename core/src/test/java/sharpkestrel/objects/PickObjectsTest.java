package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Made;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.Segments;

class PickObjectsTest {

  private static final Raster SCENE = Made.placed(
      80,
      80,
      0.5,
      (b, col, row) -> col >= 30 && col < 50 && row >= 30 && row < 50 ? 300 : 20 + 10 * (col / 40),
      BandRole.PAN);

  private final Cut tree = Segments.of(SCENE, 20).run(Job.QUIET);

  @Test
  void aPlaceAndAnAreaNameANodeAgain() {
    String places =
        PickObjects.toText(List.of(List.of(new PickObjects.Part(512_020, 6_701_980, 100))));

    ObjectSet picked = new PickObjects(tree, places).run(Job.QUIET);

    assertThat(picked.count()).isEqualTo(1);
    assertThat(picked.table().values("area")[0]).isCloseTo(100, within(2.0));
    coversTheBlock(picked);
  }

  /** The object covers the block of 20 x 20 pixels. */
  private static void coversTheBlock(ObjectSet picked) {
    assertThat(ObjectGeometry.of(picked).bounds(0).width()).isBetween(19, 21);
    assertThat(ObjectGeometry.of(picked).bounds(0).height()).isBetween(19, 21);
  }

  @Test
  void whatTheTreeDoesNotHaveIsSaid() {
    assertThatThrownBy(() -> new PickObjects(tree, "512020 6701980 57").run(Job.QUIET))
        .hasMessageContaining("57.0 m²")
        .hasMessageContaining("pick it again");
    assertThatThrownBy(() -> new PickObjects(tree, "512020 6701980"))
        .hasMessageContaining("east, north and area");
    assertThatThrownBy(() -> new PickObjects(tree, " ")).hasMessageContaining("nothing to pick");
  }
}
