package sharpkestrel.io;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import sharpkestrel.raster.SampleType;

/**
 * How the samples of a TIFF image are stored: bits each, whole or float, signed or not. Widens rows of them to float planes,
 * or to whole numbers where those must stay exact.
 *
 * @param bits 1 to 32 for whole numbers (packed from the high bit down where they fill no bytes), 16, 32 or 64 for floats
 * @param samples interleaved in a row
 */
record TiffSamples(int bits, boolean isFloat, boolean isSigned, int samples, ByteOrder order) {

  private static final int WHOLE = 1;
  private static final int SIGNED = 2;
  private static final int FLOATING = 3;
  private static final int UNSPECIFIED = 4;

  /**
   * @throws FileFormatException for samples that are not read
   */
  static TiffSamples of(TiffFile file, TiffDirectory directory) {
    int bits = bits(file, directory);
    int format = directory.integer(TiffTags.SAMPLE_FORMAT, WHOLE);
    boolean floating = format == FLOATING;
    boolean whole = format == WHOLE || format == SIGNED || format == UNSPECIFIED;
    boolean read = floating
        ? bits == 16 || bits == 32 || bits == 64
        : whole && bits >= 1 && bits <= 32 && (format != SIGNED || bits % 8 == 0 && bits != 24);
    if (!read) {
      throw file.unsupported(
          "samples of " + bits + " bits in format " + format + " are not read",
          "Convert them to whole numbers of up to 32 bits, or to floats of 16, 32 or 64.");
    }
    boolean interleaved = directory.integer(TiffTags.PLANAR, 1) == 1;
    int samples = interleaved ? directory.integer(TiffTags.SAMPLES, 1) : 1;
    return new TiffSamples(bits, floating, format == SIGNED, samples, file.order());
  }

  private static int bits(TiffFile file, TiffDirectory directory) {
    long[] all = directory.numbers(TiffTags.BITS);
    long first = all.length == 0 ? 1 : all[0];
    for (long each : all) {
      if (each != first) {
        throw file.unsupported(
            "its bands have different numbers of bits (" + first + " and " + each + ")",
            "Write the file again with one sample type for all bands.");
      }
    }
    return (int) Math.max(0, Math.min(first, 1024));
  }

  /** The smallest type that holds them all; floats of 64 bits lose digits. */
  SampleType type() {
    if (isFloat) {
      return SampleType.FLOAT32;
    }
    if (isSigned) {
      return bits <= 16 ? SampleType.INT16 : SampleType.INT32;
    }
    return bits <= 8 ? SampleType.UINT8 : bits <= 16 ? SampleType.UINT16 : SampleType.UINT32;
  }

  /**
   * @param raw (input) rows of stride bytes
   * @param noData the stored number that becomes NaN; NaN for none
   * @param planes (output) one for each interleaved sample, set to width * height samples, row by row
   */
  void toFloats(byte[] raw, int stride, int width, int height, double noData, float[][] planes) {
    for (int s = 0; s < planes.length; s++) {
      planes[s] = new float[width * height];
    }
    boolean little = order == ByteOrder.LITTLE_ENDIAN;
    if (bits == 16 && !isFloat && !isSigned && samples == 1 && stride == 2 * width) {
      widen(raw, planes[0]);
    } else if (bits == 16 && !isFloat && !isSigned && samples == 4 && little) {
      fours(raw, stride, width, height, planes);
    } else {
      for (int y = 0; y < height; y++) {
        for (int s = 0; s < samples; s++) {
          row(raw, y * stride, s, width, noData, planes[s], y * width);
        }
      }
    }
    hide(planes, noData);
  }

  /** Numbers of 32 bits are compared before they are widened, as neighbours there may be one float. */
  private void hide(float[][] planes, double noData) {
    if (Double.isNaN(noData) || bits == 32 && !isFloat) {
      return;
    }
    float hole = (float) noData;
    for (float[] plane : planes) {
      for (int i = 0; i < plane.length; i++) {
        if (plane[i] == hole) {
          plane[i] = Float.NaN;
        }
      }
    }
  }

  private void row(
      byte[] raw, int start, int sample, int count, double noData, float[] plane, int at) {
    int size = bits / 8;
    int step = samples * size;
    int i = start + sample * size;
    if (bits % 8 != 0 || bits == 24) {
      for (int x = 0; x < count; x++) {
        plane[at + x] = packed(raw, start, x * samples + sample);
      }
    } else if (bits == 8) {
      for (int x = 0; x < count; x++, i += step) {
        plane[at + x] = isSigned ? raw[i] : raw[i] & 0xff;
      }
    } else if (bits == 16) {
      for (int x = 0; x < count; x++, i += step) {
        short value = shortAt(raw, i);
        plane[at + x] =
            isFloat ? finite(Float.float16ToFloat(value)) : isSigned ? value : value & 0xffff;
      }
    } else if (bits == 64) {
      for (int x = 0; x < count; x++, i += step) {
        plane[at + x] = finite((float) doubleAt(raw, i));
      }
    } else {
      for (int x = 0; x < count; x++, i += step) {
        int value = Predictor.getInt(raw, i, order);
        if (isFloat) {
          plane[at + x] = finite(Float.intBitsToFloat(value));
        } else {
          long number = isSigned ? value : value & 0xffff_ffffL;
          plane[at + x] = number == noData ? Float.NaN : number;
        }
      }
    }
  }

  /** Infinite numbers stand for none. */
  private static float finite(float value) {
    return value + 0 * value;
  }

  /** Samples that fill no bytes: the first in the high bits; a row begins with a byte. */
  private int packed(byte[] raw, int start, int place) {
    int value = 0;
    long bit = (long) place * bits;
    for (int k = 0; k < bits; k++, bit++) {
      value = value << 1 | raw[start + (int) (bit >> 3)] >> (7 - (bit & 7)) & 1;
    }
    return value;
  }

  /**
   * The first sample of each pixel as it is stored, no-data as 0.
   *
   * @param values (output) width * height
   */
  void toInts(byte[] raw, int stride, int width, int height, double noData, int[] values) {
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        int i = y * stride + x * samples * (bits / 8);
        int value = switch (bits) {
          case 8 -> isSigned ? raw[i] : raw[i] & 0xff;
          case 16 -> isSigned ? shortAt(raw, i) : shortAt(raw, i) & 0xffff;
          case 32 -> Predictor.getInt(raw, i, order);
          default -> packed(raw, y * stride, x * samples);
        };
        double number = isSigned || bits < 32 ? value : value & 0xffff_ffffL;
        values[y * width + x] = number == noData ? 0 : value;
      }
    }
  }

  private short shortAt(byte[] raw, int i) {
    short value = (short) (raw[i] & 0xff | raw[i + 1] << 8);
    return order == ByteOrder.LITTLE_ENDIAN ? value : Short.reverseBytes(value);
  }

  private double doubleAt(byte[] raw, int i) {
    long first = Predictor.getInt(raw, i, order) & 0xffff_ffffL;
    long second = Predictor.getInt(raw, i + 4, order) & 0xffff_ffffL;
    boolean little = order == ByteOrder.LITTLE_ENDIAN;
    return Double.longBitsToDouble(little ? second << 32 | first : first << 32 | second);
  }

  /** Four samples of two bytes a pixel, taken as one number of eight bytes each. */
  private static void fours(byte[] raw, int stride, int width, int height, float[][] planes) {
    long[] row = new long[width];
    for (int y = 0; y < height; y++) {
      ByteBuffer.wrap(raw, y * stride, 8 * width)
          .order(ByteOrder.LITTLE_ENDIAN)
          .asLongBuffer()
          .get(row);
      for (int s = 0; s < 4; s++) {
        take(row, 16 * s, planes[s], y * width);
      }
    }
  }

  private static void take(long[] fours, int shift, float[] plane, int at) {
    for (int x = 0; x < fours.length; x++) {
      plane[at + x] = (int) (fours[x] >>> shift) & 0xffff;
    }
  }

  /** Single samples of two bytes, copied at once and then widened. */
  private void widen(byte[] raw, float[] plane) {
    short[] some = new short[plane.length];
    ByteBuffer.wrap(raw).order(order).asShortBuffer().get(some, 0, some.length);
    for (int i = 0; i < plane.length; i++) {
      plane[i] = some[i] & 0xffff;
    }
  }
}
