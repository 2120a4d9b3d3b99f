package sharpkestrel.raster;

/** How a raster's reduced levels relate to its full one. */
public enum Zoom {
  /** Each pixel depends on the same pixel of the inputs: a reduced level shows what the full one would. */
  POINTWISE,
  /** Resampled from the inputs: a reduced level shows what the full one would, up to interpolation. */
  RESAMPLING,
  /** Depends on neighbourhoods in pixels: a reduced level is a preview only, and must be shown as one. */
  FULL_RESOLUTION;

  /** The zoom behaviour of a step with this behaviour over an input with the other. */
  public Zoom over(Zoom input) {
    return ordinal() >= input.ordinal() ? this : input;
  }
}
