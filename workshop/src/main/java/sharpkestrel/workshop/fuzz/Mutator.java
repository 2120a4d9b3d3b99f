package sharpkestrel.workshop.fuzz;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.function.UnaryOperator;

/** Damages the bytes of a file: anywhere, or by what stands in it: entries of TIFF directories, words of texts. */
final class Mutator {

  private static final long[] ODD = {
    0,
    1,
    -1,
    2,
    3,
    7,
    8,
    255,
    256,
    32_767,
    32_768,
    65_535,
    65_536,
    1 << 20,
    1 << 24,
    1 << 28,
    Integer.MAX_VALUE,
    Integer.MIN_VALUE,
    0xffff_ffffL,
    Long.MAX_VALUE
  };

  private static final String[] WORDS = {
    "0",
    "-1",
    "1e308",
    "-1e308",
    "1e-320",
    "NaN",
    "Infinity",
    "2147483648",
    "9223372036854775808",
    "null",
    "true",
    "{}",
    "[]",
    "\"\"",
    "''",
    "(",
    ")",
    "[",
    "]",
    "{",
    "}",
    "<",
    ">",
    "/",
    "\\",
    "\u0000",
    "\uffff",
    "../../x",
    "AND",
    "NOT",
    "-",
    "^",
    "%",
    "&lt;",
    "AND AND",
    "1"
  };

  private final Random random;

  Mutator(long seed) {
    random = new Random(seed);
  }

  byte[] mutate(byte[] original, boolean text) {
    byte[] bytes = original.clone();
    int changes = 1 + random.nextInt(5);
    for (int i = 0; i < changes && bytes.length > 0; i++) {
      bytes = text && random.nextInt(4) > 0 ? words(bytes) : once(bytes);
    }
    return bytes;
  }

  private byte[] once(byte[] bytes) {
    return switch (random.nextInt(9)) {
      case 0 -> Arrays.copyOf(bytes, random.nextInt(bytes.length + 1));
      case 1, 2 -> entry(bytes);
      case 3 -> number(bytes);
      case 4 -> copied(bytes);
      case 5 -> filled(bytes);
      default -> single(bytes);
    };
  }

  /** Headers and directories lie in the first few hundred bytes, and are where harm is done. */
  private int place(byte[] bytes) {
    return random.nextBoolean()
        ? random.nextInt(Math.min(700, bytes.length))
        : random.nextInt(bytes.length);
  }

  private byte[] single(byte[] bytes) {
    bytes[place(bytes)] =
        (byte) (random.nextBoolean() ? random.nextInt(256) : random.nextBoolean() ? 0xff : 0);
    return bytes;
  }

  private long odd() {
    return ODD[random.nextInt(ODD.length)];
  }

  private byte[] number(byte[] bytes) {
    int size = new int[] {2, 4, 8}[random.nextInt(3)];
    if (bytes.length < size) {
      return bytes;
    }
    int at = Math.min(place(bytes) & -size, bytes.length - size);
    put(bytes, at, size, odd(), random.nextBoolean());
    return bytes;
  }

  private static void put(byte[] bytes, int at, int size, long value, boolean little) {
    ByteBuffer buffer = ByteBuffer.wrap(bytes, at, size)
        .order(little ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
    switch (size) {
      case 2 -> buffer.putShort((short) value);
      case 4 -> buffer.putInt((int) value);
      default -> buffer.putLong(value);
    }
  }

  /** Tag, type, count or value of an entry of the first directory of a TIFF file. */
  private byte[] entry(byte[] bytes) {
    boolean little = bytes.length > 16 && bytes[0] == 'I' && bytes[1] == 'I';
    boolean tiff = little || bytes.length > 16 && bytes[0] == 'M' && bytes[1] == 'M';
    if (!tiff) {
      return single(bytes);
    }
    ByteBuffer file =
        ByteBuffer.wrap(bytes).order(little ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
    boolean big = file.getShort(2) == 43;
    long first = big ? file.getLong(8) : file.getInt(4) & 0xffff_ffffL;
    int size = big ? 20 : 12;
    if (first < 8 || first > bytes.length - 64) {
      return single(bytes);
    }
    int count = Math.max(1, Math.min(40, file.getShort((int) first) & 0xffff));
    int at = (int) first + (big ? 8 : 2) + size * random.nextInt(count);
    int field = random.nextInt(4);
    int offset = field == 0 ? 0 : field == 1 ? 2 : field == 2 ? 4 : big ? 12 : 8;
    int width = field < 2 ? 2 : big ? 8 : 4;
    if (at + offset + width <= bytes.length) {
      long value = field == 0 ? 254 + random.nextInt(90) : field == 1 ? random.nextInt(19) : odd();
      put(bytes, at + offset, width, value, little);
    }
    return bytes;
  }

  private byte[] copied(byte[] bytes) {
    int length = 1 + random.nextInt(Math.min(64, bytes.length));
    int from = random.nextInt(bytes.length - length + 1);
    int to = random.nextInt(bytes.length - length + 1);
    System.arraycopy(bytes, from, bytes, to, length);
    return bytes;
  }

  private byte[] filled(byte[] bytes) {
    int from = random.nextInt(bytes.length);
    int to = Math.min(bytes.length, from + 1 + random.nextInt(200));
    Arrays.fill(bytes, from, to, (byte) (random.nextBoolean() ? 0 : 0xff));
    return bytes;
  }

  /** Words are replaced, doubled, left out, or nested a thousand deep. */
  private byte[] words(byte[] bytes) {
    String[] parts = new String(bytes, StandardCharsets.UTF_8).split("(?<=[^\\w.])|(?=[^\\w.])");
    if (parts.length == 0) {
      return bytes;
    }
    int at = random.nextInt(parts.length);
    UnaryOperator<String> change = switch (random.nextInt(6)) {
      case 0 -> word -> "";
      case 1 -> word -> word + word;
      case 2 -> word -> parts[random.nextInt(parts.length)];
      case 3 -> word -> random.nextInt(20) == 0 ? word.repeat(2_000) : word;
      default -> word -> WORDS[random.nextInt(WORDS.length)];
    };
    parts[at] = change.apply(parts[at]);
    return String.join("", parts).getBytes(StandardCharsets.UTF_8);
  }
}
