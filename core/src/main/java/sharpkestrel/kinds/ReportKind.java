package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Function;
import sharpkestrel.io.Json;
import sharpkestrel.io.Report;
import sharpkestrel.raster.Job;

/** Figures to be read: scores, ratings, profiles, rankings. */
final class ReportKind<T extends Report> extends ResultKind<T> {

  private final Function<T, String> line;
  private final Function<T, String> words;

  /**
   * @param line of the command line
   * @param words of the trail
   */
  ReportKind(Class<T> type, String name, Function<T, String> line, Function<T, String> words) {
    super(type, name);
    this.line = line;
    this.words = words;
  }

  @Override
  public String describe(T report) {
    return line.apply(report);
  }

  @Override
  public String note(T report) {
    return words.apply(report);
  }

  @Override
  public void digest(T report, Digest into, Job job) {
    into.add(Json.line(report.toJson()));
  }

  @Override
  public List<String> endings() {
    return List.of(".json");
  }

  @Override
  public List<String> readEndings() {
    return List.of();
  }

  @Override
  public void write(T report, Path file, Delivery delivery, Job job) {
    Json.write(report.toJson(), file);
  }
}
