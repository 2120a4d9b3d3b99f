package sharpkestrel.io;

import io.airlift.compress.v3.MalformedInputException;
import io.airlift.compress.v3.deflate.DeflateNativeCompressor;
import io.airlift.compress.v3.deflate.DeflateNativeDecompressor;
import java.util.Arrays;
import java.util.zip.Adler32;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;
import sharpkestrel.io.Compression.MalformedBlockException;

/** Zlib streams (RFC 1950), through a native library where there is one, else the JDK's. */
final class Deflate {

  private static final boolean NATIVE =
      DeflateNativeCompressor.isEnabled() && DeflateNativeDecompressor.isEnabled();
  private static final int HEADER = 2;
  private static final int TRAILER = 4;

  private Deflate() {}

  static int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
    if (NATIVE && length > HEADER + TRAILER) {
      try {
        return new DeflateNativeDecompressor()
            .decompress(packed, HEADER, length - HEADER - TRAILER, raw, 0, raw.length);
      } catch (MalformedInputException
          | IllegalArgumentException
          | IndexOutOfBoundsException retry) {
        // longer than the block, or without a trailer, or damaged: the JDK's reader tells which
        return inflate(packed, length, raw);
      }
    }
    return inflate(packed, length, raw);
  }

  private static int inflate(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
    Inflater inflater = new Inflater();
    try {
      inflater.setInput(packed, 0, length);
      int done = 0;
      while (done < raw.length && !inflater.finished()) {
        int n = inflater.inflate(raw, done, raw.length - done);
        if (n == 0 && (inflater.needsInput() || inflater.needsDictionary())) {
          break;
        }
        done += n;
      }
      return done;
    } catch (DataFormatException damaged) {
      throw new MalformedBlockException(String.valueOf(damaged.getMessage()));
    } finally {
      inflater.end();
    }
  }

  static byte[] pack(byte[] raw, int length) {
    if (!NATIVE) {
      return packWithJdk(raw, length);
    }
    DeflateNativeCompressor compressor = new DeflateNativeCompressor(1);
    byte[] packed = new byte[HEADER + compressor.maxCompressedLength(length) + TRAILER];
    packed[0] = 0x78;
    packed[1] = 0x01;
    int n = compressor.compress(raw, 0, length, packed, HEADER, packed.length - HEADER - TRAILER);
    Adler32 check = new Adler32();
    check.update(raw, 0, length);
    int sum = (int) check.getValue();
    int end = HEADER + n;
    for (int i = 0; i < TRAILER; i++) {
      packed[end + i] = (byte) (sum >>> (24 - 8 * i));
    }
    return Arrays.copyOf(packed, end + TRAILER);
  }

  private static byte[] packWithJdk(byte[] raw, int length) {
    Deflater deflater = new Deflater(1);
    try {
      deflater.setInput(raw, 0, length);
      deflater.finish();
      byte[] packed = new byte[length / 2 + 64];
      int done = 0;
      while (!deflater.finished()) {
        if (done == packed.length) {
          packed = Arrays.copyOf(packed, 2 * packed.length);
        }
        done += deflater.deflate(packed, done, packed.length - done);
      }
      return Arrays.copyOf(packed, done);
    } finally {
      deflater.end();
    }
  }
}
