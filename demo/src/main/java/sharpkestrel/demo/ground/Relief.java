package sharpkestrel.demo.ground;

import sharpkestrel.demo.noise.Noise;

/**
 * Height of the bare land above the geoid before waters, terraces and quarries are cut into it: a beach or a cliff at
 * the shore, then ground that rises to ridges (Musgrave's ridged sum of octaves). Slopes stay below 66 degrees, so that
 * no ray of a view less than 24 degrees off the vertical meets the ground twice.
 */
final class Relief {

  private static final double RIDGES = 400;
  private static final double QUAY = 2.6;

  private final Coast coast;
  private final Noise ridges;
  private final Noise bumps;
  private final Noise cliffs;

  Relief(long seed, Coast coast) {
    this.coast = coast;
    ridges = new Noise(seed * 31 + 21);
    bumps = new Noise(seed * 31 + 22);
    cliffs = new Noise(seed * 31 + 23);
  }

  Landform.Broad broad(double e, double n) {
    double one = cliffs.octaves(e / 420, n / 420, 3);
    double two = cliffs.octaves(e / 700 + 31, n / 700, 2);
    // bent by the other noises, lest crests run in smooth curves
    double bend = 34 * bumps.octaves(e / 105, n / 105, 2);
    double we = e + 190 * one + bend;
    double wn = n + 210 * two - bend;
    return new Landform.Broad(one, two, ridges.octaves(we / 1150, wn / 1150, 4));
  }

  /**
   * @param shore metres to the shore at this place
   */
  double at(double shore, Landform.Broad broad, double e, double n) {
    if (shore <= 0) {
      return 0;
    }
    double town = coast.town(e, n);
    double front = town > 0 ? coast.front(e, n) : 0;
    double beach = 0.075 * Math.min(shore, 22) + 0.022 * Math.max(0, shore - 22);
    double cliff = Landform.step(0.08, 0.34, broad.cliff()) * (1 - town);
    double drop = 12 + 45 * Landform.step(-0.3, 0.5, broad.drop());
    double foot = cliff > 0 ? cliff * drop * Landform.step(1, 3 + 0.95 * drop, shore) : 0;
    double rise = Landform.step(230, 1080, shore);
    double hills = 0;
    if (rise > 0) {
      double ridge = Math.max(0, 1 - 1.6 * Math.sqrt(broad.ridge() * broad.ridge() + 0.0009));
      hills = RIDGES * rise * (0.34 + 0.66 * ridge * ridge);
    }
    double rough = Math.min(1, shore / 60) * (1 - 0.88 * town);
    double small = bumps.octaves(e / 105, n / 105, 4);
    double knolls = (9 + 0.05 * hills) * rough * (small + 0.35)
        + 0.9 * rough * bumps.octaves(e / 7 + 5, n / 7, 2);
    double wild = beach + foot + hills + Math.max(-beach * 0.7, knolls);
    if (front <= 0) {
      return wild;
    }
    // Along the quays: an edge of stone, a level apron, then the town's slope.
    double quay = QUAY * Landform.step(0, 3, shore) + 0.055 * Math.max(0, shore - 34) + hills;
    return wild + (quay - wild) * front;
  }
}
