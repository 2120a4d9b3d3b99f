package sharpkestrel.app.tools;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.scene.input.KeyCode;

/**
 * A key that means something while a tool is in hand.
 *
 * @param meaning for the list of keys, e.g. "accept the picked object"; empty where another key's line stands for it
 */
public record ToolKey(KeyCode key, String meaning, Runnable act) {

  private static final int MOST_DIGITS = 9;

  /** The digits from 1 to 9, one line of the list for all. */
  public static List<ToolKey> digits(String meaning, IntConsumer act) {
    List<ToolKey> keys = new ArrayList<>();
    for (int k = 1; k <= MOST_DIGITS; k++) {
      int digit = k;
      keys.add(new ToolKey(
          KeyCode.getKeyCode(String.valueOf(k)), k == 1 ? meaning : "", () -> act.accept(digit)));
    }
    return keys;
  }
}
