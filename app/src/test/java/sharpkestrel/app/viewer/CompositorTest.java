package sharpkestrel.app.viewer;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.app.model.ObjectStyle;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.MemoryRaster;
import sharpkestrel.raster.SampleType;
import sharpkestrel.raster.ScratchLabels;

/** What comes on the screen, pixel by pixel. */
class CompositorTest {

  private static final int WIDTH = 90;
  private static final int HEIGHT = 60;
  private static final int FILL = 0xff336699;

  private final Compositor compositor = new Compositor();

  private int at(int x, int y) {
    return compositor.pixels()[y * WIDTH + x];
  }

  /** A chequered raster: bright where column and row are both even, without data in the first column. */
  private static MemoryRaster chequered() {
    float[] plane = new float[40 * 30];
    for (int i = 0; i < plane.length; i++) {
      plane[i] = i % 40 == 0 ? Float.NaN : (i % 40 + i / 40) % 2 == 0 ? 1 : 0;
    }
    return new MemoryRaster(
        Grid.ofPixels(40, 30),
        List.of(Band.of(BandRole.PAN, SampleType.FLOAT32)),
        Attachments.NONE,
        new float[][] {plane});
  }

  private void drawChequered(Affine toPixels) throws InterruptedException {
    CountDownLatch arrived = new CountDownLatch(1);
    ImageTiles tiles = new ImageTiles(
        chequered(),
        new int[] {0, 0, 0},
        Stretch.of(new float[3], new float[] {1, 1, 1}),
        arrived::countDown);
    compositor.begin(WIDTH, HEIGHT);
    assertThat(compositor.drawRaster(tiles, toPixels, 0, 0, WIDTH, HEIGHT)).isFalse();
    assertThat(arrived.await(20, TimeUnit.SECONDS)).isTrue();
    compositor.begin(WIDTH, HEIGHT);
    assertThat(compositor.drawRaster(tiles, toPixels, 0, 0, WIDTH, HEIGHT)).isTrue();
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2})
  void everyScreenPixelShowsTheScenePixelUnderItsMiddle(int screenPixels) throws Exception {
    drawChequered(new Affine(1.0 / screenPixels, 0, -3, 0, 1.0 / screenPixels, -2));

    for (int y = 0; y < HEIGHT; y++) {
      for (int x = 0; x < WIDTH; x++) {
        int col = (int) Math.floor((x + 0.5) / screenPixels - 3);
        int row = (int) Math.floor((y + 0.5) / screenPixels - 2);
        boolean inside = col > 0 && col < 40 && row >= 0 && row < 30;
        int expected = !inside ? Compositor.WELL : (col + row) % 2 == 0 ? 0xffffffff : 0xff000000;
        assertThat(at(x, y)).as("screen pixel %d %d", x, y).isEqualTo(expected);
      }
    }
  }

  /** Labels 1 and 2 left and right of column 20, label 3 in a square of 2 x 2 at the middle of the left half. */
  private static LabelTiles labels() throws InterruptedException {
    Grid grid = Grid.ofPixels(40, 30);
    int[] values = new int[40 * 30];
    for (int i = 0; i < values.length; i++) {
      int col = i % 40;
      int row = i / 40;
      boolean speck = col >= 10 && col < 12 && row >= 14 && row < 16;
      values[i] = speck ? 3 : col < 20 ? 1 : 2;
    }
    ScratchLabels scratch = new ScratchLabels(grid);
    scratch.write(grid.window(), values);
    CountDownLatch arrived = new CountDownLatch(1);
    LabelTiles tiles = new LabelTiles(scratch, arrived::countDown);
    tiles.get(0, 0, 0);
    assertThat(arrived.await(20, TimeUnit.SECONDS)).isTrue();
    return tiles;
  }

  private static ObjectPaint paint(int selected) {
    boolean[] bordered = new boolean[3];
    Arrays.fill(bordered, true);
    return new ObjectPaint(
        new int[] {-1, 0, 1, 2},
        new int[] {11, 12, 13},
        new int[] {0, FILL, 0},
        bordered,
        new float[] {24, 24, 2},
        selected,
        new int[0]);
  }

  private void drawObjects(ObjectPaint paint) throws InterruptedException {
    compositor.begin(WIDTH, HEIGHT);
    boolean complete =
        compositor.drawObjects(labels(), paint, Affine.IDENTITY, 0, 0, WIDTH, HEIGHT);
    assertThat(complete).isTrue();
  }

  @Test
  void anObjectIsFilledToItsBorderAndOthersAreNot() throws Exception {
    drawObjects(paint(-1));

    assertThat(at(30, 10)).isEqualTo(FILL);
    assertThat(at(5, 10)).isEqualTo(Compositor.WELL);
    assertThat(at(60, 10)).isEqualTo(Compositor.WELL);
  }

  @Test
  void theBorderLiesBetweenTwoObjectsAndIsLightOverADarkHalo() throws Exception {
    drawObjects(paint(-1));

    for (int y = 5; y < 12; y++) {
      assertThat(at(19, y)).as("on the border").isEqualTo(Drawings.LIGHT);
      assertThat(at(18, y)).as("halo beside it").isNotEqualTo(Compositor.WELL);
      assertThat(at(16, y)).as("beyond the halo").isEqualTo(Compositor.WELL);
    }
  }

  @Test
  void theBorderOfATinyObjectFadesUnlessItIsChosen() throws Exception {
    drawObjects(paint(-1));
    assertThat(at(11, 14)).isEqualTo(Compositor.WELL);

    drawObjects(paint(2));
    assertThat(at(11, 14)).isNotEqualTo(Compositor.WELL);
  }

  @Test
  void outlinesAreAsWideAndAsOpaqueAsTheyAreToBe() throws Exception {
    compositor.setStyle(ObjectStyle.INITIAL.withWidth(3));
    drawObjects(paint(-1));
    for (int x = 18; x <= 20; x++) {
      assertThat(at(x, 8)).as("in the line").isEqualTo(Drawings.LIGHT);
    }
    assertThat(at(17, 8)).as("halo beside it").isNotEqualTo(Compositor.WELL);
    assertThat(at(16, 8)).isEqualTo(Compositor.WELL);

    compositor.setStyle(ObjectStyle.INITIAL.withOpacity(0.5));
    drawObjects(paint(-1));
    int half = at(19, 8) >> 8 & 0xff;
    assertThat(half).isBetween((0xf4 + 0x20) / 2 - 3, (0xf4 + 0x20) / 2 + 3);
  }

  @Test
  void onlyThePickedObjectOrNoneHasAnOutlineWhereThatIsChosen() throws Exception {
    compositor.setStyle(ObjectStyle.INITIAL.with(ObjectStyle.Which.PICKED));
    drawObjects(paint(-1));
    assertThat(at(19, 8)).isEqualTo(Compositor.WELL);
    drawObjects(paint(1));
    assertThat(at(19, 8)).isNotEqualTo(Compositor.WELL);

    compositor.setStyle(ObjectStyle.INITIAL.with(ObjectStyle.Which.NONE));
    drawObjects(paint(-1));
    assertThat(at(19, 8)).isEqualTo(Compositor.WELL);
    assertThat(at(30, 10)).isEqualTo(FILL);
  }

  @Test
  void aCutThroughWhatWasOneIsAsWarmAsThePickedOnesBorder() throws Exception {
    ObjectPaint plain = paint(-1);
    drawObjects(plain);
    int border = at(19, 8);
    drawObjects(paint(1));
    int picked = at(19, 8);

    ObjectPaint cut = new ObjectPaint(
        plain.rowOf(), plain.ids(), plain.fill(), plain.bordered(), plain.sides(), -1, new int[] {
          4, 4, RedrawnObjects.SEVERAL
        });
    drawObjects(cut);
    assertThat(at(19, 8)).isEqualTo(picked).isNotEqualTo(border);

    assertThat(cut.isCut(0, 1)).isTrue();
    assertThat(cut.isCut(1, 2)).isFalse();
    assertThat(plain.isCut(0, 1)).isFalse();
  }

  @Test
  void aColourAtRandomGoesWithTheObjectAndLeavesTheToolsFill() throws Exception {
    compositor.setStyle(ObjectStyle.INITIAL.with(ObjectStyle.Fill.RANDOM));
    drawObjects(paint(-1));

    int colour = at(5, 10);
    assertThat(colour).isNotEqualTo(Compositor.WELL);
    assertThat(at(5, 20)).isEqualTo(colour);
    assertThat(at(30, 10)).isEqualTo(FILL);
    ObjectPaint other = new ObjectPaint(
        new int[] {-1, 1, 0},
        new int[] {40, 11},
        new int[2],
        new boolean[] {true, true},
        new float[] {24, 24},
        -1,
        new int[0]);
    // known by the same number in another row, as after a change of grain
    assertThat(other.random(1)).isEqualTo(paint(-1).random(0));
  }

  @Test
  void objectsStayInTheirPartOfTheScreen() throws Exception {
    compositor.begin(WIDTH, HEIGHT);
    compositor.drawObjects(labels(), paint(-1), Affine.IDENTITY, 0, 0, 25, 12);

    assertThat(at(24, 10)).isEqualTo(FILL);
    assertThat(at(25, 10)).isEqualTo(Compositor.WELL);
    assertThat(at(24, 12)).isEqualTo(Compositor.WELL);
  }

  @Test
  void theSwipesLineIsWhiteBetweenDarkOnes() {
    compositor.begin(WIDTH, HEIGHT);

    compositor.drawLine(40);

    assertThat(at(40, 30)).isEqualTo(0xffffffff);
    assertThat(at(39, 30)).isNotEqualTo(0xffffffff);
    assertThat(at(43, 30)).isEqualTo(Compositor.WELL);
  }
}
