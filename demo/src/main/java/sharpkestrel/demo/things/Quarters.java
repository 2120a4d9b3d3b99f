package sharpkestrel.demo.things;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.ground.Polygons;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** Builds on the parcels of a region inland, each by its use: rows of houses, plots, works. */
final class Quarters {

  private static final double PAVEMENT = 1.6;

  private final Ground ground;
  private final Rows rows;
  private final Plots plots;
  private final Works works;
  private final List<Bays> bays = new ArrayList<>();

  Quarters(Ground ground, Things things, Taste taste) {
    this.ground = ground;
    Fittings fittings = new Fittings(ground, things, taste);
    rows = new Rows(ground, things, taste, fittings);
    plots = new Plots(ground, things, taste, fittings, bays);
    works = new Works(ground, things, taste, fittings, bays);
  }

  List<Bays> bays() {
    return bays;
  }

  void settle(Extent extent) {
    for (Parcel parcel : ground.parcels().within(extent)) {
      double[] middle = Polygons.middle(parcel.ring());
      if (!parcel.use().built() || !extent.grown(150).holds(middle[0], middle[1])) {
        continue;
      }
      Chance chance =
          Chance.of(ground.seed(), 45, Math.round(middle[0] * 10), Math.round(middle[1] * 10));
      double[] ring = besideStreets(parcel.ring());
      if (ring.length == 0 || Polygons.area(ring) < 120) {
        continue;
      }
      switch (parcel.use()) {
        case ROWS -> rows.build(ring, chance);
        case YARDS -> plots.walled(ring, chance);
        case HOUSES -> plots.gardens(ring, chance);
        case WORKS -> works.halls(ring, chance);
        default -> works.steading(ring, chance);
      }
    }
  }

  /** A parcel less half of the streets along its sides, and their pavements. */
  private double[] besideStreets(double[] ring) {
    double[] by = new double[ring.length / 2];
    for (int i = 0; i < ring.length; i += 2) {
      int j = (i + 2) % ring.length;
      double beyond = 0;
      for (double t : new double[] {0.25, 0.5, 0.75}) {
        beyond = Math.min(
            beyond,
            ground
                .roads()
                .beyondEdge(
                    ring[i] + t * (ring[j] - ring[i]),
                    ring[i + 1] + t * (ring[j + 1] - ring[i + 1])));
      }
      by[i / 2] = beyond < 0 ? PAVEMENT - beyond : 0.4;
    }
    return Polygons.inset(ring, by);
  }
}
