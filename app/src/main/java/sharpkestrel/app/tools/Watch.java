package sharpkestrel.app.tools;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableValue;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;

/**
 * What a tool follows while it is in hand, and only then: what has changed meanwhile is told when it is taken in hand again.
 * Of the interface thread.
 */
public final class Watch {

  private interface Followed {
    void begin();

    void end();
  }

  private final List<Followed> all = new ArrayList<>();
  private boolean active;

  /** Tells of every other value. */
  public <T> void on(ObservableValue<T> value, Consumer<? super T> changed) {
    add(new Followed() {
      private T last = value.getValue();
      private final ChangeListener<T> listener = (p, before, now) -> {
        last = now;
        changed.accept(now);
      };

      @Override
      public void begin() {
        T now = value.getValue();
        boolean other = !Objects.equals(last, now);
        last = now;
        value.addListener(listener);
        if (other) {
          changed.accept(now);
        }
      }

      @Override
      public void end() {
        value.removeListener(listener);
      }
    });
  }

  /** Tells of every change of a list. */
  public <T> void on(ObservableList<T> list, Runnable changed) {
    add(new Followed() {
      private List<T> last = List.copyOf(list);
      private final ListChangeListener<T> listener = change -> {
        last = List.copyOf(list);
        changed.run();
      };

      @Override
      public void begin() {
        boolean other = !last.equals(list);
        last = List.copyOf(list);
        list.addListener(listener);
        if (other) {
          changed.run();
        }
      }

      @Override
      public void end() {
        list.removeListener(listener);
      }
    });
  }

  private void add(Followed followed) {
    all.add(followed);
    if (active) {
      followed.begin();
    }
  }

  /** The tool is in hand from now on. */
  void begin() {
    active = true;
    List.copyOf(all).forEach(Followed::begin);
  }

  /** The tool is put away. */
  void end() {
    active = false;
    all.forEach(Followed::end);
  }
}
