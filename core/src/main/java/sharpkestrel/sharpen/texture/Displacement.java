package sharpkestrel.sharpen.texture;

/** From one pixel of a pair to the other, columns to the right and rows down. */
public record Displacement(int right, int down) {

  /** Each pixel with itself. */
  static final Displacement NONE = new Displacement(0, 0);
}
