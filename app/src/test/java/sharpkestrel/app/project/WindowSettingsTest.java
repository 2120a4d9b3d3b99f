package sharpkestrel.app.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import org.junit.jupiter.api.Test;

class WindowSettingsTest {

  @Test
  void whatWasSetIsThereTheNextTime() {
    WindowSettings settings = WindowSettings.read();
    settings.set("test_columns", Set.of("area", "red_mean"));
    settings.set("test_width", 1280.0);
    settings.write();

    WindowSettings again = WindowSettings.read();
    assertThat(again.texts("test_columns")).containsExactlyInAnyOrder("area", "red_mean");
    assertThat(again.number("test_width")).contains(1280.0);
    assertThat(again.texts("never")).isEmpty();
  }
}
