package sharpkestrel.geo;

import sharpkestrel.raster.Grid;

/**
 * How large a pixel is on the ground in each part of a grid, against the one in its middle: projections stretch some parts more
 * than others. Worked out at nodes and taken as linear between them.
 */
public final class LocalArea {

  private static final int NODES = 9;

  /** Share of an area that is left out of account. */
  private static final double SMALL = 5e-5;

  private final Grid grid;
  private final double[] share = new double[NODES * NODES];
  private final boolean even;

  private LocalArea(Grid grid) {
    this.grid = grid;
    double middle = GroundSize.of(grid).area();
    double most = 0;
    for (int i = 0; i < share.length; i++) {
      double col = grid.width() * (double) (i % NODES) / (NODES - 1);
      double row = grid.height() * (double) (i / NODES) / (NODES - 1);
      share[i] = GroundSize.at(grid, col, row).area() / middle;
      most = Math.max(most, Math.abs(share[i] - 1));
    }
    even = !grid.crs().isKnown() || most < SMALL;
  }

  public static LocalArea of(Grid grid) {
    return new LocalArea(grid);
  }

  /** Whether pixels are of one size all over, to what counts. */
  public boolean isEven() {
    return even;
  }

  /** The area of the pixel at a place, by that of the middle one. */
  public double at(double col, double row) {
    if (even) {
      return 1;
    }
    double x = Math.max(0, Math.min(NODES - 1, col / grid.width() * (NODES - 1)));
    double y = Math.max(0, Math.min(NODES - 1, row / grid.height() * (NODES - 1)));
    int i = Math.min(NODES - 2, (int) x);
    int j = Math.min(NODES - 2, (int) y);
    double u = x - i;
    double v = y - j;
    int k = j * NODES + i;
    return (1 - v) * ((1 - u) * share[k] + u * share[k + 1])
        + v * ((1 - u) * share[k + NODES] + u * share[k + NODES + 1]);
  }
}
