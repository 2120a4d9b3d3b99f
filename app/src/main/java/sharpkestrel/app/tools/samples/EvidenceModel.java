package sharpkestrel.app.tools.samples;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.util.AffineTransformation;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.samples.Ground;
import sharpkestrel.app.samples.Sample;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.tools.InHand;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.extract.LearnBy;
import sharpkestrel.extract.WeighSamples;
import sharpkestrel.extract.learner.Learner;
import sharpkestrel.extract.learner.SampleEvidence;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Affine;

/** The samples that lie in what pane A shows, what speaks for and against each, and those that are picked out. */
final class EvidenceModel extends Labelling implements InHand {

  private final Workspace workspace;
  private final ReadOnlyObjectWrapper<SampleEvidence> evidence = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper why = new ReadOnlyStringWrapper("");
  private final ReadOnlyObjectWrapper<List<Sample>> picked = new ReadOnlyObjectWrapper<>(List.of());
  private Result source;
  private Ground ground;
  private boolean inHand;

  EvidenceModel(Workspace workspace, Watch watch, SampleBook book) {
    super(book);
    this.workspace = workspace;
    watch.on(workspace.display().paneAProperty(), this::take);
    book().samplesProperty().addListener((p, before, now) -> {
      picked.set(picked.get().stream().filter(here()::contains).toList());
      weigh();
    });
    take(workspace.display().paneAProperty().get());
  }

  @Override
  Ground ground() {
    return ground;
  }

  /** What there is to say of the samples; in their order. Empty where there is none yet. */
  ReadOnlyObjectProperty<SampleEvidence> evidenceProperty() {
    return evidence.getReadOnlyProperty();
  }

  /** Why there is none. */
  ReadOnlyStringProperty whyProperty() {
    return why.getReadOnlyProperty();
  }

  ReadOnlyObjectProperty<List<Sample>> pickedProperty() {
    return picked.getReadOnlyProperty();
  }

  void pick(List<Sample> now) {
    if (!now.equals(picked.get())) {
      picked.set(List.copyOf(now));
    }
  }

  boolean hasObjects() {
    return source != null;
  }

  /** From the ground to full-size pixels of what is shown. */
  Affine toPixels() {
    return ((ObjectSet) source.value()).labels().grid().affine().inverse();
  }

  @Override
  public void setInHand(boolean now) {
    inHand = now;
    if (now) {
      weigh();
    } else {
      workspace.lanes().trial().drop(this);
    }
  }

  private void take(Result shown) {
    boolean isObjects = shown != null && shown.value() instanceof ObjectSet;
    Result now = isObjects ? shown : null;
    if (now != source) {
      source = now;
      ground = now == null ? null : Ground.of(now, (ObjectSet) now.value());
      picked.set(List.of());
      evidence.set(null);
      weigh();
    }
  }

  private void weigh() {
    if (!inHand || source == null || here().isEmpty()) {
      workspace.lanes().trial().drop(this);
      evidence.set(null);
      why.set(
          source == null
              ? "Show measured objects in pane A: click them in the trail."
              : "There are no samples here yet: label some objects first, with Classify objects.");
      return;
    }
    ObjectSet set = (ObjectSet) source.value();
    OutlineSet samples = book().outlines(ground);
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Weighing samples",
            job -> WeighSamples.evidence(set, samples, LearnBy.of(Learner.EXTREME_TREES), job),
            found -> {
              why.set(found.why());
              evidence.set(found);
            },
            failure -> {
              why.set(failure.getMessage());
              evidence.set(null);
            });
  }

  /** What is picked out is of this class from now on. */
  @Override
  void give(String ofClass) {
    currentProperty().set(ofClass);
    List<Sample> now = picked.get();
    if (!now.isEmpty()) {
      List<Sample> given = now.stream()
          .map(sample -> new Sample(sample.outline(), ofClass, sample.scene()))
          .toList();
      book().labelAll(ground, given);
      picked.set(given);
    }
  }

  void removePicked() {
    if (!picked.get().isEmpty()) {
      book().removeAll(ground, picked.get());
    }
  }

  /** Picks out the smallest sample at a pixel. */
  void pickAt(double col, double row) {
    pick(at(col, row).map(List::of).orElse(List.of()));
  }

  /** The smallest sample at a pixel. */
  Optional<Sample> at(double col, double row) {
    Affine affine = toPixels().inverse();
    Point at =
        new GeometryFactory().createPoint(new Coordinate(affine.x(col, row), affine.y(col, row)));
    return here().stream()
        .filter(sample -> sample.outline().isWithinDistance(at, affine.pixelWidth()))
        .min((a, b) -> Double.compare(a.outline().getArea(), b.outline().getArea()));
  }

  /** Where a sample lies when it is moved by so many pixels. */
  Geometry moved(Sample sample, double cols, double rows) {
    Affine affine = toPixels().inverse();
    return AffineTransformation.translationInstance(
            affine.x(cols, rows) - affine.x(0, 0), affine.y(cols, rows) - affine.y(0, 0))
        .transform(sample.outline());
  }

  void move(Sample sample, double cols, double rows) {
    Geometry to = moved(sample, cols, rows);
    book().move(ground, sample, to);
    picked.set(here().stream().filter(each -> each.outline() == to).toList());
  }

  /** The middle of a sample in full-size pixels. */
  double[] middle(Sample sample) {
    Envelope box = sample.outline().getEnvelopeInternal();
    Coordinate at = box.centre();
    return new double[] {toPixels().x(at.x, at.y), toPixels().y(at.x, at.y)};
  }

  /** Keeps what is said of the samples as a result. */
  void run(String title) {
    workspace.run(
        StepCatalogue.get("weigh-samples"),
        title,
        Map.of("objects", source),
        Map.of("samples", book().path(ground).toString()),
        Map.of("method", "extreme_trees"));
  }
}
