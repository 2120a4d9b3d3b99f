package sharpkestrel.app.model;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import sharpkestrel.app.work.Lanes;
import sharpkestrel.flow.RunSheet;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.place.fit.TiePoints;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Stage;

/** The project in hand: its results, what the panes show, the stage, the look, the grain. */
public final class Workspace {

  private final Display display = new Display();
  private final Suggestions suggestions = new Suggestions();
  private final ObservableList<Result> results = FXCollections.observableArrayList();
  private final StringProperty title = new SimpleStringProperty("");
  private final Messages messages = new Messages();
  private final UndoStack undo = new UndoStack();
  private final Lanes lanes = new Lanes(messages::warn, messages::tell);
  private final ResultMaker maker = new ResultMaker(this);
  private final Set<String> reservedNames = new HashSet<>();
  private final ObservableList<NotOpen> notOpen = FXCollections.observableArrayList();
  private final List<Runnable> closing = new ArrayList<>();
  private boolean lookingOn;
  private Path folder = Path.of(".");

  public ObservableList<Result> results() {
    return results;
  }

  /** What is shown, and how. */
  public Display display() {
    return display;
  }

  /** What panels offer. */
  public Suggestions suggestions() {
    return suggestions;
  }

  public StringProperty titleProperty() {
    return title;
  }

  /** What the window has to say. */
  public Messages messages() {
    return messages;
  }

  public UndoStack undo() {
    return undo;
  }

  /**
   * Asks something short in the trial lane; where it fails, the reason is told.
   *
   * @param kind whose question before this lapses
   */
  public <T> void ask(Object kind, Function<Job, T> work, Consumer<T> done) {
    lanes.trial().ask(kind, "", work, done, failure -> messages.tell(failure.getMessage()));
  }

  public Lanes lanes() {
    return lanes;
  }

  public Path folder() {
    return folder;
  }

  /**
   * Where the project lies; its results are kept there.
   *
   * @param asOnlooker whether nothing is to be written
   */
  public void setFolder(Path newFolder, boolean asOnlooker) {
    folder = newFolder;
    lookingOn = asOnlooker;
    maker.keepIn(newFolder, asOnlooker);
  }

  /** Whether somebody else has the project open, so that nothing is written to it. */
  public boolean isLookingOn() {
    return lookingOn;
  }

  /** New results may not take this name. */
  public void reserve(String name) {
    reservedNames.add(name);
  }

  /** Results that the project names and that are not there. */
  public ObservableList<NotOpen> notOpen() {
    return notOpen;
  }

  /** Does something before the project is let go. */
  public void onClosing(Runnable act) {
    closing.add(act);
  }

  /** Lets the project go: what runs is stopped, what is to be written is. */
  public void close() {
    lanes.save().dropResting();
    closing.forEach(Runnable::run);
    closing.clear();
    lanes.run().queue().forEach(lanes.run()::cancel);
    lanes.keeping().queue().forEach(lanes.keeping()::cancel);
  }

  /** Makes and keeps results. */
  public ResultMaker maker() {
    return maker;
  }

  public List<Result> of(Stage which) {
    return results.stream().filter(r -> r.stage() == which).toList();
  }

  /** The results that can serve as an input, newest first. */
  public List<Result> fitting(StepSpec.Input input) {
    return results.reversed().stream()
        .filter(r -> ResultKinds.suits(r.value(), input.type(), input.suits()))
        .toList();
  }

  /** Adds a result, shows it in pane A with its reference, or the one before it, in pane B. */
  public void add(Result result) {
    Result beforeA = display.paneAProperty().get();
    Result beforeB = display.paneBProperty().get();
    undo.change(
        "make " + result.title(),
        ResultKinds.bytes(result.value()),
        () -> {
          results.add(result);
          if (result.backdrop() != null && !(result.value() instanceof TiePoints)) {
            display.paneBProperty().set(result.inputs().getOrDefault("reference", beforeA));
            display.show(result);
          }
        },
        () -> {
          results.remove(result);
          display.show(beforeA);
          display.paneBProperty().set(beforeB);
        });
  }

  /** Whether a result is a file as it was opened, of which more can be told beside it. */
  public boolean isOpenedFile(Result result) {
    return result.inputs().isEmpty()
        && !result.step().writesBeside()
        && named(result.name()).isPresent()
        && !result.settings().getOrDefault("file", "").isBlank();
  }

  /** Calls a result otherwise. */
  public void rename(Result result, String newTitle) {
    String title = newTitle.strip();
    if (!title.isEmpty() && !title.equals(result.title())) {
      replace("call " + result.title() + " otherwise", result, result.titled(title));
    }
  }

  /** The results that are made of one, and of those, in their order. */
  public List<Result> hangingFrom(Result result) {
    return results.stream().filter(other -> other.descendsFrom(result)).toList();
  }

  /** Takes a result away, and all that hangs from it; until the window closes that can be undone. */
  public void delete(Result result) {
    List<Result> gone = new ArrayList<>(List.of(result));
    gone.addAll(hangingFrom(result));
    List<Result> before = List.copyOf(results);
    Result beforeA = display.paneAProperty().get();
    Result beforeB = display.paneBProperty().get();
    undo.change(
        "delete " + result.title() + (gone.size() > 1 ? " and " + (gone.size() - 1) + " more" : ""),
        gone.stream().mapToLong(each -> ResultKinds.bytes(each.value())).sum(),
        () -> {
          results.removeAll(gone);
          if (gone.contains(beforeB)) {
            display.paneBProperty().set(null);
          }
          if (gone.contains(beforeA)) {
            display.show(results.reversed().stream()
                .filter(other -> other.backdrop() != null)
                .findFirst()
                .orElse(null));
          }
        },
        () -> {
          List<Result> since =
              results.stream().filter(other -> !before.contains(other)).toList();
          List<Result> all = new ArrayList<>(before);
          all.addAll(since);
          results.setAll(all);
          display.show(beforeA);
          display.paneBProperty().set(beforeB);
        });
  }

  /**
   * Runs a step in the background and adds what it makes.
   *
   * @param resultTitle where it is blank the name of the file that is given, else the step's title; numbered where a result
   *     has it already
   * @param inputs results by input name
   * @param files file names by input name, for inputs that are no results
   */
  public void run(
      StepSpec step,
      String resultTitle,
      Map<String, Result> inputs,
      Map<String, String> files,
      Map<String, String> settings) {
    suggestions.remember(step, files, settings);
    messages.clear();
    String title = resultTitle.isBlank() ? title(step, files, settings) : resultTitle.strip();
    Map<String, String> references = new LinkedHashMap<>(files);
    inputs.forEach((name, input) -> references.put(name, "@" + input.name()));
    lanes
        .run()
        .run(
            title,
            new RunSheet.Entry(step.id(), title, step.id(), references, settings, false),
            job -> maker
                .make(step, inputs, files, settings, job)
                .as(step.id(), title, step, new Given(inputs, files), settings),
            this::addNew,
            failure -> messages.tell(failure.getMessage()));
  }

  /** Adds what was just made, under a name and a title that no other result has, and keeps it; as it is called then. */
  Result addNew(Result result) {
    Result own = result.called(uniqueName(result.name()), uniqueTitle(result.title()));
    add(own);
    maker.keep(own);
    return own;
  }

  /**
   * Runs a step of a sheet on results of this project.
   *
   * @throws RasterException where one of them is not there
   */
  public void run(RunSheet.Entry entry) {
    Given given = Given.of(
        entry.inputs(),
        wanted -> named(wanted)
            .orElseThrow(() -> new RasterException(
                entry.title() + " needs the result '" + wanted + "', which is not there.")),
        file -> file);
    run(
        StepCatalogue.get(entry.step()),
        entry.title(),
        given.inputs(),
        given.files(),
        entry.settings());
  }

  private static String title(
      StepSpec step, Map<String, String> files, Map<String, String> settings) {
    Stream<String> named = step.options().stream()
        .filter(StepSpec.Option::namesFiles)
        .filter(option -> !settings.getOrDefault(option.name(), "").isBlank())
        .flatMap(option -> option.files(settings.get(option.name())).stream().limit(1))
        .map(Path::toString);
    return Stream.concat(files.values().stream(), named)
        .findFirst()
        .map(file -> Path.of(file).getFileName().toString().replaceFirst("\\.[^.]+$", ""))
        .orElse(step.title());
  }

  private String uniqueTitle(String base) {
    Set<String> taken = results.stream().map(Result::title).collect(Collectors.toSet());
    int n = 1;
    String title = base;
    while (taken.contains(title)) {
      title = base + " " + ++n;
    }
    return title;
  }

  private String uniqueName(String base) {
    int n = 1;
    String name = base;
    while (named(name).isPresent() || reservedNames.contains(name)) {
      name = base + "-" + ++n;
    }
    return name;
  }

  /** The result of a name. */
  public Optional<Result> named(String name) {
    return results.stream().filter(r -> r.name().equals(name)).findFirst();
  }

  /**
   * Puts what a result is with other settings in its place.
   *
   * @param what the change is called
   */
  public void change(String what, Result result, Map<String, String> settings, Object value) {
    replace(what, result, result.as(settings, value, maker.fingerprint(result, settings)));
  }

  /** Puts a result in the place of one of the same name. */
  void replace(String what, Result before, Result after) {
    undo.change(what, () -> put(after), () -> put(before));
  }

  private void put(Result result) {
    results.replaceAll(r -> r.name().equals(result.name()) ? result : r);
    if (isNamed(display.paneAProperty().get(), result.name())) {
      display.show(result);
    }
    if (isNamed(display.paneBProperty().get(), result.name())) {
      display.paneBProperty().set(result);
    }
  }

  private static boolean isNamed(Result shown, String name) {
    return shown != null && shown.name().equals(name);
  }

  /** The steps that made a result, as a sheet that runs elsewhere. */
  public RunSheet sheetOf(Result result) {
    LinkedHashMap<String, RunSheet.Entry> entries = new LinkedHashMap<>();
    collect(result, entries);
    return new RunSheet(title.get(), Map.of(), List.copyOf(entries.values()));
  }

  private static void collect(Result result, LinkedHashMap<String, RunSheet.Entry> entries) {
    Map<String, String> inputs = new LinkedHashMap<>(result.files());
    result.inputs().forEach((name, input) -> {
      collect(input, entries);
      inputs.put(name, "@" + input.name());
    });
    entries.putIfAbsent(
        result.name(),
        new RunSheet.Entry(
            result.name(), result.title(), result.step().id(), inputs, result.settings(), false));
  }
}
