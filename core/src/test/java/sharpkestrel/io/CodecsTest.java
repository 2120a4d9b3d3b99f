package sharpkestrel.io;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.Random;
import java.util.zip.Deflater;
import java.util.zip.InflaterInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sharpkestrel.io.Compression.MalformedBlockException;

/** Blocks packed and unpacked, against the JDK's own codec and against arithmetic done plainly. */
class CodecsTest {

  /** Blocks as imagery has them: flat, noisy, in runs, empty, of one byte. */
  private static byte[][] blocks() {
    Random random = new Random(11);
    byte[] noise = new byte[70_000];
    random.nextBytes(noise);
    byte[] runs = new byte[50_000];
    for (int i = 0; i < runs.length; i++) {
      runs[i] = (byte) (i / 97 + (random.nextInt(40) == 0 ? 1 : 0));
    }
    byte[] words = new byte[30_000];
    for (int i = 0; i < words.length; i++) {
      words[i] = (byte) "roof and shadow ".charAt(i % 16);
    }
    return new byte[][] {{}, {42}, new byte[10_000], noise, runs, words};
  }

  @ParameterizedTest
  @EnumSource(Compression.class)
  void whatIsPackedComesBackByteForByte(Compression compression) throws Exception {
    for (byte[] raw : blocks()) {
      byte[] packed = compression.pack(raw, raw.length);
      byte[] back = new byte[raw.length];

      int n = compression.unpack(packed, packed.length, back);

      assertThat(n).isEqualTo(raw.length);
      assertThat(back).isEqualTo(raw);
    }
  }

  @ParameterizedTest
  @EnumSource(
      value = Compression.class,
      names = {"LZW", "DEFLATE", "ZSTD"})
  void runsBecomeMuchSmaller(Compression compression) {
    byte[] flat = new byte[10_000];

    assertThat(compression.pack(flat, flat.length).length).isLessThan(400);
  }

  @Test
  void theJdkReadsOurDeflateAndWeReadTheJdks() throws IOException, MalformedBlockException {
    for (byte[] raw : blocks()) {
      byte[] ours = Compression.DEFLATE.pack(raw, raw.length);
      try (var in = new InflaterInputStream(new ByteArrayInputStream(ours))) {
        assertThat(in.readAllBytes()).isEqualTo(raw);
      }
      Deflater deflater = new Deflater(9);
      deflater.setInput(raw);
      deflater.finish();
      ByteArrayOutputStream theirs = new ByteArrayOutputStream();
      byte[] buffer = new byte[4096];
      while (!deflater.finished()) {
        theirs.write(buffer, 0, deflater.deflate(buffer));
      }
      deflater.end();
      byte[] back = new byte[raw.length];
      Compression.DEFLATE.unpack(theirs.toByteArray(), theirs.size(), back);
      assertThat(back).isEqualTo(raw);
    }
  }

  @Test
  void theExampleOfTheStandardUnpacksAsItSays() throws MalformedBlockException {
    // TIFF 6.0, section 13: the codes 256 7 258 8 8 258 6 6 257 of 9 bits stand for 7 7 7 8 8 7 7 6
    // 6.
    int[] codes = {256, 7, 258, 8, 8, 258, 6, 6, 257};
    byte[] packed = new byte[(9 * codes.length + 7) / 8];
    for (int i = 0; i < codes.length; i++) {
      for (int bit = 0; bit < 9; bit++) {
        if ((codes[i] >> (8 - bit) & 1) == 1) {
          int at = 9 * i + bit;
          packed[at / 8] |= (byte) (0x80 >> at % 8);
        }
      }
    }
    byte[] raw = new byte[9];

    assertThat(Compression.LZW.unpack(packed, packed.length, raw)).isEqualTo(9);
    assertThat(raw).containsExactly(7, 7, 7, 8, 8, 7, 7, 6, 6);
  }

  @ParameterizedTest
  @EnumSource(Compression.class)
  void damagedBlocksNeverDoWorseThanSayingSo(Compression compression) {
    Random random = new Random(3);
    byte[] raw = blocks()[4];
    byte[] packed = compression.pack(raw, raw.length);
    for (int i = 0; i < 300; i++) {
      byte[] damaged = packed.clone();
      for (int k = 0; k < 4; k++) {
        damaged[random.nextInt(damaged.length)] = (byte) random.nextInt();
      }
      int length = random.nextInt(damaged.length + 1);
      assertThatCode(() -> {
            try {
              int n = compression.unpack(damaged, length, new byte[raw.length]);
              assertThat(n).isBetween(0, raw.length);
            } catch (MalformedBlockException said) {
              assertThat(said.getMessage()).isNotEmpty();
            }
          })
          .as("damage %d", i)
          .doesNotThrowAnyException();
    }
  }

  @ParameterizedTest
  @CsvSource({"2,1,1", "2,1,4", "2,2,1", "2,2,6", "2,4,3", "3,4,1", "3,4,6"})
  void aPredictorUndoesItself(int predictor, int size, int samples) {
    Random random = new Random(17L * predictor + size + samples);
    int rows = 5;
    int rowSamples = 31 * samples;
    byte[] raw = new byte[rows * rowSamples * size];
    random.nextBytes(raw);
    byte[] changed = raw.clone();

    Predictor.apply(predictor, changed, rows, rowSamples, samples, size);

    assertThat(changed).isNotEqualTo(raw);
    Predictor.undo(predictor, changed, rows, rowSamples, samples, size, ByteOrder.LITTLE_ENDIAN);
    assertThat(changed).isEqualTo(raw);
  }

  @ParameterizedTest
  @CsvSource({"1,3", "2,1", "2,5", "4,2"})
  void differencesAreThoseOfWholeNumbersOfTheSameBand(int size, int samples) {
    Random random = new Random(size + 10L * samples);
    int pixels = 23;
    long[] numbers = new long[pixels * samples];
    ByteBuffer raw = ByteBuffer.allocate(numbers.length * size).order(ByteOrder.LITTLE_ENDIAN);
    for (int i = 0; i < numbers.length; i++) {
      numbers[i] = random.nextLong() & (1L << 8 * size) - 1;
      for (int b = 0; b < size; b++) {
        raw.put((byte) (numbers[i] >>> 8 * b));
      }
    }

    Predictor.apply(2, raw.array(), 1, numbers.length, samples, size);

    for (int i = 0; i < numbers.length; i++) {
      long before = i < samples ? 0 : numbers[i - samples];
      long expected = numbers[i] - before & (1L << 8 * size) - 1;
      long found = 0;
      for (int b = 0; b < size; b++) {
        found |= (raw.array()[i * size + b] & 0xffL) << 8 * b;
      }
      assertThat(found).as("sample %d", i).isEqualTo(expected);
    }
  }

  @Test
  void bigEndianRowsAreUndoneInTheirOwnOrder() {
    short[] numbers = {300, 310, 290, -5, 12_000};
    ByteBuffer big = ByteBuffer.allocate(2 * numbers.length).order(ByteOrder.BIG_ENDIAN);
    for (int i = 0; i < numbers.length; i++) {
      big.putShort((short) (numbers[i] - (i == 0 ? 0 : numbers[i - 1])));
    }

    Predictor.undo(2, big.array(), 1, numbers.length, 1, 2, ByteOrder.BIG_ENDIAN);

    short[] back = new short[numbers.length];
    big.flip().limit(big.capacity());
    big.asShortBuffer().get(back);
    assertThat(Arrays.equals(back, numbers)).isTrue();
  }
}
