package sharpkestrel.extract;

import java.util.List;
import java.util.Optional;
import sharpkestrel.extract.everysize.Finder;
import sharpkestrel.extract.everysize.FinderFile;
import sharpkestrel.extract.everysize.Search;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.place.HeightModels;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.segment.Cut;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Things of every size, found among all nodes of a merge tree. */
@StepInfo(
    id = "find-objects",
    stage = Stage.EXTRACT,
    family = "Every size",
    title = "Find objects",
    makes = "Found",
    version = 2,
    does =
        "Scores all nodes of the merge tree, not one cut, and takes the set with the greatest total score of which none lies in another:"
            + " sheds, houses and halls come out each at its size. What to look for comes from a model.")
public record FindObjects(
    @In(does = "The tree: what 'segment' made, or the file it wrote (.tree.gpkg).")
    Cut tree,

    @In(does = "The scene that was segmented.") Raster scene,

    @Group HeightModels models,

    @In(
        does =
            "What to look for: a model of 'learn-objects'; the one that ships finds roofs by their material, and has seen made-up"
                + " scenes with pixels of half a metre alone.",
        optional = true,
        without = "roofs, shipped",
        byHand = true)
    Optional<Finder> model,

    @Setting(
        label = "Classes",
        does = "Which of the model's classes are wanted, separated by commas; auto is all.",
        initial = "auto")
    List<String> classes,

    @Setting(
        label = "Least score",
        does =
            "Nodes that score less are not taken: the intersection over union that a node is thought to have with a wanted thing; auto is"
                + " 0.5, for models learned from some things only 0.3.",
        min = 0,
        max = 1,
        initial = "auto")
    double leastScore,

    @Setting(
        label = "Least probability",
        does =
            "Nodes that are less surely of their likeliest class are not taken; more keeps classes purer and finds less; auto is 0.3, for"
                + " models learned from some things only 0.5.",
        min = 0,
        max = 1,
        initial = "auto")
    double leastProbability,

    @Setting(
        label = "Least area",
        does = "Smaller ones are left out afterwards.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "0")
    double leastArea)
    implements Step<ObjectSet> {

  @Override
  public ObjectSet run(Job job) {
    Search search = Search.of(model.orElseGet(FinderFile::ofRoofs), tree, scene, models, job);
    ObjectSet found = search.choose(
        search.wanted(classes.stream().map(String::strip).toList()),
        leastScore,
        leastProbability,
        leastArea);
    if (found.count() == 0) {
      job.warn(
          "Nothing was found: no node scores enough. Lower the least score, or label what is looked for in this scene and learn again.");
    }
    return found;
  }
}
