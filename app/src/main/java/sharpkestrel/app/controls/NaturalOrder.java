package sharpkestrel.app.controls;

import java.util.Comparator;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/** Names as people sort them: by letters, and whole numbers in them by their value. */
public final class NaturalOrder implements Comparator<String> {

  private static final Pattern PARTS = Pattern.compile("(?<=\\d)(?=\\D)|(?<=\\D)(?=\\d)");

  /** Longer ones are no numbers that anybody counts by. */
  private static final int LONGEST = 15;

  /** Places of names in that order. */
  public static List<Integer> places(List<String> names) {
    return IntStream.range(0, names.size())
        .boxed()
        .sorted(Comparator.comparing(names::get, new NaturalOrder()))
        .toList();
  }

  @Override
  public int compare(String one, String other) {
    String[] a = PARTS.split(one);
    String[] b = PARTS.split(other);
    for (int i = 0; i < Math.min(a.length, b.length); i++) {
      int order = isNumber(a[i]) && isNumber(b[i])
          ? Long.compare(Long.parseLong(a[i]), Long.parseLong(b[i]))
          : a[i].compareToIgnoreCase(b[i]);
      if (order != 0) {
        return order;
      }
    }
    int order = Integer.compare(a.length, b.length);
    return order != 0 ? order : one.compareTo(other);
  }

  private static boolean isNumber(String part) {
    return !part.isEmpty()
        && part.length() <= LONGEST
        && part.chars().allMatch(c -> c >= '0' && c <= '9');
  }
}
