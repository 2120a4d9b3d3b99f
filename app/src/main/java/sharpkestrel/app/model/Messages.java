package sharpkestrel.app.model;

import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/**
 * What the window has to say: what went wrong, with what can be done about it at a click, and what was warned of. It stands
 * until it is closed or the next run begins. Of the interface thread.
 */
public final class Messages {

  /** What can be done about what was said. */
  public record Remedy(String label, Runnable act) {}

  private final ReadOnlyStringWrapper text = new ReadOnlyStringWrapper("");
  private final ReadOnlyStringWrapper warning = new ReadOnlyStringWrapper("");
  private final ReadOnlyObjectWrapper<Remedy> remedy = new ReadOnlyObjectWrapper<>();

  /** Says what went wrong, in place of what was said before. */
  public void tell(String what) {
    remedy.set(null);
    text.set(what == null ? "" : what);
  }

  /** Says what went wrong, and offers to do something about it. */
  public void tell(String what, String label, Runnable act) {
    tell(what);
    remedy.set(new Remedy(label, () -> {
      clear();
      act.run();
    }));
  }

  /** Warns of something; what is warned of stands together, each on a line of its own. */
  public void warn(String what) {
    String before = warning.get();
    if (before.isBlank()) {
      warning.set(what);
    } else if (!before.contains(what)) {
      warning.set(before + "\n" + what);
    }
  }

  /** What was said has been read, or is of the past. */
  public void clear() {
    remedy.set(null);
    text.set("");
    warning.set("");
  }

  /** What went wrong; empty for nothing. */
  public ReadOnlyStringProperty textProperty() {
    return text.getReadOnlyProperty();
  }

  /** What was warned of; empty for nothing. */
  public ReadOnlyStringProperty warningProperty() {
    return warning.getReadOnlyProperty();
  }

  /** What can be done about what was said; null for nothing. */
  public ReadOnlyObjectProperty<Remedy> remedyProperty() {
    return remedy.getReadOnlyProperty();
  }
}
