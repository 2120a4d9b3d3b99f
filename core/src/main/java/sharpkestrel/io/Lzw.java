package sharpkestrel.io;

import java.util.Arrays;
import sharpkestrel.io.Compression.MalformedBlockException;

/**
 * LZW as TIFF 6.0 section 13 has it: codes of 9 to 12 bits, most significant bit first, the width growing one code
 * early, 256 to clear and 257 to end.
 */
final class Lzw {

  private static final int CLEAR = 256;
  private static final int END = 257;
  private static final int FIRST = 258;
  private static final int MOST = 4096;

  private Lzw() {}

  static int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
    short[] prefix = new short[MOST];
    byte[] suffix = new byte[MOST];
    short[] depth = new short[MOST];
    for (int i = 0; i < 256; i++) {
      suffix[i] = (byte) i;
      depth[i] = 1;
    }
    int next = FIRST;
    int width = 9;
    int previous = -1;
    int out = 0;
    int buffer = 0;
    int bits = 0;
    int in = 0;
    while (out < raw.length) {
      while (bits < width && in < length) {
        buffer = buffer << 8 | packed[in++] & 0xff;
        bits += 8;
      }
      if (bits < width) {
        break;
      }
      int code = buffer >>> (bits - width) & (1 << width) - 1;
      bits -= width;
      buffer &= (1 << bits) - 1;
      if (code == END) {
        break;
      }
      if (code == CLEAR) {
        next = FIRST;
        width = 9;
        previous = -1;
        continue;
      }
      if (previous < 0) {
        if (code >= CLEAR) {
          throw new MalformedBlockException("code " + code + " after a clear");
        }
        raw[out++] = (byte) code;
        previous = code;
        continue;
      }
      if (code > next || code == next && next == MOST) {
        throw new MalformedBlockException("code " + code + " before it is defined");
      }
      int source = code == next ? previous : code;
      int n = depth[source];
      byte first = writeBackwards(prefix, suffix, source, n, raw, out);
      out += n;
      if (code == next && out < raw.length) {
        raw[out] = first;
      }
      out += code == next ? 1 : 0;
      if (next < MOST) {
        prefix[next] = (short) previous;
        suffix[next] = first;
        depth[next] = (short) (depth[previous] + 1);
        next++;
      }
      if (next >= (1 << width) - 1 && width < 12) {
        width++;
      }
      previous = code;
    }
    return Math.min(out, raw.length);
  }

  private static byte writeBackwards(
      short[] prefix, byte[] suffix, int code, int n, byte[] raw, int out) {
    int at = code;
    for (int i = n - 1; i >= 0; i--) {
      if (out + i < raw.length) {
        raw[out + i] = suffix[at];
      }
      if (i == 0) {
        break;
      }
      at = prefix[at] & 0xffff;
    }
    return suffix[at];
  }

  static byte[] pack(byte[] raw, int length) {
    BitSink sink = new BitSink(length / 2 + 64);
    // children of a code are found by open addressing on (code, byte)
    int[] keys = new int[1 << 14];
    short[] codes = new short[1 << 14];
    Arrays.fill(keys, -1);
    int next = FIRST;
    int width = 9;
    sink.put(CLEAR, width);
    int current = -1;
    for (int i = 0; i < length; i++) {
      int b = raw[i] & 0xff;
      if (current < 0) {
        current = b;
        continue;
      }
      int key = current << 8 | b;
      int slot = slot(keys, key);
      if (keys[slot] == key) {
        current = codes[slot];
        continue;
      }
      sink.put(current, width);
      keys[slot] = key;
      codes[slot] = (short) next++;
      if (next == MOST - 2) {
        sink.put(CLEAR, width);
        Arrays.fill(keys, -1);
        next = FIRST;
        width = 9;
      } else if (next > (1 << width) - 1) {
        width++;
      }
      current = b;
    }
    if (current >= 0) {
      sink.put(current, width);
      next++;
      if (next > (1 << width) - 1 && width < 12) {
        width++;
      }
    }
    sink.put(END, width);
    return sink.toBytes();
  }

  private static int slot(int[] keys, int key) {
    int slot = (key * 0x9E3779B1) >>> 18;
    while (keys[slot] != -1 && keys[slot] != key) {
      slot = slot + 1 & keys.length - 1;
    }
    return slot;
  }

  private static final class BitSink {
    private byte[] bytes;
    private int count;
    private int buffer;
    private int bits;

    BitSink(int capacity) {
      bytes = new byte[capacity];
    }

    void put(int code, int width) {
      buffer = buffer << width | code;
      bits += width;
      while (bits >= 8) {
        bits -= 8;
        add(buffer >>> bits);
        buffer &= (1 << bits) - 1;
      }
    }

    private void add(int value) {
      if (count == bytes.length) {
        bytes = Arrays.copyOf(bytes, 2 * bytes.length);
      }
      bytes[count++] = (byte) value;
    }

    byte[] toBytes() {
      if (bits > 0) {
        add(buffer << (8 - bits));
        bits = 0;
      }
      return Arrays.copyOf(bytes, count);
    }
  }
}
