package sharpkestrel.extract.learner;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.io.FileFormatException;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/**
 * The classes of a project: names, colours, the digits that give them, and at most one level of parents.
 *
 * @param classes in the order in which they are listed
 */
public record ClassList(List<Entry> classes) {

  private static final String KIND = "class list";

  /** Colours that people with any colour vision tell apart (Okabe and Ito 2008), in the order in which they are given. */
  private static final List<String> COLOURS = List.of(
      "#E69F00", "#56B4E9", "#009E73", "#CC79A7", "#F0E442", "#D55E00", "#0072B2", "#999999");

  private static final int MOST_DIGITS = 9;

  public static final ClassList EMPTY = new ClassList(List.of());

  /**
   * @param colour as {@code #RRGGBB}
   * @param digit that gives it, 1 to 9; 0 for none
   * @param parent name of another class without one; empty for none
   */
  public record Entry(String name, String colour, int digit, String parent) {

    public Entry {
      if (name.isBlank()) {
        throw new RasterException("A class needs a name.");
      }
      if (!colour.matches("#[0-9A-Fa-f]{6}")) {
        throw new RasterException("The colour of the class '" + name + "' is '" + colour
            + "'; it should be #RRGGBB, such as #E69F00.");
      }
    }
  }

  /**
   * @throws RasterException where two share a name or a digit, or a parent is none
   */
  public ClassList {
    classes = List.copyOf(classes);
    Set<String> names = new HashSet<>();
    Set<Integer> digits = new HashSet<>();
    for (Entry each : classes) {
      if (!names.add(each.name())) {
        throw new RasterException("Two classes are called '" + each.name() + "'.");
      }
      if (each.digit() != 0 && !digits.add(each.digit())) {
        throw new RasterException(
            "The digit " + each.digit() + " is that of two classes; '" + each.name() + "' is one.");
      }
    }
    for (Entry each : classes) {
      boolean top = each.parent().isEmpty()
          || classes.stream()
              .anyMatch(p -> p.name().equals(each.parent()) && p.parent().isEmpty());
      if (!top) {
        throw new RasterException("The class '" + each.name() + "' belongs to '" + each.parent()
            + "', which is no class of its own.");
      }
    }
  }

  public Optional<Entry> of(String name) {
    return classes.stream().filter(each -> each.name().equals(name)).findFirst();
  }

  /** With one more, in the first colour and with the first digit that are free. */
  public ClassList with(String name) {
    int digit = 1;
    while (digit <= MOST_DIGITS && hasDigit(digit)) {
      digit++;
    }
    String colour = COLOURS.stream()
        .filter(each -> classes.stream().noneMatch(c -> c.colour().equals(each)))
        .findFirst()
        .orElse(COLOURS.get(classes.size() % COLOURS.size()));
    List<Entry> more = new ArrayList<>(classes);
    more.add(new Entry(name, colour, digit > MOST_DIGITS ? 0 : digit, ""));
    return new ClassList(more);
  }

  private boolean hasDigit(int digit) {
    return classes.stream().anyMatch(each -> each.digit() == digit);
  }

  /** Without one; those that belonged to it belong to none. */
  public ClassList without(String name) {
    return new ClassList(classes.stream()
        .filter(each -> !each.name().equals(name))
        .map(each -> each.parent().equals(name)
            ? new Entry(each.name(), each.colour(), each.digit(), "")
            : each)
        .toList());
  }

  /** The same with another name for one. */
  public ClassList renamed(String name, String newName) {
    return new ClassList(classes.stream()
        .map(each -> new Entry(
            each.name().equals(name) ? newName : each.name(),
            each.colour(),
            each.digit(),
            each.parent().equals(name) ? newName : each.parent()))
        .toList());
  }

  /**
   * The same with one belonging to another, listed behind it.
   *
   * @param parent a class that belongs to none; empty for none any more
   * @throws RasterException where others belong to the one, or the parent is none
   */
  public ClassList within(String name, String parent) {
    if (!parent.isEmpty() && classes.stream().anyMatch(each -> each.parent().equals(name))) {
      throw new RasterException("Classes belong to '" + name + "', so that it cannot belong to '"
          + parent + "' itself: there is one level of parents.");
    }
    Entry before = of(name).orElseThrow();
    Entry after = new Entry(name, before.colour(), before.digit(), parent);
    List<Entry> order = new ArrayList<>();
    for (Entry each : classes) {
      if (!each.name().equals(name)) {
        order.add(each);
      } else if (parent.isEmpty()) {
        order.add(after);
      }
    }
    if (!parent.isEmpty()) {
      int at = 0;
      for (int i = 0; i < order.size(); i++) {
        Entry each = order.get(i);
        at = each.name().equals(parent) || each.parent().equals(parent) ? i + 1 : at;
      }
      order.add(at, after);
    }
    return new ClassList(order);
  }

  /** The class that a class belongs to, else the class itself. */
  public String top(String name) {
    return of(name).map(Entry::parent).filter(parent -> !parent.isEmpty()).orElse(name);
  }

  public void write(Path target) {
    ObjectNode root = Json.object().put("kind", KIND);
    ArrayNode array = root.putArray("classes");
    for (Entry each : classes) {
      ObjectNode node = array.addObject().put("name", each.name()).put("colour", each.colour());
      if (each.digit() != 0) {
        node.put("digit", each.digit());
      }
      if (!each.parent().isEmpty()) {
        node.put("parent", each.parent());
      }
    }
    Json.write(root, target);
  }

  /**
   * @throws FileFormatException that says what is wrong with the file
   */
  public static ClassList read(Path path) {
    JsonNode root = Json.read(path);
    if (!root.path("kind").asText().equals(KIND)) {
      throw new FileFormatException(
          path + " holds no class list: \"kind\" should be \"" + KIND + "\".");
    }
    List<Entry> classes = new ArrayList<>();
    try {
      for (JsonNode node : root.path("classes")) {
        classes.add(new Entry(
            node.path("name").asText(),
            node.path("colour").asText("#999999").toUpperCase(Locale.ROOT),
            node.path("digit").asInt(0),
            node.path("parent").asText("")));
      }
      return new ClassList(classes);
    } catch (RasterException wrong) {
      throw new FileFormatException(path + ": " + wrong.getMessage());
    }
  }
}
