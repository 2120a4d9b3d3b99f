package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sharpkestrel.expr.ExpressionException;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Cancellation;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.ScratchLabels;

class OutlineObjectsTest {

  /** Objects 1 to n of a picture of digits; a dot is no object. Pixels are half a metre. */
  private static ObjectSet picture(String... lines) {
    int width = lines[0].length();
    int[] labels = new int[width * lines.length];
    int n = 0;
    for (int i = 0; i < labels.length; i++) {
      char c = lines[i / width].charAt(i % width);
      labels[i] = c == '.' ? 0 : c - '0';
      n = Math.max(n, labels[i]);
    }
    return of(labels, width, lines.length, n);
  }

  private static ObjectSet of(int[] labels, int width, int height, int n) {
    Grid grid =
        new Grid(width, height, Affine.northUp(512_000, 6_702_000, 0.5), CrsName.epsg(32630));
    ScratchLabels scratch = new ScratchLabels(grid);
    scratch.write(grid.window(), labels);
    scratch.setMaxLabel(n);
    double[] area = new double[n];
    double[] warmth = new double[n];
    int[] rowOf = new int[n + 1];
    int[] ids = new int[n];
    Arrays.setAll(rowOf, label -> label - 1);
    Arrays.setAll(ids, row -> row + 100);
    Arrays.setAll(warmth, row -> 10.0 * (row + 1));
    for (int label : labels) {
      if (label > 0) {
        area[label - 1] += 0.25;
      }
    }
    Table table = new Table(
        n,
        List.of(
            new Table.Column("area", "Area", "m²", area),
            new Table.Column("warmth", "Warmth", "K", warmth)));
    return new ObjectSet(scratch, rowOf, ids, table, new GroundSize(0.5, 0.5));
  }

  private static OutlineSet exact(ObjectSet objects, double leastWidth, String keep) {
    return new OutlineObjects(
            objects,
            OutlineObjects.Form.EXACT,
            0.6,
            true,
            leastWidth,
            10,
            Optional.of(keep).filter(test -> !test.isEmpty()))
        .run(Job.QUIET);
  }

  @Test
  void theTwoHalvesOfARoofBecomeOneOutlineAndADiagonalNeighbourStaysApart() {
    ObjectSet objects = picture(
        "..........", //
        ".111222...", //
        ".111222...", //
        ".......333", //
        ".......333");

    OutlineSet outlines = exact(objects, 0, "");

    assertThat(outlines.count()).isEqualTo(2);
    assertThat(outlines.table().values("area")).containsExactly(3, 1.5);
    assertThat(outlines.table().values("objects")).containsExactly(2, 1);
    assertThat(outlines.table().values("warmth")).containsExactly(15, 30);
    assertThat(outlines.outlines().get(0).getEnvelopeInternal().getMinX()).isEqualTo(512_000.5);
    assertThat(outlines.outlines().get(0).getEnvelopeInternal().getMaxY()).isEqualTo(6_701_999.5);
  }

  @Test
  void aNarrowNeckIsCutAndATongueTakenOff() {
    ObjectSet objects = picture(
        "111111....111111", //
        "111111....111111", //
        "1111111111111111", //
        "111111....111111", //
        "111111....111111", //
        "111111..........", //
        "1...............", //
        "1...............");

    OutlineSet outlines = exact(objects, 1.5, "");

    assertThat(outlines.table().values("area")).containsExactlyInAnyOrder(9, 7.5);
  }

  @Test
  void onlyOutlinesThatPassAreKept() {
    ObjectSet objects = picture(
        "1111....2...", //
        "1111....22..", //
        "1111....222.", //
        "1111....2222");

    OutlineSet outlines = exact(objects, 0, "rectangularity > 0.9 AND warmth < 15");

    assertThat(outlines.count()).isEqualTo(1);
    assertThat(outlines.table().values("rectangularity")[0]).isCloseTo(1, within(1e-9));
    assertThat(outlines.table().values("elongation")[0]).isCloseTo(1, within(1e-9));
  }

  @Test
  void aTestOfWhatOutlinesDoNotHaveNamesWhatTheyHave() {
    ObjectSet objects = picture("11", "11");

    assertThatThrownBy(() -> exact(objects, 0, "colour > 3"))
        .isInstanceOf(ExpressionException.class)
        .hasMessageContaining("colour")
        .hasMessageContaining("rectangularity");
  }

  @Test
  void nothingToOutlineGivesNoOutlines() {
    ObjectSet none = picture("11", "11").select(new int[0]);

    assertThat(exact(none, 1, "area > 2").count()).isZero();
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5})
  void groupsAreThoseOfAFloodFill(long seed) {
    int width = 60;
    int height = 41;
    int n = 500;
    Random random = new Random(seed);
    int[] labels = new int[width * height];
    for (int i = 0; i < labels.length; i++) {
      labels[i] = random.nextInt(3) == 0 ? 0 : 1 + i / 5 % n;
    }
    ObjectSet objects = of(labels, width, height, n);

    TouchingGroups groups = TouchingGroups.of(objects, true, Cancellation.NEVER);

    int[] flooded = flood(labels, width, height, n);
    Map<Integer, Integer> same = new HashMap<>();
    for (int label : labels) {
      if (label > 0) {
        int group = groups.of(label - 1);
        assertThat(same.computeIfAbsent(group, g -> flooded[label])).isEqualTo(flooded[label]);
      }
    }
    long distinct = same.values().stream().distinct().count();
    assertThat(distinct).isEqualTo(same.size());
  }

  /** For each label the lowest label it hangs together with, by a plain flood over labels. */
  private static int[] flood(int[] labels, int width, int height, int n) {
    boolean[][] beside = new boolean[n + 1][n + 1];
    for (int i = 0; i < labels.length; i++) {
      if (i % width + 1 < width) {
        beside[labels[i]][labels[i + 1]] = beside[labels[i + 1]][labels[i]] = true;
      }
      if (i + width < labels.length) {
        beside[labels[i]][labels[i + width]] = beside[labels[i + width]][labels[i]] = true;
      }
    }
    int[] lowest = new int[n + 1];
    for (int start = 1; start <= n; start++) {
      if (lowest[start] != 0) {
        continue;
      }
      ArrayDeque<Integer> queue = new ArrayDeque<>(List.of(start));
      lowest[start] = start;
      while (!queue.isEmpty()) {
        int at = queue.poll();
        for (int other = 1; other <= n; other++) {
          if (beside[at][other] && lowest[other] == 0) {
            lowest[other] = start;
            queue.add(other);
          }
        }
      }
    }
    return lowest;
  }
}
