package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/** Puts objects into zones and ranks them there. */
@StepInfo(
    id = "zones",
    stage = Stage.SEGMENT,
    title = "Zones",
    does =
        "Puts each object into the zone most of it lies in, such as a parish or a block, ranks it there by a feature, and"
            + " says its share of the zone. The rank is a feature like others, so a winnow may test it; or the best few of"
            + " each zone alone are kept.")
public record RankInZones(
    @Group InZones in,

    @Setting(label = "By", does = "Feature to rank by.", initial = "area")
    String by,

    @Setting(label = "First", does = "Which comes first.", initial = "largest")
    First first,

    @Setting(
        label = "Ties",
        does =
            "Of objects with the same value: all share the better rank, or one comes before the other.",
        initial = "all")
    Ties ties,

    @Setting(
        label = "Ranks",
        does =
            "How many ranks of each zone are kept; auto keeps all objects, those in no zone too.",
        min = 1,
        max = 1e6,
        initial = "auto")
    double ranks)
    implements Step<ObjectSet> {

  /** Names of the columns that are made. */
  static final String ZONE = "zone";

  static final String RANK = "zone_rank";

  /** Which comes first. */
  public enum First {
    LARGEST,
    SMALLEST
  }

  /** What becomes of objects with the same value. */
  public enum Ties {
    ALL,
    ONE
  }

  @Override
  public ObjectSet run(Job job) {
    ObjectSet objects = in.objects();
    if (objects.count() == 0) {
      throw new RasterException("There are no objects to rank: the object set is empty.");
    }
    double[] values = objects.table().values(by);
    Zones assigned = in.assign(job);
    int n = objects.count();
    double[] rank = new double[n];
    double[] count = new double[n];
    double[] share = new double[n];
    Arrays.fill(rank, Double.NaN);
    Arrays.fill(share, Double.NaN);
    String[] zone = new String[n];
    Arrays.fill(zone, "");
    double[] areas = objects.table().values("area");
    List<List<Integer>> byZone = assigned.ranked(values, first == First.LARGEST);
    for (int z = 0; z < in.zones().count(); z++) {
      List<Integer> ranked = byZone.get(z);
      for (int k = 0; k < ranked.size(); k++) {
        int object = ranked.get(k);
        boolean tied = k > 0 && ties == Ties.ALL && values[object] == values[ranked.get(k - 1)];
        zone[object] = assigned.names().get(z);
        count[object] = ranked.size();
        share[object] = areas[object] / (assigned.pixels()[z] * objects.ground().area());
        rank[object] =
            Double.isNaN(values[object]) ? Double.NaN : tied ? rank[ranked.get(k - 1)] : k + 1;
      }
    }
    // what is new stands first, where it is seen
    List<Table.Column> columns = new ArrayList<>();
    columns.add(Table.Column.ofTexts(ZONE, "Zone", List.of(zone)));
    columns.add(new Table.Column(RANK, "Rank in zone", "", rank));
    columns.add(new Table.Column("zone_objects", "Objects in zone", "", count));
    columns.add(new Table.Column("zone_share", "Share of zone", "", share));
    objects.table().columns().stream()
        .filter(c -> !c.name().equals(ZONE) && !c.name().startsWith("zone_"))
        .forEach(columns::add);
    ObjectSet all = objects.withTable(new Table(n, columns));
    return Double.isNaN(ranks)
        ? all
        : all.select(IntStream.range(0, n).filter(i -> rank[i] <= ranks).toArray());
  }
}
