package sharpkestrel.flow;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import sharpkestrel.kinds.ResultKind;
import sharpkestrel.kinds.ResultKinds;

/**
 * All that makes a result what it is. Two results of the same origin are the same.
 *
 * @param settings as they were given
 * @param parts by input, and by setting that names a file to be read: the key of the result it came from, or the state of
 *     the file
 */
public record Origin(StepSpec step, Map<String, String> settings, Map<String, String> parts) {

  /**
   * @param key tells results apart
   * @param file name, without ending, of what the result is kept in
   */
  public record Fingerprint(String key, String file) {}

  public Fingerprint fingerprint() {
    Map<String, String> ofFile = new TreeMap<>(settings);
    ResultKinds.ofType(step.resultType())
        .flatMap(ResultKind::keeping)
        .ifPresent(keeping -> ofFile.keySet().removeAll(keeping.settingsAside()));
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

  /** The state of a file that an input is read from, and of all that is read with it. */
  public static String stateOfInput(StepSpec.Input input, String file) {
    return states(ResultKinds.readWith(Path.of(file), input.type()));
  }

  /**
   * The state of what a setting names, one file or several, and of all that the step reads with them.
   *
   * @param settings of the step, as they were given
   */
  public static String stateOfSetting(StepSpec.Option option, Map<String, String> settings) {
    List<Path> all = new ArrayList<>();
    for (Path named : option.files(settings.get(option.name()))) {
      all.addAll(option.reads().of(named, name -> settings.getOrDefault(name, "")));
    }
    return states(all);
  }

  private static String states(List<Path> files) {
    return files.stream().distinct().map(FileState::of).collect(Collectors.joining(", "));
  }
}
