package sharpkestrel.app.model;

import java.util.ArrayDeque;
import java.util.Deque;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/** Changes that can be taken back, the newest first. */
public final class UndoStack {

  private record Change(String what, Runnable undo, Runnable redo) {}

  private final Deque<Change> done = new ArrayDeque<>();
  private final Deque<Change> undone = new ArrayDeque<>();
  private final ReadOnlyStringWrapper next = new ReadOnlyStringWrapper("");

  /** Does a change and remembers how to take it back. */
  public void change(String what, Runnable redo, Runnable undo) {
    redo.run();
    done.push(new Change(what, undo, redo));
    undone.clear();
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
  }

  /** What undo would take back; empty for nothing. */
  public ReadOnlyStringProperty nextProperty() {
    return next.getReadOnlyProperty();
  }
}
