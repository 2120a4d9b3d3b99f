package sharpkestrel.app.tools.mosaic;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandFile;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.expr.Table;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.io.Layer;
import sharpkestrel.place.mosaic.BalancedBlock;
import sharpkestrel.place.mosaic.Mosaic;
import sharpkestrel.place.mosaic.Overlap;
import sharpkestrel.place.mosaic.SeamEdits;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/** The mosaic in hand: which scene shows which area, what is left out, how much its seams show, and what it looks like. */
public final class SeamModel {

  private static final String PREVIEW = "mosaic-preview";

  /**
   * @param areas that each scene shows
   * @param sides of those areas
   * @param visibility of the seams; empty while it is being measured
   */
  public record State(
      OutlineSet areas, List<SeamEdits.Side> sides, Optional<SeamVisibility> visibility) {}

  private final Workspace workspace;
  private HandFile areasKept;
  private HandFile interestKept;
  private HandFile leftOutKept;
  private HandLog edits;
  private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<OutlineSet> leftOut = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<OutlineSet> interest = new ReadOnlyObjectWrapper<>();
  private BalancedBlock block;
  private Mosaic step;
  private int previews;

  public SeamModel(Workspace workspace) {
    this.workspace = workspace;
    keepFor(List.of());
  }

  /** What is drawn over these scenes is kept for them, apart from what is drawn over others. */
  private void keepFor(List<String> scenes) {
    String key = scenes.isEmpty()
        ? "none"
        : Integer.toHexString(String.join("\n", scenes).hashCode());
    areasKept = new HandFile(workspace, "seam-areas-" + key);
    interestKept = new HandFile(workspace, "area-of-interest-" + key);
    leftOutKept = new HandFile(workspace, "left-out-" + key);
    edits = new HandLog(workspace, "seams-" + key);
  }

  /** Other scenes are to be laid together: what was found and drawn for those before is put away. */
  public void take(List<String> scenes) {
    keepFor(scenes);
    block = null;
    state.set(null);
    leftOut.set(null);
    interest.set(null);
  }

  /** Whether areas were drawn for the scenes in hand before. */
  public boolean hasKept() {
    return Files.isRegularFile(edits.path());
  }

  /** Balances the scenes in hand and takes up what was drawn for them before. */
  public void takeUp(java.util.function.Function<Job, Mosaic> wanted) {
    HandLog before = edits;
    find(
        "Taking seams up again",
        wanted,
        (balanced, made, job) ->
            before.read().map(Layer::outlines).orElseGet(() -> balanced.seams(made.lines(), job)));
  }

  /** Null while no seams were found. */
  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** Areas drawn to be left out; null for none. */
  public ReadOnlyObjectProperty<OutlineSet> leftOutProperty() {
    return leftOut.getReadOnlyProperty();
  }

  /** What was drawn to be shown alone; null for all. */
  public ReadOnlyObjectProperty<OutlineSet> interestProperty() {
    return interest.getReadOnlyProperty();
  }

  /** Where that is kept. */
  public Path interestFile() {
    return interestKept.path();
  }

  /** Where the areas in hand are kept. */
  public Path areasFile() {
    return areasKept.path();
  }

  /** Where what is left out is kept. */
  public Path leftOutFile() {
    return leftOutKept.path();
  }

  /** The system in which areas are drawn; empty before the scenes are balanced. */
  public Optional<CrsName> crs() {
    return Optional.ofNullable(block).map(b -> b.grid().crs());
  }

  /** Balances scenes and finds their seams, in the background, then shows what the mosaic would be. */
  public void find(java.util.function.Function<Job, Mosaic> wanted) {
    find("Finding seams", wanted, (balanced, made, job) -> balanced.seams(made.lines(), job));
  }

  private interface Areas {
    OutlineSet of(BalancedBlock balanced, Mosaic made, Job job);
  }

  private void find(String title, java.util.function.Function<Job, Mosaic> wanted, Areas areasOf) {
    workspace
        .lanes()
        .trial()
        .ask(
            "seams",
            title,
            job -> {
              // what is left out may just have been drawn
              workspace.lanes().save().flush(Duration.ofSeconds(30));
              Mosaic made = wanted.apply(job);
              BalancedBlock balanced = BalancedBlock.of(made.block(), job);
              OutlineSet areas = areasOf.of(balanced, made, job);
              return new Found(made, balanced, areas);
            },
            found -> {
              block = found.block;
              step = found.step;
              use("find seams", found.areas);
            },
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  private record Found(Mosaic step, BalancedBlock block, OutlineSet areas) {}

  /** An area that is drawn is shown by a scene from now on. */
  public void give(Geometry drawn, int scene) {
    change("give to scene " + scene, areas -> SeamEdits.give(areas, scene, drawn));
  }

  /** A corner of a seam lies elsewhere from now on. */
  public void move(Coordinate from, Coordinate to) {
    change("move a seam", areas -> SeamEdits.move(areas, from, to));
  }

  private void change(String what, java.util.function.UnaryOperator<OutlineSet> edit) {
    try {
      use(what, edit.apply(state.get().areas()));
    } catch (RasterException refused) {
      workspace.messages().tell(refused.getMessage());
    }
  }

  private void use(String what, OutlineSet areas) {
    State before = state.get();
    Kept of = new Kept(block, areasKept, edits);
    workspace
        .undo()
        .change(what, () -> put(of, areas), () -> put(of, before == null ? null : before.areas()));
  }

  /** Scenes that are laid together, and where what is drawn over them is kept. */
  private record Kept(BalancedBlock block, HandFile areas, HandLog edits) {}

  /** The areas of some scenes are others from now on, whichever are in hand. */
  private void put(Kept of, OutlineSet areas) {
    boolean inHand = block == of.block;
    if (areas != null) {
      of.areas.write(Layer.of("areas", areas));
      of.edits.write(Layer.of("areas", areas));
    }
    if (!inHand) {
      workspace.messages().warn("The seams of other scenes were changed.");
      return;
    }
    if (areas == null) {
      state.set(null);
      return;
    }
    state.set(new State(areas, SeamEdits.sides(areas), Optional.empty()));
    preview(areas);
    BalancedBlock measured = block;
    double level = step.lines().level();
    workspace.ask("how seams show", job -> measured.visibility(areas, level, job), visibility -> {
      if (state.get() != null && state.get().areas() == areas) {
        state.set(new State(areas, state.get().sides(), Optional.of(visibility)));
      }
    });
  }

  private void preview(OutlineSet areas) {
    Raster raster = block.mosaic(
        Overlap.SEAMS,
        Optional.of(areas),
        Optional.ofNullable(interest.get()).or(step::areaOfInterest),
        step.feather(),
        step.lines().level(),
        Attachments.NONE);
    workspace
        .display()
        .show(new Result(
            PREVIEW,
            "Mosaic, not run yet",
            StepCatalogue.get("mosaic"),
            Map.of(),
            Map.of(),
            Map.of(),
            ResultMaker.cached(raster),
            new Origin.Fingerprint(PREVIEW + ++previews, "")));
  }

  /** An area of the scene that is shown there is not used from now on; seams are to be found anew. */
  public void leaveOut(Geometry drawn) {
    int scene = shownAt(drawn);
    if (scene == 0) {
      workspace.messages().tell("No scene is shown where the area was drawn. Draw over one.");
      return;
    }
    OutlineSet before = leftOut.get();
    List<Geometry> areas = new ArrayList<>();
    List<Double> numbers = new ArrayList<>();
    if (before != null) {
      areas.addAll(before.outlines());
      Arrays.stream(before.table().values("scene")).forEach(numbers::add);
    }
    areas.add(drawn);
    numbers.add((double) scene);
    OutlineSet after = drawn(areas, numbers);
    workspace
        .undo()
        .change("leave out of scene " + scene, () -> putLeftOut(after), () -> putLeftOut(before));
  }

  private OutlineSet drawn(List<Geometry> areas, List<Double> numbers) {
    double[] scenes = numbers.stream().mapToDouble(n -> n).toArray();
    return new OutlineSet(
        crs().orElseThrow(),
        areas,
        new Table(areas.size(), List.of(new Table.Column("scene", "Scene", "", scenes))));
  }

  /** Only what is drawn is shown from now on; all again where it lies beside the mosaic. */
  public void cutTo(Geometry drawn) {
    boolean all = shownAt(drawn) == 0;
    OutlineSet before = interest.get();
    OutlineSet after = all ? null : drawn(List.of(drawn), List.of(0.0));
    workspace
        .undo()
        .change(
            all ? "show all" : "cut to an area",
            () -> putInterest(after),
            () -> putInterest(before));
  }

  private void putInterest(OutlineSet area) {
    if (area != null) {
      interestKept.write(Layer.of("area_of_interest", area));
    }
    interest.set(area);
    if (state.get() != null) {
      preview(state.get().areas());
    }
  }

  private int shownAt(Geometry drawn) {
    OutlineSet areas = state.get().areas();
    int scene = 0;
    double most = 0;
    for (int i = 0; i < areas.count(); i++) {
      double common = areas.outlines().get(i).intersection(drawn).getArea();
      if (common > most) {
        most = common;
        scene = (int) areas.table().values("scene")[i];
      }
    }
    return scene;
  }

  private void putLeftOut(OutlineSet areas) {
    if (areas != null) {
      leftOutKept.write(Layer.of("left_out", areas));
    }
    leftOut.set(areas);
  }
}
