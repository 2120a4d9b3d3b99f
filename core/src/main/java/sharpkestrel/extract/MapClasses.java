package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.ScratchLabels;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Takes the likeliest class of each pixel. */
@StepInfo(
    id = "class-map",
    stage = Stage.EXTRACT,
    family = "Pixels",
    title = "Class map",
    next = "Probabilities: of which class is each pixel?",
    nextFor = Suits.PROBABILITIES,
    makes = "Class map",
    does =
        "Takes at each pixel the likeliest class: the band with the largest number. Of one band alone what reaches the least probability. Each"
            + " class is one object, with its area; 'absorb' cleans it, 'class-objects' makes objects of what hangs together.")
public record MapClasses(
    @In(does = "Probabilities, one band for each class.") Raster probabilities,

    @In(
        does =
            "Samples that tell the colour of each class, as a project keeps them; without them the classes have colours in their order.",
        optional = true,
        byHand = true,
        suits = {Suits.OBJECTS, Suits.POINTS})
    Optional<OutlineSet> samples,

    @Setting(
        label = "Least probability",
        does = "A pixel whose likeliest class has less is given none; of one band alone, 0 is 0.5.",
        min = 0,
        max = 1,
        initial = "0")
    double least)
    implements Step<ObjectSet> {

  private static final double EVEN = 0.5;
  private static final double MILLION = 1e6;

  @Override
  public ObjectSet run(Job job) {
    List<Band> bands = probabilities.bands();
    List<String> names = new ArrayList<>();
    for (Band band : bands) {
      if (names.contains(band.name())) {
        throw new RasterException("Two bands are called '" + band.name()
            + "'; a class map needs a name of its own for each class.");
      }
      names.add(band.name());
    }
    double from = bands.size() == 1 && least == 0 ? EVEN : least;
    ScratchLabels labels = new ScratchLabels(probabilities.grid());
    // in millionths, so that the order of tiles does not show
    long[] sums = new long[names.size()];
    long[] counts = new long[names.size()];
    Parallel.overTiles(probabilities, 0, "Taking the likeliest class", job, (tile, planes) -> {
      int[] chosen = new int[tile.area()];
      long[] here = new long[sums.length];
      long[] countHere = new long[sums.length];
      for (int i = 0; i < chosen.length; i++) {
        int most = -1;
        for (int k = 0; k < planes.length; k++) {
          boolean more = most < 0 ? planes[k][i] >= from : planes[k][i] > planes[most][i];
          most = more ? k : most;
        }
        chosen[i] = most + 1;
        if (most >= 0) {
          here[most] += Math.round(MILLION * planes[most][i]);
          countHere[most]++;
        }
      }
      synchronized (labels) {
        labels.write(tile, chosen);
        for (int k = 0; k < sums.length; k++) {
          sums[k] += here[k];
          counts[k] += countHere[k];
        }
      }
    });
    labels.setMaxLabel(names.size());
    double[] means = new double[sums.length];
    for (int k = 0; k < means.length; k++) {
      means[k] = sums[k] / MILLION / counts[k];
    }
    return new ClassMap(
            labels, names, ClassMap.colours(names, samples), GroundSize.of(probabilities))
        .objects(List.of(new Table.Column("probability", "Mean probability", "", means)), job);
  }
}
