package sharpkestrel.flow;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.check.Compare;
import sharpkestrel.deliver.Export;
import sharpkestrel.extract.Absorb;
import sharpkestrel.extract.ClassObjects;
import sharpkestrel.extract.ClassifyByRules;
import sharpkestrel.extract.ClassifyObjects;
import sharpkestrel.extract.ClassifyPixels;
import sharpkestrel.extract.Cluster;
import sharpkestrel.extract.ClusterObjects;
import sharpkestrel.extract.CompareLearners;
import sharpkestrel.extract.FindAlike;
import sharpkestrel.extract.FindObjects;
import sharpkestrel.extract.LearnClasses;
import sharpkestrel.extract.LearnObjects;
import sharpkestrel.extract.LearnPixels;
import sharpkestrel.extract.MapClasses;
import sharpkestrel.extract.NameClasses;
import sharpkestrel.extract.OutlineObjects;
import sharpkestrel.extract.OverlayClasses;
import sharpkestrel.extract.RankAlike;
import sharpkestrel.extract.WeighSamples;
import sharpkestrel.extract.Winnow;
import sharpkestrel.gather.Assemble;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.gather.Clip;
import sharpkestrel.gather.Describe;
import sharpkestrel.gather.OpenFile;
import sharpkestrel.gather.OpenOutlines;
import sharpkestrel.gather.Stack;
import sharpkestrel.objects.ChooseObjects;
import sharpkestrel.objects.Measure;
import sharpkestrel.objects.PickObjects;
import sharpkestrel.objects.RankInZones;
import sharpkestrel.objects.RefineObjects;
import sharpkestrel.objects.TellApart;
import sharpkestrel.objects.ZoneSummary;
import sharpkestrel.place.FindOffsets;
import sharpkestrel.place.Ortho;
import sharpkestrel.place.RefineModel;
import sharpkestrel.place.Warp;
import sharpkestrel.place.match.FindTiePoints;
import sharpkestrel.place.mosaic.FindFootprint;
import sharpkestrel.place.mosaic.FindSeams;
import sharpkestrel.place.mosaic.Mosaic;
import sharpkestrel.raster.RasterException;
import sharpkestrel.segment.LearnMerging;
import sharpkestrel.segment.MeanShiftFilter;
import sharpkestrel.segment.Segment;
import sharpkestrel.sharpen.BuiltUp;
import sharpkestrel.sharpen.Dehaze;
import sharpkestrel.sharpen.Index;
import sharpkestrel.sharpen.LocalContrast;
import sharpkestrel.sharpen.Pansharpen;
import sharpkestrel.sharpen.Profiles;
import sharpkestrel.sharpen.RateSharpening;
import sharpkestrel.sharpen.Texture;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;

/** Every step there is, in the order of the work. */
public final class StepCatalogue {

  private static final Map<String, StepSpec> STEPS = new LinkedHashMap<>();

  static {
    List<Class<? extends Step<?>>> all = List.of(
        Assemble.class,
        OpenFile.class,
        OpenOutlines.class,
        Describe.class,
        Stack.class,
        Calibrate.class,
        Clip.class,
        Ortho.class,
        FindTiePoints.class,
        RefineModel.class,
        Warp.class,
        FindOffsets.class,
        FindFootprint.class,
        FindSeams.class,
        Mosaic.class,
        Pansharpen.class,
        RateSharpening.class,
        LocalContrast.class,
        Dehaze.class,
        Index.class,
        Texture.class,
        BuiltUp.class,
        Profiles.class,
        Segment.class,
        LearnMerging.class,
        MeanShiftFilter.class,
        PickObjects.class,
        RefineObjects.class,
        Measure.class,
        RankInZones.class,
        ZoneSummary.class,
        ChooseObjects.class,
        TellApart.class,
        Winnow.class,
        ClassifyByRules.class,
        RankAlike.class,
        ClassifyObjects.class,
        LearnClasses.class,
        WeighSamples.class,
        CompareLearners.class,
        ClassifyPixels.class,
        LearnPixels.class,
        MapClasses.class,
        FindObjects.class,
        LearnObjects.class,
        FindAlike.class,
        Cluster.class,
        ClusterObjects.class,
        NameClasses.class,
        Absorb.class,
        ClassObjects.class,
        OverlayClasses.class,
        OutlineObjects.class,
        Compare.class,
        Export.class);
    for (Class<? extends Step<?>> type : all) {
      StepSpec spec = new StepSpec(type);
      STEPS.put(spec.id(), spec);
    }
  }

  private StepCatalogue() {}

  public static List<StepSpec> all() {
    return List.copyOf(STEPS.values());
  }

  public static List<StepSpec> of(Stage stage) {
    return STEPS.values().stream().filter(s -> s.stage() == stage).toList();
  }

  /** A title without what steps add behind the name of what they work on. */
  static String withoutAdditions(String title) {
    for (StepSpec step : STEPS.values()) {
      if (!step.addition().isEmpty() && title.endsWith(step.addition())) {
        return withoutAdditions(
            title.substring(0, title.length() - step.addition().length()));
      }
    }
    return title;
  }

  /**
   * @throws RasterException that names the steps there are
   */
  public static StepSpec get(String id) {
    StepSpec spec = STEPS.get(id);
    if (spec == null) {
      throw new RasterException(
          "There is no step '" + id + "'. There are: " + String.join(", ", STEPS.keySet()) + ".");
    }
    return spec;
  }
}
