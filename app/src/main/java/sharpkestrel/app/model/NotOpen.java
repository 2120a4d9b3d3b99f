package sharpkestrel.app.model;

import java.util.Optional;
import sharpkestrel.step.Stage;

/**
 * A result of the project that is not there now, though its file names it.
 *
 * @param why it could not be read or opened
 * @param again opens it once more; empty where that cannot help
 */
public record NotOpen(
    String name, String title, Stage stage, String why, Optional<Runnable> again) {}
