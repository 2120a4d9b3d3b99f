package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.classmap.Majority;
import sharpkestrel.extract.classmap.Patches;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Makes clean areas of classes: small patches are swallowed by a neighbour. */
@StepInfo(
    id = "absorb",
    stage = Stage.EXTRACT,
    family = "Classes",
    title = "Absorb",
    next = "Classes pixel by pixel, with specks.",
    nextFor = Suits.CLASS_MAP,
    makes = "Clean classes",
    does =
        "Makes clean areas of classified pixels, clusters or objects: what hangs together of a class and is smaller than it may be is"
            + " swallowed by a neighbour, the smallest first; before that each pixel may take the commonest class about it. What comes out"
            + " is a class map.")
public record Absorb(
    @In(does = "What has classes: a class map, clusters, or classified objects.")
    ObjectSet classes,

    @In(
        does = "The scene in which likeness is looked at.",
        optional = true,
        byHand = true,
        when = "into=most_alike")
    Optional<Raster> scene,

    @Setting(
        label = "Least area",
        does = "Smaller patches are swallowed; in pixels where nothing is known of the ground.",
        unit = "m²",
        min = 0,
        max = 1e9,
        initial = "10")
    double leastArea,

    @Setting(
        label = "By class",
        does =
            "Other least areas for some classes, separated by commas, e.g. roof=25,water=200; a class of 0 is left as it is.",
        initial = "auto")
    List<String> byClass,

    @Setting(
        label = "Into",
        does =
            "Which neighbour swallows a patch: that with the longest common border, or the one most like it in the means of all bands.",
        initial = "longest_border")
    Into into,

    @Setting(
        label = "Majority",
        does =
            "Side of the window in which each pixel first takes the commonest class: an odd number; 0 leaves it out.",
        unit = "px",
        min = 0,
        max = 101,
        initial = "0")
    int majority)
    implements Step<ObjectSet> {

  /** Which neighbour swallows a patch. */
  public enum Into {
    LONGEST_BORDER,
    MOST_ALIKE
  }

  public Absorb {
    if (majority > 0 && majority % 2 == 0) {
      throw new IllegalArgumentException("The majority is taken in a window of " + majority
          + " pixels; give an odd number, so that it has a middle: " + (majority - 1) + " or "
          + (majority + 1) + ".");
    }
    if (into == Into.MOST_ALIKE && scene.isEmpty()) {
      throw new IllegalArgumentException(
          "To know which neighbour is most like a patch, give the scene (--scene).");
    }
  }

  @Override
  public ObjectSet run(Job job) {
    ClassMap map = ClassMap.of(classes, job);
    int most = map.classes().size();
    LabelRaster labels =
        majority > 1 ? Majority.of(map.labels(), most, majority / 2, job) : map.labels();
    Patches patches = Patches.of(labels, job);
    if (scene.isPresent() && into == Into.MOST_ALIKE) {
      requireGrid(scene.get());
      patches.look(scene.get(), job);
    }
    patches.absorb(leastPixels(map), job);
    return new ClassMap(patches.classes(most, job), map.classes(), map.colours(), map.ground())
        .objects(job);
  }

  private void requireGrid(Raster there) {
    if (!there.grid().equals(classes.labels().grid())) {
      throw new RasterException(
          "The scene lies on other pixels than the classes. Give the scene that was classified.");
    }
  }

  private double[] leastPixels(ClassMap map) {
    List<String> names = map.classes();
    double[] least = new double[names.size() + 1];
    Arrays.fill(least, leastArea);
    for (String each : new ArrayList<>(byClass)) {
      int sign = each.lastIndexOf('=');
      String name = sign < 0 ? each.strip() : each.substring(0, sign).strip();
      ClassMap.asked(List.of(name), names);
      try {
        least[1 + names.indexOf(name)] =
            Double.parseDouble(sign < 0 ? "" : each.substring(sign + 1).strip());
      } catch (NumberFormatException notANumber) {
        throw new RasterException("'" + each.strip()
            + "' tells no area: write the class, = and square metres, e.g. " + name + "=25.");
      }
    }
    for (int k = 0; k < least.length; k++) {
      least[k] /= map.ground().area();
    }
    return least;
  }
}
