package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Step;
import sharpkestrel.step.Suits;

/** Models that are files of JSON: the way one is read, written, told apart and described. */
final class ModelKind<T> extends ResultKind<T> {

  private static final String ENDING = ".json";

  private final Function<T, String> line;
  private final String words;
  private final Function<Path, T> reader;
  private final BiConsumer<T, Path> writer;
  private final Function<T, String> text;

  /**
   * @param line what a model is, for people
   * @param words a few words for the trail
   * @param text all of it, for telling it apart
   */
  ModelKind(
      Class<T> type,
      String name,
      String words,
      Function<T, String> line,
      Function<Path, T> reader,
      BiConsumer<T, Path> writer,
      Function<T, String> text) {
    super(type, name);
    this.line = line;
    this.words = words;
    this.reader = reader;
    this.writer = writer;
    this.text = text;
  }

  @Override
  public boolean isModel() {
    return true;
  }

  /** What inputs ask for is said of scenes, objects and outlines; it is none of those. */
  @Override
  public boolean suits(T model, Suits wanted) {
    return false;
  }

  @Override
  public String describe(T model) {
    return line.apply(model);
  }

  @Override
  public String note(T model) {
    return words;
  }

  @Override
  public void digest(T model, Digest into, Job job) {
    into.add(text.apply(model));
  }

  @Override
  public List<String> endings() {
    return List.of(ENDING);
  }

  @Override
  public T read(Path file, Job job) {
    return reader.apply(file);
  }

  @Override
  public void write(T model, Path file, Delivery delivery, Job job) {
    writer.accept(model, file);
  }

  @Override
  public Optional<Keeping<T>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "models";
      }

      @Override
      public List<String> endings() {
        return List.of(ENDING);
      }

      @Override
      public T read(Path stem, Step<?> step, Job job) {
        return reader.apply(with(stem, ENDING));
      }

      @Override
      public T write(T model, Path stem, Job job) {
        writer.accept(model, with(stem, ENDING));
        return model;
      }
    });
  }
}
