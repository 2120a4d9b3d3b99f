package sharpkestrel.io;

import java.nio.ByteOrder;

/**
 * Differences between neighbouring samples of a row: TIFF predictor 2 (whole numbers) and 3 (floats, split into bytes
 * of like weight; TIFF Technical Note 3). Rows hold {@code samples} interleaved samples a pixel.
 */
final class Predictor {

  private Predictor() {}

  static void undo(
      int predictor, byte[] raw, int rows, int rowSamples, int samples, int size, ByteOrder order) {
    int stride = rowSamples * size;
    for (int y = 0; y < rows; y++) {
      int from = y * stride;
      if (predictor == 3) {
        undoFloatRow(raw, from, rowSamples, samples, size, order);
      } else {
        undoWholeRow(raw, from, rowSamples, samples, size, order);
      }
    }
  }

  private static void undoWholeRow(
      byte[] raw, int from, int rowSamples, int samples, int size, ByteOrder order) {
    switch (size) {
      case 1 -> {
        for (int i = from + samples; i < from + rowSamples; i++) {
          raw[i] += raw[i - samples];
        }
      }
      case 2 -> {
        int low = order == ByteOrder.LITTLE_ENDIAN ? 0 : 1;
        int high = 1 - low;
        for (int i = from + 2 * samples; i < from + 2 * rowSamples; i += 2) {
          int j = i - 2 * samples;
          int sum = (raw[i + low] & 0xff | (raw[i + high] & 0xff) << 8)
              + (raw[j + low] & 0xff | (raw[j + high] & 0xff) << 8);
          raw[i + low] = (byte) sum;
          raw[i + high] = (byte) (sum >>> 8);
        }
      }
      case 3, 8 -> {
        for (int i = from + size * samples; i < from + size * rowSamples; i += size) {
          addWide(raw, i, i - size * samples, size, order);
        }
      }
      default -> {
        for (int i = from + 4 * samples; i < from + 4 * rowSamples; i += 4) {
          setInt(raw, i, getInt(raw, i, order) + getInt(raw, i - 4 * samples, order), order);
        }
      }
    }
  }

  /** Adds the number of so many bytes at one place to that at another. */
  private static void addWide(byte[] raw, int to, int from, int size, ByteOrder order) {
    int carry = 0;
    for (int k = 0; k < size; k++) {
      int place = order == ByteOrder.LITTLE_ENDIAN ? k : size - 1 - k;
      int sum = (raw[to + place] & 0xff) + (raw[from + place] & 0xff) + carry;
      raw[to + place] = (byte) sum;
      carry = sum >>> 8;
    }
  }

  private static void undoFloatRow(
      byte[] raw, int from, int rowSamples, int samples, int size, ByteOrder order) {
    int length = rowSamples * size;
    for (int i = from + samples; i < from + length; i++) {
      raw[i] += raw[i - samples];
    }
    byte[] row = new byte[length];
    System.arraycopy(raw, from, row, 0, length);
    for (int i = 0; i < rowSamples; i++) {
      for (int b = 0; b < size; b++) {
        int to = order == ByteOrder.BIG_ENDIAN ? b : size - 1 - b;
        raw[from + i * size + to] = row[b * rowSamples + i];
      }
    }
  }

  /** Applies a predictor to little-endian rows. */
  static void apply(int predictor, byte[] raw, int rows, int rowSamples, int samples, int size) {
    int stride = rowSamples * size;
    for (int y = 0; y < rows; y++) {
      int from = y * stride;
      if (predictor == 3) {
        applyFloatRow(raw, from, rowSamples, samples, size);
      } else {
        applyWholeRow(raw, from, rowSamples, samples, size);
      }
    }
  }

  private static void applyWholeRow(byte[] raw, int from, int rowSamples, int samples, int size) {
    for (int i = from + (rowSamples - 1) * size; i >= from + samples * size; i -= size) {
      int j = i - samples * size;
      switch (size) {
        case 1 -> raw[i] -= raw[j];
        case 2 -> {
          int difference = (raw[i] & 0xff | (raw[i + 1] & 0xff) << 8)
              - (raw[j] & 0xff | (raw[j + 1] & 0xff) << 8);
          raw[i] = (byte) difference;
          raw[i + 1] = (byte) (difference >>> 8);
        }
        default ->
          setInt(
              raw,
              i,
              getInt(raw, i, ByteOrder.LITTLE_ENDIAN) - getInt(raw, j, ByteOrder.LITTLE_ENDIAN),
              ByteOrder.LITTLE_ENDIAN);
      }
    }
  }

  private static void applyFloatRow(byte[] raw, int from, int rowSamples, int samples, int size) {
    int length = rowSamples * size;
    byte[] row = new byte[length];
    for (int i = 0; i < rowSamples; i++) {
      for (int b = 0; b < size; b++) {
        row[b * rowSamples + i] = raw[from + i * size + size - 1 - b];
      }
    }
    for (int i = length - 1; i >= samples; i--) {
      row[i] -= row[i - samples];
    }
    System.arraycopy(row, 0, raw, from, length);
  }

  static int getInt(byte[] raw, int i, ByteOrder order) {
    int value = raw[i] & 0xff
        | (raw[i + 1] & 0xff) << 8
        | (raw[i + 2] & 0xff) << 16
        | (raw[i + 3] & 0xff) << 24;
    return order == ByteOrder.LITTLE_ENDIAN ? value : Integer.reverseBytes(value);
  }

  static void setInt(byte[] raw, int i, int value, ByteOrder order) {
    int v = order == ByteOrder.LITTLE_ENDIAN ? value : Integer.reverseBytes(value);
    raw[i] = (byte) v;
    raw[i + 1] = (byte) (v >>> 8);
    raw[i + 2] = (byte) (v >>> 16);
    raw[i + 3] = (byte) (v >>> 24);
  }
}
