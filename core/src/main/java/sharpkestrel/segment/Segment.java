package sharpkestrel.segment;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.LabelRaster;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Builds the merge tree of a scene and cuts it at a grain. */
@StepInfo(
    id = "segment",
    stage = Stage.SEGMENT,
    title = "Merge tree",
    does =
        "Grows superpixels and merges them, the cheapest pair first (full lambda schedule), into one tree for the scene;"
            + " the grain chooses a cut. Objects of a finer grain nest in those of a coarser one.")
public record Segment(
    @In(does = "The scene to segment, all its bands.") Raster scene,

    @Setting(
        label = "Grain",
        does = "Typical area of an object.",
        unit = "m²",
        min = 0.01,
        max = 1e9,
        initial = "60")
    double grain,

    @Setting(
        label = "Superpixel",
        does = "Area of a superpixel in pixels, the smallest thing the tree can tell apart.",
        unit = "px",
        min = 9,
        max = 400,
        initial = "25")
    double superpixel,

    @Setting(
        label = "Compactness",
        does = "How round superpixels stay; lower ones follow weak edges more closely.",
        min = 0.001,
        max = 10,
        initial = "0.1")
    double compactness,

    @Setting(
        label = "Weights",
        does = "Weights of bands by role, e.g. red=1,near_infrared=2; roles left out count 1.",
        initial = "auto")
    List<String> weights,

    @Setting(
        label = "Height",
        does =
            "Height of the cut in the tree, to repeat a cut exactly; auto finds it from the grain.",
        min = 0,
        initial = "auto")
    double height)
    implements Step<Cut> {

  @Override
  public Cut run(Job job) {
    GroundSize ground = GroundSize.of(scene);
    double sceneArea = scene.grid().pixels() * ground.area();
    if (grain > sceneArea) {
      throw new RasterException("A grain of " + grain + " m² is larger than the scene ("
          + Math.round(sceneArea) + " m²). Choose less.");
    }
    FeatureSpace space = FeatureSpace.of(scene, weightsByRole(), job);
    int spacing = (int) Math.max(3, Math.round(Math.sqrt(superpixel)));
    ScratchLabels labels = new ScratchLabels(scene.grid());
    int regions = Superpixels.make(space, spacing, compactness, labels, job);
    RegionGraph graph = RegionGraph.of(space, labels, regions, job);
    return cut(labels, new TreeBuilder(graph).build(job));
  }

  /** Cuts a tree that this scene has already, at the grain or the height that is set. */
  public Cut cut(LabelRaster superpixels, MergeTree tree) {
    GroundSize ground = GroundSize.of(scene);
    return Double.isNaN(height)
        ? Cut.at(superpixels, tree, ground, grain)
        : Cut.atHeight(superpixels, tree, ground, grain, height);
  }

  private Map<BandRole, Double> weightsByRole() {
    Map<BandRole, Double> map = new EnumMap<>(BandRole.class);
    for (String weight : weights) {
      String[] sides = weight.split("=");
      BandRole role = sides.length == 2 ? BandRole.guess(sides[0]) : BandRole.OTHER;
      try {
        if (role != BandRole.OTHER && Double.parseDouble(sides[1]) >= 0) {
          map.put(role, Double.valueOf(sides[1]));
          continue;
        }
      } catch (NumberFormatException notANumber) {
        // reported below with the whole text
      }
      throw new RasterException(
          "A weight is role=number, e.g. near_infrared=2, not '" + weight + "'.");
    }
    return map;
  }
}
