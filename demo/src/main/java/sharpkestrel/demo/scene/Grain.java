package sharpkestrel.demo.scene;

import sharpkestrel.demo.noise.Noise;

/** Normal deviates fixed to the ground: one for each small square, repeating after {@value #SIDE} of them, shifted. */
final class Grain {

  private static final int SIDE = 512;
  private final float[] table = new float[SIDE * SIDE];

  Grain(long seed) {
    Noise fine = new Noise(seed);
    for (int y = 0; y < SIDE; y++) {
      for (int x = 0; x < SIDE; x++) {
        table[y * SIDE + x] = (float) Math.max(-2.5, Math.min(2.5, fine.gaussianAt(x, y)));
      }
    }
  }

  /** The deviate of the square of {@code size} metres at a place. */
  double at(double e, double n, double size) {
    long x = (long) Math.floor(e / size);
    long y = (long) Math.floor(n / size);
    int px = (int) (x + 37 * (y >> 9) & SIDE - 1);
    int py = (int) (y + 91 * (x >> 9) & SIDE - 1);
    return table[py * SIDE + px];
  }
}
