package sharpkestrel.flow;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;

/**
 * Runs the steps of a sheet in order. Rasters to be kept are written under a name that is the digest of all that made
 * them, so a second run finds them; deleting them costs only time.
 */
public final class Runner {

  private final Path rasters;
  private final Map<String, Object> values = new LinkedHashMap<>();
  private final Map<String, String> keys = new HashMap<>();

  /**
   * @param rasters folder for kept rasters
   */
  public Runner(Path rasters) {
    this.rasters = rasters;
  }

  /**
   * @param variables replace those of the sheet
   * @param after told each step's entry and result as it is done
   * @return results by name
   */
  public Map<String, Object> run(
      RunSheet sheet,
      Map<String, String> variables,
      Job job,
      BiConsumer<RunSheet.Entry, Object> after) {
    Map<String, String> all = new LinkedHashMap<>(sheet.variables());
    all.putAll(variables);
    for (RunSheet.Entry entry : sheet.steps()) {
      job.cancellation().check();
      after.accept(entry, runOne(entry, all, job));
    }
    return values;
  }

  private Object runOne(RunSheet.Entry entry, Map<String, String> variables, Job job) {
    StepSpec spec = StepCatalogue.get(entry.step());
    Map<String, Object> inputs = new HashMap<>();
    Map<String, String> parts = new TreeMap<>();
    for (StepSpec.Input input : spec.inputs()) {
      String reference = entry.inputs().get(input.name());
      if (reference == null) {
        continue;
      }
      if (reference.startsWith("@")) {
        inputs.put(input.name(), values.get(reference.substring(1)));
        parts.put(input.name(), keys.get(reference.substring(1)));
      } else {
        Path file = Path.of(RunSheet.resolve(reference, variables));
        inputs.put(input.name(), Results.open(file, input.type()));
        parts.put(input.name(), fileKey(file));
      }
    }
    Map<String, String> settings = new TreeMap<>();
    entry.settings().forEach((name, text) -> settings.put(name, RunSheet.resolve(text, variables)));
    for (StepSpec.Option option : spec.options()) {
      if (option.rawType() == Path.class && settings.containsKey(option.name())) {
        parts.put("file:" + option.name(), fileKey(Path.of(settings.get(option.name()))));
      }
    }
    String key = digest(entry.step() + settings + parts);
    Object value;
    Path kept = rasters.resolve(entry.name() + "-" + key.substring(0, 16) + ".tif");
    if (entry.keep() && Files.isRegularFile(kept)) {
      value = RasterFiles.open(kept);
    } else {
      value = spec.make(inputs, settings).run(job);
      if (entry.keep() && value instanceof Raster raster) {
        GeoTiffWriter.write(raster, kept, Compression.ZSTD, job);
        value = RasterFiles.open(kept);
      }
    }
    values.put(entry.name(), value);
    keys.put(entry.name(), key);
    return value;
  }

  private static String fileKey(Path file) {
    try {
      return file.toAbsolutePath() + "|" + Files.size(file) + "|" + Files.getLastModifiedTime(file);
    } catch (java.io.IOException notThere) {
      return file.toString();
    }
  }

  static String digest(String text) {
    try {
      byte[] hash =
          MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
      return HexFormat.of().formatHex(hash);
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
  }
}
