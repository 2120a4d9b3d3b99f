package sharpkestrel.io;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** The named items of tag 42112: text for the whole file and for each band (counted from 0). */
final class ItemsXml {

  /** Items of the whole file have this number. */
  static final int FILE = -1;

  private final Map<Integer, Map<String, String>> items = new TreeMap<>();

  static ItemsXml parse(String xml) {
    ItemsXml parsed = new ItemsXml();
    if (xml.isBlank()) {
      return parsed;
    }
    try {
      NodeList list = Xml.parse(xml).getElementsByTagName("Item");
      for (int i = 0; i < list.getLength(); i++) {
        Element item = (Element) list.item(i);
        String sample = item.getAttribute("sample");
        int band = sample.matches("\\d{1,6}") ? Integer.parseInt(sample) : FILE;
        parsed.put(band, item.getAttribute("name"), item.getTextContent());
      }
    } catch (IOException notXml) {
      // Items are remarks; a file whose remarks cannot be read still has its pixels.
      return new ItemsXml();
    }
    return parsed;
  }

  void put(int band, String name, String text) {
    items.computeIfAbsent(band, key -> new LinkedHashMap<>()).put(name, text);
  }

  Optional<String> get(int band, String name) {
    return Optional.ofNullable(items.getOrDefault(band, Map.of()).get(name))
        .filter(text -> !text.isBlank());
  }

  /** A number of the whole file; another where it is not there or is none. */
  double number(String name, double otherwise) {
    try {
      return get(FILE, name).map(Double::parseDouble).orElse(otherwise);
    } catch (NumberFormatException unreadable) {
      return otherwise;
    }
  }

  /** A number of a band; empty where it is not there or is none. */
  OptionalDouble number(int band, String name) {
    try {
      return get(band, name)
          .map(Double::parseDouble)
          .map(OptionalDouble::of)
          .orElse(OptionalDouble.empty());
    } catch (NumberFormatException unreadable) {
      return OptionalDouble.empty();
    }
  }

  boolean isEmpty() {
    return items.isEmpty();
  }

  String toXml() {
    StringBuilder xml = new StringBuilder("<GDALMetadata>\n");
    items.forEach((band, named) -> named.forEach((name, text) -> {
      xml.append("  <Item name=\"").append(escape(name)).append('"');
      if (band != FILE) {
        xml.append(" sample=\"").append(band).append('"');
        if (name.equals("DESCRIPTION")) {
          xml.append(" role=\"description\"");
        } else if (name.equals("UNITTYPE")) {
          xml.append(" role=\"unittype\"");
        }
      }
      xml.append('>').append(escape(text)).append("</Item>\n");
    }));
    return xml.append("</GDALMetadata>\n").toString();
  }

  private static String escape(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }
}
