package sharpkestrel.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import org.junit.jupiter.api.Test;
import picocli.CommandLine;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;

class CommandLineTest {

  private final StringWriter out = new StringWriter();
  private final StringWriter err = new StringWriter();

  private int run(String... arguments) {
    CommandLine line = Main.commandLine();
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
}
