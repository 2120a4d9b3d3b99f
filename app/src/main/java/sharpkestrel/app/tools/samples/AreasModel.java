package sharpkestrel.app.tools.samples;

import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Point;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.samples.Ground;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.extract.LearnPixels;
import sharpkestrel.extract.learner.Confusion;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.raster.Raster;

/** Areas drawn over what pane A shows, and what the pixels in them are worth to tell all others by. */
final class AreasModel extends Labelling {

  private final Workspace workspace;
  private final ReadOnlyObjectWrapper<Optional<Confusion>> worth =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ReadOnlyStringWrapper why = new ReadOnlyStringWrapper("");
  private Ground ground;

  AreasModel(Workspace workspace, Watch watch, SampleBook book) {
    super(book);
    this.workspace = workspace;
    watch.on(workspace.display().paneAProperty(), now -> follow());
    book().classesProperty().addListener((p, before, now) -> keepCurrent());
    keepCurrent();
    follow();
  }

  private void follow() {
    Result shown = workspace.display().paneAProperty().get();
    ground = shown == null || shown.backdrop() == null ? null : Ground.of(shown);
  }

  @Override
  Ground ground() {
    return ground;
  }

  /** How often pixels of kept-back ground were told right; empty where that is not known. */
  ReadOnlyObjectProperty<Optional<Confusion>> worthProperty() {
    return worth.getReadOnlyProperty();
  }

  /** Why that is not known. */
  ReadOnlyStringProperty whyProperty() {
    return why.getReadOnlyProperty();
  }

  boolean hasGround() {
    return ground != null;
  }

  /** The file with what was labelled where one looks; empty where nothing was. */
  String file() {
    return here().isEmpty() ? "" : book().path(ground).toString();
  }

  /** What was drawn has the class in hand from now on. */
  void add(Geometry shape) {
    if (currentProperty().get().isEmpty()) {
      workspace.messages().warn("Add a class first: what is it that you draw?");
      return;
    }
    Result shown = workspace.display().paneAProperty().get();
    book()
        .label(
            ground, new Sample(shape, currentProperty().get(), shown == null ? "" : shown.name()));
  }

  /**
   * Takes away the smallest sample that a place lies in, or near to.
   *
   * @param reach in ground units
   */
  void removeAt(Coordinate place, double reach) {
    Point at = new GeometryFactory().createPoint(place);
    here().stream()
        .filter(sample -> sample.outline().isWithinDistance(at, reach))
        .min((a, b) -> Double.compare(a.outline().getArea(), b.outline().getArea()))
        .ifPresent(sample -> book().label(ground, sample));
  }

  /**
   * Sees what the samples are worth.
   *
   * @param results inputs of the step by name
   * @param settings as they are set
   */
  void weigh(Map<String, Result> results, Map<String, String> files, Map<String, String> settings) {
    long classes = here().stream().map(Sample::ofClass).distinct().count();
    worth.set(Optional.empty());
    if (classes < 2) {
      workspace.lanes().trial().drop(this);
      why.set("Draw areas of two classes or more: all other pixels are told by them.");
      return;
    }
    why.set("Checking on kept-back ground\u2026");
    var step = StepCatalogue.get("learn-pixels");
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "",
            job -> {
              workspace.lanes().save().flush(java.time.Duration.ofSeconds(10));
              LearnPixels learn =
                  (LearnPixels) step.make(ResultMaker.values(step, results, files), settings);
              return learn.run(job).kept();
            },
            kept -> {
              worth.set(kept);
              why.set(
                  kept.isPresent()
                      ? ""
                      : "Too little ground to keep some back: draw more areas, farther apart.");
            },
            failure -> why.set(failure.getMessage()));
  }

  /** The scene that is drawn on; empty where none is shown. */
  Optional<Raster> scene() {
    return Optional.ofNullable(workspace.display().paneAProperty().get()).map(Result::backdrop);
  }
}
