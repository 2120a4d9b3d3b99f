package sharpkestrel.demo.region;

import java.util.Locale;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundPlan;
import sharpkestrel.demo.things.InlandPlan;
import sharpkestrel.demo.things.Plan;
import sharpkestrel.demo.things.Settling;
import sharpkestrel.demo.things.Taste;
import sharpkestrel.demo.words.Labelled;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;

/** Where a survey is made: made-up places, each with land, towns, materials and things taken for each other of its own. */
public enum Region implements Labelled {
  /** Fenwrack Sound: a northern archipelago. */
  ISLES(new Site("Fenwrack Sound", 32630, 512_000, 6_702_000, -5, 520), null),
  /** Corvane: a dense old town of tiled roofs, courts and narrow lanes on a river, villages and orchards about it. */
  OLD_TOWN(new Site("Corvane", 32629, 484_000, 4_876_000, -10, 190), OldTown.INSTANCE),
  /** Ansakar: a town on a high plateau, flat roofs and walled yards on ground as bright as the roofs. */
  PLATEAU(new Site("Ansakar", 32732, 506_000, 8_118_000, 2380, 2640), Plateau.INSTANCE),
  /** Brandle Weald: large fields and hedges, woods and orchards, farmsteads with large sheds, silos and glass. */
  FARMLAND(new Site("Brandle Weald", 32631, 497_000, 5_985_000, -10, 160), Farmland.INSTANCE),
  /** Pennick Flats: a modern suburb beside works with halls, car parks, pools, panels, avenues and rails. */
  SUBURB(new Site("Pennick Flats", 32618, 508_000, 3_652_000, -10, 130), Suburb.INSTANCE);

  /**
   * A made-up place: whole coordinates at sea, where nothing stands.
   *
   * @param utm EPSG code of its zone
   * @param east of its middle; {@code low} and {@code high} metres above the geoid between which everything lies
   */
  public record Site(String title, int utm, double east, double north, double low, double high) {

    /** As folders and files are called. */
    public String slug() {
      return title.toLowerCase(Locale.ROOT).replace(' ', '-');
    }

    public CrsName crs() {
      return CrsName.epsg(utm);
    }
  }

  /** What a region inland is made of. */
  interface Inland {
    GroundPlan ground(Site site);

    Taste taste();

    /** Shares of walls, hedges and nothing along the bounds of fields. */
    double[] bounds();
  }

  private final Site site;
  private final Inland inland;

  Region(Site site, Inland inland) {
    this.site = site;
    this.inland = inland;
  }

  public Site site() {
    return site;
  }

  /** The ground of a seed. */
  public Ground ground(long seed, Extent extent) {
    return inland == null
        ? new Ground(seed, extent)
        : new Ground(seed, extent, inland.ground(site));
  }

  /**
   * What stands on it.
   *
   * @param marks where surveyed marks are laid
   */
  public Settling settle(Ground ground, Extent extent, Extent marks) {
    return inland == null
        ? new Plan(ground, extent, marks)
        : new InlandPlan(ground, extent, marks, inland.taste(), inland.bounds());
  }

  /**
   * The region of a label.
   *
   * @throws sharpkestrel.raster.RasterException that names those there are
   */
  public static Region of(String label) {
    return Labelled.of(values(), label, "A region");
  }
}
