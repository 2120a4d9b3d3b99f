package sharpkestrel.workshop.fuzz;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import org.junit.jupiter.api.Test;
import picocli.CommandLine;
import sharpkestrel.workshop.Main;

class FuzzTest {

  /** Some thousand files a run; the command itself goes on for as long as one likes. */
  @Test
  void damagedFilesOfEveryKindAreReadOrRefusedClearly() {
    StringWriter out = new StringWriter();
    StringWriter err = new StringWriter();
    CommandLine line = Main.commandLine();
    line.setOut(new PrintWriter(out));
    line.setErr(new PrintWriter(err));

    int code = line.execute(
        "fuzz",
        "--count",
        "100000",
        "--seconds",
        "20",
        "--from",
        "../core/src/test/resources/golden",
        "--from",
        "../core/src/test/resources/kinds");

    assertThat(code).as(out + "\n" + err).isZero();
    assertThat(out.toString()).contains("TIFF: ").contains("FORMULA: ");
  }
}
