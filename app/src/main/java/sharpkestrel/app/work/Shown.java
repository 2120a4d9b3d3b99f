package sharpkestrel.app.work;

import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/** What a lane is at, as the window shows it; changed on the interface thread only. */
public final class Shown {

  private final ReadOnlyStringWrapper title = new ReadOnlyStringWrapper("");
  private final ReadOnlyStringWrapper detail = new ReadOnlyStringWrapper("");
  private final ReadOnlyDoubleWrapper share = new ReadOnlyDoubleWrapper();
  private final ReadOnlyBooleanWrapper running = new ReadOnlyBooleanWrapper();

  void begin(String what) {
    title.set(what);
    detail.set("");
    share.set(-1);
    running.set(true);
  }

  void at(String what, double newShare) {
    detail.set(what);
    share.set(newShare);
  }

  void end() {
    running.set(false);
  }

  public ReadOnlyStringProperty titleProperty() {
    return title.getReadOnlyProperty();
  }

  /** What is being done and how long it will take; empty before anything is known. */
  public ReadOnlyStringProperty detailProperty() {
    return detail.getReadOnlyProperty();
  }

  /** Share done, or below 0 where it is not known. */
  public ReadOnlyDoubleProperty shareProperty() {
    return share.getReadOnlyProperty();
  }

  public ReadOnlyBooleanProperty runningProperty() {
    return running.getReadOnlyProperty();
  }
}
