package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Chance;
import sharpkestrel.demo.noise.Noise;

/**
 * Where land ends: a signed distance to the shore in metres, nearly, above 0 on land. About the town the coast is a
 * cove between two headlands with an island across the sound; from two kilometres on it is an archipelago of noise.
 *
 * <p>The town's frame has its origin at the head of the cove; {@code u} points inland and {@code v} along the shore.
 */
public final class Coast {

  private static final double EAST = 512_000;
  private static final double NORTH = 6_702_000;
  private static final double NEAR = 1500;
  private static final double FAR = 2600;

  private final double cos;
  private final double sin;
  private final double islandU;
  private final double islandV;
  private final double islandRadius;
  private final Noise bends;
  private final Noise islands;
  private final Noise jags;

  public Coast(long seed) {
    Chance chance = Chance.of(seed, 1);
    double inland = chance.between(0, 2 * Math.PI);
    cos = Math.cos(inland);
    sin = Math.sin(inland);
    islandU = -chance.between(820, 980);
    islandV = chance.between(-520, 520);
    islandRadius = chance.between(230, 340);
    bends = new Noise(seed * 31 + 11);
    islands = new Noise(seed * 31 + 12);
    jags = new Noise(seed * 31 + 13);
  }

  public double u(double e, double n) {
    return (e - EAST) * cos + (n - NORTH) * sin;
  }

  public double v(double e, double n) {
    return -(e - EAST) * sin + (n - NORTH) * cos;
  }

  public double east(double u, double v) {
    return EAST + u * cos - v * sin;
  }

  public double north(double u, double v) {
    return NORTH + u * sin + v * cos;
  }

  /** Direction of {@code u}, radians anticlockwise from east. */
  public double inland() {
    return Math.atan2(sin, cos);
  }

  /** The shore without its finest jags: what streets and quays follow. */
  public double smooth(double e, double n) {
    double u = u(e, n);
    double v = v(e, n);
    double r = Math.sqrt(u * u + v * v);
    double near = 0;
    double far = 0;
    double share = Landform.step(NEAR, FAR, r);
    if (share < 1) {
      near = near(u, v);
    }
    if (share > 0) {
      far = 1500 * (islands.octaves(e / 2900, n / 2900, 5) + 0.06);
    }
    return near + (far - near) * share;
  }

  private double near(double u, double v) {
    double wild = 1 - Math.exp(-v * v / (330.0 * 330));
    double line = (60 + 130 * wild) * bends.octaves(v / 560, 0.5, 3)
        + 26 * bends.at(v / 170, 7.5)
        + 150 * (Math.exp(-v * v / (245.0 * 245)) - 1)
        + 20;
    double mainland = 0.9 * (u - line);
    double du = u - islandU;
    double dv = (v - islandV) * 0.75;
    double island =
        islandRadius - Math.sqrt(du * du + dv * dv) + 110 * bends.octaves(u / 260 + 40, v / 260, 4);
    double skerries = -400;
    if (u < -300 && mainland < -40) {
      double open = Math.min(Landform.step(300, 480, -u), Landform.step(40, 130, -mainland));
      skerries = 95 * (bends.octaves(u / 210 + 90, v / 210, 4) - 0.30) - 400 * (1 - open);
    }
    return Math.max(mainland, Math.max(island, skerries));
  }

  /** Metres to the shore, jagged as rocks make it; smooth where the town has its quays. */
  public double at(double e, double n) {
    return jagged(smooth(e, n), e, n);
  }

  /**
   * @param s the smooth shore here
   */
  double jagged(double s, double e, double n) {
    if (Math.abs(s) > 90) {
      return s;
    }
    double rough = 1 - front(e, n);
    return s + rough * 11 * jags.octaves(e / 55, n / 55, 4);
  }

  /** 1 along the quays at the head of the cove, falling to 0 outside. */
  public double front(double e, double n) {
    double u = u(e, n);
    double v = v(e, n);
    return (1 - Landform.step(270, 380, Math.abs(v))) * (1 - Landform.step(190, 420, Math.abs(u)));
  }

  /** 1 in the town's ground, falling to 0 outside. */
  public double town(double e, double n) {
    double u = u(e, n) - 120;
    double v = 0.85 * v(e, n);
    return 1 - Landform.step(330, 620, Math.sqrt(u * u + v * v));
  }

  /** 1 where the town is built, falling to 0 a little outside. */
  public double built(double e, double n) {
    double u = u(e, n) - 140;
    double v = 0.76 * v(e, n);
    return 1 - Landform.step(225, 350, Math.sqrt(u * u + v * v));
  }
}
