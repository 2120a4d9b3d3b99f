package sharpkestrel.io;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;

/** One directory of a TIFF file: its tags and their values, read when asked for. */
final class TiffDirectory {

  record Entry(int type, int count, long offset) {}

  /** Of a value that is taken as plain bytes. */
  private static final int MOST_BYTES = 1 << 20;

  private final TiffFile file;
  private final Map<Integer, Entry> entries = new TreeMap<>();

  TiffDirectory(TiffFile file) {
    this.file = file;
  }

  /** Bytes of one value of a TIFF type; 0 for types that are not known. */
  static int sizeOf(int type) {
    return switch (type) {
      case 1, 2, 6, 7 -> 1;
      case 3, 8 -> 2;
      case 4, 9, 11, 13 -> 4;
      case 5, 10, 12, 16, 17, 18 -> 8;
      default -> 0;
    };
  }

  void put(int tag, Entry entry) {
    entries.put(tag, entry);
  }

  boolean has(int tag) {
    return entries.containsKey(tag);
  }

  int count(int tag) {
    Entry entry = entries.get(tag);
    return entry == null ? 0 : entry.count();
  }

  /** A whole number of a tag; the fallback where the tag is absent. */
  long number(int tag, long fallback) {
    return has(tag) && count(tag) > 0 ? number(tag, 0, entries.get(tag)) : fallback;
  }

  int integer(int tag, int fallback) {
    long value = number(tag, fallback);
    if (value < Integer.MIN_VALUE || value > Integer.MAX_VALUE) {
      throw file.broken("tag " + tag + " is " + value + ", beyond what is possible");
    }
    return (int) value;
  }

  OptionalInt optional(int tag) {
    return has(tag) && count(tag) > 0 ? OptionalInt.of(integer(tag, 0)) : OptionalInt.empty();
  }

  long[] numbers(int tag) {
    Entry entry = entries.get(tag);
    if (entry == null) {
      return new long[0];
    }
    long[] values = new long[entry.count()];
    for (int i = 0; i < values.length; i++) {
      values[i] = number(tag, i, entry);
    }
    return values;
  }

  private long number(int tag, int i, Entry entry) {
    long at = entry.offset() + (long) i * sizeOf(entry.type());
    return switch (entry.type()) {
      case 1, 7 -> file.unsignedByte(at);
      case 6 -> (byte) file.unsignedByte(at);
      case 3 -> file.unsignedShort(at);
      case 8 -> (short) file.unsignedShort(at);
      case 4, 13 -> file.unsignedInt(at);
      case 9 -> (int) file.unsignedInt(at);
      case 16, 17, 18 -> file.signedLong(at);
      default ->
        throw file.broken("tag " + tag + " should hold whole numbers but has type " + entry.type());
    };
  }

  double[] doubles(int tag) {
    Entry entry = entries.get(tag);
    if (entry == null) {
      return new double[0];
    }
    double[] values = new double[entry.count()];
    for (int i = 0; i < values.length; i++) {
      long at = entry.offset() + (long) i * sizeOf(entry.type());
      values[i] = switch (entry.type()) {
        case 12 -> Double.longBitsToDouble(file.signedLong(at));
        case 11 -> Float.intBitsToFloat((int) file.unsignedInt(at));
        case 5 -> (double) file.unsignedInt(at) / file.unsignedInt(at + 4);
        default -> number(tag, i, entry);
      };
    }
    return values;
  }

  byte[] bytes(int tag) {
    Entry entry = entries.get(tag);
    if (entry == null) {
      return new byte[0];
    }
    long length = (long) entry.count() * sizeOf(entry.type());
    if (length > MOST_BYTES) {
      throw file.broken("tag " + tag + " holds " + length + " bytes");
    }
    byte[] raw = new byte[(int) length];
    file.copy(entry.offset(), raw, raw.length);
    return raw;
  }

  String text(int tag) {
    Entry entry = entries.get(tag);
    if (entry == null || entry.type() != 2) {
      return "";
    }
    byte[] raw = new byte[entry.count()];
    file.copy(entry.offset(), raw, raw.length);
    int length = raw.length;
    while (length > 0 && raw[length - 1] == 0) {
      length--;
    }
    return new String(raw, 0, length, StandardCharsets.UTF_8);
  }
}
