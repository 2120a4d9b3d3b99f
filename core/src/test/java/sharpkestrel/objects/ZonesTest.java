package sharpkestrel.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.objects.RankInZones.First;
import sharpkestrel.objects.RankInZones.Ties;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Jobs;

class ZonesTest {

  /** Four objects in the west, two in the east, one outside. */
  private static ObjectSet objects() {
    ObjectSet drawn = Drawn.of("aabb..eeee..", "ccdd..ffff..", "..........gg");
    return drawn.withTable(drawn
        .table()
        .with(List.of(
            new Table.Column("height_p90", "Height", "m", new double[] {5, 9, 9, 2, 7, 3, 50}))));
  }

  private static Geometry columns(double from, double to) {
    return new GeometryFactory()
        .toGeometry(new Envelope(512_000 + from, 512_000 + to, 6_702_000 - 3, 6_702_000));
  }

  private static OutlineSet zones(Geometry... outlines) {
    List<String> names =
        new ArrayList<>(List.of("West", "East", "Far")).subList(0, outlines.length);
    return new OutlineSet(
        CrsName.epsg(32630),
        List.of(outlines),
        new Table(outlines.length, List.of(Table.Column.ofTexts("name", "Name", names))));
  }

  private static ObjectSet ranked(Ties ties, double keep, OutlineSet zones, Job job) {
    return new RankInZones(
            new InZones(objects(), zones, Optional.empty()),
            "height_p90",
            First.LARGEST,
            ties,
            keep)
        .run(job);
  }

  @Test
  void theTallestOfEachZoneIsFirstAndTiesShareARank() {
    Table t = ranked(Ties.ALL, Double.NaN, zones(columns(0, 5), columns(5, 10)), Job.QUIET)
        .table();

    assertThat(t.values("zone_rank")).containsExactly(3, 1, 1, 4, 1, 2, Double.NaN);
    assertThat(t.column("zone").text(0)).isEqualTo("West");
    assertThat(t.column("zone").text(4)).isEqualTo("East");
    assertThat(t.column("zone").text(6)).isEmpty();
    assertThat(t.values("zone_objects")[0]).isEqualTo(4);
    assertThat(t.values("zone_share")[4]).isEqualTo(4 / 15.0);
  }

  @Test
  void keepingOneOfEachZoneTakesAllTiesOrOne() {
    OutlineSet zones = zones(columns(0, 5), columns(5, 10));

    assertThat(ranked(Ties.ALL, 1, zones, Job.QUIET).ids()).containsExactly(101, 102, 104);
    assertThat(ranked(Ties.ONE, 1, zones, Job.QUIET).ids()).containsExactly(101, 104);
  }

  @Test
  void theSummaryCountsWhatIsInEachZone() {
    OutlineSet summary = new ZoneSummary(
            new InZones(objects(), zones(columns(0, 5), columns(5, 10)), Optional.of("name")),
            "height_p90")
        .run(Job.QUIET);

    assertThat(summary.table().values("objects")).containsExactly(4, 2);
    assertThat(summary.table().values("objects_area")).containsExactly(8, 8);
    assertThat(summary.table().values("covered")).containsExactly(8 / 15.0, 8 / 15.0);
    assertThat(summary.table().values("height_p90_average")).containsExactly(6.25, 5);
    assertThat(summary.table().values("largest_object")).containsExactly(101, 104);
    assertThat(summary.table().values("smallest_object")).containsExactly(103, 105);
  }

  @Test
  void zonesThatOverlapAndZonesOutsideAreTold() {
    List<String> warnings = new ArrayList<>();
    Job job = Jobs.warning(warnings);

    ranked(Ties.ALL, Double.NaN, zones(columns(0, 8), columns(5, 10), columns(90, 99)), job);

    assertThat(warnings).anyMatch(w -> w.contains("1 of 3 zones lie outside"));
    assertThat(warnings).anyMatch(w -> w.contains("overlap"));
  }

  @Test
  void zonesThatMissTheSceneAreRefused() {
    assertThatThrownBy(() -> ranked(Ties.ALL, 1, zones(columns(90, 99)), Job.QUIET))
        .hasMessageContaining("lie elsewhere");
    assertThatThrownBy(() -> new RankInZones(
                new InZones(objects(), zones(columns(0, 5)), Optional.empty()),
                "tallness",
                First.LARGEST,
                Ties.ALL,
                1)
            .run(Job.QUIET))
        .hasMessageContaining("tallness")
        .hasMessageContaining("height_p90");
  }
}
