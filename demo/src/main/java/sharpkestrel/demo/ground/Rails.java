package sharpkestrel.demo.ground;

import java.util.ArrayList;
import java.util.List;
import sharpkestrel.demo.noise.Chance;
import sharpkestrel.raster.Extent;

/** A railway of two tracks that winds through a region by its origin. */
final class Rails {

  private static final double STEP = 30;
  private static final double APART = 4.6;

  private final Ground ground;
  private final double east;
  private final double north;

  /**
   * @param east of the region's origin
   */
  Rails(Ground ground, double east, double north) {
    this.ground = ground;
    this.east = east;
    this.north = north;
  }

  void lay() {
    Chance chance = Chance.of(ground.seed(), 39);
    double course = chance.between(0, Math.PI);
    double aside = chance.between(-130, 130);
    double sway = chance.between(60, 160);
    double phase = chance.between(0, 6);
    Extent box = ground.extent().grown(2 * STEP);
    double reach = Math.hypot(box.width(), box.height())
        + Math.hypot(box.west() + box.width() / 2 - east, box.south() + box.height() / 2 - north);
    long far = (long) Math.ceil(reach / STEP);
    for (double track : new double[] {-APART / 2, APART / 2}) {
      List<Double> line = new ArrayList<>();
      for (long k = -far; k <= far; k++) {
        double u = k * STEP;
        double v = aside + sway * Math.sin(u / 620 + phase) + track;
        double e = east + u * Math.cos(course) - v * Math.sin(course);
        double n = north + u * Math.sin(course) + v * Math.cos(course);
        if (box.holds(e, n)) {
          line.add(e);
          line.add(n);
        } else {
          lay(line);
          line.clear();
        }
      }
      lay(line);
    }
  }

  private void lay(List<Double> line) {
    if (line.size() > 2) {
      double[] way = line.stream().mapToDouble(at -> at).toArray();
      ground.roads().add(new Road(Road.Kind.RAIL, way));
    }
  }
}
