package sharpkestrel.objects;

/** Which neighbours of a pixel make pairs with it; the other four make the same pairs the other way round. */
public enum PairDirections {
  ALL(1, 0, 0, 1, 1, 1, -1, 1),
  ACROSS(1, 0),
  DOWN(0, 1),
  FALLING(1, 1),
  RISING(-1, 1);

  private final int[] steps;

  PairDirections(int... steps) {
    this.steps = steps;
  }

  /** Columns and rows to each neighbour in turn. */
  int[] steps() {
    return steps;
  }
}
