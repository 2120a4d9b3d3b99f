package sharpkestrel.app.model;

import java.util.ArrayDeque;
import java.util.Deque;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/**
 * Changes that can be taken back by name, the newest first. What they hold is bounded: the oldest are forgotten where it grows
 * beyond that.
 */
public final class UndoStack {

  /** What a change holds where nobody says: a few numbers. */
  private static final long SMALL = 4096;

  static final long MOST_BYTES = 512L << 20;
  static final int MOST_CHANGES = 1000;

  private record Change(String what, long bytes, Runnable undo, Runnable redo) {}

  private final Deque<Change> done = new ArrayDeque<>();
  private final Deque<Change> undone = new ArrayDeque<>();
  private final ReadOnlyStringWrapper next = new ReadOnlyStringWrapper("");
  private final ReadOnlyStringWrapper nextRedo = new ReadOnlyStringWrapper("");
  private long held;

  /** Does a change and remembers how to take it back. */
  public void change(String what, Runnable redo, Runnable undo) {
    change(what, SMALL, redo, undo);
  }

  /**
   * The same.
   *
   * @param bytes about what it holds
   */
  public void change(String what, long bytes, Runnable redo, Runnable undo) {
    redo.run();
    undone.forEach(change -> held -= change.bytes);
    undone.clear();
    done.push(new Change(what, bytes, undo, redo));
    held += bytes;
    // the newest can always be taken back
    while (done.size() > 1 && (held > MOST_BYTES || done.size() > MOST_CHANGES)) {
      held -= done.removeLast().bytes;
    }
    tell();
  }

  public void undo() {
    if (!done.isEmpty()) {
      Change change = done.pop();
      change.undo().run();
      undone.push(change);
      tell();
    }
  }

  public void redo() {
    if (!undone.isEmpty()) {
      Change change = undone.pop();
      change.redo().run();
      done.push(change);
      tell();
    }
  }

  private void tell() {
    next.set(done.isEmpty() ? "" : done.peek().what());
    nextRedo.set(undone.isEmpty() ? "" : undone.peek().what());
  }

  /** What undo would take back; empty for nothing. */
  public ReadOnlyStringProperty nextProperty() {
    return next.getReadOnlyProperty();
  }

  /** What redo would do again; empty for nothing. */
  public ReadOnlyStringProperty nextRedoProperty() {
    return nextRedo.getReadOnlyProperty();
  }
}
