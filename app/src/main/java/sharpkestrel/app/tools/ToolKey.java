package sharpkestrel.app.tools;

import javafx.scene.input.KeyCode;

/**
 * A key that means something while a tool is in hand.
 *
 * @param meaning for the list of keys, e.g. "accept the picked object"
 */
public record ToolKey(KeyCode key, String meaning, Runnable act) {}
