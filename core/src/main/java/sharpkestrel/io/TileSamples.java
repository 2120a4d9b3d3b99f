package sharpkestrel.io;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.LongBuffer;
import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.SampleType;

/** The samples of a tile as the bytes of a file: by pixel, predicted and packed. */
final class TileSamples {

  private static final VarHandle TWO_BYTES =
      MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.LITTLE_ENDIAN);
  private static final VarHandle EIGHT_BYTES =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private final double noData;
  private final int bands;
  private final int side;
  private final SampleType type;
  private final Compression compression;
  private final Spares<byte[]> unpacked;

  /**
   * @param list all of one sample type
   * @param side of a tile in pixels
   */
  TileSamples(List<Band> list, int side, Compression compression) {
    noData = RasterEntries.noData(list);
    this.side = side;
    this.compression = compression;
    bands = list.size();
    type = list.get(0).type();
    unpacked = new Spares<>(() -> new byte[side * side * bands * type.bytes()]);
  }

  /**
   * @param planes (input) one for each band, row by row; NaN is no-data
   */
  byte[] pack(float[][] planes) {
    int size = type.bytes();
    byte[] raw = unpacked.take();
    if (size == 2) {
      twoBytes(planes, raw);
    }
    for (int b = 0; b < bands && size != 2; b++) {
      toBytes(planes[b], raw, b * size, bands * size);
    }
    return packed(raw);
  }

  /**
   * @param values (input) the only band's samples of four bytes, no-data as it is stored
   */
  byte[] pack(int[] values) {
    byte[] raw = unpacked.take();
    for (int i = 0; i < values.length; i++) {
      Predictor.setInt(raw, 4 * i, values[i], ByteOrder.LITTLE_ENDIAN);
    }
    return packed(raw);
  }

  private byte[] packed(byte[] raw) {
    int size = type.bytes();
    int predictor = predictor();
    if (predictor > 1) {
      Predictor.apply(predictor, raw, side, side * bands, bands, size);
    }
    byte[] packed = compression.pack(raw, raw.length);
    if (packed != raw) {
      unpacked.give(raw);
    }
    return packed;
  }

  /** Bytes that {@link #pack} gave have been written. */
  void done(byte[] packed) {
    if (compression == Compression.NONE) {
      unpacked.give(packed);
    }
  }

  /** Samples of two bytes, by pixel: what is no number becomes the band's no-data. */
  private void twoBytes(float[][] planes, byte[] raw) {
    int[][] row = new int[bands][side];
    int inFours = bands / 4 * 4;
    long[] fours = new long[side];
    LongBuffer asLongs = ByteBuffer.wrap(raw).order(ByteOrder.LITTLE_ENDIAN).asLongBuffer();
    for (int y = 0; y < side; y++) {
      for (int b = 0; b < bands; b++) {
        toInts(planes[b], y * side, row[b]);
        if (!Double.isNaN(noData) && noData != 0) {
          fillHoles(planes[b], y * side, row[b], (int) noData);
        }
      }
      if (bands == 4) {
        four(row[0], row[1], row[2], row[3], fours);
        asLongs.put(y * side, fours);
        continue;
      }
      int from = 2 * y * side * bands;
      for (int b = 0; b < inFours; b += 4) {
        four(row[b], row[b + 1], row[b + 2], row[b + 3], fours);
        spread(fours, raw, from + 2 * b);
      }
      for (int b = inFours; b < bands; b++) {
        spread(row[b], raw, from + 2 * b);
      }
    }
  }

  /** What is no number becomes 0. */
  private static void toInts(float[] values, int from, int[] samples) {
    for (int k = 0; k < samples.length; k++) {
      samples[k] = (int) values[from + k];
    }
  }

  private static void fillHoles(float[] values, int from, int[] samples, int hole) {
    for (int k = 0; k < samples.length; k++) {
      if (Float.isNaN(values[from + k])) {
        samples[k] = hole;
      }
    }
  }

  /** The samples of four bands as one number of eight bytes. */
  private static void four(int[] a, int[] b, int[] c, int[] d, long[] out) {
    for (int k = 0; k < out.length; k++) {
      int low = a[k] & 0xffff | b[k] << 16;
      int high = c[k] & 0xffff | d[k] << 16;
      out[k] = low & 0xffffffffL | (long) high << 32;
    }
  }

  private void spread(long[] fours, byte[] raw, int from) {
    int step = 2 * bands;
    for (int k = 0, i = from; k < fours.length; k++, i += step) {
      EIGHT_BYTES.set(raw, i, fours[k]);
    }
  }

  private void spread(int[] samples, byte[] raw, int from) {
    int step = 2 * bands;
    for (int k = 0, i = from; k < samples.length; k++, i += step) {
      TWO_BYTES.set(raw, i, (short) samples[k]);
    }
  }

  /** Which predictor the packed samples have; 1 for none. */
  int predictor() {
    if (compression == Compression.NONE) {
      return 1;
    }
    return type == SampleType.FLOAT32 ? 3 : 2;
  }

  private void toBytes(float[] plane, byte[] raw, int from, int step) {
    int i = from;
    if (type == SampleType.FLOAT32) {
      float hole = (float) noData;
      for (float v : plane) {
        Predictor.setInt(
            raw, i, Float.floatToRawIntBits(!Float.isNaN(v) ? v : hole), ByteOrder.LITTLE_ENDIAN);
        i += step;
      }
      return;
    }
    long hole = Double.isNaN(noData) ? 0 : (long) noData;
    switch (type.bytes()) {
      case 1 -> {
        for (float v : plane) {
          raw[i] = (byte) (!Float.isNaN(v) ? (int) v : (int) hole);
          i += step;
        }
      }
      default -> {
        for (float v : plane) {
          int value = (int) (!Float.isNaN(v) ? (long) v : hole);
          Predictor.setInt(raw, i, value, ByteOrder.LITTLE_ENDIAN);
          i += step;
        }
      }
    }
  }
}
