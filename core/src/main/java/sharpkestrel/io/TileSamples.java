package sharpkestrel.io;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.List;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.SampleType;

/** The samples of a tile as the bytes of a file: by pixel, predicted and packed. */
final class TileSamples {

  private static final VarHandle TWO_BYTES =
      MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.LITTLE_ENDIAN);
  private static final VarHandle EIGHT_BYTES =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private final List<Band> list;
  private final int bands;
  private final int side;
  private final SampleType type;
  private final Compression compression;

  /**
   * @param list all of one sample type
   * @param side of a tile in pixels
   */
  TileSamples(List<Band> list, int side, Compression compression) {
    this.list = list;
    this.side = side;
    this.compression = compression;
    bands = list.size();
    type = list.get(0).type();
  }

  /**
   * @param planes (input) one for each band, row by row; NaN is no-data
   */
  byte[] pack(float[][] planes) {
    int size = type.bytes();
    byte[] raw = new byte[side * side * bands * size];
    if (size == 2) {
      twoBytes(planes, raw);
    }
    for (int b = 0; b < bands && size != 2; b++) {
      toBytes(planes[b], list.get(b), raw, b * size, bands * size);
    }
    int predictor = predictor();
    if (predictor > 1) {
      Predictor.apply(predictor, raw, side, side * bands, bands, size);
    }
    return compression.pack(raw, raw.length);
  }

  /** Samples of two bytes, by pixel: what is no number becomes the band's no-data. */
  private void twoBytes(float[][] planes, byte[] raw) {
    short[][] row = new short[bands][side];
    float[] values = new float[side];
    for (int y = 0; y < side; y++) {
      for (int b = 0; b < bands; b++) {
        System.arraycopy(planes[b], y * side, values, 0, side);
        double noData = list.get(b).noData();
        toShorts(values, row[b]);
        if (!Double.isNaN(noData) && noData != 0) {
          fillHoles(values, row[b], (short) (long) noData);
        }
      }
      interleave(row, raw, 2 * y * side * bands);
    }
  }

  /** What is no number becomes 0. */
  private static void toShorts(float[] values, short[] samples) {
    for (int k = 0; k < samples.length; k++) {
      samples[k] = (short) (int) values[k];
    }
  }

  private static void fillHoles(float[] values, short[] samples, short hole) {
    for (int k = 0; k < samples.length; k++) {
      if (Float.isNaN(values[k])) {
        samples[k] = hole;
      }
    }
  }

  /** Four bands at a time as one number of eight bytes, as far as there are four. */
  private static void interleave(short[][] bands, byte[] raw, int from) {
    int step = 2 * bands.length;
    int b = 0;
    for (; b + 4 <= bands.length; b += 4) {
      four(bands[b], bands[b + 1], bands[b + 2], bands[b + 3], raw, from + 2 * b, step);
    }
    for (; b < bands.length; b++) {
      one(bands[b], raw, from + 2 * b, step);
    }
  }

  private static void four(
      short[] a, short[] b, short[] c, short[] d, byte[] raw, int from, int step) {
    for (int k = 0, i = from; k < a.length; k++, i += step) {
      long low = a[k] & 0xffffL | (b[k] & 0xffffL) << 16;
      long high = c[k] & 0xffffL | (d[k] & 0xffffL) << 16;
      EIGHT_BYTES.set(raw, i, low | high << 32);
    }
  }

  private static void one(short[] a, byte[] raw, int from, int step) {
    for (int k = 0, i = from; k < a.length; k++, i += step) {
      TWO_BYTES.set(raw, i, a[k]);
    }
  }

  /** Which predictor the packed samples have; 1 for none. */
  int predictor() {
    if (compression == Compression.NONE) {
      return 1;
    }
    return type == SampleType.FLOAT32 ? 3 : 2;
  }

  private static void toBytes(float[] plane, Band band, byte[] raw, int from, int step) {
    SampleType type = band.type();
    int i = from;
    if (type == SampleType.FLOAT32) {
      float hole = (float) band.noData();
      for (float v : plane) {
        Predictor.setInt(
            raw, i, Float.floatToRawIntBits(!Float.isNaN(v) ? v : hole), ByteOrder.LITTLE_ENDIAN);
        i += step;
      }
      return;
    }
    long hole = Double.isNaN(band.noData()) ? 0 : (long) band.noData();
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
