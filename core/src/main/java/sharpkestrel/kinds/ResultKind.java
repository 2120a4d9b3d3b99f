package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.expr.Table;
import sharpkestrel.io.Compression;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Step;
import sharpkestrel.step.Suits;

/**
 * A kind of result: all that is to be known of it beside the steps that make and take it. A new kind is a class of its own and
 * an entry in {@link ResultKinds}.
 *
 * @param <T> its values
 */
public abstract class ResultKind<T> {

  private final Class<T> type;
  private final String name;

  /**
   * @param name with its article: "a raster"
   */
  protected ResultKind(Class<T> type, String name) {
    this.type = type;
    this.name = name;
  }

  /** How a file is written that others will read. */
  public record Delivery(String layer, Compression compression, boolean overviews) {

    public static final Delivery PLAIN = new Delivery("outlines", Compression.ZSTD, true);
  }

  public final Class<T> type() {
    return type;
  }

  /** With its article, for messages. */
  public final String name() {
    return name;
  }

  /** One line for the command line. */
  public abstract String describe(T value);

  /** A few words for the trail. */
  public abstract String note(T value);

  /** Tells values apart by what they are, not by how they were made: decoded pixels, numbers of tables, geometry. */
  public abstract void digest(T value, Digest into, Job job);

  /** How names of files end that it is written to, with their dots; the first is the usual one. Empty: to none. */
  public List<String> endings() {
    return List.of();
  }

  /** How names of files end that it is read from. */
  public List<String> readEndings() {
    return endings();
  }

  /**
   * @throws RasterException where the file holds none
   */
  public T read(Path file, Job job) {
    throw new RasterException(file + ": " + name + " is not read from a file.");
  }

  /** Every file that counts when one is read, whether it is there or not. */
  public List<Path> readWith(Path file) {
    return List.of(file);
  }

  /**
   * @param file whose ending is one of {@link #endings}
   */
  public void write(T value, Path file, Delivery delivery, Job job) {
    throw new RasterException(file + ": " + name + " is not written to a file.");
  }

  /** About how many bytes of memory a value holds; those of pictures lie on the disk. */
  public long bytes(T value) {
    return 1 << 20;
  }

  /** Other kinds of values that it serves as. */
  public Set<Class<?>> servesAs() {
    return Set.of();
  }

  /**
   * A value as one of the types of {@link #servesAs}.
   *
   * @throws IllegalArgumentException for another
   */
  public Object as(T value, Class<?> wanted) {
    throw new IllegalArgumentException(name + " does not serve as " + wanted.getSimpleName());
  }

  /** Whether a value is such as an input asks for; of no account for most kinds. */
  public boolean suits(T value, Suits wanted) {
    return true;
  }

  /** Whether it was learned, and is there to be put to use by another step. */
  public boolean isModel() {
    return false;
  }

  /** How it is kept in a project's folder; empty where it never is. */
  public Optional<Keeping<T>> keeping() {
    return Optional.empty();
  }

  /** How values of a kind are kept in a project's folder. */
  public interface Keeping<T> {

    /** The folder's part that holds them. */
    String folder();

    /** How their files' names end, with their dots; all of them are there, or none counts. */
    List<String> endings();

    /** Whether a value is worth a file, costing more to make than to read. */
    default boolean isWorthIt(T value) {
      return true;
    }

    /** Settings that choose among values in the same files. */
    default Set<String> settingsAside() {
      return Set.of();
    }

    /**
     * @param stem the files' name without endings
     * @param step as set, with its inputs, that would make the value
     */
    T read(Path stem, Step<?> step, Job job);

    /**
     * What was read, so that damage found only later is made good by the step; as it is where reading finds all damage.
     */
    default T guarded(T found, Step<?> step, Job job) {
      return found;
    }

    /**
     * Writes a value whole or not at all.
     *
     * @return the value to go on with, such as a raster that reads from its file
     */
    T write(T value, Path stem, Job job);
  }

  /**
   * What a value has of things that can be listed one by one.
   *
   * @param ids for each row the number by which the thing is known
   * @param table as many rows; without columns where nothing has been measured
   */
  public record Rows(int[] ids, Table table) {}

  /** The things that a value holds; empty for what has none. */
  public Optional<Rows> rows(T value) {
    return Optional.empty();
  }

  final T cast(Object value) {
    return type.cast(value);
  }

  /** Whether a name ends so. */
  static boolean endsWith(Path file, String ending) {
    return file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(ending);
  }

  static Path with(Path stem, String ending) {
    return stem.resolveSibling(stem.getFileName() + ending);
  }

  /** Whole numbers in groups of three. */
  static String grouped(long number) {
    return String.format(Locale.ROOT, "%,d", number).replace(',', '\u2009');
  }
}
