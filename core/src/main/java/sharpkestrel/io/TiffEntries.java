package sharpkestrel.io;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;

/** The tags of a directory that is being written, little-endian. */
final class TiffEntries {

  private record Value(int type, long count, byte[] bytes) {}

  private final Map<Integer, Value> values = new TreeMap<>();

  void shorts(int tag, int... numbers) {
    ByteBuffer out = buffer(2 * numbers.length);
    for (int number : numbers) {
      out.putShort((short) number);
    }
    values.put(tag, new Value(3, numbers.length, out.array()));
  }

  void ints(int tag, long... numbers) {
    ByteBuffer out = buffer(4 * numbers.length);
    for (long number : numbers) {
      out.putInt((int) number);
    }
    values.put(tag, new Value(4, numbers.length, out.array()));
  }

  void longs(int tag, long[] numbers) {
    ByteBuffer out = buffer(8 * numbers.length);
    for (long number : numbers) {
      out.putLong(number);
    }
    values.put(tag, new Value(16, numbers.length, out.array()));
  }

  void doubles(int tag, double... numbers) {
    ByteBuffer out = buffer(8 * numbers.length);
    for (double number : numbers) {
      out.putDouble(number);
    }
    values.put(tag, new Value(12, numbers.length, out.array()));
  }

  void ascii(int tag, String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    byte[] ended = java.util.Arrays.copyOf(bytes, bytes.length + 1);
    values.put(tag, new Value(2, ended.length, ended));
  }

  private static ByteBuffer buffer(int size) {
    return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
  }

  /** Bytes the directory takes, its values outside of the entries included. */
  int size(boolean big) {
    int size = big ? 8 + 20 * values.size() + 8 : 2 + 12 * values.size() + 4;
    for (Value value : values.values()) {
      if (value.bytes().length > (big ? 8 : 4)) {
        size += even(value.bytes().length);
      }
    }
    return size;
  }

  /** The directory as it stands at {@code offset}, followed by the values that do not fit in its entries. */
  byte[] toBytes(boolean big, long offset, long next) {
    int inline = big ? 8 : 4;
    ByteBuffer out = buffer(size(big));
    int table = big ? 8 + 20 * values.size() + 8 : 2 + 12 * values.size() + 4;
    long outside = offset + table;
    if (big) {
      out.putLong(values.size());
    } else {
      out.putShort((short) values.size());
    }
    for (Map.Entry<Integer, Value> entry : values.entrySet()) {
      Value value = entry.getValue();
      out.putShort((short) (int) entry.getKey()).putShort((short) value.type());
      putWord(out, big, value.count());
      if (value.bytes().length <= inline) {
        out.put(value.bytes());
        out.position(out.position() + inline - value.bytes().length);
      } else {
        putWord(out, big, outside);
        outside += even(value.bytes().length);
      }
    }
    putWord(out, big, next);
    for (Value value : values.values()) {
      if (value.bytes().length > inline) {
        out.put(value.bytes());
        out.position(out.position() + even(value.bytes().length) - value.bytes().length);
      }
    }
    return out.array();
  }

  private static void putWord(ByteBuffer out, boolean big, long value) {
    if (big) {
      out.putLong(value);
    } else {
      out.putInt((int) value);
    }
  }

  private static int even(int size) {
    return size + 1 & ~1;
  }
}
