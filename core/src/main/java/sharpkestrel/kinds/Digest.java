package sharpkestrel.kinds;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** A SHA-256 of values as they are fed, the same on every machine. */
public final class Digest {

  private final MessageDigest digest;

  public Digest() {
    try {
      digest = MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  public Digest add(String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    return add(bytes.length).add(bytes);
  }

  public Digest add(byte[] bytes) {
    digest.update(bytes);
    return this;
  }

  public Digest add(int number) {
    digest.update(ByteBuffer.allocate(Integer.BYTES).putInt(number).flip());
    return this;
  }

  public Digest add(double... numbers) {
    ByteBuffer bytes = ByteBuffer.allocate(Double.BYTES * numbers.length);
    for (double number : numbers) {
      // one NaN, one zero
      bytes.putLong(Double.doubleToLongBits(number == 0 ? 0 : number));
    }
    digest.update(bytes.flip());
    return this;
  }

  public Digest add(float[] numbers) {
    ByteBuffer bytes = ByteBuffer.allocate(Float.BYTES * numbers.length);
    for (float number : numbers) {
      bytes.putInt(Float.floatToIntBits(number == 0 ? 0 : number));
    }
    digest.update(bytes.flip());
    return this;
  }

  public Digest add(int[] numbers) {
    ByteBuffer bytes = ByteBuffer.allocate(Integer.BYTES * numbers.length);
    bytes.asIntBuffer().put(numbers);
    digest.update(bytes);
    return this;
  }

  public String hex() {
    return HexFormat.of().formatHex(digest.digest());
  }
}
