package sharpkestrel.app.tools.samples;

import java.util.List;
import javafx.beans.property.StringProperty;

/** What the card of classes works on: the book, the class in hand, and what was labelled where one looks. */
interface Labelling {

  SampleBook book();

  /** The class that clicks give. */
  StringProperty currentProperty();

  /** Samples that lie in what pane A shows. */
  List<Sample> here();

  /** Clicks give this class from now on. */
  void give(String ofClass);

  /** Adds a class and takes it in hand. */
  default void addClass(String name) {
    book().addClass(name);
    currentProperty().set(name);
  }

  /** Calls a class otherwise. */
  default void rename(String name, String newName) {
    boolean inHandNow = currentProperty().get().equals(name);
    book().rename(name, newName);
    if (inHandNow) {
      currentProperty().set(newName);
    }
  }

  /** Takes the first class in hand where the one in hand is gone. */
  default void keepCurrent() {
    var now = book().classesProperty().get();
    if (now.of(currentProperty().get()).isEmpty()) {
      currentProperty()
          .set(now.classes().stream().map(each -> each.name()).findFirst().orElse(""));
    }
  }

  /** Takes the class of a digit in hand, where there is one. */
  default void digit(int digit) {
    book().classesProperty().get().classes().stream()
        .filter(each -> each.digit() == digit)
        .findFirst()
        .ifPresent(each -> give(each.name()));
  }
}
