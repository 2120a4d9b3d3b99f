package sharpkestrel.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.objects.ObjectFile;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.TreeFile;

class CommandLineTest {

  private final StringWriter out = new StringWriter();
  private final StringWriter err = new StringWriter();

  private int run(String... arguments) {
    return run(Main.commandLine(), arguments);
  }

  private int run(CommandLine line, String... arguments) {
    line.setOut(new PrintWriter(out));
    line.setErr(new PrintWriter(err));
    return line.execute(arguments);
  }

  @Test
  void helpOfAStepDocumentsEverySettingWithUnitAndRange() {
    run("step", "ortho", "--help");

    StepSpec ortho = StepCatalogue.get("ortho");
    assertThat(ortho.options())
        .allSatisfy(o -> assertThat(out.toString()).contains("--" + o.name()));
    assertThat(out.toString()).contains("[0.01 to 1000 m]").contains("bilinear");
  }

  @Test
  void infoTellsSizeBandsPlaceAndStatisticsAndEndsWithJson() {
    int code = run("info", "../core/src/test/resources/golden/tiled-lzw-2.tif", "--json");

    String text = out.toString().strip();
    assertThat(code).isZero();
    assertThat(text).contains("37 x 29").contains("EPSG:32630").contains("blue");
    assertThat(text.lines().reduce((a, b) -> b).orElseThrow())
        .startsWith("{")
        .contains("\"width\":37");
  }

  @Test
  void aMissingFileIsOneClearLine() {
    int code = run("info", "nowhere.tif");

    assertThat(code).isEqualTo(1);
    assertThat(err.toString().strip().lines()).hasSize(1);
    assertThat(err.toString()).contains("nowhere.tif");
  }

  /** A command that takes all the memory there is. */
  @Command(name = "all")
  private static final class All implements Callable<Integer> {
    @Override
    public Integer call() {
      List<long[]> held = new ArrayList<>();
      while (!held.isEmpty() || held.add(new long[0])) {
        held.add(new long[Integer.MAX_VALUE - 16]);
      }
      return 0;
    }
  }

  @Test
  void memoryThatDoesNotSufficeIsOneClearLineThatTellsHowToHaveMore() {
    CommandLine line = Main.commandLine();
    line.addSubcommand(new All());

    int code = run(line, "all");

    assertThat(code).isEqualTo(1);
    assertThat(err.toString().strip().lines()).hasSize(1);
    assertThat(err.toString()).contains("memory").contains("KESTREL_HEAP=");
  }

  @Test
  void anUnknownMethodBringsThoseThereAre() {
    int code = run(
        "step",
        "index",
        "--scene",
        "../core/src/test/resources/golden/tiled-lzw-2.tif",
        "--first",
        "ultraviolet",
        "--out",
        "x.tif");

    assertThat(code).isEqualTo(1);
    assertThat(err.toString()).contains("ultraviolet").contains("near_infrared");
  }

  @Test
  void aTreeIsWrittenAndAnObjectPickedFromIt(@TempDir Path folder) {
    Path tree = folder.resolve("golden.tree.gpkg");
    Path picked = folder.resolve("picked.gpkg");
    int made = run(
        "step",
        "segment",
        "--scene",
        "../core/src/test/resources/golden/tiled-lzw-2.tif",
        "--out",
        tree.toString());
    assertThat(made).as(err.toString()).isZero();
    Cut cut = TreeFile.read(TreeFile.stem(tree), Job.QUIET);
    Affine affine = cut.superpixels().grid().affine();
    int[] label = new int[1];
    cut.superpixels().read(new Window(5, 5, 1, 1), label);
    int node = cut.tree().parent(label[0] - 1);
    double area = Branch.pixelsOf(cut.tree())[node] * cut.ground().area();

    int code = run(
        "step",
        "pick-objects",
        "--tree",
        tree.toString(),
        "--places",
        affine.x(5.5, 5.5) + " " + affine.y(5.5, 5.5) + " " + area,
        "--out",
        picked.toString());

    assertThat(code).as(err.toString()).isZero();
    ObjectSet set = ObjectFile.read(picked);
    assertThat(set.count()).isEqualTo(1);
    assertThat(set.table().values("area")[0]).isCloseTo(area, within(1e-6 * area));
  }

  @Test
  void objectsAreNotTakenForATree() {
    int code = run(
        "step", "pick-objects", "--tree", "objects.gpkg", "--places", "0 0 1", "--out", "x.gpkg");

    assertThat(code).isEqualTo(1);
    assertThat(err.toString()).contains("objects.gpkg holds no merge tree").contains(".tree.gpkg");
  }
}
