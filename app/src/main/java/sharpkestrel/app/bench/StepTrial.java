package sharpkestrel.app.bench;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.viewer.RedrawnObjects;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.gather.Clip;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Cut;

/**
 * A step tried in the patch: rasters are made as they are looked at, trees of the patch alone, objects anew of those in it and
 * near it.
 *
 * @param value what was made
 * @param backdrop the raster that it is shown over
 */
record StepTrial(Object value, Raster backdrop) {

  /** Steps that draw objects anew: what they would draw is seen in the patch before it is made. */
  private static final Set<String> ON_OBJECTS = Set.of("refine-objects");

  /** Pixels about the patch whose objects take part, so that those in it are whole. */
  private static final int NEAR = 128;

  /** Whether a step can be tried. */
  static boolean suits(StepSpec step) {
    return !step.writesBeside()
        && (step.resultType() == Raster.class || isOfTree(step) || isOnObjects(step));
  }

  /** Whether a step makes a tree. */
  static boolean isOfTree(StepSpec step) {
    return step.resultType() == Cut.class;
  }

  /** Whether a step draws objects anew. */
  static boolean isOnObjects(StepSpec step) {
    return ON_OBJECTS.contains(step.id());
  }

  /** The raster whose pixels under the patch are tried; null where the step finds out by itself. */
  static Raster tried(StepSpec step, Map<String, Result> results) {
    Result from = results.get(isOfTree(step) ? "scene" : isOnObjects(step) ? "objects" : "");
    return from == null ? null : from.backdrop();
  }

  /**
   * Makes a trial, away from the interface thread.
   *
   * @param patch in the coordinates of the raster tried
   */
  static StepTrial of(
      StepSpec step,
      Map<String, Result> results,
      Map<String, String> files,
      Map<String, String> texts,
      Optional<Extent> patch,
      Job job) {
    Map<String, Object> values = ResultMaker.values(step, results, files);
    Raster under = tried(step, results);
    if (isOfTree(step)) {
      under = new Clip(under, patch).run(job);
      values.put("scene", under);
    } else if (isOnObjects(step)) {
      Grid grid = under.grid();
      Window near = grid.under(patch.orElseThrow()).grown(NEAR).intersect(grid.window());
      under = new Clip(under, Optional.of(grid.part(near).extent())).run(job);
      values.replaceAll((name, value) -> {
        Object objects = value instanceof Cut cut ? ObjectSet.of(cut) : value;
        return objects instanceof ObjectSet set && set.labels().grid().equals(grid)
            ? set.within(near)
            : objects;
      });
    }
    Object shown = ResultMaker.cached(step.make(values, texts).run(job));
    return new StepTrial(
        shown instanceof ObjectSet after && values.get("objects") instanceof ObjectSet before
            ? RedrawnObjects.of(before, after)
            : shown,
        shown instanceof Raster raster ? raster : under);
  }
}
