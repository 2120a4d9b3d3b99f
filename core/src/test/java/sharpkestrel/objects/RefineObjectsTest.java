package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import sharpkestrel.expr.Table;
import sharpkestrel.objects.RefineObjects.Neighbour;
import sharpkestrel.objects.RefineObjects.Operation;
import sharpkestrel.raster.Job;

class RefineObjectsTest {

  private static ObjectSet refine(ObjectSet set, Operation operation, Optional<String> test) {
    return refine(
        set,
        operation,
        test,
        Optional.empty(),
        Optional.empty(),
        1,
        10,
        Neighbour.LONGEST_BORDER,
        3);
  }

  private static ObjectSet refine(
      ObjectSet set,
      Operation operation,
      Optional<String> test,
      Optional<String> same,
      Optional<String> into,
      int rounds,
      double area,
      Neighbour neighbour,
      double neck) {
    return new RefineObjects(
            set, Optional.empty(), operation, test, same, into, rounds, area, neighbour, neck)
        .run(Job.QUIET);
  }

  private static ObjectSet with(ObjectSet set, String name, double... values) {
    return set.withTable(set.table().with(List.of(new Table.Column(name, name, "", values))));
  }

  @Test
  void neighboursThatPassBecomeOneAndOthersStay() {
    ObjectSet set = with(Drawn.of("aabbcc", "aabbcc", "dddddd"), "ndvi", 0.6, 0.7, 0.1, 0.8);

    ObjectSet merged = refine(set, Operation.MERGE, Optional.of("ndvi > 0.5"));

    assertThat(Drawn.letters(merged)).containsExactly("aaaabb", "aaaabb", "aaaaaa");
    assertThat(merged.table().values("area")).containsExactly(14, 4);
    // the largest member gives its id
    assertThat(merged.ids()).containsExactly(103, 102);
  }

  @Test
  void onlyNeighboursOfTheSameClassBecomeOne() {
    ObjectSet drawn = Drawn.of("abcd");
    ObjectSet set = drawn.withTable(drawn
        .table()
        .with(List.of(Table.Column.ofTexts("class", "Class", List.of("x", "x", "y", "y")))));

    ObjectSet merged = refine(
        set,
        Operation.MERGE,
        Optional.empty(),
        Optional.of("class"),
        Optional.empty(),
        1,
        10,
        Neighbour.LONGEST_BORDER,
        3);

    assertThat(Drawn.letters(merged)).containsExactly("aabb");
    assertThat(merged.table().column("class").text(1)).isEqualTo("y");
  }

  @Test
  void smallObjectsGoAlongTheLongestBorderOrToTheMostSimilar() {
    String[] rows = {"aaaabb", "aaccbb", "aaaabb"};
    ObjectSet set = with(Drawn.of(rows), "red_mean", 10, 50, 45);

    ObjectSet byBorder = refine(
        set,
        Operation.DISSOLVE,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        1,
        3,
        Neighbour.LONGEST_BORDER,
        3);
    ObjectSet byColour = refine(
        set,
        Operation.DISSOLVE,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        1,
        3,
        Neighbour.MOST_SIMILAR,
        3);

    assertThat(Drawn.letters(byBorder)).containsExactly("aaaabb", "aaaabb", "aaaabb");
    assertThat(Drawn.letters(byColour)).containsExactly("aaaabb", "aabbbb", "aaaabb");
    assertThat(byColour.table().values("area")).containsExactly(10, 8);
  }

  @Test
  void dissolvingOnlyWhatPassesLeavesOtherSmallObjects() {
    ObjectSet set = with(Drawn.of("aabcaa", "aaaaaa"), "red_mean", 1, 2, 3);

    ObjectSet refined = refine(
        set,
        Operation.DISSOLVE,
        Optional.of("red_mean = 2"),
        Optional.empty(),
        Optional.empty(),
        1,
        5,
        Neighbour.LONGEST_BORDER,
        3);

    assertThat(Drawn.letters(refined)).containsExactly("aaabaa", "aaaaaa");
    assertThat(refined.table().values("area")).containsExactly(11, 1);
  }

  @Test
  void growingTakesRingAfterRingOfWhatMayBeTaken() {
    ObjectSet set = with(Drawn.of("abcdef"), "light", 9, 2, 2, 2, 8, 2);

    ObjectSet once = refine(
        set,
        Operation.GROW,
        Optional.of("light > 8.5"),
        Optional.empty(),
        Optional.of("light < 5"),
        1,
        10,
        Neighbour.LONGEST_BORDER,
        3);
    ObjectSet often = refine(
        set,
        Operation.GROW,
        Optional.of("light > 8.5"),
        Optional.empty(),
        Optional.of("light < 5"),
        9,
        10,
        Neighbour.LONGEST_BORDER,
        3);

    assertThat(Drawn.letters(once)).containsExactly("aabcde");
    assertThat(Drawn.letters(often)).containsExactly("aaaabc");
  }

  @Test
  void holesCloseFromWithinAndWhatReachesTheEdgeIsNone() {
    ObjectSet set = Drawn.of("aaaaaad", "abbbaae", "abcbaae", "abbbaae", "aaaaaad");

    ObjectSet filled = refine(set, Operation.FILL_HOLES, Optional.empty());

    assertThat(Drawn.letters(filled))
        .containsExactly("aaaaaab", "aaaaaac", "aaaaaac", "aaaaaac", "aaaaaab");
  }

  @Test
  void twoHullsRaftedTogetherFallApartAtTheNeck() {
    ObjectSet set = Drawn.of(
        "..............",
        ".aaaaa...aaaa.",
        ".aaaaa...aaaa.",
        ".aaaaaaaaaaaa.",
        ".aaaaa...aaaa.",
        ".aaaaa...aaaa.",
        "..............");

    ObjectSet split = refine(
        set,
        Operation.SPLIT_NECKS,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        1,
        10,
        Neighbour.LONGEST_BORDER,
        2);

    String[] rows = Drawn.letters(split);
    assertThat(rows[1]).isEqualTo(".aaaaa...bbbb.");
    assertThat(rows[5]).isEqualTo(".aaaaa...bbbb.");
    assertThat(rows[3]).startsWith(".aaaaaa").endsWith("bbbbb.");
    assertThat(split.count()).isEqualTo(2);
    assertThat(split.table().values("area")[0] + split.table().values("area")[1])
        .isEqualTo(48);
  }

  @Test
  void finerObjectsTakeThePlaceOfThoseThatPass() {
    ObjectSet coarse = with(Drawn.of("aaaabbbb", "aaaabbbb"), "red_mean", 1, 2);
    ObjectSet fine = Drawn.of("aabbccdd", "aabbccdd");

    ObjectSet refined = new RefineObjects(
            coarse,
            Optional.of(fine),
            Operation.FINER,
            Optional.of("red_mean = 1"),
            Optional.empty(),
            Optional.empty(),
            1,
            10,
            Neighbour.LONGEST_BORDER,
            3)
        .run(Job.QUIET);

    assertThat(Drawn.letters(refined)).containsExactly("aaccbbbb", "aaccbbbb");
    assertThat(refined.table().values("area")).containsExactly(4, 8, 4);
  }

  @Test
  void whatCannotBeDoneIsSaid() {
    ObjectSet set = Drawn.of("ab");

    assertThatThrownBy(() -> refine(set, Operation.FINER, Optional.empty()))
        .hasMessageContaining("--finer");
    assertThatThrownBy(() -> refine(set, Operation.GROW, Optional.empty()))
        .hasMessageContaining("--into");
    assertThatThrownBy(() -> refine(set, Operation.MERGE, Optional.of("greenness > 1")))
        .hasMessageContaining("greenness")
        .hasMessageContaining("area");
    assertThatThrownBy(() -> refine(
            set,
            Operation.DISSOLVE,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            1,
            10,
            Neighbour.MOST_SIMILAR,
            3))
        .hasMessageContaining("measure the objects first");
    assertThatThrownBy(() -> refine(
            set,
            Operation.MERGE,
            Optional.empty(),
            Optional.of("area"),
            Optional.empty(),
            1,
            10,
            Neighbour.LONGEST_BORDER,
            3))
        .hasMessageContaining("numbers");
  }
}
