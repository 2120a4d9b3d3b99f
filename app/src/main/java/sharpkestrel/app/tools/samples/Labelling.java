package sharpkestrel.app.tools.samples;

import java.util.List;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import sharpkestrel.app.samples.Ground;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.samples.SampleBook;

/** What the card of classes works on: the book, the class in hand, and what was labelled where one looks. */
abstract class Labelling {

  private final SampleBook book;
  private final StringProperty current = new SimpleStringProperty("");

  Labelling(SampleBook book) {
    this.book = book;
  }

  final SampleBook book() {
    return book;
  }

  /** The class that clicks give. */
  final StringProperty currentProperty() {
    return current;
  }

  /** What pane A's places are told in; null where it shows nothing to label. */
  abstract Ground ground();

  /** Samples that lie in what pane A shows. */
  final List<Sample> here() {
    return ground() == null ? List.of() : book.of(ground());
  }

  /** Clicks give this class from now on. */
  void give(String ofClass) {
    current.set(ofClass);
  }

  /** Adds a class and takes it in hand. */
  final void addClass(String name) {
    book().addClass(name);
    currentProperty().set(name);
  }

  /** Calls a class otherwise. */
  final void rename(String name, String newName) {
    boolean inHandNow = currentProperty().get().equals(name);
    book().rename(name, newName);
    if (inHandNow) {
      currentProperty().set(newName);
    }
  }

  /** Takes the first class in hand where the one in hand is gone. */
  final void keepCurrent() {
    var now = book().classesProperty().get();
    if (now.of(currentProperty().get()).isEmpty()) {
      currentProperty()
          .set(now.classes().stream().map(each -> each.name()).findFirst().orElse(""));
    }
  }

  /** Takes the class of a digit in hand, where there is one. */
  final void digit(int digit) {
    book().classesProperty().get().classes().stream()
        .filter(each -> each.digit() == digit)
        .findFirst()
        .ifPresent(each -> give(each.name()));
  }
}
