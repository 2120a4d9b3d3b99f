package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.check.Scores;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderFile;
import sharpkestrel.extract.learner.Classifier;
import sharpkestrel.extract.learner.ClassifierFile;
import sharpkestrel.extract.learner.LearnersCompared;
import sharpkestrel.objects.FeatureRanking;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;
import sharpkestrel.sharpen.pan.Ratings;
import sharpkestrel.sharpen.profile.ProfileReport;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Suits;

/** Every kind of result there is. A new one is a class of its own and a line here. */
public final class ResultKinds {

  private static final ObjectsKind OBJECTS = new ObjectsKind();

  private static final List<ResultKind<?>> ALL = List.of(
      new RasterKind(),
      new TreeKind(OBJECTS),
      OBJECTS,
      new OutlinesKind(),
      new PointsKind(),
      new ModelKind<>(
          MergingModel.class,
          "a merging model",
          "merging model",
          model -> model.about() + "; " + model.card().toText(),
          MergingModelFile::read,
          MergingModelFile::write,
          MergingModelFile::text),
      new ModelKind<>(
          Classifier.class,
          "a classifier",
          "classifier",
          Classifier::toText,
          ClassifierFile::read,
          ClassifierFile::write,
          ClassifierFile::text),
      new ModelKind<>(
          Finder.class,
          "a finder",
          "finder",
          finder -> "finds " + String.join(", ", finder.classes()) + ", "
              + finder.classifier().about(),
          FinderFile::read,
          FinderFile::write,
          FinderFile::text),
      new ReportKind<>(
          Scores.class,
          "scores",
          scores -> scores.toText().lines().toList().get(1),
          scores -> String.format(Locale.ROOT, "F1 %.2f", scores.f1())),
      new ReportKind<>(
          Ratings.class,
          "ratings",
          ratings -> "best: " + ratings.rows().get(0).title(),
          ratings -> "ratings"),
      new ReportKind<>(
          ProfileReport.class,
          "profiles",
          report -> report.profiles().size() + " profiles",
          report -> report.profiles().size() + " profiles"),
      new ReportKind<>(
          FeatureRanking.class,
          "a ranking of features",
          ranking -> ranking.entries().size() + " features, the best first",
          ranking -> ranking.entries().size() + " features"),
      new ReportKind<>(
          LearnersCompared.class,
          "learners compared",
          compared -> "best: " + compared.best().method().title(),
          compared ->
              String.format(Locale.ROOT, "%.0f %%", 100 * compared.best().kept().accuracy())),
      new FileKind());

  private ResultKinds() {}

  public static List<ResultKind<?>> all() {
    return ALL;
  }

  /**
   * The kind of a value.
   *
   * @throws IllegalArgumentException where it is of none
   */
  @SuppressWarnings("unchecked")
  public static ResultKind<Object> of(Object value) {
    return (ResultKind<Object>) ALL.stream()
        .filter(kind -> kind.type().isInstance(value))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException(
            "No kind of result is known for " + value.getClass().getName()));
  }

  /** About how many bytes of memory a value holds. */
  public static long bytes(Object value) {
    return of(value).bytes(value);
  }

  /** The kind of a type, or of one that extends it; empty for those of none, such as any result at all. */
  public static Optional<ResultKind<?>> ofType(Class<?> type) {
    return ALL.stream().filter(kind -> kind.type().isAssignableFrom(type)).findFirst();
  }

  /** How a type is called in messages. */
  public static String name(Class<?> type) {
    return ofType(type).map(ResultKind::name).orElse("a result");
  }

  /**
   * A value as the type an input wants: a cut serves as an object set without features, an object set as its exact outlines.
   *
   * @throws RasterException where it does not serve
   */
  public static Object as(Object value, Class<?> wanted) {
    if (wanted.isInstance(value)) {
      return value;
    }
    ResultKind<Object> kind = of(value);
    if (kind.servesAs().contains(wanted)) {
      return kind.as(value, wanted);
    }
    throw new RasterException(
        "Wanted " + name(wanted) + " here, but was given " + kind.name() + ".");
  }

  /**
   * Whether a value is offered for an input: of its kind and such as it asks for, or one that serves as that kind. Outlines are
   * made of objects only where an input says so.
   */
  public static boolean suits(Object value, Class<?> wanted, List<Suits> asks) {
    ResultKind<Object> kind = of(value);
    if (wanted == Object.class) {
      return !kind.endings().isEmpty() && !(kind instanceof ReportKind<?>);
    }
    if (wanted.isInstance(value)) {
      return asks.stream().allMatch(ask -> kind.suits(value, ask));
    }
    boolean asOutlines = wanted == sharpkestrel.geo.OutlineSet.class;
    return kind.servesAs().contains(wanted) && (!asOutlines || asks.contains(Suits.OBJECTS));
  }

  /**
   * Opens a file as what an input wants; where it takes any result, as what the file's ending tells.
   *
   * @throws RasterException where the file holds none
   */
  public static Object open(Path file, Class<?> wanted, Job job) {
    ResultKind<?> kind = wanted == Object.class
        ? ofFile(file)
        : ofType(wanted)
            .orElseThrow(() -> new RasterException(
                "Inputs of type " + wanted.getSimpleName() + " are not read from files."));
    boolean named = kind.readEndings().stream().anyMatch(e -> ResultKind.endsWith(file, e));
    if (!named && !kind.readEndings().isEmpty()) {
      throw new RasterException(file + " holds no " + kind.name().replaceFirst("^an? ", "")
          + ": those are files that end in " + String.join(" or ", kind.readEndings()) + ".");
    }
    return kind.read(file, job);
  }

  /** Every file that counts when one is opened as what an input wants. */
  public static List<Path> readWith(Path file, Class<?> wanted) {
    return wanted == Object.class
        ? ofFile(file).readWith(file)
        : ofType(wanted).map(kind -> kind.readWith(file)).orElse(List.of(file));
  }

  /** The first kind whose files end so: objects before the outlines that their table holds too, rasters last. */
  private static ResultKind<?> ofFile(Path file) {
    for (String ending : List.of(".tree.gpkg", ".arrow", ".gpkg", ".geojson")) {
      if (ResultKind.endsWith(file, ending)) {
        return ending.equals(".gpkg") || ending.equals(".geojson")
            ? ofType(sharpkestrel.geo.OutlineSet.class).orElseThrow()
            : ALL.stream()
                .filter(k -> k.readEndings().contains(ending))
                .findFirst()
                .orElseThrow();
      }
    }
    return ofType(Raster.class).orElseThrow();
  }

  /**
   * Writes a value to a file of the kind that the name's ending tells.
   *
   * @throws RasterException for an ending that does not go with the value
   */
  public static void write(Object value, Path file, ResultKind.Delivery delivery, Job job) {
    ResultKind<Object> kind = of(value);
    if (kind.endings().isEmpty()) {
      throw new RasterException(file + ": " + kind.name() + " is not written to another file.");
    }
    if (kind.endings().stream().noneMatch(ending -> ResultKind.endsWith(file, ending))) {
      throw new RasterException(file + ": " + kind.name() + " is written to files that end in "
          + String.join(" or ", kind.endings()) + ".");
    }
    kind.write(value, file, delivery, job);
  }

  /** The things that a value holds, to be listed one by one; empty for what has none. */
  public static Optional<ResultKind.Rows> rows(Object value) {
    return of(value).rows(value);
  }

  public static String describe(Object value) {
    return of(value).describe(value);
  }

  /** A few words for the trail; of a placed raster how well it lies. */
  public static String note(Object value, Stage stage) {
    return stage == Stage.PLACE && value instanceof Raster raster
        ? RasterKind.placed(raster).orElseGet(() -> of(value).note(value))
        : of(value).note(value);
  }

  /** Equal for values that are the same, however they were made. */
  public static String digest(Object value, Job job) {
    Digest digest = new Digest();
    of(value).digest(value, digest, job);
    return digest.hex();
  }
}
