package sharpkestrel.io;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdException;

/** How the blocks of a file are packed. */
public enum Compression {
  NONE(1),
  LZW(5),
  DEFLATE(8),
  ZSTD(50000);

  private final int code;

  Compression(int code) {
    this.code = code;
  }

  int code() {
    return code;
  }

  /**
   * Unpacks a block.
   *
   * @param packed (input) the first {@code length} bytes are the block
   * @param raw (output) filled from the start; what the block does not hold stays as it is
   * @return bytes unpacked
   * @throws MalformedBlockException where the block is damaged
   */
  int unpack(byte[] packed, int length, byte[] raw) throws MalformedBlockException {
    return switch (this) {
      case NONE -> {
        int n = Math.min(length, raw.length);
        System.arraycopy(packed, 0, raw, 0, n);
        yield n;
      }
      case LZW -> Lzw.unpack(packed, length, raw);
      case DEFLATE -> Deflate.unpack(packed, length, raw);
      case ZSTD -> {
        try {
          long n = Zstd.decompressByteArray(raw, 0, raw.length, packed, 0, length);
          if (Zstd.isError(n)) {
            throw new MalformedBlockException(Zstd.getErrorName(n));
          }
          yield (int) n;
        } catch (ZstdException damaged) {
          throw new MalformedBlockException(damaged.getMessage());
        }
      }
    };
  }

  /** Packs a block, which may be the result itself, at the fastest setting: on imagery higher ones gain little. */
  byte[] pack(byte[] raw, int length) {
    return switch (this) {
      case NONE -> raw.length == length ? raw : java.util.Arrays.copyOf(raw, length);
      case LZW -> Lzw.pack(raw, length);
      case DEFLATE -> Deflate.pack(raw, length);
      case ZSTD -> {
        byte[] packed = new byte[(int) Zstd.compressBound(length)];
        long n = Zstd.compressByteArray(packed, 0, packed.length, raw, 0, length, 1);
        if (Zstd.isError(n)) {
          throw new FileFormatException("A block cannot be packed: " + Zstd.getErrorName(n));
        }
        yield java.util.Arrays.copyOf(packed, (int) n);
      }
    };
  }

  /** A block whose packed bytes make no sense. */
  static final class MalformedBlockException extends Exception {
    private static final long serialVersionUID = 1L;

    MalformedBlockException(String message) {
      super(message);
    }
  }
}
