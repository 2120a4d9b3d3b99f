package sharpkestrel.flow;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import sharpkestrel.io.Compression;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Resampling;

class SettingValuesTest {

  private static StepSpec.Option option(String step, String name) {
    return StepCatalogue.get(step).options().stream()
        .filter(o -> o.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  private static Object parsed(String step, String name, String text) {
    return SettingValues.parse(option(step, name), text);
  }

  @Test
  void textsBecomeTheTypesThatStepsWant() {
    assertThat(parsed("ortho", "pixel-size", " 0.5 ")).isEqualTo(0.5);
    assertThat(parsed("ortho", "pixel-size", "auto")).isEqualTo(Double.NaN);
    assertThat(parsed("ortho", "resampling", "Cubic")).isEqualTo(Resampling.CUBIC);
    assertThat(parsed("ortho", "crs", "EPSG:32630")).isEqualTo(CrsName.epsg(32630));
    assertThat(parsed("ortho", "crs", "auto")).isEqualTo(CrsName.NONE);
    assertThat(parsed("ortho", "extent", "auto")).isEqualTo(Optional.empty());
    assertThat(parsed("ortho", "extent", "600000,5196000,603000,5199000"))
        .isEqualTo(Optional.of(new Extent(600000, 5196000, 603000, 5199000)));
    assertThat(parsed("export", "file", "out/roofs.gpkg")).isEqualTo(Path.of("out/roofs.gpkg"));
    assertThat(parsed("export", "compression", "lzw")).isEqualTo(Compression.LZW);
    assertThat(parsed("outline", "join-touching", "true")).isEqualTo(true);
    assertThat(parsed("segment", "weights", "red=1, near_infrared=2"))
        .isEqualTo(List.of("red=1", "near_infrared=2"));
    assertThat(parsed("segment", "weights", "auto")).isEqualTo(List.of());
  }

  @ParameterizedTest
  @CsvSource({
    "ortho, pixel-size, -1, Pixel size, 0.01 to 1000 m",
    "ortho, pixel-size, NaN, Pixel size, 0.01 to 1000 m",
    "ortho, pixel-size, half, Pixel size, a number",
    "ortho, resampling, sharpest, Resampling, cubic",
    "segment, grain, 0, Grain, 0.01",
    "compare, overlap, 1.2, Overlap, 0.05 to 0.99",
    "outline, join-touching, yes, Join touching, true or false",
    "export, compression, zip, Compression, zstd",
    "measure, texture-levels, 12.5, Texture levels, a whole number"
  })
  void whatCannotBeIsRefusedWithItsNameAndWhatWouldDo(
      String step, String name, String text, String label, String wanted) {
    assertThatThrownBy(() -> parsed(step, name, text))
        .isInstanceOf(RasterException.class)
        .hasMessageContaining(label)
        .hasMessageContaining("--" + name)
        .hasMessageContaining("'" + text + "'")
        .hasMessageContaining(wanted);
  }

  static List<StepSpec> steps() {
    return StepCatalogue.all();
  }

  /** Panels and run sheets show values as text; reading that again must give the same value. */
  @ParameterizedTest
  @MethodSource("steps")
  void everyInitialValueReadsBackFromItsText(StepSpec step) {
    for (StepSpec.Option option : step.options()) {
      if (option.isRequired()) {
        continue;
      }
      Object value = SettingValues.parse(option, option.initial());
      String text = SettingValues.toText(value);

      assertThat(SettingValues.parse(option, text))
          .as("%s --%s", step.id(), option.name())
          .isEqualTo(value);
    }
  }

  @ParameterizedTest
  @MethodSource("steps")
  void everyStepSaysWhatItDoesAndHowItsSettingsAreCalled(StepSpec step) {
    assertThat(step.title()).isNotBlank();
    assertThat(step.does()).endsWith(".");
    assertThat(step.id()).matches("[a-z][a-z-]*");
    assertThat(step.inputs()).allSatisfy(input -> assertThat(input.does()).endsWith("."));
    assertThat(step.options()).allSatisfy(option -> {
      assertThat(option.name()).matches("[a-z][a-z-]*");
      assertThat(option.does()).endsWith(".");
      assertThat(option.min()).isLessThanOrEqualTo(option.max());
    });
  }

  @ParameterizedTest
  @CsvSource({"0.5, 0.5", "60, 60", "1e9, 1000000000", "-0.1, -0.1", "0.0001, 0.0001"})
  void numbersHaveNoSuperfluousDigits(double value, String text) {
    assertThat(SettingValues.plain(value)).isEqualTo(text);
    assertThat(Double.parseDouble(SettingValues.plain(value))).isEqualTo(value);
  }
}
