package sharpkestrel.flow;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import sharpkestrel.segment.Cut;

/**
 * All that makes a result what it is. Two results of the same origin are the same.
 *
 * @param settings as they were given
 * @param parts by input, and by setting that names a file to be read: the key of the result it came from, or the state of
 *     the file
 */
public record Origin(StepSpec step, Map<String, String> settings, Map<String, String> parts) {

  /** Settings that choose among the cuts of one tree; every cut of it is kept in the same files. */
  private static final Set<String> OF_A_CUT = Set.of("grain", "height");

  /**
   * @param key tells results apart
   * @param file name, without ending, of what the result is kept in
   */
  public record Fingerprint(String key, String file) {}

  public Fingerprint fingerprint() {
    Map<String, String> ofFile = new TreeMap<>(settings);
    if (step.resultType() == Cut.class) {
      ofFile.keySet().removeAll(OF_A_CUT);
    }
    return new Fingerprint(
        digest(new TreeMap<>(settings)), step.id() + "-" + digest(ofFile).substring(0, 16));
  }

  private String digest(Map<String, String> sortedSettings) {
    String version = step.version() == 1 ? "" : "@" + step.version();
    String text = step.id() + version + sortedSettings + new TreeMap<>(parts);
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  /** Whether a setting of a step names a file that it reads; those of steps that make a file name what they write. */
  public static boolean isRead(StepSpec step, StepSpec.Option option) {
    return option.namesFiles() && step.resultType() != Path.class;
  }

  /** Tells whether a file, or several separated by commas, are what they were. */
  public static String stateOf(String files) {
    return Files.exists(Path.of(files))
        ? stateOf(Path.of(files))
        : Arrays.stream(files.split(","))
            .map(file -> stateOf(Path.of(file.strip())))
            .collect(Collectors.joining(", "));
  }

  /** Tells whether a file is what it was: its name, size and time; only its name where it is not there. */
  public static String stateOf(Path file) {
    try {
      return file.getFileName() + "|" + Files.size(file) + "|" + Files.getLastModifiedTime(file);
    } catch (IOException notThere) {
      return file.toString();
    }
  }
}
