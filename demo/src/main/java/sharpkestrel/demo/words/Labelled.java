package sharpkestrel.demo.words;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.raster.RasterException;

/** What is chosen by a word: the constants of an enum, as they are typed. */
public interface Labelled {

  String name();

  /** As it is typed: {@code old-town}. */
  default String label() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /** That of a word; empty where none has it. */
  static <T extends Labelled> Optional<T> find(T[] all, String label) {
    return Arrays.stream(all).filter(each -> each.label().equals(label)).findFirst();
  }

  /**
   * That of a word.
   *
   * @param what all of them are, with its article
   * @throws RasterException that names those there are, the first as what there is without a word
   */
  static <T extends Labelled> T of(T[] all, String label, String what) {
    return find(all, label)
        .orElseThrow(() -> new RasterException(what + " is " + labels(all) + ", not '" + label
            + "'. Leave it out for " + all[0].label() + "."));
  }

  /** The words of all, for people. */
  static String labels(Labelled... all) {
    List<String> labels = Arrays.stream(all).map(Labelled::label).toList();
    return String.join(", ", labels.subList(0, labels.size() - 1)) + " or " + labels.getLast();
  }
}
