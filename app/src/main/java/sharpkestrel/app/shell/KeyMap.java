package sharpkestrel.app.shell;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/**
 * The keys of the window: one declaration of each feeds both what a press does and the list behind "?". A key has one
 * meaning.
 */
final class KeyMap {

  /** A line of the list. */
  record Line(String keys, String meaning) {}

  private record Press(KeyCode code, boolean shortcut) {}

  private final List<Line> lines = new ArrayList<>();
  private final Map<Press, BooleanSupplier> acts = new HashMap<>();

  /** A key as it is called, by its sign where it has one. */
  static String name(KeyCode code) {
    return switch (code) {
      case OPEN_BRACKET -> "[";
      case CLOSE_BRACKET -> "]";
      default -> code.getName();
    };
  }

  /** A key by itself. */
  void key(KeyCode code, String meaning, Runnable act) {
    line(name(code), meaning);
    bind(code, false, done(act));
  }

  /** A key with the platform's shortcut key, shown as Ctrl. */
  void shortcut(KeyCode code, String meaning, Runnable act) {
    line("Ctrl " + code.getName(), meaning);
    bind(code, true, done(act));
  }

  /** A line of the list for keys that are bound apart. */
  void line(String keys, String meaning) {
    lines.add(new Line(keys, meaning));
  }

  /**
   * @param act whether the press is used up
   * @throws IllegalStateException where the key has a meaning already
   */
  void bind(KeyCode code, boolean shortcut, BooleanSupplier act) {
    if (acts.put(new Press(code, shortcut), act) != null) {
      throw new IllegalStateException("The key " + code.getName() + " has two meanings");
    }
  }

  private static BooleanSupplier done(Runnable act) {
    return () -> {
      act.run();
      return true;
    };
  }

  /** Does what a key means; false where it means nothing here. */
  boolean press(KeyEvent e) {
    BooleanSupplier act = acts.get(new Press(e.getCode(), e.isShortcutDown()));
    return act != null && act.getAsBoolean();
  }

  List<Line> lines() {
    return List.copyOf(lines);
  }
}
