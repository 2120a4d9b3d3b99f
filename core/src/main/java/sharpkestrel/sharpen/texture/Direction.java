package sharpkestrel.sharpen.texture;

import java.util.List;

/** The direction in which pairs of pixels lie, or what is taken of the four. */
public enum Direction {
  EAST,
  NORTH_EAST,
  NORTH,
  NORTH_WEST,
  MEAN,
  MIN,
  MAX,
  RANGE;

  /** Displacements by so many pixels. */
  List<Displacement> displacements(int pixels) {
    List<Displacement> four = List.of(
        new Displacement(pixels, 0),
        new Displacement(pixels, -pixels),
        new Displacement(0, -pixels),
        new Displacement(-pixels, -pixels));
    return ordinal() < 4 ? List.of(four.get(ordinal())) : four;
  }

  /** Takes another direction's values into those so far. */
  void combine(float[] soFar, float[] lowest, float[] more) {
    for (int i = 0; i < more.length; i++) {
      switch (this) {
        case MIN -> soFar[i] = Math.min(soFar[i], more[i]);
        case MAX -> soFar[i] = Math.max(soFar[i], more[i]);
        case RANGE -> {
          lowest[i] = Math.min(lowest[i], more[i]);
          soFar[i] = Math.max(soFar[i], more[i]);
        }
        default -> soFar[i] += more[i];
      }
    }
  }
}
