package sharpkestrel.app.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;

class KeyMapTest {

  private static KeyEvent press(KeyCode code, boolean control) {
    return new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code, false, control, false, false);
  }

  @Test
  void aKeyDoesWhatItsLineSays() {
    KeyMap keys = new KeyMap();
    List<String> log = new ArrayList<>();
    keys.key(KeyCode.F, "fit", () -> log.add("fit"));
    keys.shortcut(KeyCode.Z, "undo", () -> log.add("undo"));
    keys.key(KeyCode.Z, "one to one", () -> log.add("one to one"));

    assertThat(keys.press(press(KeyCode.F, false))).isTrue();
    assertThat(keys.press(press(KeyCode.Z, true))).isTrue();
    assertThat(keys.press(press(KeyCode.Z, false))).isTrue();

    assertThat(log).containsExactly("fit", "undo", "one to one");
    assertThat(keys.lines()).extracting(KeyMap.Line::keys).containsExactly("F", "Ctrl Z", "Z");
  }

  @Test
  void aKeyWithoutMeaningIsLeftToOthers() {
    KeyMap keys = new KeyMap();
    keys.key(KeyCode.F, "fit", () -> {});
    keys.bind(KeyCode.SPACE, false, () -> false);

    assertThat(keys.press(press(KeyCode.Q, false))).isFalse();
    assertThat(keys.press(press(KeyCode.F, true))).isFalse();
    assertThat(keys.press(press(KeyCode.SPACE, false))).isFalse();
  }

  @Test
  void twoMeaningsOfOneKeyAreRefused() {
    KeyMap keys = new KeyMap();
    keys.key(KeyCode.W, "swipe", () -> {});

    assertThatThrownBy(() -> keys.key(KeyCode.W, "wipe", () -> {}))
        .isInstanceOf(IllegalStateException.class)
        .hasMessageContaining("W");
  }
}
