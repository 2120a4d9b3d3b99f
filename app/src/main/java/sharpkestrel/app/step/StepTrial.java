package sharpkestrel.app.step;

import java.util.Map;
import java.util.Optional;
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

  private static final String GRAIN = "grain";
  private static final String HEIGHT = "height";

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
    return step.redrawsObjects();
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
   * @param sameScene a tree of the scene of which a part is segmented
   */
  static StepTrial of(
      StepSpec step,
      Map<String, Result> results,
      Map<String, String> files,
      Map<String, String> texts,
      Optional<Extent> patch,
      Optional<Cut> sameScene,
      Job job) {
    sameScene.ifPresent(cut -> useHeightOfScene(step, cut, texts));
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

  /**
   * A patch has its own share of busy ground, so the height at which it has objects of a grain is not the scene's. Where
   * the scene has a tree already, a trial is cut at the height that the grain has there.
   */
  private static void useHeightOfScene(StepSpec step, Cut ofScene, Map<String, String> texts) {
    if (texts.containsKey(HEIGHT)) {
      return;
    }
    String grain = texts.getOrDefault(GRAIN, step.optionCalled(GRAIN).initial());
    try {
      texts.put(
          HEIGHT, Double.toString(ofScene.withGrain(Double.parseDouble(grain)).height()));
    } catch (NumberFormatException notANumber) {
      // the step itself says what is wrong with the grain, or finds one by itself
    }
  }
}
