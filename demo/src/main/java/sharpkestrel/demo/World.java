package sharpkestrel.demo;

import java.time.Instant;
import java.util.List;
import sharpkestrel.demo.ground.Coast;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Landform;
import sharpkestrel.demo.light.Air;
import sharpkestrel.demo.light.Sun;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.noise.SmoothTexture;
import sharpkestrel.demo.region.Region;
import sharpkestrel.demo.scene.Cloud;
import sharpkestrel.demo.scene.Conditions;
import sharpkestrel.demo.scene.Scene;
import sharpkestrel.demo.sensor.FrameCamera;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.sensor.Pushbroom;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.demo.things.Change;
import sharpkestrel.demo.things.Changed;
import sharpkestrel.demo.things.Settling;
import sharpkestrel.demo.things.Things;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.Egm96;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;

/**
 * One region, made from a seed: the land and all on it as far as a survey's scenes look, and the scenes. Coordinates are of the
 * region's zone, heights above the geoid. A seed is one place: surveys of other sizes and scenarios see more, less or other
 * parts of it.
 */
public final class World {

  /** Metres from the ellipsoid up to the geoid in the archipelago. */
  public static final double UNDULATION = 47;

  /** Of the archipelago. */
  static final CrsName CRS = Region.ISLES.site().crs();

  static final int SMALLEST = 256;
  static final int LARGEST = 40_000;
  private static final int PHOTO_YEAR = 1962;
  private static final double OVERLAP = 0.4;
  private static final Pass.Range STEEP = new Pass.Range(2, 24);

  private final long seed;
  private final int size;
  private final Scenario scenario;
  private final Scheme scheme;
  private final double undulation;
  private final Ground ground;
  private final Settling plan;
  private final Things today;
  private final Changed later;
  private final Extent extent;
  private final Scene one;
  private final Scene two;
  private final FrameCamera photo;
  private final Conditions photoDay;

  /**
   * @param size pixels of the panchromatic scenes along one side
   */
  public World(long seed, int size, Scenario scenario, Scheme scheme) {
    if (size < SMALLEST || size > LARGEST) {
      throw new IllegalArgumentException("A world is " + SMALLEST + " to " + LARGEST
          + " panchromatic pixels wide, not " + size + ".");
    }
    this.seed = seed;
    this.size = size;
    this.scenario = scenario;
    this.scheme = scheme;
    boolean isles = scheme.region() == Region.ISLES;
    if (!isles && scenario != Scenario.WHOLE) {
      throw new RasterException("Of " + scheme.region().site().title()
          + " there is the whole alone: harbour, town and moor are parts of the isles.");
    }
    undulation = isles ? UNDULATION : undulation(scheme.region().site());
    double side = size * scheme.instrument().gsd();
    Coast coast = isles ? new Coast(seed) : null;
    double[] middle = isles ? middle(coast, side) : middle(scheme.region().site());
    double[] beside = scheme.years() > 0
        ? middle
        : beside(isles ? coast.inland() + Math.PI / 2 : 0, middle, side);
    // a scene lies a little askew, and its rays meet hills away from where they meet the sea
    double half = side / 2 * 1.22 + 180;
    Extent first = Extent.around(middle[0], middle[1], half);
    Extent second = Extent.around(beside[0], beside[1], half);
    extent = first.union(second);
    ground = scheme.region().ground(seed, extent.grown(60));
    plan = scheme
        .region()
        .settle(ground, extent.grown(60), Extent.around(middle[0], middle[1], side * 0.44));
    today = plan.day(1);
    later =
        scheme.years() == 0 ? new Changed(plan.lasting(), List.of()) : plan.after(scheme.years());
    Chance chance = Chance.of(seed, 2);
    boolean asEver = scheme.equals(Scheme.PLAIN);
    double[] place = degrees(middle);
    one = scene(
        asEver
            ? Pass.ONE
            : Pass.drawn("scene-one", scheme, place[0], place[1], STEEP, Chance.of(seed, 6, 1)),
        middle,
        chance);
    two = scene(
        asEver
            ? Pass.TWO
            : Pass.drawn("scene-two", scheme, place[0], place[1], STEEP, Chance.of(seed, 6, 2))
                .later(scheme.years()),
        beside,
        chance);
    photoDay = conditions(
        middle, Instant.parse("1962-05-14T13:10:00Z"), 1.5, 90, 0.16, 0.2, Cloud.NONE, chance);
    photo = photo(middle, side, chance);
  }

  public World(long seed, int size, Scenario scenario) {
    this(seed, size, scenario, Scheme.PLAIN);
  }

  public World(long seed, int size) {
    this(seed, size, Scenario.WHOLE);
  }

  /** As the geoid is told by the table that ships, in whole centimetres. */
  private static double undulation(Region.Site site) {
    double[] place = {site.east(), site.north()};
    Crs.of(site.crs()).to(Crs.of(Crs.WGS84)).apply(place, 1);
    Raster geoid = Egm96.raster();
    Affine affine = geoid.grid().affine();
    int x = (int) Math.floor((place[0] - affine.c()) / affine.a());
    int y = (int) Math.floor((place[1] - affine.f()) / affine.e());
    float[][] value = new float[1][1];
    geoid.read(0, new Window(x, y, 1, 1), value, Request.BACKGROUND);
    return Math.rint(100 * value[0][0]) / 100;
  }

  private double[] degrees(double[] middle) {
    double[] place = {middle[0], middle[1]};
    Crs.of(crs()).to(Crs.of(Crs.WGS84)).apply(place, 1);
    return place;
  }

  /** A part of a region inland: each seed is another. */
  private double[] middle(Region.Site site) {
    Chance chance = Chance.of(seed, 7);
    return new double[] {
      site.east() + chance.between(-240, 240), site.north() + chance.between(-240, 240)
    };
  }

  /** Where the first scene looks. */
  private double[] middle(Coast coast, double side) {
    double u = switch (scenario) {
      case WHOLE -> Math.min(160, 25 + 0.06 * side);
      case HARBOUR -> -35;
      case TOWN -> 150;
      case MOOR -> 0;
    };
    if (scenario != Scenario.MOOR) {
      return new double[] {coast.east(u, 0), coast.north(u, 0)};
    }
    Chance chance = Chance.of(seed, 3);
    Landform form = Ground.isles(seed);
    double[] best = {coast.east(1500, 0), coast.north(1500, 0)};
    double most = Double.NEGATIVE_INFINITY;
    for (int k = 0; k < 60; k++) {
      double r = chance.between(1100, 2800) + side * 0.3;
      double a = chance.between(0, 2 * Math.PI);
      double e = coast.east(r * Math.cos(a), r * Math.sin(a));
      double n = coast.north(r * Math.cos(a), r * Math.sin(a));
      double dry = 0;
      for (int j = -2; j <= 2; j++) {
        for (int i = -2; i <= 2; i++) {
          double h = form.bare(e + i * side / 5, n + j * side / 5);
          dry += h > 20 && h < 190 ? 1 : 0;
        }
      }
      if (dry > most) {
        most = dry;
        best = new double[] {e, n};
      }
    }
    return best;
  }

  /** Where the second scene looks: along the coast, so that two fifths are seen by both. */
  private double[] beside(double along, double[] middle, double side) {
    double shift = (1 - OVERLAP) * side;
    boolean eastWest = Math.abs(Math.cos(along)) > Math.abs(Math.sin(along));
    double sign = Chance.of(seed, 4).happens(0.5) ? 1 : -1;
    return new double[] {
      middle[0] + (eastWest ? sign * shift : 0), middle[1] + (eastWest ? 0 : sign * shift)
    };
  }

  private Conditions conditions(
      double[] middle,
      Instant time,
      double offNadir,
      double azimuth,
      double aerosol,
      double wetness,
      Cloud cloud,
      Chance chance) {
    double[] place = degrees(middle);
    Sun sun = Sun.at(time, place[0], place[1]);
    return new Conditions(
        time,
        sun,
        new Air(sun, offNadir, aerosol),
        offNadir,
        azimuth,
        chance.between(3, 8),
        chance.between(0, 360),
        wetness,
        cloud,
        scheme.season());
  }

  private Scene scene(Pass pass, double[] middle, Chance chance) {
    Instant time = pass.time(chance);
    double offNadir = pass.offNadir().draw(chance);
    double azimuth = pass.azimuth().draw(chance);
    Cloud cloud = pass.cloudy() ? cloudAway(middle, chance) : Cloud.NONE;
    double aerosol = pass.aerosol().draw(chance);
    double wetness = pass.wetness().draw(chance);
    Conditions conditions =
        conditions(middle, time, offNadir, azimuth, aerosol, wetness, cloud, chance);
    double[] place = {middle[0], middle[1], ground.height(middle[0], middle[1]) + undulation};
    Instrument instrument = scheme.instrument();
    Sensor sensor = instrument.isAirborne()
        ? aircraft(place, chance)
        : new Pushbroom(
            place,
            offNadir,
            azimuth,
            188 + chance.between(0, 6),
            instrument.gsd(),
            size / 4 * 4,
            size / 4 * 4,
            0.055,
            chance);
    double[][] shifts = new double[instrument.bands().size()][];
    double off = instrument.answer().misaligned();
    for (int b = 0; b < shifts.length; b++) {
      shifts[b] =
          new double[] {off * chance.between(-0.14, 0.14), off * chance.between(-0.22, 0.22)};
    }
    return new Scene(pass.scene(), sensor, conditions, pass.brightest(), shifts, instrument);
  }

  /** A camera over a place, nearly level, the aircraft on any course. */
  private FrameCamera aircraft(double[] place, Chance chance) {
    double gsd = scheme.instrument().gsd();
    // half of the angle across is up to 25 degrees
    double above = Math.max(900, 1.1 * size * gsd);
    return new FrameCamera(
        size / 4 * 4,
        size / 4 * 4,
        new double[] {place[0], place[1], place[2] + above},
        Math.toRadians(chance.between(-1.5, 1.5)),
        Math.toRadians(chance.between(-1.5, 1.5)),
        chance.between(0, 2 * Math.PI),
        above / gsd,
        0,
        new double[] {1, 0, 0, 1});
  }

  /** East and north that the middle of a scene looks at, nearly. */
  double[] middleOf(Scene scene) {
    double[] ray = new double[4];
    scene.sensor().ray(scene.sensor().width() / 2.0, scene.sensor().height() / 2.0, ray);
    ray[0] += undulation * ray[2];
    ray[1] += undulation * ray[3];
    double h = ground.tiles().meet(ray, scheme.region().site().low() + 40);
    return new double[] {ray[0] + h * ray[2], ray[1] + h * ray[3]};
  }

  /** Thin cloud over the corner that is farthest from what both scenes see. */
  private Cloud cloudAway(double[] middle, Chance chance) {
    double side = size * scheme.instrument().gsd();
    double away = Math.signum(middle[0] - extent.west() - (extent.east() - middle[0]) + 1e-3);
    if (scheme.sky().thickest > 0.9) {
      return new Cloud(
          middle[0],
          middle[1],
          side * 2,
          ground.height(middle[0], middle[1]) + chance.between(700, 1400),
          new SmoothTexture(seed * 31 + 14),
          scheme.sky().thickest,
          true);
    }
    double up = Math.signum(middle[1] - extent.south() - (extent.north() - middle[1]) + 1e-3);
    return new Cloud(
        middle[0] + away * side * 0.5,
        middle[1] + up * side * 0.5,
        side * 0.46,
        cloudBase(middle) + chance.between(700, 1000),
        new SmoothTexture(seed * 31 + 14));
  }

  /** What cloud stands above; the sea in the archipelago. */
  private double cloudBase(double[] middle) {
    return scheme.region() == Region.ISLES ? 0 : ground.height(middle[0], middle[1]);
  }

  /** An air photo from low over the land, turned and tilted, its film shrunk and sheared, scanned. */
  private FrameCamera photo(double[] middle, double side, Chance chance) {
    double covered = Math.min(2300, side * 0.86);
    double pixel = 0.62;
    int pixels = (int) (covered / pixel);
    double above = covered * 1.5;
    double[] lens = {
      middle[0] + chance.between(-0.04, 0.04) * covered,
      middle[1] + chance.between(-0.04, 0.04) * covered,
      ground.height(middle[0], middle[1]) + undulation + above
    };
    double shear = chance.between(-0.006, 0.006);
    double stretch = chance.between(-0.008, 0.008);
    return new FrameCamera(
        pixels,
        pixels,
        lens,
        Math.toRadians(chance.between(-2.5, 2.5)),
        Math.toRadians(chance.between(-2.5, 2.5)),
        Math.toRadians(chance.between(-65, -20)),
        above / pixel,
        chance.between(0.012, 0.03),
        new double[] {1 + stretch, shear, shear * 0.3, 1 - stretch});
  }

  public CrsName crs() {
    return scheme.region().site().crs();
  }

  /** Metres from the ellipsoid up to the geoid. */
  public double undulation() {
    return undulation;
  }

  Scheme scheme() {
    return scheme;
  }

  public long seed() {
    return seed;
  }

  public int size() {
    return size;
  }

  Scenario scenario() {
    return scenario;
  }

  Ground ground() {
    return ground;
  }

  /** What lasts: no vessel, no vehicle. */
  Things lasting() {
    return plan.lasting();
  }

  /** What is there on the day of the first scene. */
  Things things() {
    return today;
  }

  /** What is there on the day of the second scene. */
  Things thingsOfDayTwo() {
    return plan.day(later.lasting(), 2);
  }

  /** What was changed between the scenes. */
  List<Change> changes() {
    return later.changes();
  }

  /** The ground that heights and truth are written for. */
  Extent extent() {
    return extent;
  }

  public Scene one() {
    return one;
  }

  public Scene two() {
    return two;
  }

  public FrameCamera photo() {
    return photo;
  }

  Conditions photoDay() {
    return photoDay;
  }

  /** What stood when the photo was taken. */
  Things photoThings() {
    return plan.lasting().before(PHOTO_YEAR);
  }
}
