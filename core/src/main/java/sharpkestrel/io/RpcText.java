package sharpkestrel.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import sharpkestrel.geo.Rpc;

/** An RPC as text beside an image: one {@code NAME: value unit} a line, the names of RPC00B. */
public final class RpcText {

  private static final String[] HEAD = {
    "ERR_BIAS",
    "ERR_RAND",
    "LINE_OFF",
    "SAMP_OFF",
    "LAT_OFF",
    "LONG_OFF",
    "HEIGHT_OFF",
    "LINE_SCALE",
    "SAMP_SCALE",
    "LAT_SCALE",
    "LONG_SCALE",
    "HEIGHT_SCALE"
  };
  private static final String[] POLYNOMIALS = {
    "LINE_NUM_COEFF", "LINE_DEN_COEFF", "SAMP_NUM_COEFF", "SAMP_DEN_COEFF"
  };

  private RpcText() {}

  /**
   * @throws FileFormatException that names the line that is missing or unreadable
   */
  public static Rpc read(Path path) {
    Map<String, Double> values = new HashMap<>();
    try {
      for (String line : Files.readAllLines(path)) {
        int colon = line.indexOf(':');
        if (colon < 0) {
          continue;
        }
        String number = line.substring(colon + 1).strip().split("\\s+")[0];
        values.put(
            line.substring(0, colon).strip().toUpperCase(Locale.ROOT), Double.valueOf(number));
      }
    } catch (IOException failed) {
      throw new FileFormatException(path + " cannot be read: " + failed.getMessage(), failed);
    } catch (NumberFormatException malformed) {
      throw new FileFormatException(
          path + " is not an RPC text: " + malformed.getMessage() + ". Each line is NAME: number.",
          malformed);
    }
    double[] tag = new double[92];
    for (int i = 0; i < HEAD.length; i++) {
      Double value = values.get(HEAD[i]);
      if (value == null && i >= 2) {
        throw missing(path, HEAD[i]);
      }
      tag[i] = value == null ? -1 : value;
    }
    for (int k = 0; k < 4; k++) {
      for (int i = 0; i < 20; i++) {
        String name = POLYNOMIALS[k] + "_" + (i + 1);
        Double value = values.get(name);
        if (value == null) {
          throw missing(path, name);
        }
        tag[12 + 20 * k + i] = value;
      }
    }
    try {
      return Rpc.ofTag(tag);
    } catch (IllegalArgumentException senseless) {
      throw new FileFormatException(path + ": " + senseless.getMessage(), senseless);
    }
  }

  private static FileFormatException missing(Path path, String name) {
    return new FileFormatException(
        path + " has no " + name + "; an RPC text has 10 offsets and scales and 80 coefficients.");
  }

  public static void write(Rpc rpc, Path path) {
    double[] tag = rpc.toTag();
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < HEAD.length; i++) {
      text.append(HEAD[i]).append(": ").append(tag[i]).append('\n');
    }
    for (int k = 0; k < 4; k++) {
      for (int i = 0; i < 20; i++) {
        text.append(POLYNOMIALS[k]).append('_').append(i + 1).append(": ");
        text.append(tag[12 + 20 * k + i]).append('\n');
      }
    }
    AtomicFile.write(path, temporary -> Files.writeString(temporary, text));
  }
}
