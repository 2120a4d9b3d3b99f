package sharpkestrel.demo.ground;

import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.noise.Noise;

/** The ground of a region inland: zones, each parted and used in its own way, with streets along what parts them. */
public final class LowlandPlan implements GroundPlan {

  /**
   * What the cells of one kind are like.
   *
   * @param least square metres of a piece, and {@code most}
   * @param loose spread of the directions of its lines, radians
   * @param aligned whether all such cells lie in one direction, as towns are laid out that were planned
   * @param shares of each use
   */
  public record Zone(
      double least,
      double most,
      double loose,
      boolean aligned,
      List<Parcel.Use> uses,
      double... shares) {}

  /** Which zone a cell belongs to. */
  public interface Zoning {

    /**
     * @param away metres from the region's origin
     * @param slow noise over a kilometre, -1 to 1
     * @param draw 0 to 1, the cell's own
     */
    Zone of(double away, double slow, double draw);
  }

  private static final double SLOW = 1300;

  private final Lowland.Form form;
  private final double cell;
  private final Zoning zoning;
  private final Streets.Kinds streets;
  private final Cover cover;
  private final boolean rails;

  /**
   * @param cell metres from a cell to the next
   * @param rails whether a railway runs through it
   */
  public LowlandPlan(
      Lowland.Form form,
      double cell,
      Zoning zoning,
      Streets.Kinds streets,
      Cover cover,
      boolean rails) {
    this.rails = rails;
    this.form = form;
    this.cell = cell;
    this.zoning = zoning;
    this.streets = streets;
    this.cover = cover;
  }

  @Override
  public Landform landform(long seed) {
    return new Lowland(seed, form);
  }

  @Override
  public boolean isWild() {
    return false;
  }

  @Override
  public Optional<Cover> cover() {
    return Optional.of(cover);
  }

  @Override
  public void lay(Ground ground) {
    new Streets(ground, streets).lay();
    if (rails) {
      new Rails(ground, form.east(), form.north()).lay();
    }
  }

  @Override
  public Division division(Ground ground) {
    long seed = ground.seed();
    Noise slow = new Noise(seed * 31 + 54);
    double direction = Chance.of(seed, 38).between(0, Math.PI / 2);
    return new Division() {
      @Override
      public double cell() {
        return cell;
      }

      private Zone zone(double e, double n, double draw) {
        double away = Math.hypot(e - form.east(), n - form.north());
        return zoning.of(away, 1.6 * slow.octaves(e / SLOW, n / SLOW, 2), draw);
      }

      @Override
      public Manner manner(double e, double n, Chance chance) {
        Zone zone = zone(e, n, chance.unit());
        double turn = zone.aligned ? direction + 0.04 * chance.gaussian() : chance.between(0, 3.14);
        return new Manner(
            chance.between(zone.least, zone.most),
            turn,
            zone.loose,
            (ring, then) -> parcel(ground, zone, ring, then));
      }
    };
  }

  private static Parcel parcel(Ground ground, Zone zone, double[] ring, Chance chance) {
    Parcel.Use use = chance.pick(zone.uses, zone.shares);
    double[] middle = Polygons.middle(ring);
    if (use.built() && ground.landform().smooth(middle[0], middle[1]) < 8) {
      use = Parcel.Use.PARK;
    }
    return new Parcel(
        use,
        ring,
        chance.between(0.8, 1.2),
        longest(ring) + 0.03 * chance.gaussian(),
        chance.unit());
  }

  /** Direction of the longest side. */
  private static double longest(double[] ring) {
    double most = 0;
    double direction = 0;
    for (int k = 0; k < ring.length; k += 2) {
      int next = (k + 2) % ring.length;
      double de = ring[next] - ring[k];
      double dn = ring[next + 1] - ring[k + 1];
      if (Math.hypot(de, dn) > most) {
        most = Math.hypot(de, dn);
        direction = Math.atan2(dn, de);
      }
    }
    return direction;
  }
}
