package sharpkestrel.objects;

import java.util.Arrays;
import java.util.List;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** What there is in each zone. */
@StepInfo(
    id = "zone-summary",
    stage = Stage.SEGMENT,
    title = "Zone summary",
    does =
        "Says for each zone how many objects it has, how much of it they cover, and of a feature the mean, the ends and the"
            + " object at either end.")
public record ZoneSummary(
    @Group InZones in,

    @Setting(label = "Of", does = "Feature to sum up.", initial = "area")
    String of)
    implements Step<OutlineSet> {

  @Override
  public OutlineSet run(Job job) {
    ObjectSet objects = in.objects();
    OutlineSet zones = in.zones();
    double[] values = objects.table().values(of);
    double[] areas = objects.table().values("area");
    Zones assigned = in.assign(job);
    int n = zones.count();
    double[] count = new double[n];
    double[] area = new double[n];
    double[] share = new double[n];
    double[] mean = new double[n];
    double[] most = new double[n];
    double[] least = new double[n];
    double[] largest = new double[n];
    double[] smallest = new double[n];
    for (double[] column : List.of(mean, most, least, largest, smallest)) {
      Arrays.fill(column, Double.NaN);
    }
    List<List<Integer>> byZone = assigned.ranked(values, true);
    for (int z = 0; z < n; z++) {
      List<Integer> ranked = byZone.get(z);
      List<Integer> valued =
          ranked.stream().filter(i -> !Double.isNaN(values[i])).toList();
      count[z] = ranked.size();
      area[z] = ranked.stream().mapToDouble(i -> areas[i]).sum();
      share[z] = assigned.pixels()[z] == 0
          ? Double.NaN
          : area[z] / (assigned.pixels()[z] * objects.ground().area());
      if (!valued.isEmpty()) {
        mean[z] = valued.stream().mapToDouble(i -> values[i]).average().orElseThrow();
        most[z] = values[valued.getFirst()];
        least[z] = values[valued.getLast()];
        largest[z] = objects.ids()[valued.getFirst()];
        smallest[z] = objects.ids()[valued.getLast()];
      }
    }
    Table.Column feature = objects.table().column(of);
    return new OutlineSet(
        zones.crs(),
        zones.outlines(),
        new Table(
            n,
            List.of(
                Table.Column.ofTexts(RankInZones.ZONE, "Zone", assigned.names()),
                new Table.Column("objects", "Objects", "", count),
                new Table.Column("objects_area", "Area of objects", "m²", area),
                new Table.Column("covered", "Share covered", "", share),
                new Table.Column(
                    of + "_average", feature.title() + ", average", feature.unit(), mean),
                new Table.Column(
                    of + "_largest", feature.title() + ", largest", feature.unit(), most),
                new Table.Column(
                    of + "_smallest", feature.title() + ", smallest", feature.unit(), least),
                new Table.Column("largest_object", "Object of the largest", "", largest),
                new Table.Column("smallest_object", "Object of the smallest", "", smallest))));
  }
}
